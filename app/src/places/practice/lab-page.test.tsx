/** The lab's words and its table, from shifts that were really simulated. */
import {
  changesOf,
  labFigures,
  liveLabShift,
  variantOf,
  type LabShift,
  type LabVariant,
} from '@even-kettle/core/practice';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { csvOf, foundInWords } from './lab-page';
import { LAB_BAR as bar, LAB_MENU as menu } from '../../testing/lab';
import { boatsEvery } from './lab-guests';
import { differenceInWords, rowsOf } from './lab-results';

jest.mock('expo-router', () => ({ router: { navigate: () => undefined } }));

const one: LabVariant = {
  ...variantOf(bar, menu, { cupsAnHour: 8, curve: boatsEvery(15) }, 'As it is'),
  hands: 1,
};
const two: LabVariant = { ...one, id: 'b', name: 'Two, "quick"', hands: 2 };
const live = async (variant: LabVariant, seeds: number[]) => {
  const shifts: LabShift[] = [];
  for (const seed of seeds) shifts.push(await liveLabShift(bar, variant, bookOf(SCHOOLS), seed));
  return shifts;
};

test('two variants of an hour are compared by the same guests, in words and as a table', async () => {
  const rows = rowsOf([one, two], {
    [one.id]: await live(one, [1, 2, 3]),
    [two.id]: await live(two, [1, 2, 3]),
  });
  expect(rows.map(({ letter, figures }) => [letter, figures.shifts])).toEqual([
    ['A', 3],
    ['B', 3],
  ]);
  expect(rows[1]!.figures.meanS).toBeLessThan(rows[0]!.figures.meanS);
  expect(differenceInWords(rows[1]!, rows[0]!)).toMatch(
    /^B against A: (waits are \d+:\d\d ± \d+:\d\d shorter|no sure difference)/,
  );
  expect(differenceInWords({ ...rows[1]!, shifts: rows[1]!.shifts.slice(0, 1) }, rows[0]!)).toMatch(
    /one shift says nothing/,
  );
  const lines = csvOf(rows).trim().split('\r\n');
  expect(lines).toHaveLength(7);
  expect(lines[0]).toMatch(/^variant,seed,orders,cups,/);
  expect(lines[4]).toMatch(/^"Two, ""quick""",1,\d+,8,/);
  // A variant that nothing was simulated of has no line.
  expect(rowsOf([one, two], { [one.id]: rows[0]!.shifts })).toHaveLength(1);
});

test('the cheapest change that does is named; where none does, the one that helps most', async () => {
  const [ahead] = changesOf(one);
  const station = changesOf(one).find(({ brewerId }) => brewerId === 'cone-m')!;
  expect(foundInWords({ change: ahead!, best: ahead!, shortShare: 0.93 }, bar)).toMatch(
    /under eight minutes: weigh doses into tins ahead\. 93 %/,
  );
  expect(foundInWords({ change: null, best: station, shortShare: 0.5 }, bar)).toMatch(
    /helps most is to add one more Cone M: 50 %/,
  );
  expect(foundInWords({ change: null, best: null, shortShare: 0 }, bar)).toMatch(/^None of these changes/);
  expect(labFigures(await live(ahead!.variant, [1])).shifts).toBe(1);
});
