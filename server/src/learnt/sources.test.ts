import { SCHOOLS, areBrewedAlike, everyVersion } from '@even-kettle/core/recipe';
import { ofOneKind } from './sources';

const brew = (n: number, recipeVersion: number, grinderId: string | null) => ({
  n,
  recipeVersion,
  grinderId,
});
const numbers = (brews: ReturnType<typeof brew>[], alike: (number | null)[] = []) =>
  ofOneKind(
    brews,
    (each) => each,
    (version) => new Set([version, ...alike]),
  ).map(({ n }) => n);

test('versions that pour, heat and grind alike teach the same, whatever their preparation and words', () => {
  expect(numbers([brew(1, 1, 'a'), brew(2, 2, 'a'), brew(3, 3, 'a')], [1, 2])).toEqual([1, 2, 3]);
  const thirds = everyVersion([]).filter(({ id }) => id === 'cone-thirds');
  expect(thirds.map(({ version }) => version)).toEqual([1, 2]);
  const [first, second] = thirds as [(typeof thirds)[0], (typeof thirds)[0]];
  expect(areBrewedAlike(first, second)).toBe(true);
  for (const other of [{ ratio: 15 }, { grindBand: 60 }, { waterC: 90 }, { filter: 'metal' }])
    expect(areBrewedAlike(first, { ...second, ...other })).toBe(false);
  const poured = second.steps.map((step) =>
    step.pour?.paths ? { ...step, pour: { ...step.pour, paths: [{ path: 'edge' as const }] } } : step,
  );
  // Where the water goes counts where both say it.
  expect(areBrewedAlike(second, { ...second, steps: poured as typeof second.steps })).toBe(false);
  expect(areBrewedAlike(first, { ...second, steps: poured as typeof second.steps })).toBe(true);
  for (const school of SCHOOLS)
    expect(areBrewedAlike(school, { ...school, why: 'else', version: 9 })).toBe(true);
});

test('after another grinder, or another version of the recipe, brews are learnt from anew', () => {
  const old = [brew(1, 1, 'a'), brew(2, 1, 'a')];
  expect(numbers([...old, brew(3, 1, 'b'), brew(4, 1, 'b')])).toEqual([3, 4]);
  expect(numbers([...old, brew(3, 2, 'a')])).toEqual([3]);
  expect(numbers(old)).toEqual([1, 2]);
  expect(numbers([])).toEqual([]);
});

test('a brew of which nobody knows what ground it counts only where there has been one grinder', () => {
  expect(numbers([brew(1, 1, null), brew(2, 1, 'a'), brew(3, 1, null)])).toEqual([1, 2, 3]);
  expect(numbers([brew(1, 1, 'a'), brew(2, 1, null), brew(3, 1, 'b')])).toEqual([3]);
  expect(numbers([brew(1, 1, null), brew(2, 1, null)])).toEqual([1, 2]);
});
