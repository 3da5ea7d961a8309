/**
 * What the bar asks of its hands, in the order in which it asks: the first is what the hands card shows, the next few
 * are "up next". Made from the state, which is always true, and the plan, which may be a moment old.
 */
import {
  brewAt,
  holdsStation,
  nextBrewId,
  timelineAt,
  type BarState,
  type BrewState,
  type CupState,
  type OrderState,
  type StepTime,
} from '../brew';
import type { BrewCard, CardStep, RecipeBook } from '../recipe';
import { cardFor, type Bench, type Station } from './bench';
import { stepKey, type Plan } from './problem';

export type AgendaItem = {
  /** `brewId/stepId`. */
  key: string;
  brewId: string;
  order: OrderState;
  cup: CupState;
  card: BrewCard;
  /** Where it is, or will be, brewed; not `free` while another brew holds the place. */
  station: Station & { free: boolean };
  /** The running brew; null for a cup whose brewing this step would start. */
  brew: BrewState | null;
  /** What the hands do. */
  step: CardStep;
  /**
   * What the card asks for: `start` the timer with the first water, `finish` the step with a tap, say that the `cue`
   * of the passive step before has come, or nothing (`runs`: it ends by the clock).
   */
  asks: 'start' | 'finish' | 'cue' | 'runs';
  /** The passive step whose cue is waited for. */
  awaited: CardStep | null;
  /** When the step should begin, bar milliseconds. */
  dueMs: number;
  /** The latest start that the recipe forgives; null where it does not matter. */
  latestMs: number | null;
  /** Begun and not over. */
  begunMs: number | null;
  /** Since when a pair of hands can be on it: begun, or due and nothing else left for them to do, bar milliseconds. */
  fromMs: number;
};

/** An item before it is known when hands are free for it. */
type Ahead = Omit<AgendaItem, 'fromMs'>;

/** Within this before it is due, a step is "soon", milliseconds. */
export const SOON_MS = 15_000;

/** A brew untouched for this long cannot be what kept the hands until now, milliseconds. */
const HANDS_LOOK_BACK_MS = 600_000;

/**
 * Everything attended that lies ahead, soonest first. What has been begun comes before what is due; what is due comes
 * before what only waits for a cue.
 */
export function agenda(
  state: BarState,
  bench: Bench,
  book: RecipeBook,
  plan: Plan | null,
  nowMs: number,
): AgendaItem[] {
  const items: Ahead[] = [];
  for (const order of Object.values(state.orders)) {
    for (const cup of order.cups) {
      for (const brew of cup.brewIds.map((id) => state.brews[id]!).filter(holdsStation))
        items.push(...ofBrew(brew, order, cup, plan, nowMs));
      if (cup.status === 'waiting') items.push(...ofWaiting(state, bench, book, order, cup, plan));
    }
  }
  const rank = (item: Ahead) =>
    item.begunMs !== null ? 0 : item.asks === 'cue' || item.dueMs > nowMs ? 2 : 1;
  items.sort((a, b) => rank(a) - rank(b) || a.dueMs - b.dueMs || a.order.takenMs - b.order.takenMs);
  const freeMs = handsFreeMs(state, nowMs);
  return items.map((item) => ({ ...item, fromMs: item.begunMs ?? Math.max(item.dueMs, freeMs) }));
}

/** A plan is behind when a step that it wanted over is not, by more than this, milliseconds. */
const BEHIND_MS = 30_000;

/** Whether the bar has fallen behind its plan, so that it is worth planning again though nothing was tapped. */
export const isBehind = (items: readonly AgendaItem[], plan: Plan, nowMs: number): boolean =>
  items.some(
    ({ key, step, begunMs }) =>
      begunMs === null && ((plan.starts[key] ?? Infinity) + step.durationS) * 1000 < nowMs - BEHIND_MS,
  );

