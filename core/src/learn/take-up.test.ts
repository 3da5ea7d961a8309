import { coffeesWithChange } from './take-up';

/** Larger settings are coarser on it. */
const GRINDER = {
  id: 'g',
  name: 'Grinder',
  points: [
    { band: 20, setting: 30 },
    { band: 80, setting: 6 },
  ],
};
const COFFEES = [
  {
    name: 'Saltmarsh',
    grindOffsets: { g: -1 },
    recipeChanges: { 'cone-thirds': { grindBy: { g: 1, h: 2 }, waterByC: 1 } },
  },
  { name: 'Ebb' },
];
const of = { coffee: 'Saltmarsh', recipeId: 'cone-thirds' };

test('a change comes on top of what is kept for that coffee with that recipe, and nothing else moves', () => {
  const coarser = coffeesWithChange(
    COFFEES,
    of,
    { what: 'grind', stepsCoarser: 1.5, expect: null },
    GRINDER,
  )!;
  expect(coarser).toEqual([
    { ...COFFEES[0], recipeChanges: { 'cone-thirds': { grindBy: { g: 2.5, h: 2 }, waterByC: 1 } } },
    COFFEES[1],
  ]);
  const hotter = coffeesWithChange(COFFEES, of, { what: 'temperature', byC: 2 }, undefined)!;
  expect(hotter[0]!.recipeChanges!['cone-thirds']).toMatchObject({ waterByC: 3 });
  const stronger = coffeesWithChange(
    COFFEES,
    { ...of, coffee: 'Ebb' },
    { what: 'ratio', by: -0.5 },
    GRINDER,
  )!;
  expect(stronger[1]).toEqual({ name: 'Ebb', recipeChanges: { 'cone-thirds': { ratioBy: -0.5 } } });
});

test('a grinder whose settings fall as it gets coarser is turned the other way', () => {
  const other = {
    ...GRINDER,
    points: GRINDER.points.map(({ band, setting }) => ({ band, setting: 40 - setting })),
  };
  const changed = coffeesWithChange(COFFEES, of, { what: 'grind', stepsCoarser: 1, expect: null }, other)!;
  expect(changed[0]!.recipeChanges!['cone-thirds']!.grindBy).toEqual({ g: 0, h: 2 });
});

test('what the bench cannot keep is null: another coffee, no grinder, or work of the hands', () => {
  const grind = { what: 'grind', stepsCoarser: 1, expect: null } as const;
  expect(coffeesWithChange(COFFEES, { ...of, coffee: 'Gone' }, grind, GRINDER)).toBeNull();
  expect(coffeesWithChange(COFFEES, of, grind, undefined)).toBeNull();
  expect(coffeesWithChange(COFFEES, of, { what: 'by-hand', words: 'Swirl.' }, GRINDER)).toBeNull();
});
