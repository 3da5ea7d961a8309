/**
 * A rush to practise: guests who come by a timetable, what goes wrong by choice, and when what is waited for really comes.
 */
import {
  brewBed,
  brewTimeMs,
  latestBrew,
  timelineAt,
  type BarEvent,
  type BarState,
  type BrewState,
  type CupAsk,
  type OrderTaken,
} from '../brew';
import { cardFor, seededRandom, type AgendaItem, type Bench, type NewId } from '../plan';
import { slurryG, secondsUntil, type PouredSpan } from '../pour';
import { METHODS, type RecipeBook } from '../recipe';

export const RUSH_LEVELS = ['one', 'two', 'three', 'six', 'boat'] as const;
export type RushLevel = (typeof RUSH_LEVELS)[number];
export const SURPRISES = ['stalled', 'kettle', 'siphon', 'spilt', 'two-guests', 'change-of-mind'] as const;
export type Surprise = (typeof SURPRISES)[number];

/** Cups, and within how many seconds they are ordered; how many cups a guest asks for at most. */
const LEVELS: Record<RushLevel, { cups: number; withinS: number; most: number }> = {
  one: { cups: 1, withinS: 60, most: 1 },
  two: { cups: 2, withinS: 30, most: 1 },
  three: { cups: 3, withinS: 420, most: 1 },
  six: { cups: 6, withinS: 480, most: 2 },
  boat: { cups: 9, withinS: 240, most: 3 },
};

/** What happens in the drill: an order, or a surprise, at a second of it. */
export type Happening =
  | { atS: number; order: OrderTaken }
  | { atS: number; surprise: Exclude<Surprise, 'stalled' | 'siphon' | 'two-guests'> };

export type RushSetUp = {
  level: RushLevel;
  surprises: readonly Surprise[];
  bench: Bench;
  book: RecipeBook;
  /** What guests ask for, drawn evenly; what this bench cannot brew is left out. */
  menu: readonly Omit<CupAsk, 'cupId'>[];
  startMs: number;
  seed: number;
  newId: NewId;
};

/** The drill's happenings in order of time; none where nothing of the menu can be brewed. */
export function rushHappenings({
  level,
  surprises,
  bench,
  book,
  menu,
  startMs,
  seed,
  newId,
}: RushSetUp): Happening[] {
  const random = seededRandom(seed);
  const { cups, withinS, most } = LEVELS[level];
  const offered = menu.filter((line) => cardFor(bench, { ...line, cupId: 'practice' }, book).ok);
  if (offered.length === 0) return [];
  const sizes: number[] = [];
  for (let left = cups; left > 0;) {
    const size = Math.min(left, 1 + Math.floor(random() * most));
    sizes.push(size);
    left -= size;
  }
  const together = surprises.includes('two-guests') && sizes.length > 1;
  const orders = sizes.map((size, n): Happening => {
    // The first guest is there as the drill begins; with two guests at once the last two come in the same second.
    const at = together && n === sizes.length - 1 ? n - 1 : n;
    const atS =
      n === 0
        ? 1
        : Math.round((at / sizes.length) * withinS + (together && n >= sizes.length - 2 ? 0 : random() * 20));
    const orderId = `practice-${seed}-${n + 1}`;
    return {
      atS,
      order: {
        id: newId(),
        type: 'order-taken',
        atMs: startMs + atS * 1000,
        orderId,
        cups: Array.from({ length: size }, (_, cup) => ({
          ...offered[Math.floor(random() * offered.length)]!,
          cupId: `${orderId}-${cup + 1}`,
        })),
      },
    };
  });
  const later = (['change-of-mind', 'kettle', 'spilt'] as const)
    .filter((surprise) => surprises.includes(surprise))
    .map((surprise, n): Happening => ({ atS: Math.round(withinS * (0.45 + 0.35 * n)), surprise }));
  return [...orders, ...later].sort((a, b) => a.atS - b.atS);
}

/** A kettle is filled again in so long, seconds. */
const REFILL_S = 20;

