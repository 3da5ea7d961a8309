/**
 * The rush lab's shifts: what a variant makes of an hour of guests. They are lived by the same planner, rules and made-up
 * people as everything else here; the same seed brings the same guests to every variant, so that small differences are seen.
 */
import {
  EMPTY_BAR,
  apply,
  forgetClosed,
  timelineAt,
  type BarEvent,
  type BarState,
  type BrewState,
  type CupAsk,
  type OrderTaken,
} from '../brew';
import { PROMISE_S, buildProblem, cardFor, seededRandom, solve, type Bench, type Plan } from '../plan';
import type { BrewCard, RecipeBook } from '../recipe';
import { BUSY_PEOPLE, workRush, type PeopleModel } from '../rush';
import { benchOf, times, type LabLine, type LabVariant } from './lab';

/** One simulated shift. */
export type LabShift = {
  seed: number;
  orders: number;
  cups: number;
  /** From being taken to the last cup's being out, for each order, seconds. */
  waitsS: number[];
  cupsAnHour: number;
  /** Orders that waited for more than ten minutes. */
  late: number;
  /** Shares of the time from the first order to the last cup. */
  handsBusy: number;
  toolsBusy: Record<string, number>;
};

const HOUR_MS = 3600 * 1000;
const SLOTS = 12;
/** Nobody works for longer, milliseconds. */
const LONGEST_MS = 10 * HOUR_MS;
/** How carefully a shift is planned and looked at. */
export type LabCare = {
  /** How many waiting cups are planned to the second: those behind them seldom change who does what now. */
  plannedCups: number;
  moves: number;
  /** The bar is planned again when an order comes or a station is free, and after a tap when the plan is this old, milliseconds. */
  planAgesMs: number;
  /** How often people look again though nothing asked for it, milliseconds. */
  lookMs: number;
};
/** While few cups wait every second of a plan counts; while many do, the hands are never idle, and a plan may be older. */
const CALM: LabCare = { plannedCups: 8, moves: 16, planAgesMs: 10_000, lookMs: 4000 };
const BUSY: LabCare = { plannedCups: 4, moves: 0, planAgesMs: 150_000, lookMs: 10_000 };
const BUSY_FROM = 6;
const byQueue = (waiting: number): LabCare => (waiting < BUSY_FROM ? CALM : BUSY);
/** As a real bar is worked and planned. */
export const CAREFULLY: LabCare = { plannedCups: 40, moves: 60, planAgesMs: 0, lookMs: 2000 };

/** What is closed is forgotten so often, so that looking at the bar stays quick, milliseconds. */
const FORGET_MS = 120_000;
const START_MS = Date.UTC(2026, 0, 5, 8);
const TIN_COUNT = 99;

/** The hour's orders by a seed; the same guests at the same times, whatever else the variant changes. */
export function guestsOf(
  { guests, menu, shared }: LabVariant,
  bench: Bench,
  book: RecipeBook,
  seed: number,
): OrderTaken[] {
  const random = seededRandom(seed);
  const orders: { atMs: number; asks: LabLine[] }[] = [];
  for (let cups = 0; cups < guests.cupsAnHour;) {
    const size = Math.min(guests.cupsAnHour - cups, random() < 0.6 ? 1 : random() < 0.8 ? 2 : 3);
    const slot = drawn(guests.curve, random());
    const atMs = Math.round(START_MS + (slot + random()) * (HOUR_MS / SLOTS));
    orders.push({
      atMs,
      asks: times(
        size,
        () =>
          menu[
            drawn(
              menu.map(({ share }) => share),
              random(),
            )
          ]!,
      ),
    });
    cups += size;
  }
  return orders
    .sort((a, b) => a.atMs - b.atMs)
    .map(({ atMs, asks }, n) => ({
      id: `lab-${n}`,
      type: 'order-taken',
      atMs,
      orderId: `o${n}`,
      cups: cupsFor(asks, n, shared ? (cup) => cardFor(bench, cup, book).ok : () => false),
    }));
}

/** Equal cups as one brew, as many as a brewer takes at once. */
function cupsFor(asks: readonly LabLine[], order: number, fits: (cup: CupAsk) => boolean): CupAsk[] {
  const cups: CupAsk[] = [];
  asks.forEach(({ share: _share, ...line }, n) => {
    const like = cups.findIndex(
      (cup) => cup.recipeId === line.recipeId && cup.coffee === line.coffee && cup.cupMl === line.cupMl,
    );
    const more = like < 0 ? null : { ...cups[like]!, cups: (cups[like]!.cups ?? 1) + 1 };
    if (more && fits(more)) cups[like] = more;
    else cups.push({ ...line, cupId: `o${order}-${n}` });
  });
  return cups;
}

