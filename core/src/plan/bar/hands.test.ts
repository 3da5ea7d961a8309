/** Two people on one bar: a new plan takes no step out of the hands that have it, or are about to. */
import { lanternPier, shiftUpTo } from '../../demo';
import { apply, reduce, type BarEvent, type BarState } from '../../brew';
import { BENCH, T0, begun, book, counter, cup, done, order, started } from '../../testing/bench';
import { agenda, type AgendaItem } from './agenda';
import { buildProblem } from './build';
import { checkPlan, type PlanProblem, PROBLEM_FORMAT, solve } from '../solver';
import { pairOf } from './hands';
import { inHandOf } from './in-hand';

const bar = lanternPier(T0);
const seconds = (ms: number) => Math.ceil(ms / 1000);

test('what has begun or is due on a pair’s card stays with it, whatever comes: an order, a late hand, a better plan', () => {
  let looked = 0;
  for (let scene = 0; scene < 3; scene += 1) {
    const atMs = T0 + scene * 37_000;
    let state: BarState = shiftUpTo(atMs, counter(`s${scene}-`), lanternPier(atMs)).state;
    const first = buildProblem(state, bar, book, seconds(atMs));
    const before = solve(first.problem, { moves: 60 });
    for (const laterS of [1, 12, 40]) {
      const nowMs = atMs + laterS * 1000;
      const owners = agenda(state, bar, book, before, nowMs)
        .filter(({ begunMs, asks, dueMs }) => begunMs !== null || (asks !== 'cue' && dueMs <= nowMs))
        .map((item) => ({ key: item.key, pair: pairOf(item, before) }));
      const ordered = apply(
        state,
        order(`new-${scene}-${laterS}`, (nowMs - T0) / 1000, cup(`n${scene}-${laterS}`)),
        book,
      );
      if (!ordered.ok) throw new Error(ordered.refusal.reason);
      state = ordered.state;
      const { problem } = buildProblem(state, bar, book, seconds(nowMs), before);
      const after = solve(problem, { moves: 40, seed: laterS, before });
      for (const { key, pair } of owners) {
        if (!(key in (problem.started ?? {})) || key in (problem.ended ?? {})) continue;
        looked += 1;
        expect([scene, laterS, key, after.hands[key]]).toEqual([scene, laterS, key, pair]);
      }
    }
  }
  expect(looked).toBeGreaterThan(5);
});

test('a step that its pair began before its last one was said to be over stays with that pair', () => {
  const step = (id: string, duration: number, serve?: true) => ({
    id,
    attended: true,
    duration,
    lag: { min: 0, ideal: 0, max: null, penalty: 0.1 },
    ...(serve ? { serve } : {}),
  });
  const problem: PlanProblem = {
    format: PROBLEM_FORMAT,
    now: 140,
    hands: 2,
    tools: {},
    orders: ['a', 'b'].map((id) => ({
      id,
      placedAt: 0,
      dueAt: 600,
      weight: 1,
      serveWithin: 60,
      brews: [id],
    })),
    brews: [
      { id: 'a', orders: ['a'], steps: [step('s1', 30), step('s2', 20, true)], holds: [] },
      { id: 'b', orders: ['b'], steps: [step('t1', 60), step('t2', 20, true)], holds: [] },
    ],
    // The first pair said that it was done at 130, and had begun the next at 120.
    started: { 'a/s1': 100, 'b/t1': 120 },
    ended: { 'a/s1': 130 },
    frozen: {},
  };
  const before = { ...solve(problem), hands: { 'a/s1': 0, 'a/s2': 1, 'b/t1': 0, 'b/t2': 0 } };
  const after = solve(problem, { before });
  expect([after.hands['a/s1'], after.hands['b/t1']]).toEqual([0, 0]);
  expect(checkPlan(problem, after)).toEqual([]);
  // Nobody is given two steps at once, whatever an older plan says.
  const both = solve({ ...problem, ended: {} }, { before });
  expect(both.hands['a/s1']).not.toBe(both.hands['b/t1']);
});

