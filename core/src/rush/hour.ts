/**
 * An hour of guests at a bar that is planned as a real one is: after every tap, and again in quiet moments. Its people do what
 * their cards show. What it gives are the figures by which the planner is judged.
 */
import {
  EMPTY_BAR,
  apply,
  forgetClosed,
  timelineAt,
  type BarEvent,
  type BarState,
  type CupAsk,
  type OrderTaken,
} from '../brew';
import {
  CAREFUL_MOVES,
  buildProblem,
  quoteOrder,
  seededRandom,
  shareNow,
  standingPlan,
  startSolving,
  timesOf,
  worthTaking,
  type AgendaItem,
  type Bench,
  type Plan,
} from '../plan';
import type { RecipeBook } from '../recipe';
import { workRush, type CardChange, type PeopleModel } from './people';

/** Hands 15 % and beds 10 % noisy, and a reaction of up to two seconds. */
export const NOISY_PEOPLE: PeopleModel = {
  lateS: 2,
  distractedS: 0,
  distracted: 0,
  noise: 0,
  spread: 0.15,
  bedSpread: 0.1,
};
export const EXACT_PEOPLE: PeopleModel = { lateS: 0, distractedS: 0, distracted: 0, noise: 0 };

export type Hour = {
  bench: Bench;
  book: RecipeBook;
  orders: readonly OrderTaken[];
  seed: number;
  manners: PeopleModel;
  /** How long a plan is searched for after a tap, and in a quiet moment, moves. */
  moves?: number;
  quietMoves?: number;
};

export type LatePour = { key: string; byS: number };
export type HourFigures = {
  taps: number;
  changes: CardChange[];
  pours: number;
  /** Pours that were begun after the latest start that their recipe forgives. */
  latePours: LatePour[];
  /** Of each order, how long it was to wait by its promise and how much later it came, seconds. */
  orders: { orderId: string; promisedWaitS: number; lateS: number }[];
};

/** About what the server comes to after a tap; in a quiet moment it comes to some times more than this. */
const MOVES = 64;
const QUIET_MOVES = 300;
/** As the server's: a quiet moment after so long, and so many looks after each tap, bar milliseconds. */
const QUIET_MS = 2500;
const QUIET_LOOKS = 4;
const FORGET_MS = 120_000;
const LONGEST_MS = 6 * 3600_000;

