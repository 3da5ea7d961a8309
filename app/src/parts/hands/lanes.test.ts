/** The rail's lanes, from real moments of the made-up bar with real plans. */
import { holdsStation, nextBrewId, reduce, timelineAt } from '@even-kettle/core/brew';
import { lanternPier, shiftUpTo } from '@even-kettle/core/demo';
import { buildProblem, solve, type Plan } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { lanesOf } from './lanes';

const book = bookOf(SCHOOLS);
const T0 = Date.UTC(2026, 0, 5, 8);

const bar = lanternPier(T0);
let ids = 0;
const { events } = shiftUpTo(T0, () => `l${(ids += 1)}`, bar);

function scene(nowMs: number) {
  const { state } = reduce(
    events.filter(({ atMs }) => atMs <= nowMs),
    book,
  );
  const { problem } = buildProblem(state, bar, book, Math.ceil(nowMs / 1000));
  const plan: Plan = solve(problem, { moves: 20 });
  return { nowMs, bar, state, plan, lanes: lanesOf(state, bar, book, plan, nowMs) };
}
// Within one minute other steps are under way.
const SCENES = [82_000, 41_000, 0].map((agoMs) => scene(T0 - agoMs));

test('every station has its lane, in the bench’s order; each brew that runs is on its own, each that is planned on one of its kind', () => {
  let planned = 0;
  for (const { bar, state, plan, lanes } of SCENES) {
    expect(lanes.map(({ id, name }) => [id, name])).toEqual(bar.stations.map(({ id, name }) => [id, name]));
    const laneOf = new Map(lanes.flatMap(({ id, stretches }) => stretches.map(({ key }) => [key, id])));
    const drawn = lanes.flatMap(({ stretches }) => stretches.map(({ key }) => key));
    expect(new Set(drawn).size).toBe(drawn.length);
    for (const brew of Object.values(state.brews).filter(holdsStation))
      expect([brew.id, laneOf.get(brew.id)]).toEqual([brew.id, brew.stationId]);
    for (const order of Object.values(state.orders))
      for (const cup of order.cups.filter(({ status }) => status === 'waiting')) {
        const id = nextBrewId(cup);
        if (!Object.keys(plan.starts).some((key) => key.startsWith(`${id}/`))) continue;
        planned += 1;
        expect([id, laneOf.has(id)]).toEqual([id, true]);
      }
  }
  expect(planned).toBeGreaterThan(5);
});

test('a lane is read from left to right: steps follow one another, and what is planned stands where the plan has it', () => {
  for (const { nowMs, state, plan, lanes } of SCENES)
    for (const { key, badge, orderId, spans } of lanes.flatMap(({ stretches }) => stretches)) {
      expect(badge).toBe(state.orders[orderId]!.badge);
      spans.forEach(({ fromMs, toMs }, n) => {
        expect(toMs).toBeGreaterThanOrEqual(fromMs);
        if (n > 0) expect(fromMs).toBeGreaterThanOrEqual(spans[n - 1]!.fromMs);
      });
      const brew = state.brews[key];
      if (brew) {
        const times = timelineAt(brew, nowMs).filter(({ status }) => status !== 'skipped');
        expect(spans.map(({ attended }) => attended)).toEqual(times.map(({ step }) => step.attended));
        // What is done stands at its real time, whatever any plan says.
        times.forEach(({ status, startMs }, n) => {
          if (status === 'done') expect(spans[n]!.fromMs).toBe(startMs);
        });
      } else {
        const starts = Object.entries(plan.starts)
          .filter(([step]) => step.startsWith(`${key}/`))
          .map(([, at]) => at * 1000);
        expect(spans.map(({ fromMs }) => fromMs)).toEqual(starts);
      }
    }
});

test('attended steps of one pair of hands do not lie over each other on the lanes', () => {
  for (const { bar, nowMs, lanes } of SCENES) {
    const spans = lanes
      .flatMap(({ stretches }) => stretches.flatMap((stretch) => stretch.spans))
      .filter(({ attended, fromMs, toMs }) => attended && fromMs > nowMs && toMs > fromMs);
    for (const { fromMs } of spans) {
      const at = spans.filter((other) => other.fromMs <= fromMs && fromMs < other.toMs);
      expect(at.length).toBeLessThanOrEqual(bar.hands);
    }
  }
});
