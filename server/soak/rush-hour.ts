/**
 * `npm run rush`: an hour of the pier's boats, 60 cups, through server and planner at a raised clock, worked by people who
 * are late and noisy; then the same hour planned greedily and one brew at a time. CUPS, RATE, HANDS and SEED change it.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL, fileURLToPath } from 'node:url';
import type { BarEvent, CupAsk, OrderTaken } from '@even-kettle/core/brew';
import type { PublishedPlan } from '@even-kettle/core/contract';
import { checkPlan, planGreedily, planOneAtATime, type Plan, type PlanProblem } from '@even-kettle/core/plan';
import { BUSY_PEOPLE, seededRandom, workRush } from '@even-kettle/core/rush';
import { v7 as uuid } from 'uuid';
import { LANTERN_PIER } from '../src/demo/benches';
import { quoterHere } from '../src/planning/quoter';
import { workerSolver, type Solver } from '../src/planning/solver';
import { proveCopy } from '../src/copies/prove';
import { openBar } from '../src/server';
import { openDatabase } from '../src/store/database';

const CUPS = Number(process.env['CUPS'] ?? 60);
const RATE = Number(process.env['RATE'] ?? 25);
const HANDS = Number(process.env['HANDS'] ?? 1);
const SEED = Number(process.env['SEED'] ?? 8);

const MENU: [recipeId: string, cupMl: number][] = [
  ['cone-thirds', 250],
  ['press-long', 250],
  ['cone-steady', 250],
  ['sock-fours', 250],
  ['siphon-late', 350],
];

/** A boat every quarter of an hour: most orders within four minutes of it, the rest in between. */
function boats(fromMs: number, random: () => number): OrderTaken[] {
  const orders: OrderTaken[] = [];
  let cups = 0;
  while (cups < CUPS) {
    const size = Math.min(CUPS - cups, random() < 0.6 ? 1 : random() < 0.8 ? 2 : 3);
    const boat = Math.floor(random() * 4) * 15;
    const atMin = boat + (random() < 0.7 ? random() * 4 : random() * 15);
    orders.push({
      id: uuid(),
      type: 'order-taken',
      atMs: Math.round(fromMs + atMin * 60_000),
      orderId: uuid(),
      cups: Array.from({ length: size }, (): CupAsk => {
        const [recipeId, cupMl] = MENU[Math.floor(random() * random() * MENU.length)]!;
        return { cupId: uuid(), recipeId, recipeVersion: 1, coffee: 'Saltmarsh', roast: 'light', cupMl };
      }),
    });
    cups += size;
  }
  return orders.sort((a, b) => a.atMs - b.atMs);
}

const plain = (planner: (problem: PlanProblem) => Plan): Solver => ({
  solve: (problem) => {
    const plan = planner(problem);
    return Promise.resolve({ plan, cost: plan.cost, standsCost: plan.cost });
  },
  close: () => Promise.resolve(),
});

const quantile = (values: number[], share: number) =>
  values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))]!;
const clock = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')}`;
const percent = (share: number) => `${Math.round(share * 100)} %`;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function hour(name: string, solver: Solver): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-rush-'));
  const broken: string[] = [];
  const bar = await openBar({
    source: await openDatabase(join(folder, 'bar.sqlite')),
    solver,
    quoter: quoterHere,
    proveCopy,
    importWorker: new URL('./import.worker.js', import.meta.url),
    clockRate: RATE,
    warn: (detail, message) => broken.push(`${message} ${JSON.stringify(detail)}`),
  });
  const { name: _name, ...pier } = LANTERN_PIER;
  await bar.change({ ...pier, hands: HANDS });
  const random = seededRandom(SEED);
  const fromMs = bar.clock.nowMs() + 1000;
  const orders = boats(fromMs, random);
  let checked: PublishedPlan | null = null;
  let plans = 0;
  let collisions = 0;
  const look = () => {
    const current = bar.planning.current();
    const problem = bar.planning.problem();
    if (!current?.plan || !problem || current === checked) return;
    checked = current;
    plans += 1;
    const wrong = checkPlan(problem, current.plan);
    if (wrong.length > 0) {
      collisions += 1;
      broken.push(wrong[0]!);
    }
  };
  const { refused } = await workRush(
    {
      nowMs: bar.clock.nowMs,
      state: bar.log.state,
      plan: () => bar.planning.current()?.plan ?? null,
      tell: async (events: BarEvent[]) => {
        const result = await bar.post(events);
        if (!result.ok) broken.push(`${events[0]!.type} refused: ${result.refused.refusal.reason}`);
        return result.ok;
      },
      passUntil: async (atMs) => {
        look();
        await pause(Math.max(1, (atMs - bar.clock.nowMs()) / RATE));
      },
    },
    {
      bench: bar.bar(),
      book: bar.recipes.book,
      orders,
      random,
      newId: uuid,
      manners: BUSY_PEOPLE,
      untilMs: fromMs + 8 * 3600_000,
    },
  );
  const state = bar.log.state();
  const served = Object.values(state.orders).map((order) => ({
    takenMs: order.takenMs,
    outMs: Math.max(...order.cups.map((cup) => state.brews[cup.brewIds.at(-1) ?? '']?.servedMs ?? Infinity)),
    cups: order.cups.length,
  }));
  const waits = served.map(({ takenMs, outMs }) => (outMs - takenMs) / 1000);
  const lastMs = Math.max(...served.map(({ outMs }) => outMs));
  const hours = (lastMs - fromMs) / 3600_000;
  const { changes } = bar.planning.calm();
  const brews = Object.values(state.brews);
  const handsS = brews
    .flatMap(({ card }) => card.steps)
    .reduce((sum, { attended, durationS }) => sum + (attended ? durationS : 0), 0);
  const busiest = pier.stations
    .map(({ id, name: station }) => ({
      station,
      share: brews
        .filter(({ stationId }) => stationId === id)
        .reduce((sum, { startedMs, lastMs: endMs }) => sum + (endMs - startedMs) / (lastMs - fromMs), 0),
    }))
    .sort((a, b) => b.share - a.share)[0]!;
  console.log(
    `  ${name.padEnd(18)} ${((CUPS / (lastMs - orders[0]!.atMs)) * 3600_000).toFixed(1).padStart(5)} cups/h; wait median ${clock(quantile(waits, 0.5))}, p90 ${clock(quantile(waits, 0.9))}, longest ${clock(quantile(waits, 1))}; over ten minutes: ${waits.filter((wait) => wait > 600).length} of ${waits.length} orders; plans ${plans}, changes of the next 90 s ${(changes / hours).toFixed(1)} an hour; collisions ${collisions}; taps refused ${refused}`,
  );
  console.log(
    `    hands busy ${percent(handsS / HANDS / 3600 / hours)} of the time, ${busiest.station} ${percent(busiest.share)}`,
  );
  for (const words of new Set(broken.slice(0, 5))) console.log(`    ${words.slice(0, 300)}`);
  await bar.close();
  rmSync(folder, { recursive: true, force: true });
}

console.log(
  `  ${CUPS} cups within an hour, ${HANDS === 1 ? 'one pair' : 'two pairs'} of hands, clock at ${RATE} times, seed ${SEED}`,
);
const worker = pathToFileURL(join(fileURLToPath(new URL('.', import.meta.url)), 'plan.worker.js'));
await hour('as the bar plans', workerSolver(worker));
await hour('greedy', plain(planGreedily));
await hour('one at a time', plain(planOneAtATime));
