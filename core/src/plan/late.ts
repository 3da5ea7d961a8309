/**
 * What it costs to be late, by method and step: a press forgives, a siphon on its flame does not.
 */
import { METHODS, roleOf, type CardStep, type MethodId } from '../recipe';
import type { AgendaItem } from './agenda';

export type Lateness = {
  /** Behind its time, milliseconds. */
  byMs: number;
  /** What is left of the time that the recipe forgives, milliseconds; negative beyond it, null where it does not matter. */
  leftMs: number | null;
  cost: 'nothing' | 'little' | 'the cup';
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

type Price = Pick<Lateness, 'cost' | 'words'>;
const nothing = (words: string): Price => ({ cost: 'nothing', words });
const little = (words: string): Price => ({ cost: 'little', words });
const theCup = (words: string): Price => ({ cost: 'the cup', words });

function priceOf(step: CardStep, method: MethodId, within: boolean): Price {
  const { drawdownExponent, usesKettle } = METHODS[method];
  if (step.kind === 'clean') return nothing('Only the station waits for it.');
  if (step.phase === 'prep' && !step.anchor) {
    if (!usesKettle && step.kind === 'flame')
      return theCup('The flame heats on: see to it first, or the water boils over the top.');
    if (roleOf(method, step) === 'seal') return theCup('Near boiling and unsealed: seal it now, gently.');
    return nothing('Nothing is spoilt; the cup comes later.');
  }
  if (method === 'siphon' && step.kind === 'flame')
    return theCup('Every second on the flame cooks it further: flame off first, the stir can go.');
  if (method === 'siphon' && step.anchor)
    return within
      ? little('The water above changes by the second: check its temperature again.')
      : theCup('The water above has boiled on: check its temperature again before the coffee goes in.');
  if (method === 'pressure-pot' || method === 'foam-pot')
    return step.phase === 'brew'
      ? theCup('It boils on and turns harsh: off the flame first.')
      : little('Pour it out; the hot metal goes on cooking it.');
  if (step.anchor)
    return within ? nothing('The wetted filter waits.') : little('The brewer has cooled: warm it again.');
  if (step.kind === 'pour' && drawdownExponent !== null)
    return within
      ? nothing('The bed is still wet.')
      : little('The bed may have run dry: pour gently first, then go on to the same reading.');
  if (step.kind === 'plunge' || step.kind === 'dip' || step.kind === 'press')
    return method === 'press'
      ? little(within ? 'A press forgives this.' : 'A little heavier; it loses nothing else.')
      : little('Fine grounds draw on quickly: press now, not faster.');
  if (step.kind === 'serve' || step.kind === 'decant') {
    if (METHODS[method].steeps && method !== 'siphon')
      return within
        ? little('It draws on while it stands on its grounds.')
        : theCup('It has stood on its grounds: taste before it goes out.');
    return within
      ? nothing('It keeps its heat a while.')
      : little('It cools; swirl the server before it goes out.');
  }
  if (step.kind === 'bypass') return nothing('The server waits for its water.');
  return within
    ? nothing('Still within what the recipe forgives.')
    : little('Later than the recipe likes; go on from here.');
}
