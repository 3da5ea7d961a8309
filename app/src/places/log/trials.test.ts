/** What a dial-in compares, and what is kept of its winner. */
import { cardFor, startEvent } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import type { CupState, OrderState, Trial } from '@even-kettle/core/brew';
import { TEST_BAR } from '../../testing/bar';
import { coffeesWithTrial, hiddenInWords, menuWith, recipeThatWon, trialInWords, trialsOf } from './trials';

const book = bookOf(SCHOOLS);
const [coffee] = TEST_BAR.coffees;
const cupOf = (trial: Trial): CupState => ({
  cupId: 'c',
  recipeId: 'cone-thirds',
  recipeVersion: SCHOOLS.find(({ id }) => id === 'cone-thirds')!.version,
  coffee: coffee!.name,
  roast: 'medium',
  cupMl: 250,
  sample: { roundId: 'r', letter: 'A', ...trial },
  status: 'waiting',
  brewIds: [],
  attempts: [],
});

/** What the card and the record of a cup say: ratio, degrees, the grinder's setting. */
function brewedWith(trial: Trial, bar = TEST_BAR) {
  const cup = cupOf(trial);
  const found = cardFor(bar, cup, book);
  if (!found.ok) throw new Error(found.reason);
  const order: OrderState = { id: 'o', badge: 0, badgeBefore: -1, takenMs: 0, cups: [cup], events: [] };
  const station = { ...found.stations[0]!, free: true };
  const start = startEvent({ brewId: 'c.1', order, cup, card: found.card, station }, bar, 0, () => 'id');
  return { ratio: found.card.ratio, waterC: found.card.waterC, setting: start.grindSetting };
}

test('three cups are less, usual and more; two are usual and more', () => {
  expect(trialsOf('grind', 3, 1)).toEqual([{ grindBy: -1 }, {}, { grindBy: 1 }]);
  expect(trialsOf('temperature', 2, 2)).toEqual([{}, { waterByC: 2 }]);
  expect(trialsOf('ratio', 3, 0.5).map((trial) => trialInWords(trial, TEST_BAR))).toEqual([
    'Ratio down by 0.5: less water on the dose',
    null,
    'Ratio up by 0.5: more water on the dose',
  ]);
  // A larger setting is coarser on this grinder.
  expect(trialInWords({ grindBy: 1 }, TEST_BAR)).toBe('1 step coarser');
});

test('each sample is brewed with its own change, on the card and in the record', () => {
  const usual = brewedWith({});
  expect(brewedWith({ grindBy: -1 }).setting).toBeCloseTo(usual.setting! - 1);
  expect(brewedWith({ waterByC: -2 }).waterC).toBeCloseTo(usual.waterC - 2);
  expect(brewedWith({ ratioBy: 0.5 }).ratio).toBeCloseTo(usual.ratio + 0.5, 1);
});

test('what wins is kept for its coffee with that recipe, on top of what was kept, and the next cup is brewed so', () => {
  const kept = coffeesWithTrial(TEST_BAR, coffee!.name, 'cone-thirds', { grindBy: -1 })!;
  const twice = coffeesWithTrial({ ...TEST_BAR, coffees: kept }, coffee!.name, 'cone-thirds', {
    grindBy: -0.5,
  })!;
  expect(twice[0]!.recipeChanges?.['cone-thirds']).toEqual({ grindBy: { g: -1.5 } });
  expect(twice.slice(1)).toEqual(TEST_BAR.coffees.slice(1));
  expect(brewedWith({}, { ...TEST_BAR, coffees: twice }).setting).toBeCloseTo(brewedWith({}).setting! - 1.5);
  expect(coffeesWithTrial(TEST_BAR, 'Nobody’s', 'cone-thirds', { waterByC: 2 })).toBeNull();
  expect(
    coffeesWithTrial({ ...TEST_BAR, grinders: [] }, coffee!.name, 'cone-thirds', { grindBy: 1 }),
  ).toBeNull();
});

test('a recipe that won takes the menu’s line of one that it was compared with; through another filter it is a recipe of its own', () => {
  expect(hiddenInWords({ recipeId: 'cone-onepour' }, TEST_BAR, SCHOOLS)).toBe('Cone: One pour, no bloom');
  const trial: Trial = { recipeId: 'hourglass-steady', filter: 'cloth' };
  expect(hiddenInWords(trial, TEST_BAR, SCHOOLS)).toBe('Hourglass: One pour, cloth filter');
  expect(recipeThatWon({ recipeId: 'cone-onepour' }, SCHOOLS)?.id).toBe('cone-onepour');
  expect(recipeThatWon({ ...trial, filter: 'thick-paper' }, SCHOOLS)?.id).toBe('hourglass-steady');
  const own = recipeThatWon(trial, SCHOOLS)!;
  expect(own).toMatchObject({
    id: 'hourglass-steady-cloth',
    name: 'One pour, cloth filter',
    version: 1,
    filter: expect.stringMatching(/cloth/),
  });
  // The next time it is there already.
  expect(recipeThatWon(trial, [...SCHOOLS, own])).toBe(own);

  const menu = [
    { id: 'l1', coffeeId: 'slack', recipeId: 'cone-thirds', sizesMl: [250] },
    { id: 'l2', coffeeId: 'saltmarsh', recipeId: 'cone-thirds', sizesMl: [200, 300] },
  ];
  const choice = { coffeeId: 'saltmarsh', recipeId: 'cone-onepour', sizeMl: 200, lineId: 'l3' };
  const compared = ['cone-thirds', 'cone-onepour'];
  expect(menuWith({ menu }, { ...choice, compared })).toEqual([
    menu[0],
    { ...menu[1], recipeId: 'cone-onepour' },
  ]);
  expect(menuWith({ menu }, { ...choice, compared: ['cone-onepour'] })).toEqual([
    ...menu,
    { id: 'l3', coffeeId: 'saltmarsh', recipeId: 'cone-onepour', sizesMl: [200] },
  ]);
  expect(menuWith({}, { ...choice, compared })).toHaveLength(1);
});

test('a cup is brewed through the filter that is compared, and its brew keeps that', () => {
  const bar = {
    ...TEST_BAR,
    stations: [...TEST_BAR.stations, { id: 'h', name: 'Hourglass', brewerId: 'hourglass-s' }],
  };
  const school = SCHOOLS.find(({ id }) => id === 'hourglass-steady')!;
  const cup = {
    ...cupOf({ recipeId: school.id, filter: 'cloth' }),
    cupMl: 300,
    recipeId: school.id,
    recipeVersion: school.version,
  };
  const found = cardFor(bar, cup, book);
  if (!found.ok) throw new Error(found.reason);
  expect(found.card.filter).toMatch(/cloth/);
  const order: OrderState = { id: 'o', badge: 0, badgeBefore: -1, takenMs: 0, cups: [cup], events: [] };
  const station = { ...found.stations[0]!, free: true };
  const start = startEvent({ brewId: 'c.1', order, cup, card: found.card, station }, bar, 0, () => 'id');
  expect(start.filter).toBe('cloth');
});
