/**
 * What it costs to be late, by method and step: a press forgives, a siphon on its flame does not.
 */
import {
  METHODS,
  little,
  nothing,
  roleOf,
  costsTheCup,
  type CardStep,
  type LateMoment,
  type LatePrice,
  type MethodId,
} from '../../recipe';
import type { AgendaItem } from './agenda';

export type Lateness = {
  /** Behind its time, milliseconds. */
  byMs: number;
  /** What is left of the time that the recipe forgives, milliseconds; negative beyond it, null where it does not matter. */
  leftMs: number | null;
  cost: LatePrice['cost'];
  /** What it does to this cup, and what to do about it, in a line. */
  words: string;
  /** It is past saving: the cup is better started again. */
  startAgain: boolean;
};

/** Sooner than this nobody speaks of late, milliseconds. */
const ON_TIME_MS = 1500;

/** A bed that has stood without its water for so much longer than the recipe forgives is not saved by pouring on, milliseconds. */
const PAST_SAVING_MS = 120_000;

/**
 * How late the step that an item asks for is; null while it is not, or has been begun. Where nothing tells that a step
 * was begun it is taken to have begun at its time, and it is late once it should be over.
 * @param watched whether a scale is connected that would tell when a pour begins; left out, as the station says
 */
export function latenessOf(
  item: AgendaItem,
  nowMs: number,
  watched = item.station.scale === 'simulated' || item.station.scale === 'bridge',
): Lateness | null {
  if (item.begunMs !== null || item.asks === 'cue' || item.asks === 'runs') return null;
  const isTold = item.asks === 'start' || (item.step.kind === 'pour' && watched);
  const doingMs = isTold ? 0 : item.step.durationS * 1000;
  const byMs = nowMs - idealMs(item) - doingMs;
  if (byMs <= ON_TIME_MS || !item.brew) return null;
  const leftMs = item.latestMs === null ? null : item.latestMs + doingMs - nowMs;
  if (isPastSaving(item, leftMs)) return { byMs, leftMs, startAgain: true, ...PAST_SAVING };
  const { cost, words } = priceOf(item.step, item.card.method, leftMs === null || leftMs >= 0);
  return { byMs, leftMs, startAgain: false, cost, words };
}

const PAST_SAVING = {
  cost: 'the cup',
  words: 'The bed has stood dry for too long; pouring on would taste of it.',
} as const;

/** A bed that drains by itself and was left standing in the middle of its pours. */
const isPastSaving = ({ step, card }: AgendaItem, leftMs: number | null): boolean =>
  step.kind === 'pour' &&
  step.anchor === undefined &&
  METHODS[card.method].drawdownExponent !== null &&
  leftMs !== null &&
  leftMs < -PAST_SAVING_MS;

/** When the recipe wanted it. The plan moves with what is late, so it is no measure of that. */
function idealMs({ step: { lag }, dueMs, latestMs }: AgendaItem): number {
  return latestMs === null || lag.maxS === null ? dueMs : latestMs - (lag.maxS - lag.idealS) * 1000;
}

function priceOf(step: CardStep, method: MethodId, within: boolean): LatePrice {
  const { late, heatedIn, drawdownExponent } = METHODS[method];
  if (step.kind === 'clean') return nothing('Only the station waits for it.');
  if (step.phase === 'prep' && !step.anchor) {
    if (heatedIn !== 'kettle' && step.kind === 'flame')
      return costsTheCup('The flame heats on: see to it first, or the water boils over the top.');
    if (roleOf(method, step) === 'seal')
      return costsTheCup('Near boiling and unsealed: seal it now, gently.');
    return nothing('Nothing is spoilt; the cup comes later.');
  }
  const own = momentsOf(step).flatMap((moment) => late[moment] ?? [])[0];
  if (own) return within ? own.within : own.beyond;
  if (step.anchor)
    return within ? nothing('The wetted filter waits.') : little('The brewer has cooled: warm it again.');
  if (step.kind === 'pour' && drawdownExponent !== null)
    return within
      ? nothing('The bed is still wet.')
      : little('The bed may have run dry: pour gently first, then go on to the same reading.');
  if (isPushed(step)) return little('Fine grounds draw on quickly: press now, not faster.');
  if (isServing(step))
    return within
      ? nothing('It keeps its heat a while.')
      : little('It cools; swirl the server before it goes out.');
  if (step.kind === 'bypass') return nothing('The server waits for its water.');
  return within
    ? nothing('Still within what the recipe forgives.')
    : little('Later than the recipe likes; go on from here.');
}

const isPushed = ({ kind }: CardStep) => kind === 'plunge' || kind === 'dip' || kind === 'press';
const isServing = ({ kind }: CardStep) => kind === 'serve' || kind === 'decant';

/** What a step may be late with, the most telling first. */
function momentsOf(step: CardStep): LateMoment[] {
  const moments: LateMoment[] = [];
  if (step.kind === 'flame' && !step.anchor) moments.push('flame');
  if (step.anchor) moments.push('anchor');
  if (isPushed(step)) moments.push('press');
  if (step.phase === 'brew') moments.push('brew');
  if (isServing(step)) moments.push('serve');
  return moments;
}

/** How long a brew forgives that nobody is there: until when, bar milliseconds (null: nothing is spoilt), and what then. */
export type Forgiveness = { item: AgendaItem; untilMs: number | null; then: string };

/** A cue that nobody sees is missed by this before it matters, where its recipe gives no limit, seconds. */
const CUE_SLACK_S = 30;

/** What runs, the most urgent first: each brew with its next step and how long that may wait. */
export function forgivenessOf(items: readonly AgendaItem[]): Forgiveness[] {
  const next = new Map<string, AgendaItem>();
  for (const item of items)
    if (item.brew?.status === 'running' && !next.has(item.brewId)) next.set(item.brewId, item);
  return [...next.values()]
    .map((item) => {
      const { cost, words } = priceOf(item.step, item.card.method, false);
      const { maxS } = item.step.lag;
      const untilMs =
        cost === 'nothing'
          ? null
          : item.asks === 'cue'
            ? item.dueMs + (maxS ?? CUE_SLACK_S) * 1000
            : (item.latestMs ?? item.dueMs + (maxS ?? CUE_SLACK_S) * 1000);
      return { item, untilMs, then: words };
    })
    .sort((a, b) => (a.untilMs ?? Infinity) - (b.untilMs ?? Infinity));
}
