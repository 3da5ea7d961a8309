/** Called away: the plan keeps off what would spoil meanwhile, and goes on from where the bar stands then. */
import { EMPTY_BAR, reduce, type BarEvent } from '../../brew';
import { BENCH, T0, begun, book, cup, done, order, started } from '../../testing/bench';
import { agenda, buildProblem, checkPlan, solve } from '../index';

const away = (atS: number, forS: number): BarEvent => ({
  id: `away-${atS}`,
  type: 'hands-away',
  atMs: T0 + atS * 1000,
  fromMs: T0 + atS * 1000,
  toMs: T0 + (atS + forS) * 1000,
});
const bloomed: BarEvent[] = [
  order('A', 0, cup('a1')),
  started('a1', 'A', 'cone-1', 0),
  ...[12, 24, 64, 94].map((s, n) => done('a1.1', ['fill', 'set-filter', 'weigh', 'load'][n]!, s)),
  begun('a1.1', 'bloom', 100),
  done('a1.1', 'bloom', 107),
];

test.each([1, 2])('with %d pairs nothing is begun that would spoil while one is away', (hands) => {
  const bench = { ...BENCH, hands };
  const { state, refused } = reduce(
    [...bloomed, order('B', 110, cup('b1')), away(115, 120)],
    book,
    EMPTY_BAR,
  );
  expect(refused).toEqual([]);
  const nowS = T0 / 1000 + 116;
  const { problem } = buildProblem(state, bench, book, nowS);
  const plan = solve(problem, { moves: 400 });
  expect(checkPlan(problem, plan)).toEqual([]);
  const backS = T0 / 1000 + 235;
  const items = agenda(state, bench, book, plan, nowS * 1000);
  const startOf = (key: string) => plan.starts[key]!;
  if (hands === 1) {
    // Alone: every step of the hands waits until the person is back.
    for (const { key, begunMs } of items)
      if (begunMs === null) expect([key, startOf(key) >= backS]).toEqual([key, true]);
  } else {
    // The pair that stayed goes on with the pours.
    expect(startOf('a1.1/pour-2')).toBeLessThan(backS);
  }
});

test('whoever comes back early undoes it, and the plan is as if nobody had gone', () => {
  const gone = reduce([...bloomed, away(115, 600)], book, EMPTY_BAR).state;
  const back = reduce(
    [{ id: 'back', type: 'event-undone', atMs: T0 + 130_000, eventId: 'away-115' }],
    book,
    gone,
  ).state;
  const { problem } = buildProblem(back, BENCH, book, T0 / 1000 + 131);
  expect(problem.away).toBeUndefined();
  expect(solve(problem, { moves: 200 }).starts['a1.1/pour-2']! - T0 / 1000).toBeLessThan(150);
});
