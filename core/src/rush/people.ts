/**
 * Simulated people at a bar, several pairs of hands: each does what the agenda asks of its pair, rarely quite in time, and
 * not exactly. They work in any world that they are given: a simulated one, or a running server.
 */
import { timelineAt, type BarEvent, type BarState, type OrderTaken } from '../brew';
import {
  agenda,
  onceOf,
  pairOf,
  tapEvents,
  togetherWith,
  type AgendaItem,
  type Bench,
  type NewId,
  type Plan,
} from '../plan';
import type { CardStep, RecipeBook } from '../recipe';

/** The world of the people: what they see, what they do, and how time passes. */
export type World = {
  nowMs: () => number;
  state: () => BarState;
  plan: () => Plan | null;
  /** Tells the bar what happened. False where it was refused: somebody else was there first. */
  tell: (events: BarEvent[]) => Promise<boolean>;
  /** Lets time go by until a moment, or until something may have changed. */
  passUntil: (atMs: number) => Promise<void>;
};

export type PeopleModel = {
  /** How late a step is begun, seconds: usually, and when something distracts. */
  lateS: number;
  distractedS: number;
  /** How often something distracts. */
  distracted: number;
  /** Lengths vary around the usual by this share. */
  noise: number;
  /** Beds take this many times as long as their cards expect. */
  beds?: number;
};

export const BUSY_PEOPLE: PeopleModel = { lateS: 3, distractedS: 25, distracted: 0.06, noise: 0.15 };

export type Setting = {
  bench: Bench;
  book: RecipeBook;
  /** In order of time. */
  orders: OrderTaken[];
  random: () => number;
  newId: NewId;
  manners: PeopleModel;
  /** Nobody works on after this, bar milliseconds. */
  untilMs: number;
  /** They look again so often though nothing asked for it, milliseconds. */
  lookMs?: () => number;
};

/** One step, or like ones that are done together. */
type Busy = { items: AgendaItem[]; untilMs: number };

/** Where nothing else is said. */
const LOOK_MS = 2000;

/**
 * Works until every order is out and every station clean, or until the time limit. Returns how many taps were refused, and
 * how long the hands were spared by doing like work together, milliseconds.
 */
