/** A whole shift by the bar's own rules: what the agenda says, done one thing at a time, brings every cup out. */
import { BENCH, T0, book, counter, cup, order } from '../testing/bench';
import { reduce, timelineAt } from '../brew';
import { buildProblem, agenda, checkPlan, solve } from '../plan';
import { liveShift, seededRandom } from './index';

const orders = [
  order('A', 0, cup('a1'), cup('a2', 'press-long')),
  order('B', 60, cup('b1', 'cone-steady')),
  order('C', 90, cup('c1'), cup('c2', 'cone-steady', 220)),
  order('D', 400, cup('d1', 'press-long', 230)),
];
const shift = liveShift({
  bench: BENCH,
  book,
  orders,
  fromMs: T0,
  untilMs: T0 + 3600_000,
  newId: counter(),
  random: seededRandom(7),
});
const endMs = T0 + 3600_000;

test('every cup is served, and the log gives the same state again', () => {
  const cups = Object.values(shift.state.orders).flatMap((each) => each.cups);
  expect(cups.map(({ status }) => status)).toEqual(Array(6).fill('served'));
  expect(reduce(shift.events, book)).toEqual({ state: shift.state, refused: [] });
});

test('no two attended steps were ever done at once, and brews did overlap', () => {
  const brews = Object.values(shift.state.brews).map((brew) => timelineAt(brew, endMs));
  const attended = brews
    .flat()
    .filter(({ step }) => step.attended)
    .map(({ startMs, endMs: overMs }) => [startMs, overMs] as const);
  attended.sort((a, b) => a[0] - b[0]);
  attended
    .slice(1)
    .forEach(([startMs], index) => expect(startMs).toBeGreaterThanOrEqual(attended[index]![1] - 1500));
  const spans = brews.map((times) => [times[0]!.startMs, times.at(-1)!.endMs] as const);
  expect(
    spans.some(([from, to], i) =>
      spans.some(([otherFrom, otherTo], j) => i !== j && otherFrom < to && from < otherTo),
    ),
  ).toBe(true);
});

test('at every moment of the shift the bar’s own problem has a plan that keeps every rule', () => {
  for (let count = 1; count <= shift.events.length; count += 3) {
    const { state } = reduce(shift.events.slice(0, count), book);
    const nowMs = shift.events[count - 1]!.atMs + 700;
    const { problem, unplannable } = buildProblem(state, BENCH, book, Math.ceil(nowMs / 1000));
    const plan = solve(problem);
    expect([count, checkPlan(problem, plan), unplannable]).toEqual([count, [], []]);
    const items = agenda(state, BENCH, book, plan, nowMs);
    expect(new Set(items.map(({ key }) => key)).size).toBe(items.length);
    expect(items.filter(({ begunMs }) => begunMs !== null).length).toBeLessThanOrEqual(2);
  }
});

test('two pairs of hands: each at one step at a time, no brew in both, and all is out sooner', () => {
  const both = liveShift({
    bench: { ...BENCH, hands: 2 },
    book,
    orders,
    fromMs: T0,
    untilMs: endMs,
    newId: counter(),
    random: seededRandom(7),
    by: 'imre',
    bySecond: 'tavi',
  });
  const cups = Object.values(both.state.orders).flatMap((each) => each.cups);
  expect(cups.map(({ status }) => status)).toEqual(Array(6).fill('served'));
  const attended = Object.values(both.state.brews)
    .flatMap((brew) => timelineAt(brew, endMs))
    .filter(({ step }) => step.attended);
  for (const { startMs } of attended) {
    const at = attended.filter((each) => each.startMs <= startMs && startMs < each.endMs - 1500);
    expect(at.length).toBeLessThanOrEqual(2);
  }
  expect(new Set(both.events.map(({ by }) => by))).toEqual(new Set([undefined, 'imre', 'tavi']));
  const lastMs = ({ state }: typeof both) =>
    Math.max(...Object.values(state.brews).map(({ servedMs }) => servedMs ?? 0));
  expect(lastMs(both)).toBeLessThan(lastMs(shift));
});
