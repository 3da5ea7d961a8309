/** Which of several brews that are alike goes first. */
import { checkPlan, planCost, solve, type PlanBrew, type PlanProblem } from './index';
import { inTurn } from './alike';
import { tablesOf } from './tables';
import { timingOf } from './timing';
import { seededRandom } from '../../testing/random';

/** Pour, stand, plunge, serve. */
const brew = (id: string, order: string, pourS: number): PlanBrew => ({
  id,
  orders: [order],
  steps: [
    { id: 'pour', attended: true, duration: pourS, lag: { min: 0, ideal: 0, max: null, penalty: 0.1 } },
    { id: 'plunge', attended: true, duration: 20, lag: { min: 60, ideal: 60, max: 80, penalty: 1 } },
    {
      id: 'serve',
      attended: true,
      duration: 10,
      lag: { min: 0, ideal: 0, max: 30, penalty: 1 },
      serve: true,
    },
  ],
  holds: [{ tool: 'press', from: 'pour', to: 'serve' }],
});

/** Orders of one to three cups, of two kinds, that were taken one after the other. */
function anyRush(random: () => number): PlanProblem {
  const orders = Array.from({ length: 4 + Math.floor(random() * 4) }, (_, n) => ({
    id: `o${n}`,
    placedAt: -200 + 20 * n,
    dueAt: 100 + Math.floor(random() * 500),
    weight: [1, 1, 1.01, 4][Math.floor(random() * 4)]!,
    serveWithin: 60,
    brews: Array.from({ length: 1 + Math.floor(random() * 2.4) }, (_, cup) => `o${n}.${cup}`),
  }));
  return {
    format: 'even-kettle/plan-problem@1',
    now: 0,
    hands: 1,
    tools: { press: 2 + Math.floor(random() * 2) },
    orders,
    brews: orders.flatMap(({ id, brews }) => brews.map((each) => brew(each, id, random() < 0.7 ? 15 : 25))),
    started: {},
    ended: {},
    frozen: {},
  };
}

const swapped = (starts: Record<string, number>, one: PlanBrew, other: PlanBrew): Record<string, number> => {
  const changed = { ...starts };
  for (const { id } of one.steps) {
    changed[`${one.id}/${id}`] = starts[`${other.id}/${id}`]!;
    changed[`${other.id}/${id}`] = starts[`${one.id}/${id}`]!;
  }
  return changed;
};

test('no two brews that are alike would be cheaper in each other’s place', () => {
  const random = seededRandom(14);
  let pairs = 0;
  for (let n = 0; n < 40; n += 1) {
    const problem = anyRush(random);
    const plan = solve(problem, { moves: 10, seed: n });
    expect(checkPlan(problem, plan)).toEqual([]);
    for (const one of problem.brews)
      for (const other of problem.brews) {
        if (one.id >= other.id || one.steps[0]!.duration !== other.steps[0]!.duration) continue;
        pairs += 1;
        const { cost } = planCost(problem, { starts: swapped(plan.starts, one, other) });
        expect([n, one.id, other.id, cost >= plan.cost - 0.011]).toEqual([n, one.id, other.id, true]);
      }
  }
  expect(pairs).toBeGreaterThan(500);
});

describe('four orders alike', () => {
  const four = (change: (n: number) => Partial<PlanProblem['orders'][number]>): PlanProblem => {
    const orders = Array.from({ length: 4 }, (_, n) => ({
      id: `o${n}`,
      placedAt: -10,
      dueAt: 900,
      weight: 1.03 - n / 100,
      serveWithin: 60,
      brews: [`b${n}`],
      ...change(n),
    }));
    return { ...anyRush(seededRandom(1)), orders, brews: orders.map(({ id }, n) => brew(`b${n}`, id, 15)) };
  };
  const turn = ({ finish }: { finish: Record<string, number> }) =>
    Object.keys(finish).sort((a, b) => finish[a]! - finish[b]!);

  test('are in the turn in which they count, whatever the search began with; one that is pulled forward passes the others alone', () => {
    const standing = four(() => ({}));
    const pulled = four((n) => (n === 3 ? { weight: 4 } : {}));
    for (let seed = 1; seed <= 8; seed += 1) {
      const before = solve(standing, { moves: 10, seed });
      expect(turn(before)).toEqual(['o0', 'o1', 'o2', 'o3']);
      expect(turn(solve(pulled, { moves: 10, seed, before }))).toEqual(['o3', 'o0', 'o1', 'o2']);
    }
  });

  test('none goes before the time from which it may begin, and none gives up a start that is promised already', () => {
    const turnOf = (change: (n: number) => Partial<PlanProblem['orders'][number]>, frozen = {}) => {
      const t = tablesOf({ ...four(change), frozen });
      const start = Int32Array.from(t.keys, (_, i) => 130 * Math.floor(i / 3) + [0, 75, 95][i % 3]!);
      const best = { start, cost: timingOf(t).costOf(start) };
      const turned = inTurn(t, best);
      expect(turned.cost).toBe(timingOf(t).costOf(turned.start));
      expect(best.start).toBe(start);
      return Array.from(t.first.slice(0, 4), (i, n) => [turned.start[i]!, n])
        .sort(([a], [b]) => a! - b!)
        .map(([, n]) => n);
    };
    const heavy = (weight: number, placedAt = -10) => ({ weight, placedAt });
    expect(turnOf((n) => (n === 3 ? heavy(16) : {}))).toEqual([3, 0, 1, 2]);
    expect(turnOf((n) => (n === 3 ? heavy(16, 200) : {}))).toEqual([0, 1, 3, 2]);
    expect(turnOf((n) => (n === 3 ? heavy(16) : {}), { 'b0/pour': 0 })).toEqual([0, 3, 1, 2]);
  });
});