/** What a surprise does to the bar now; nothing where there is nobody and nothing that it can happen to yet. */
export function surpriseNow(
  surprise: 'change-of-mind' | 'kettle' | 'spilt',
  state: BarState,
  nowMs: number,
  newId: NewId,
): BarEvent[] {
  const base = () => ({ id: newId(), atMs: nowMs });
  if (surprise === 'kettle')
    return [{ ...base(), type: 'hands-away', fromMs: nowMs, toMs: nowMs + REFILL_S * 1000 }];
  for (const order of Object.values(state.orders).reverse())
    for (const cup of order.cups) {
      if (surprise === 'change-of-mind' && cup.status === 'waiting' && order.cups.length > 1)
        return [{ ...base(), type: 'cup-cancelled', orderId: order.id, cupId: cup.cupId }];
      const brew = latestBrew(state, cup);
      if (surprise === 'spilt' && cup.status === 'served' && brew)
        return [
          {
            ...base(),
            type: 'cup-remade',
            orderId: order.id,
            cupId: cup.cupId,
            brewId: brew.id,
            reason: 'spilt',
          },
        ];
    }
  return [];
}

/** A bed that stalls takes so much longer; a siphon that does not rise waits for so long more, seconds. */
const STALLED_SHARE = 0.7;
const NOT_RISEN_S = 60;
/** How far what is waited for comes from its expected time, as a share of the wait (one standard deviation of a calm bar). */
const USUAL_SHARE = 0.06;

/**
 * When what a step waits for is really there, bar milliseconds; null where the item waits for nothing.
 * @param victims the brews that the surprises happen to
 */
export function cueComesMs(
  item: AgendaItem,
  nowMs: number,
  victims: { stalled: string | null; siphon: string | null },
  seed: number,
): number | null {
  const { awaited, brew } = item;
  if (!awaited || !brew) return null;
  const time = timelineAt(brew, nowMs).find(({ step }) => step.id === awaited.id);
  if (!time) return null;
  const usual = (seededRandom(seed + hash(item.key))() - 0.5) * 3.4 * USUAL_SHARE;
  const stalls = victims.stalled === brew.id && awaited.kind === 'drawdown' ? STALLED_SHARE : 0;
  const waitsS =
    victims.siphon === brew.id &&
    METHODS[brew.card.method].heatedIn !== 'kettle' &&
    awaited.kind !== 'drawdown'
      ? NOT_RISEN_S
      : 0;
  return time.startMs + awaited.durationS * 1000 * (1 + usual + stalls) + waitsS * 1000;
}

const hash = (text: string): number =>
  [...text].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 65_521, 7);

/** From when on hands that do nothing about an item are idle, bar milliseconds: it could have been done by then. */
export function idleFromMs(item: AgendaItem, comesMs: number | null, graceMs: number): number {
  if (item.asks === 'runs') return Infinity;
  if (item.asks === 'cue') return (comesMs ?? Infinity) + graceMs;
  const doing = item.asks === 'start' ? 0 : item.step.durationS * 1000;
  return Math.max(item.dueMs, item.fromMs) + doing + graceMs;
}

export type LatePour = {
  brewId: string;
  step: string;
  station: string;
  lateS: number;
  /** For so long the bed stood bare before it, seconds. */
  bareS: number;
};

/** With less than this over it the top of the bed is bare, grams. */
const BARE_G = 8;
/** Later than this is late, seconds: what recipes forgive where they say nothing else. */
const LATE_S = 8;

/** The pours of a brew that came late by its own rhythm, and how long its bed stood bare for them. */
export function latePoursOf(brew: BrewState, nowMs: number): LatePour[] {
  const times = timelineAt(brew, nowMs).filter(({ status }) => status === 'done' || status === 'running');
  const late: LatePour[] = [];
  const poured: PouredSpan[] = [];
  const bed = brewBed(brew);
  times.forEach(({ step, startMs, endMs }, n) => {
    if (step.pourG === undefined || step.phase !== 'brew') return;
    const before = times[n - 1];
    const lateS = before && poured.length > 0 ? (startMs - before.endMs) / 1000 - step.lag.idealS : 0;
    if (lateS > LATE_S) {
      const last = poured.at(-1)!;
      const standsG = slurryG(poured, bed, last.endS);
      const bareAtS = Number.isFinite(bed.tauS) ? last.endS + secondsUntil(standsG, BARE_G, bed) : Infinity;
      late.push({
        brewId: brew.id,
        step: step.name,
        station: brew.stationName,
        lateS: Math.round(lateS),
        bareS: Math.max(0, Math.round(startMs / 1000 - bareAtS)),
      });
    }
    poured.push({ startS: startMs / 1000, endS: endMs / 1000, pourG: step.pourG });
  });
  return late;
}