/** Steps of two cups whose brews run, due and spoilt at the times that a test says. */
function spoiling(): (key: string, dueS: number, latestS: number) => AgendaItem {
  const running = (id: string, n: number) => [
    order(id, n, cup(`${id}1`)),
    started(`${id}1`, id, `cone-${n + 1}`, n),
    done(`${id}1.1`, 'fill', 12 + n),
  ];
  const state = reduce([...running('A', 0), ...running('B', 1)], book).state;
  const plan = solve(buildProblem(state, BENCH, book, T0 / 1000 + 20).problem);
  const items = agenda(state, BENCH, book, plan, T0 + 20_000);
  return (key, dueS, latestS) => ({
    ...items.find((item) => item.key === key)!,
    dueMs: T0 + dueS * 1000,
    fromMs: T0 + dueS * 1000,
    latestMs: T0 + latestS * 1000,
  });
}

test('of two steps that spoil, the one that was asked for when the hands came free stays asked for, however dear the other becomes', () => {
  // One cup is handed over late already; the other's water spoils at 94 s, and is dearer to leave by then.
  const step = spoiling();
  const serve = step('A1.1/serve', 74, 74);
  const filter = step('B1.1/set-filter', 80, 94);
  const at = (nowS: number) =>
    [
      [serve, filter],
      [filter, serve],
    ].map((items) => inHandOf(items, null, () => T0 + 86_000, T0 + nowS * 1000)[0]!.item.key);
  expect([86, 90, 93, 95, 99].map(at)).toEqual(Array(5).fill(['A1.1/serve', 'A1.1/serve']));
});

test('hands take up no long step, though it is due, that would make late what is due in a moment; unless it has no more room itself', () => {
  const step = spoiling();
  // Folding and rinsing takes 18 s; the pour is to begin within a second of 77 s.
  const pour = step('A1.1/pour-2', 77, 77.3);
  const asked = (filterLatestS: number, nowS: number) => {
    const filter = step('B1.1/set-filter', 72, filterLatestS);
    const [at] = inHandOf([filter, pour], null, () => T0 + 60_000, T0 + nowS * 1000);
    return [at!.item.key, at!.waits ?? false];
  };
  expect([72, 76].map((nowS) => asked(120, nowS))).toEqual(Array(2).fill(['A1.1/pour-2', true]));
  expect(asked(80, 72)).toEqual(['B1.1/set-filter', false]);
  // What was waited for is what the hands are at once it is due.
  expect(asked(120, 78)).toEqual(['A1.1/pour-2', false]);
});

test('a swirl that begins by itself is in the hands that poured, whatever the plan says', () => {
  const bloomed = reduce(
    [
      order('A', 0, cup('a1')),
      started('a1', 'A', 'cone-1', 0),
      ...[12, 24, 64, 94].map((s, n) => done('a1.1', ['fill', 'set-filter', 'weigh', 'load'][n]!, s)),
      { ...begun('a1.1', 'bloom', 100), pair: 1 } as BarEvent,
      { ...done('a1.1', 'bloom', 107), pair: 1 } as BarEvent,
    ],
    book,
  ).state;
  const bench = { ...BENCH, hands: 2 };
  const plan = { ...solve(buildProblem(bloomed, bench, book, T0 / 1000 + 108).problem) };
  const hands = Object.fromEntries(Object.keys(plan.hands).map((key) => [key, 0]));
  const [swirl, pour] = agenda(bloomed, bench, book, { ...plan, hands }, T0 + 108_000);
  expect([swirl!.key, swirl!.asks, pairOf(swirl!, { hands })]).toEqual(['a1.1/swirl-bloom', 'runs', 1]);
  expect([pour!.key, pairOf(pour!, { hands })]).toEqual(['a1.1/pour-2', 0]);
  const { problem } = buildProblem(bloomed, bench, book, T0 / 1000 + 108, { ...plan, hands });
  expect(solve(problem, { before: plan }).hands['a1.1/swirl-bloom']).toBe(1);
});
