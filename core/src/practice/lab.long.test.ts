/** The rush lab: differences are found, and more hands or tools never make it worse. */
import { book } from '../testing/bench';
import { bar, base } from '../testing/lab';
import { changesOf, type LabVariant } from './lab';
import { CAREFULLY, liveLabShift, type LabCare, type LabShift } from './lab-shift';
import { differenceOf, isSure, labFigures, meanWaitS } from './lab-figures';

/** Enough to tell; `npm run bench -- lab` lives twenty of each. */
const SEEDS = 14;

const lived = new Map<string, Promise<LabShift[]>>();
/** Shifts are the same for the same variant and seed, so that tests share them. */
function shifts(variant: LabVariant, seeds: number, care?: LabCare): Promise<LabShift[]> {
  const key = JSON.stringify([variant, seeds, care]);
  const known = lived.get(key);
  if (known) return known;
  const all = (async () => {
    const list: LabShift[] = [];
    for (let seed = 1; seed <= seeds; seed += 1)
      list.push(await liveLabShift(bar, variant, book, seed, care && (() => care)));
    return list;
  })();
  lived.set(key, all);
  return all;
}

test('two variants that differ by 5 % in how quick their hands are, are told apart', async () => {
  const usual = await shifts(base(), SEEDS);
  const slower = await shifts({ ...base(), paceBy: 1.05 }, SEEDS);
  const difference = differenceOf(slower, usual, meanWaitS)!;
  console.log(
    `hands 5 % slower: ${difference.by.toFixed(0)} s ± ${difference.give.toFixed(0)} s on a mean wait of ${labFigures(usual).meanS.toFixed(0)} s, ${SEEDS} paired shifts`,
  );
  expect(isSure(difference)).toBe(true);
  expect(difference.by).toBeGreaterThan(0);
  expect(isSure(differenceOf(usual, usual, meanWaitS)!)).toBe(false);
});

test('more hands or tools never make the mean wait longer beyond chance', async () => {
  const usual = await shifts(base(), SEEDS);
  const more = changesOf(base()).filter(
    ({ what, brewerId, andHabits }) =>
      !andHabits && (what === 'hands' || what === 'kettle' || brewerId === 'press-350'),
  );
  expect(more).toHaveLength(3);
  for (const { what, brewerId, variant } of more) {
    const difference = differenceOf(await shifts(variant, 6), usual.slice(0, 6), meanWaitS)!;
    console.log(
      `one more ${brewerId ?? what}: ${difference.by.toFixed(0)} s ± ${difference.give.toFixed(0)} s`,
    );
    expect(difference.by - difference.give).toBeLessThan(1);
  }
  const second = differenceOf(await shifts({ ...base(), hands: 2 }, 5), usual, meanWaitS)!;
  expect(second.by + second.give).toBeLessThan(-60);
});

test('work done ahead saves its seconds, and a short menu its slow lines', async () => {
  const usual = await shifts(base(), SEEDS);
  const ahead = await shifts({ ...base(), ahead: true }, 5);
  // Hands that weigh nothing are busy for less of the time; so few shifts do not tell it by the wait.
  expect(differenceOf(ahead, usual, ({ handsBusy }) => handsBusy)!.by).toBeLessThan(-0.005);
  const offered = await liveLabShift(bar, { ...base(), shortMenu: true }, book, 1);
  expect(offered.cups).toBe(10);
});

test('planned less often than a real bar is, a shift comes to the same within chance', async () => {
  const quick = await shifts(base(8), 3);
  const careful = await shifts(base(8), 3, CAREFULLY);
  const difference = differenceOf(quick, careful, meanWaitS)!;
  console.log(
    `quickly less carefully: ${difference.by.toFixed(0)} s ± ${difference.give.toFixed(0)} s on ${labFigures(careful).meanS.toFixed(0)} s`,
  );
  expect(Math.abs(difference.by)).toBeLessThan(0.12 * labFigures(careful).meanS);
});