/** When the hands finished the last thing that they did. */
function handsFreeMs(state: BarState, nowMs: number): number {
  let freeMs = 0;
  for (const brew of Object.values(state.brews)) {
    if (brew.lastMs + HANDS_LOOK_BACK_MS < nowMs) continue;
    for (const { step, status, endMs } of timelineAt(brew, nowMs))
      if (step.attended && status === 'done') freeMs = Math.max(freeMs, endMs);
  }
  return freeMs;
}

/** The attended steps ahead of a running brew; only its next one asks for anything yet. */
function ofBrew(
  brew: BrewState,
  order: OrderState,
  cup: CupState,
  plan: Plan | null,
  nowMs: number,
): Ahead[] {
  const times = timelineAt(brew, nowMs);
  const station = { id: brew.stationId, name: brew.stationName, brewerId: brew.brewerId, free: true };
  const ahead = times.filter((time) => time.status === 'running' || time.status === 'waiting');
  const awaited = ahead[0]?.step.attended === false && ahead[0].step.end === 'cue' ? ahead[0].step : null;
  const attended = ahead.filter((time) => time.step.attended);
  let soonestMs = 0;
  return attended.map((time, index) => {
    const key = stepKey(brew.id, time.step.id);
    const dueMs = Math.max(soonestMs, dueOf(time, times, plan?.starts[key]));
    // What is overdue, or takes longer than it should, holds up what comes after it until then at least.
    const fromMs = time.status === 'running' ? dueMs : Math.max(dueMs, nowMs);
    soonestMs = Math.max(nowMs, fromMs + time.step.durationS * 1000);
    return {
      key,
      brewId: brew.id,
      order,
      cup,
      card: brew.card,
      station,
      brew,
      step: time.step,
      asks: askOf(time, index === 0 ? awaited : null),
      awaited: index === 0 ? awaited : null,
      dueMs,
      latestMs: latestStartMs(time, times),
      begunMs: time.status === 'running' ? time.startMs : null,
    };
  });
}

/** A cup that waits: the steps of the brew that will be, at their planned times. Not planned yet, it is not asked for. */
function ofWaiting(
  state: BarState,
  bench: Bench,
  book: RecipeBook,
  order: OrderState,
  cup: CupState,
  plan: Plan | null,
): Ahead[] {
  const found = cardFor(bench, cup, book);
  if (!found.ok) return [];
  const brewId = nextBrewId(cup);
  const free = found.stations.find((station) => !brewAt(state, station.id));
  const station = { ...(free ?? found.stations[0]!), free: free !== undefined };
  return found.card.steps.flatMap((step) => {
    const plannedS = plan?.starts[stepKey(brewId, step.id)];
    if (!step.attended || plannedS === undefined) return [];
    const asks =
      step.end === 'clock'
        ? ('runs' as const)
        : step.anchor === 'start'
          ? ('start' as const)
          : ('finish' as const);
    return [
      {
        key: stepKey(brewId, step.id),
        brewId,
        order,
        cup,
        card: found.card,
        station,
        brew: null,
        step,
        asks,
        awaited: null,
        dueMs: plannedS * 1000,
        latestMs: null,
        begunMs: null,
      },
    ];
  });
}

function askOf(time: StepTime, awaited: CardStep | null): AgendaItem['asks'] {
  if (awaited) return 'cue';
  if (time.step.end === 'clock') return 'runs';
  return time.step.anchor === 'start' && time.status !== 'running' ? 'start' : 'finish';
}

/**
 * The plan's start, unless what has happened since makes that too early (the step before ran late) or the plan does
 * not know the step yet; then the card's own rhythm.
 */
function dueOf(time: StepTime, times: StepTime[], plannedS: number | undefined): number {
  if (time.status === 'running' || plannedS === undefined) return time.startMs;
  const before = times[times.indexOf(time) - 1];
  const soonestMs = before ? before.endMs + time.step.lag.minS * 1000 : time.startMs;
  return Math.max(plannedS * 1000, soonestMs);
}

function latestStartMs(time: StepTime, times: StepTime[]): number | null {
  const before = times[times.indexOf(time) - 1];
  const { maxS } = time.step.lag;
  return before && maxS !== null && before.status !== 'waiting' ? before.endMs + maxS * 1000 : null;
}
