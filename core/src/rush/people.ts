/**
 * Simulated people at a bar, several pairs of hands: each does what its hands card shows, rarely quite in time, and
 * not exactly. They work in any world that they are given: a simulated one, or a running server.
 */
import { timelineAt, type BarEvent, type BarState, type OrderTaken } from '../brew';
import {
  agenda,
  byHands,
  pairOf,
  tapEvents,
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
  /** Lengths vary around the usual by this share; where `spread` is given, by that as their standard deviation. */
  noise: number;
  spread?: number;
  /** Beds take this many times as long as their cards expect, and vary around it by this standard deviation. */
  beds?: number;
  bedSpread?: number;
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
  /** Work ends where a card shows this. */
  stopsAt?: (item: AgendaItem) => boolean;
  /** Told when a pair begins a step, bar milliseconds. */
  began?: (item: AgendaItem, atMs: number) => void;
};

/** A card that asked for something else before what a pair was at was done. */
export type CardChange = {
  atMs: number;
  pair: number;
  from: AgendaItem;
  /** Null where the card asks for nothing now. */
  to: AgendaItem | null;
  /** The card says why. */
  isStated: boolean;
};

/** Where nothing else is said. */
const LOOK_MS = 2000;

/**
 * Works until every order is out and every station clean, or until the time limit. Each pair does what its hands card shows at
 * each moment, and nothing else: where the card changes in the middle of a step, the step is left as it is. Returns how many taps
 * were refused, how many were made, and the changes of a card before its step was done.
 */
// eslint-disable-next-line max-lines-per-function -- what the people are at is shared by its short functions
export async function workRush(
  world: World,
  setting: Setting,
): Promise<{ refused: number; taps: number; changes: CardChange[] }> {
  const { bench, book, random, newId, manners, untilMs, lookMs = () => LOOK_MS } = setting;
  const coming = [...setting.orders];
  const works: (AgendaItem | null)[] = Array.from({ length: bench.hands }, () => null);
  /** How much of a step that was begun is still to be done, milliseconds of work. */
  const leftMs = new Map<string, number>();
  const cueFactors = new Map<string, number>();
  const changes: CardChange[] = [];
  let refused = 0;
  let taps = 0;
  let lookedMs = world.nowMs();

  const tapFor = (item: AgendaItem, atMs: number): BarEvent[] => {
    const targetG = item.asks === 'finish' && !item.step.byEye ? item.step.targetG : undefined;
    const readingG = targetG === undefined ? {} : { readingG: targetG + Math.round((random() - 0.4) * 3) };
    return tapEvents(item, bench, atMs, newId, {
      ...readingG,
      ...byHands(item, world.plan(), 'all', bench.hands),
    });
  };
  const finish = async (item: AgendaItem, atMs: number) => {
    const events = tapFor(item, atMs);
    taps += events.length;
    if (events.length > 0 && !(await world.tell(events))) refused += 1;
  };
  const begin = (item: AgendaItem, nowMs: number) => {
    if (leftMs.has(workId(item))) return;
    leftMs.set(workId(item), takesMs(item, nowMs));
    setting.began?.(item, nowMs);
  };

  while (world.nowMs() < untilMs) {
    const nowMs = world.nowMs();
    for (const work of works)
      if (work) leftMs.set(workId(work), leftMs.get(workId(work))! - (nowMs - lookedMs));
    lookedMs = nowMs;
    while (coming[0] && coming[0].atMs <= nowMs) await world.tell([coming.shift()!]);
    for (const [pair, work] of works.entries()) {
      if (!work || leftMs.get(workId(work))! > 0) continue;
      works[pair] = null;
      await finish(work, nowMs);
    }
    const plan = world.plan();
    const items = agenda(world.state(), bench, book, plan, nowMs);
    if (items.length === 0 && coming.length === 0) break;
    const cards = works.map((_, pair) => items.find((item) => handsOf(item, plan, bench.hands) === pair));
    const now = cards.map((card) => (card && isAsked(card, nowMs) ? card : null));
    if (setting.stopsAt && cards.some((card) => card && setting.stopsAt!(card))) break;
    now.forEach((asked, pair) => {
      const was = works[pair];
      if (was && was.key !== asked?.key && was.asks !== 'cue' && items.some(({ key }) => key === was.key))
        changes.push({ atMs: nowMs, pair, from: was, to: asked, isStated: asked?.goesBefore === was.key });
      if (asked) begin(asked, nowMs);
      works[pair] = asked;
    });
    const next = Math.min(
      coming[0]?.atMs ?? Infinity,
      ...works.map((work) => (work ? nowMs + leftMs.get(workId(work))! : Infinity)),
      ...items.map(({ dueMs }) => dueMs).filter((dueMs) => dueMs > nowMs),
      nowMs + lookMs(),
    );
    await world.passUntil(next);
  }
  return { refused, taps, changes };

  /** Whether a card that shows this has something to do for the hands now. */
  function isAsked(item: AgendaItem, nowMs: number): boolean {
    if (item.brew === null && !item.station.free) return false;
    if (item.asks === 'cue') return nowMs >= cueMs(item, nowMs);
    return item.begunMs !== null || item.dueMs <= nowMs;
  }

  /** When what is waited for comes: a bed that is slow drains on when its time is over. */
  function cueMs({ key, awaited, brew, dueMs }: AgendaItem, nowMs: number): number {
    if (!awaited || !brew || awaited.kind !== 'drawdown' || !(manners.beds || manners.bedSpread))
      return dueMs;
    const { startMs } = timelineAt(brew, nowMs).find(({ step }) => step.id === awaited.id)!;
    const factor = cueFactors.get(key) ?? (manners.beds ?? 1) * (1 + (manners.bedSpread ?? 0) * normal());
    cueFactors.set(key, factor);
    return startMs + awaited.durationS * 1000 * factor;
  }

  /** From a step's being asked for to its being done, with typical human delays. */
  function takesMs(item: AgendaItem, nowMs: number): number {
    const lateS =
      random() < manners.distracted ? manners.distractedS * random() : manners.lateS * random() * random();
    // What runs by the clock is as long for quick hands as for slow ones.
    const usualMs = item.asks === 'runs' ? item.step.durationS * 1000 : usualMsOf(item.step, bench);
    if (item.asks === 'start' || item.asks === 'cue') return 1000 * lateS;
    if (item.asks === 'runs') return Math.max(0, item.dueMs + usualMs - nowMs) + 1;
    const restMs = item.begunMs === null ? usualMs : Math.max(0, item.begunMs + usualMs - nowMs);
    const off =
      manners.spread === undefined ? (random() - 0.4) * 2 * manners.noise : manners.spread * normal();
    return 1000 * lateS + restMs * (1 + off);
  }

  /** As good as normal, of standard deviation 1, and never beyond 3. */
  function normal(): number {
    return 2 * (random() + random() + random() - 1.5);
  }
}

const workId = ({ key, asks }: AgendaItem): string => `${key} ${asks}`;

/** How long a step of the hands takes these hands, milliseconds. */
const usualMsOf = ({ kind, durationS }: CardStep, { pace }: Bench): number =>
  durationS * 1000 * (pace?.[kind] ?? 1);

/** Whose step it is. The hands card is for two pairs at most; a simulated bar may have more. */
function handsOf(item: AgendaItem, plan: Plan | null, hands: number): number {
  const planned = plan?.hands[item.key];
  return planned !== undefined && planned > 1 && planned < hands ? planned : pairOf(item, plan);
}