export type RushReview = {
  /** How long each order waited, and how long it would have with hands that are never late, seconds; null while it is not out. */
  orders: { orderId: string; waitS: number | null; exactS: number | null }[];
  latePours: LatePour[];
  /** Brews that were dry, or done, outside their windows, seconds outside (above 0 late). */
  outOfWindow: { brewId: string; station: string; byS: number }[];
  idleS: number;
  wrongOrder: number;
  tooEarly: number;
  /** What to do next: the same again, the next level, or the same with one more surprise. */
  next: { level: RushLevel; surprises: Surprise[] };
  isMastered: boolean;
};

/**
 * What the trainee did, counted while the drill ran. `tooEarly`: what was waited for had not come, or a step cannot be done in
 * so short a time.
 */
export type RushCounts = { idleMs: number; wrongOrder: number; tooEarly: number };

export function reviewRush(
  { level, surprises }: Pick<RushSetUp, 'level' | 'surprises'>,
  state: BarState,
  exactS: Readonly<Record<string, number>>,
  counts: RushCounts,
  nowMs: number,
): RushReview {
  const brews = Object.values(state.brews);
  const orders = Object.values(state.orders).map((order) => {
    const outs = order.cups
      .filter(({ status }) => status !== 'cancelled')
      .map((cup) => latestBrew(state, cup)?.servedMs ?? null);
    const isOut = outs.length > 0 && outs.every((out) => out !== null);
    return {
      orderId: order.id,
      waitS: isOut ? Math.round((Math.max(...outs.map(Number)) - order.takenMs) / 1000) : null,
      exactS: exactS[order.id] === undefined ? null : Math.round(exactS[order.id]!),
    };
  });
  const latePours = brews.flatMap((brew) => latePoursOf(brew, nowMs));
  const outOfWindow = brews.flatMap((brew) => {
    const timeMs = brewTimeMs(brew);
    if (timeMs === null) return [];
    const timeS = timeMs / 1000;
    const { from, to } = brew.card.brewWindowS;
    const byS = Math.round(timeS < from ? timeS - from : timeS > to ? timeS - to : 0);
    return byS === 0 ? [] : [{ brewId: brew.id, station: brew.stationName, byS }];
  });
  const waited = orders.filter(({ waitS, exactS: exact }) => waitS !== null && exact !== null);
  const over = waited.reduce((sum, { waitS, exactS: exact }) => sum + (waitS! - exact!), 0);
  const usual = waited.reduce((sum, { exactS: exact }) => sum + exact!, 0);
  const isMastered =
    waited.length === orders.length &&
    over <= 0.25 * usual &&
    latePours.length + outOfWindow.length <= 2 &&
    counts.wrongOrder <= 1 &&
    counts.tooEarly <= 2;
  return {
    orders,
    latePours,
    outOfWindow,
    idleS: Math.round(counts.idleMs / 1000),
    wrongOrder: counts.wrongOrder,
    tooEarly: counts.tooEarly,
    isMastered,
    next: nextDrill(level, surprises, isMastered),
  };
}

function nextDrill(
  level: RushLevel,
  surprises: readonly Surprise[],
  isMastered: boolean,
): RushReview['next'] {
  if (!isMastered) return { level, surprises: surprises.slice(0, Math.max(0, surprises.length - 1)) };
  const harder = RUSH_LEVELS[RUSH_LEVELS.indexOf(level) + 1];
  if (harder) return { level: harder, surprises: [...surprises] };
  const more = SURPRISES.find((each) => !surprises.includes(each));
  return { level, surprises: more ? [...surprises, more] : [...surprises] };
}
