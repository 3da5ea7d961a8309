/**
 * A bar that nothing spares: steps early and late, brews given up, orders that come in, brewers that break, people who
 * leave. After each event it is planned anew, and the plan keeps every rule.
 */
import { runsOf, seedOr } from '../testing/random';
import { BENCH, T0, book, counter, cup } from '../testing/bench';
import { EMPTY_BAR, apply, holdsStation, type BarEvent, type BarState } from '../brew';
import {
  agenda,
  buildProblem,
  checkPlan,
  seededRandom,
  solve,
  tapEvents,
  type Bench,
  type Plan,
} from '../plan';

const seed = seedOr(20261125);
const SERIES = runsOf(5);
const EVENTS = 40;
console.info(`series.fuzz seed ${seed}`);

test('whatever happens next, planning never throws, never moves what has begun, and bends a recipe no more than the running brews need', () => {
  let plans = 0;
  let relaxedS = 0;
  for (let series = 0; series < SERIES; series += 1) {
    const random = seededRandom(seed + series);
    const newId = counter(`s${series}-`);
    let bench: Bench = { ...BENCH, hands: 1 + (series % 2) };
    let state: BarState = EMPTY_BAR;
    let plan: Plan | null = null;
    let nowMs = T0;
    let orders = 0;

    const tell = (event: BarEvent) => {
      const applied = apply(state, event, book);
      if (applied.ok) state = applied.state;
    };
    const happen = () => {
      const kind = random();
      const running = Object.values(state.brews).filter(({ status }) => status === 'running');
      const base = { id: newId(), atMs: nowMs };
      if (kind < 0.15 || orders === 0) {
        orders += 1;
        return tell({
          ...base,
          type: 'order-taken',
          orderId: `o${orders}`,
          cups: [cup(`c${orders}`, random() < 0.6 ? 'cone-thirds' : 'press-long', 240)],
        });
      }
      if (kind < 0.19 && running.length > 0)
        return tell({ ...base, type: 'brew-abandoned', brewId: running[0]!.id, reason: 'torn filter' });
      if (kind < 0.23) return tell({ ...base, type: 'hands-away', fromMs: nowMs, toMs: nowMs + 300_000 });
      if (kind < 0.27)
        return tell({ ...base, type: 'order-urged', orderId: `o${orders}`, weight: 4, wantedMs: nowMs });
      if (kind < 0.32) {
        // A brewer breaks, or is mended; one that holds a brew stays.
        const used = new Set(
          Object.values(state.brews)
            .filter(holdsStation)
            .map(({ stationId }) => stationId),
        );
        const broken = BENCH.stations.find(({ id }) => !used.has(id) && random() < 0.5);
        bench = { ...bench, stations: BENCH.stations.filter((station) => station !== broken) };
        return undefined;
      }
      const item = agenda(state, bench, book, plan, nowMs).find(
        (each) => each.asks !== 'runs' && (each.brew !== null || each.station.free),
      );
      if (!item) return undefined;
      // Mostly on time, sometimes early, sometimes very late.
      const lateMs = random() < 0.7 ? random() * 4000 : random() < 0.3 ? -8000 * random() : 90_000 * random();
      nowMs = Math.max(nowMs, Math.round(item.dueMs + lateMs));
      const doneMs = item.asks === 'finish' ? nowMs + item.step.durationS * 1000 : nowMs;
      nowMs = doneMs;
      for (const event of tapEvents(item, bench, doneMs, newId)) tell(event);
      return undefined;
    };

    for (let n = 0; n < EVENTS; n += 1) {
      happen();
      nowMs += Math.round(random() * 3000);
      const { problem } = buildProblem(state, bench, book, Math.ceil(nowMs / 1000), plan ?? undefined);
      if (problem.brews.length === 0) {
        plan = null;
        continue;
      }
      plan = solve(problem, { moves: 8, before: plan ?? undefined, seed: n });
      plans += 1;
      expect([series, n, checkPlan(problem, plan)]).toEqual([series, n, []]);
      for (const [key, at] of Object.entries(problem.started)) expect(plan.starts[key]).toBe(at);
      const bent = (of: Plan) =>
        of.relaxed.reduce((sum, { rule, by }) => sum + (rule === 'max-lag' ? by : 0), 0);
      if (bent(plan) === 0) continue;
      relaxedS += bent(plan);
      // Promised starts apart, what waits can always wait longer: alone, the running brews would be bent about as much.
      const begun = problem.brews.filter(({ steps, id }) => `${id}/${steps[0]!.id}` in problem.started);
      const ids = new Set(begun.map(({ id }) => id));
      const alone = solve(
        {
          ...problem,
          brews: begun,
          orders: problem.orders
            .map((order) => ({ ...order, brews: order.brews.filter((id) => ids.has(id)) }))
            .filter(({ brews }) => brews.length > 0),
          frozen: {},
        },
        { moves: 200 },
      );
      const unpromised = solve({ ...problem, frozen: {} }, { moves: 200 });
      expect(bent(unpromised)).toBeLessThanOrEqual(bent(alone) + 30);
    }
  }
  console.info(`${plans} plans, running brews bent by ${relaxedS} s in all`);
});