function drawn(weights: readonly number[], at: number): number {
  const all = weights.reduce((sum, each) => sum + each, 0);
  let left = at * all;
  for (let n = 0; n < weights.length; n += 1) {
    left -= weights[n]!;
    if (left < 0) return n;
  }
  return weights.length - 1;
}

/** The lines that are offered; of a short menu the two with which the bar gets through the most cups: by its hands, or by their brewers. */
function offered({ menu, shortMenu }: LabVariant, bench: Bench, book: RecipeBook): LabLine[] {
  if (!shortMenu || menu.length <= 2) return menu;
  const secondsACup = (line: LabLine) => {
    const found = cardFor(bench, { ...line, cupId: 'lab' }, book);
    if (!found.ok) return Infinity;
    const { handsTimeS, steps } = found.card;
    const heldS = steps.at(-1)!.endS - steps[0]!.startS;
    return Math.max(handsTimeS / bench.hands, heldS / found.stations.length);
  };
  return menu.toSorted((a, b) => secondsACup(a) - secondsACup(b)).slice(0, 2);
}

/** Lives one shift. @throws Error where the variant cannot be lived with (see `faultOf`) */
export async function liveLabShift(
  bar: Bench,
  variant: LabVariant,
  book: RecipeBook,
  seed: number,
  careFor: (waiting: number) => LabCare = byQueue,
): Promise<LabShift> {
  const bench = benchOf(bar, variant);
  const menu = offered(variant, bench, book);
  const orders = guestsOf({ ...variant, menu }, bench, book, seed);
  const tins = variant.ahead ? tinsFor(orders, bench, book) : [];
  const lived = await liveOrders(bench, orders, book, {
    random: seededRandom(seed + 7919),
    manners: BUSY_PEOPLE,
    careFor,
    before: tins,
  });
  return figuresOf(seed, orders, lived, bench);
}

/** Hands that are never late nor distracted. */
const EXACT_PEOPLE: PeopleModel = { lateS: 0, distractedS: 0, distracted: 0, noise: 0 };

/** How long each order would wait if the bench's hands were never late, seconds. */
export async function exactWaits(
  bench: Bench,
  orders: readonly OrderTaken[],
  book: RecipeBook,
): Promise<Record<string, number>> {
  const { outMs } = await liveOrders(bench, orders, book, {
    random: () => 0.4,
    manners: EXACT_PEOPLE,
    careFor: () => CALM,
    before: [],
  });
  return Object.fromEntries(
    orders.flatMap(({ orderId, atMs }) => {
      const out = outMs.get(orderId);
      return out === undefined ? [] : [[orderId, (out - atMs) / 1000]];
    }),
  );
}

type Living = {
  random: () => number;
  manners: PeopleModel;
  careFor: (waiting: number) => LabCare;
  /** What has happened before the first order. */
  before: readonly BarEvent[];
};

/** When each order was out, how each brew went, and how long the hands were spared by doing like work together. */
type Lived = { outMs: Map<string, number>; brews: BrewState[] };

/** Works orders off by simulated people. */
async function liveOrders(
  bench: Bench,
  orders: readonly OrderTaken[],
  book: RecipeBook,
  { random, manners, careFor, before }: Living,
): Promise<Lived> {
  const startMs = Math.min(...orders.map(({ atMs }) => atMs)) - 1000;
  const outMs = new Map<string, number>();
  const brews = new Map<string, BrewState>();
  let state: BarState = EMPTY_BAR;
  let plan: Plan | null = null;
  let nowMs = startMs;
  let plannedMs = -Infinity;
  let forgotMs = startMs;
  let ids = 0;

  const happen = (event: BarEvent): boolean => {
    const applied = apply(state, event, book);
    if (!applied.ok) return false;
    state = applied.state;
    if (event.type === 'brew-served') {
      const { orderId } = state.brews[event.brewId]!;
      outMs.set(orderId, Math.max(outMs.get(orderId) ?? 0, event.atMs));
    }
    if ('brewId' in event && state.brews[event.brewId]) brews.set(event.brewId, state.brews[event.brewId]!);
    return true;
  };
  const care = () => careFor(waitingCups(state));
  const planAnew = () => {
    const { plannedCups, moves } = care();
    const { problem } = buildProblem(
      state,
      bench,
      book,
      Math.ceil(nowMs / 1000),
      plan ?? undefined,
      plannedCups,
    );
    plan = problem.brews.length > 0 ? solve(problem, { moves, before: plan ?? undefined }) : null;
    plannedMs = nowMs;
  };
  before.forEach(happen);
  await workRush(
    {
      nowMs: () => nowMs,
      state: () => state,
      plan: () => plan,
      passUntil: (atMs) => {
        nowMs = Math.max(nowMs + 1, Math.ceil(atMs));
        if (nowMs - forgotMs > FORGET_MS) {
          state = forgetClosed(state, nowMs);
          forgotMs = nowMs;
        }
        return Promise.resolve();
      },
      tell: (events) => {
        const isTaken = events.every(happen);
        const { planAgesMs, plannedCups } = care();
        if (changesPlan(events, waitingCups(state) - plannedCups) || nowMs - plannedMs > planAgesMs)
          planAnew();
        return Promise.resolve(isTaken);
      },
    },
    {
      bench,
      book,
      orders: [...orders],
      random,
      newId: () => `lab-${(ids += 1)}`,
      manners,
      untilMs: startMs + LONGEST_MS,
      lookMs: () => care().lookMs,
    },
  );
  return { outMs, brews: [...brews.values()] };
}