export async function workRush(
  world: World,
  setting: Setting,
): Promise<{ refused: number; sparedMs: number }> {
  const { bench, book, random, newId, manners, untilMs, lookMs = () => LOOK_MS } = setting;
  const coming = [...setting.orders];
  const pairs: (Busy | null)[] = Array.from({ length: bench.hands }, () => null);
  let refused = 0;
  let sparedMs = 0;

  const tapFor = (item: AgendaItem, atMs: number): BarEvent[] => {
    const targetG = item.asks === 'finish' && !item.step.byEye ? item.step.targetG : undefined;
    const readingG = targetG === undefined ? {} : { readingG: targetG + Math.round((random() - 0.4) * 3) };
    return tapEvents(item, bench, atMs, newId, readingG);
  };
  const finish = async ({ items }: Busy, atMs: number) => {
    const events = items.flatMap((item) => tapFor(item, atMs));
    if (events.length > 0 && !(await world.tell(events))) refused += 1;
  };

  while (world.nowMs() < untilMs) {
    const nowMs = world.nowMs();
    while (coming[0] && coming[0].atMs <= nowMs) await world.tell([coming.shift()!]);
    for (const [pair, busy] of pairs.entries()) {
      if (!busy || busy.untilMs > nowMs) continue;
      pairs[pair] = null;
      await finish(busy, nowMs);
    }
    const items = agenda(world.state(), bench, book, world.plan(), nowMs);
    if (items.length === 0 && coming.length === 0 && pairs.every((busy) => busy === null)) break;
    for (const [pair, busy] of pairs.entries()) {
      if (busy) continue;
      const inHand = new Set(pairs.flatMap((each) => each?.items.map(({ brewId }) => brewId) ?? []));
      const free = items.filter(
        (item) =>
          !inHand.has(item.brewId) &&
          item.dueMs <= nowMs &&
          (item.brew !== null || item.station.free) &&
          nowMs >= runsUntilMs(item, nowMs) &&
          !pairs.some((each) => each?.items.some(({ station }) => station.id === item.station.id)),
      );
      const item =
        free.find((each) => handsOf(each, world.plan(), bench.hands) === pair) ?? helpOut(free, nowMs);
      if (!item) continue;
      const others = likeIt(item, free, world.plan());
      const moreMs = others.reduce(
        (sum, { step }) => sum + usualMsOf(step, bench) * (1 - onceOf(step.kind)),
        0,
      );
      sparedMs += others.reduce((sum, { step }) => sum + usualMsOf(step, bench) * onceOf(step.kind), 0);
      pairs[pair] = { items: [item, ...others], untilMs: nowMs + takesMs(item, nowMs) + moreMs };
    }
    const next = Math.min(
      coming[0]?.atMs ?? Infinity,
      ...pairs.map((busy) => busy?.untilMs ?? Infinity),
      ...items.filter(({ dueMs }) => dueMs > nowMs).map(({ dueMs }) => dueMs),
      nowMs + lookMs(),
    );
    await world.passUntil(next);
  }
  return { refused, sparedMs };

  /** A bed that is slow drains on when its time is over. */
  function runsUntilMs({ awaited, brew }: AgendaItem, nowMs: number): number {
    if (awaited?.kind !== 'drawdown' || !brew || !manners.beds) return -Infinity;
    const { startMs } = timelineAt(brew, nowMs).find(({ step }) => step.id === awaited.id)!;
    return startMs + awaited.durationS * 1000 * manners.beds;
  }

  /** From a step's being due to its being done, with typical human delays. */
  function takesMs(item: AgendaItem, nowMs: number): number {
    const lateS =
      random() < manners.distracted ? manners.distractedS * random() : manners.lateS * random() * random();
    // What runs by the clock is as long for quick hands as for slow ones.
    const usualMs = item.asks === 'runs' ? item.step.durationS * 1000 : usualMsOf(item.step, bench);
    if (item.asks === 'start' || item.asks === 'cue') return 1000 * lateS;
    if (item.asks === 'runs') return Math.max(0, item.dueMs + usualMs - nowMs) + 1;
    const leftMs = item.begunMs === null ? usualMs : Math.max(0, item.begunMs + usualMs - nowMs);
    return 1000 * lateS + leftMs * (1 + (random() - 0.4) * 2 * manners.noise);
  }
}

/** What the plan has done together with a step, and can be now: each at a place of its own. */
function likeIt(item: AgendaItem, free: readonly AgendaItem[], plan: Plan | null): AgendaItem[] {
  const stations = new Set([item.station.id]);
  return togetherWith(item.key, plan)
    .slice(1)
    .flatMap((key) => {
      const other = free.find((each) => each.key === key);
      if (!other || stations.has(other.station.id)) return [];
      stations.add(other.station.id);
      return [other];
    });
}

/** How long a step of the hands takes these hands, milliseconds. */
const usualMsOf = ({ kind, durationS }: CardStep, { pace }: Bench): number =>
  durationS * 1000 * (pace?.[kind] ?? 1);

/** Whose step it is. The hands card is for two pairs at most; a simulated bar may have more. */
function handsOf(item: AgendaItem, plan: Plan | null, hands: number): number {
  const planned = plan?.hands[item.key];
  return planned !== undefined && planned > 1 && planned < hands ? planned : pairOf(item, plan);
}

/** A step of the other pair that is overdue by this is taken by whoever is free, milliseconds. */
const HELP_MS = 20_000;

const helpOut = (items: AgendaItem[], nowMs: number): AgendaItem | undefined =>
  items.find(({ dueMs }) => nowMs - dueMs > HELP_MS);
