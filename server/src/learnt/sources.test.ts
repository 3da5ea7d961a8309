import { ofOneKind } from './sources';

const brew = (n: number, recipeVersion: number, grinderId: string | null) => ({
  n,
  recipeVersion,
  grinderId,
});
const numbers = (brews: ReturnType<typeof brew>[]) => ofOneKind(brews, (each) => each).map(({ n }) => n);

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