/** A station is free, or an order comes that is not behind all that are planned (`beyond` cups wait behind those). */
const changesPlan = (events: readonly BarEvent[], beyond: number): boolean =>
  events.some(
    (event) =>
      (event.type === 'step-done' && event.stepId === 'clean') ||
      (event.type === 'order-taken' && beyond <= event.cups.length),
  );

const waitingCups = ({ orders }: BarState): number =>
  Object.values(orders).reduce(
    (sum, { cups }) => sum + cups.filter(({ status }) => status === 'waiting').length,
    0,
  );

/** As many tins as could be asked for, of every dose. */
function tinsFor(orders: readonly OrderTaken[], bench: Bench, book: RecipeBook): BarEvent[] {
  const doses = new Map<string, BarEvent>();
  for (const cup of orders.flatMap(({ cups }) => cups)) {
    const found = cardFor(bench, cup, book);
    if (!found.ok) continue;
    const { doseG } = found.card;
    doses.set(`${cup.coffee} ${doseG}`, {
      id: `tins-${doses.size}`,
      type: 'made-ready',
      atMs: START_MS,
      thing: 'tins',
      count: TIN_COUNT,
      coffee: cup.coffee,
      doseG,
    });
  }
  return [...doses.values()];
}

function figuresOf(
  seed: number,
  orders: readonly OrderTaken[],
  { outMs, brews }: Lived,
  bench: Bench,
): LabShift {
  const cups = orders.flatMap((order) => order.cups).reduce((sum, cup) => sum + (cup.cups ?? 1), 0);
  const firstMs = orders[0]?.atMs ?? START_MS;
  const lastMs = Math.max(...outMs.values(), firstMs + 1);
  const spanS = (lastMs - firstMs) / 1000;
  const waitsS = orders.map(
    ({ orderId, atMs }) => ((outMs.get(orderId) ?? START_MS + LONGEST_MS) - atMs) / 1000,
  );
  const tools: Record<string, number> = {};
  let handsS = 0;
  for (const brew of brews) {
    const { card, brewerId } = brew;
    const lived = timelineAt(brew, brew.lastMs);
    handsS += workOf(card, bench);
    for (const { tool, from, to } of card.holds) {
      const [begins, ends] = [
        lived.find(({ step }) => step.id === from),
        lived.find(({ step }) => step.id === to),
      ];
      const name = tool === 'brewer' ? brewerId : tool;
      if (begins && ends) tools[name] = (tools[name] ?? 0) + (ends.endMs - begins.startMs) / 1000;
    }
  }
  const count = (tool: string): number =>
    ({ grinder: bench.grinders.length, kettle: bench.kettles.length, burner: bench.burners })[tool] ??
    bench.stations.filter(({ brewerId }) => brewerId === tool).length;
  return {
    seed,
    orders: orders.length,
    cups,
    waitsS,
    cupsAnHour: (cups / spanS) * 3600,
    late: waitsS.filter((wait) => wait > PROMISE_S).length,
    handsBusy: Math.min(1, handsS / bench.hands / spanS),
    toolsBusy: Object.fromEntries(
      Object.entries(tools).map(([tool, busyS]) => [
        tool,
        Math.min(1, busyS / Math.max(1, count(tool)) / spanS),
      ]),
    ),
  };
}

/** Seconds of attended work on one brew, by these hands' pace. */
const workOf = (card: BrewCard, { pace }: Bench): number =>
  card.steps.reduce(
    (sum, { attended, kind, durationS }) => sum + (attended ? durationS * (pace?.[kind] ?? 1) : 0),
    0,
  );