// eslint-disable-next-line max-lines-per-function -- the hour that goes on is shared by its short functions
export async function liveHour(hour: Hour): Promise<HourFigures> {
  const { bench, book, seed, manners, moves = MOVES, quietMoves = QUIET_MOVES } = hour;
  const first = hour.orders[0]!;
  let state: BarState = EMPTY_BAR;
  let plan: Plan | null = null;
  let nowMs = first.atMs - 1;
  let lookMs = Infinity;
  let looks = 0;
  let forgottenMs = nowMs;
  const promises = new Map<string, { takenMs: number; promisedMs: number }>();
  const outMs = new Map<string, number>();
  const latePours = new Map<string, LatePour>();
  const pours = new Set<string>();

  const problemNow = () =>
    buildProblem(state, bench, book, Math.ceil(nowMs / 1000), plan ?? undefined).problem;
  const replan = () => {
    const problem = problemNow();
    if (problem.brews.length === 0) return void (plan = null);
    const solving = startSolving(problem, { before: plan ?? undefined });
    solving.improve(moves);
    plan = solving.plan();
    looks = 0;
    lookMs = nowMs + QUIET_MS;
  };
  const look = () => {
    looks += 1;
    lookMs = looks < QUIET_LOOKS ? nowMs + QUIET_MS : Infinity;
    const problem = problemNow();
    if (!plan || problem.brews.length === 0) return;
    const solving = startSolving(problem, { before: plan });
    const stands = solving.cost();
    solving.improve(quietMoves);
    if (worthTaking(stands, solving.cost())) plan = solving.plan();
    else lookMs = Infinity;
  };
  const promised = (event: OrderTaken): OrderTaken => {
    const nowS = Math.ceil(nowMs / 1000);
    const standing = { state, bench, book, nowS, plan };
    const quote = quoteOrder(standing, standingPlan(standing), event.cups, CAREFUL_MOVES);
    if (!quote.ok) throw new Error(quote.reason);
    const times = timesOf(quote.readyS, nowS, {}, shareNow(state, bench));
    promises.set(event.orderId, { takenMs: nowMs, promisedMs: times.promisedMs });
    return { ...event, ...times };
  };
  /** A pour is judged when it begins, and by when the step before it was really over. */
  const began = (item: AgendaItem, atMs: number) => {
    const { brew, step } = item;
    if (!brew || step.kind !== 'pour' || step.anchor !== undefined || item.asks === 'cue') return;
    if (pours.has(item.key)) return;
    pours.add(item.key);
    const times = timelineAt(brew, atMs);
    const before = times[times.findIndex((time) => time.step.id === step.id) - 1];
    if (!before || step.lag.maxS === null) return;
    const byS = (atMs - before.endMs) / 1000 - step.lag.maxS;
    if (byS > 0) latePours.set(item.key, { key: item.key, byS });
  };

  const { taps, changes } = await workRush(
    {
      nowMs: () => nowMs,
      state: () => state,
      plan: () => plan,
      tell: (events) => {
        for (const told of events) {
          const event: BarEvent = told.type === 'order-taken' ? promised(told) : told;
          const applied = apply(state, event, book);
          if (!applied.ok) return Promise.resolve(false);
          state = applied.state;
        }
        noteServed();
        if (nowMs - forgottenMs > FORGET_MS) {
          forgottenMs = nowMs;
          state = forgetClosed(state, nowMs - FORGET_MS);
        }
        replan();
        return Promise.resolve(true);
      },
      passUntil: (atMs) => {
        const until = Math.max(nowMs + 1, Math.ceil(atMs));
        nowMs = Math.min(until, Math.max(nowMs + 1, Math.ceil(lookMs)));
        if (nowMs >= lookMs) look();
        return Promise.resolve();
      },
    },
    {
      bench,
      book,
      orders: [...hour.orders],
      random: seededRandom(seed),
      newId: ids(),
      manners,
      untilMs: first.atMs + LONGEST_MS,
      began,
    },
  );
  return {
    taps,
    changes,
    pours: pours.size,
    latePours: [...latePours.values()],
    orders: [...promises].map(([orderId, { takenMs, promisedMs }]) => ({
      orderId,
      promisedWaitS: (promisedMs - takenMs) / 1000,
      lateS: ((outMs.get(orderId) ?? Infinity) - promisedMs) / 1000,
    })),
  };

  function noteServed(): void {
    for (const order of Object.values(state.orders)) {
      if (outMs.has(order.id) || order.cups.some(({ status }) => status !== 'served')) continue;
      outMs.set(
        order.id,
        Math.max(...order.cups.map((cup) => state.brews[cup.brewIds.at(-1)!]?.servedMs ?? Infinity)),
      );
    }
  }
}

function ids(): () => string {
  let count = 0;
  return () => `e${(count += 1)}`;
}

/** What an hour's guests ask for: recipe and size, those at the head more often. */
export type Asked = readonly [recipeId: string, cupMl: number];

/** Guests over an hour, evenly likely at any time, in orders of one to three cups. */
export function guestsOfHour(
  cupsAnHour: number,
  menu: readonly Asked[],
  startMs: number,
  seed: number,
): OrderTaken[] {
  const random = seededRandom(seed);
  const sizes: number[] = [];
  for (let cups = 0; cups < cupsAnHour;) {
    const size = Math.min(cupsAnHour - cups, random() < 0.6 ? 1 : random() < 0.8 ? 2 : 3);
    sizes.push(size);
    cups += size;
  }
  return sizes
    .map((size) => ({ size, atMs: Math.round(startMs + random() * 3600_000) }))
    .sort((a, b) => a.atMs - b.atMs)
    .map(({ size, atMs }, n) => ({
      id: `taken-${n}`,
      type: 'order-taken',
      atMs,
      orderId: `o${n}`,
      cups: Array.from({ length: size }, (_, k): CupAsk => {
        const [recipeId, cupMl] = menu[Math.floor(random() * menu.length)]!;
        return {
          cupId: `o${n}-${k}`,
          recipeId,
          recipeVersion: 1,
          coffee: 'Saltmarsh',
          roast: 'light',
          cupMl,
        };
      }),
    }));
}
