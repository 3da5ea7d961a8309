/** Like work of several brews, with real cards: it is planned together, done together, and planned again in the midst of it. */
import { BENCH, T0, book, counter, cup, order } from '../testing/bench';
import { simulatedClock } from '../testing/clock';
import { EMPTY_BAR, apply, type BarEvent, type BarState } from '../brew';
import { buildProblem, checkPlan, seededRandom, solve, type Bench, type Plan } from '../plan';
import { BUSY_PEOPLE, workRush } from './people';

const CONES = [1, 2, 3, 4].map((n) => ({ id: `cone-${n}`, name: `Cone ${n}`, brewerId: 'cone-m' }));
const bench: Bench = {
  ...BENCH,
  stations: CONES,
  grinders: [...BENCH.grinders, { ...BENCH.grinders[0]!, id: 'second' }],
  kettles: CONES.map(({ id }) => ({ id: `kettle-${id}`, name: id, powerW: 1200, sizeMl: 1200 })),
  hands: 2,
  batches: true,
};
const ORDERS = 5;

/** A boat of guests in pairs, for two pairs of hands, worked off by the plan. */
async function boatOn(own: Bench, seed: number) {
  let state: BarState = EMPTY_BAR;
  let plan: Plan | null = null;
  const clock = simulatedClock(T0);
  const told: BarEvent[] = [];
  const seen = { planned: 0, begun: 0 };
  const { sparedMs, refused } = await workRush(
    {
      ...clock,
      state: () => state,
      plan: () => plan,
      tell: (events) => {
        for (const event of events) {
          const applied = apply(state, event, book);
          if (!applied.ok) return Promise.resolve(false);
          state = applied.state;
          told.push(event);
        }
        const { problem } = buildProblem(
          state,
          own,
          book,
          Math.ceil(clock.nowMs() / 1000),
          plan ?? undefined,
        );
        plan = problem.brews.length > 0 ? solve(problem, { moves: 0, before: plan ?? undefined }) : null;
        if (plan) expect(checkPlan(problem, plan)).toEqual([]);
        seen.planned += plan?.batches?.length ?? 0;
        seen.begun += problem.startedBatches?.length ?? 0;
        for (const keys of problem.startedBatches ?? []) expect(plan!.batches).toContainEqual(keys);
        return Promise.resolve(true);
      },
    },
    {
      bench: own,
      book,
      orders: Array.from({ length: ORDERS }, (_, n) => order(`o${n}`, 20 * n, cup(`a${n}`), cup(`b${n}`))),
      random: seededRandom(seed),
      newId: counter(`s${seed}-`),
      manners: BUSY_PEOPLE,
      untilMs: T0 + 3600_000,
    },
  );
  const brews = Object.values(state.brews);
  const handS = brews
    .flatMap(({ card }) => card.steps)
    .reduce((sum, step) => sum + (step.attended ? step.durationS : 0), 0);
  return { state, told, seen, refused, sparedMs, handS };
}

test('two pairs of hands work off a boat: like steps are over at one moment, and hands are spared', async () => {
  const { state, told, seen, refused, sparedMs, handS } = await boatOn(bench, 4);
  expect(refused).toBe(0);
  expect(Object.values(state.brews).map(({ status }) => status)).toEqual(Array(2 * ORDERS).fill('cleaned'));
  expect(seen.planned).toBeGreaterThan(0);
  expect(seen.begun).toBeGreaterThan(0);
  const together = new Map<string, number>();
  for (const event of told)
    if (event.type === 'step-done')
      together.set(`${event.stepId} ${event.atMs}`, (together.get(`${event.stepId} ${event.atMs}`) ?? 0) + 1);
  const batches = [...together].filter(([, count]) => count > 1);
  expect(batches.length).toBeGreaterThan(0);
  expect(batches.every(([step]) => /^(weigh|set-filter|clean) /.test(step))).toBe(true);
  console.log(`${batches.length} batches spare ${Math.round(sparedMs / 1000)} s of ${handS} s in the hands`);
  expect(sparedMs / 1000).toBeGreaterThan(4);
});
