/**
 * What each pair of hands is at. The rule, in one place:
 *
 * 1. What a pair has begun by a tap, or a scale has seen begin, it is at until that is done.
 * 2. Otherwise it is at what its card asks for, from the moment that the card asks: the first step that was due once the hands
 *    were free. That stays until it is done, whatever the plan, the clock or the other pair do meanwhile.
 * 3. Only a step that spoils goes before one that does not: where its latest start would be past once the step in hand is done.
 * 4. Hands that come free late do not take up what the old plan wanted long ago where a step that spoils would be late for it:
 *    then they are at nothing until that one is due.
 */
import type { Pair } from '../../brew';
import type { AgendaItem } from './agenda';
import { pairOf } from './hands';
import { EDGE_S, TAP_MARGIN_S } from './margins';
import type { Plan } from '../solver';

export type InHand = {
  item: AgendaItem;
  /** It is not due yet, and nothing else is taken up meanwhile. */
  waits?: true;
  /** The step that it goes before although the card asked for that one, since it spoils sooner. */
  before?: AgendaItem;
};

/**
 * @param items as the agenda orders them by their times alone
 * @param freeMs when a pair did its last step, bar milliseconds
 */
export function inHandOf(
  items: readonly AgendaItem[],
  plan: Plan | null,
  freeMs: (pair: Pair) => number,
  nowMs: number,
): InHand[] {
  const pairs = new Set(items.map((item) => pairOf(item, plan)));
  return [...pairs].flatMap((pair) => {
    const own = items.filter((item) => pairOf(item, plan) === pair);
    const at = own.some(({ begunMs }) => begunMs !== null) ? null : askedOf(own, plan, freeMs(pair), nowMs);
    return at ? [at] : [];
  });
}

/** Whether hands can take it up once it is due: there is room for it, and it does not wait for what has to be seen first. */
const canBegin = ({ brew, station, asks }: AgendaItem): boolean =>
  asks !== 'cue' && (brew !== null || station.free);

function askedOf(
  own: readonly AgendaItem[],
  plan: Plan | null,
  freeMs: number,
  nowMs: number,
): InHand | null {
  const able = own.filter(canBegin);
  const held = able.find(({ key }) => plan?.startedHands?.[key] !== undefined);
  const first = held ? { item: held } : firstAsked(able, freeMs, nowMs);
  if (!first || 'waits' in first) return first ?? null;
  const { item } = first;
  const endMs = Math.max(nowMs, Math.max(item.fromMs, freeMs) + lengthMs(item));
  const sooner = (spoils(item) ? [] : able)
    .filter((other) => other !== item && other.dueMs <= nowMs && spoils(other))
    .filter(
      (other) => tooLateMs(other, endMs) > 0 && spoiltBy(other, item, nowMs) < spoiltBy(item, other, nowMs),
    )
    .sort((a, b) => spoiltBy(a, b, nowMs) - spoiltBy(b, a, nowMs))[0];
  if (sooner) return { item: sooner, before: item };
  const before = own.find(({ key }) => key === plan?.goesBefore?.[item.key]);
  return before ? { item, before } : { item };
}

/** What the card asked for first once the hands were free; where all that was due would make a step late, that one is waited for. */
function firstAsked(able: readonly AgendaItem[], freeMs: number, nowMs: number): InHand | undefined {
  const sinceMs = Math.max(freeMs, Math.min(...able.map(({ dueMs }) => dueMs)));
  if (sinceMs > nowMs) return undefined;
  const coming = able.filter(({ dueMs }) => dueMs > sinceMs).filter(spoils);
  // What is done before another is due, or has to be, makes nothing late; nor does it wait where it would be spoilt itself.
  const fits = (item: AgendaItem) =>
    coming.every(
      (other) =>
        sinceMs + lengthMs(item) <= Math.max(other.dueMs, other.latestMs! - EDGE_S * 1000) ||
        (spoils(item) && tooLateMs(item, other.dueMs + lengthMs(other)) > 0),
    );
  const due = able.filter(({ dueMs }) => dueMs <= sinceMs).filter(fits);
  // What spoils first, as it stood when the hands came free: as time goes on, another one may seem dearer.
  const spoiling = due
    .filter(spoils)
    .sort((a, b) => spoiltBy(a, b, sinceMs) - spoiltBy(b, a, sinceMs) || a.latestMs! - b.latestMs!);
  const first = spoiling[0] ?? due[0];
  if (first) return { item: first };
  const [next] = coming.sort((a, b) => a.dueMs - b.dueMs);
  // Waited for until it is due; from then on the hands are at it.
  return next && (next.dueMs <= nowMs ? { item: next } : { item: next, waits: true });
}

const lengthMs = ({ step }: AgendaItem): number =>
  step.durationS * 1000 + (step.end === 'clock' ? 0 : TAP_MARGIN_S * 1000);

/** How much too late a step would begin at a time, milliseconds; negative while there is room. */
const tooLateMs = ({ latestMs }: AgendaItem, atMs: number): number =>
  latestMs === null ? -Infinity : atMs - (latestMs - EDGE_S * 1000);

/** What is spoilt if one step is done before another: how late each of them begins, dearer steps more. */
function spoiltBy(one: AgendaItem, other: AgendaItem, nowMs: number): number {
  const late = (item: AgendaItem, atMs: number) =>
    spoils(item) ? Math.max(0, atMs - item.latestMs!) * (1 + item.step.lag.penalty) : 0;
  return late(one, nowMs) + late(other, nowMs + lengthMs(one));
}

/** Whether waiting harms a cup that is being brewed: a bed runs dry, a flame heats on, a cup cools. */
export const spoils = ({ brew, step, latestMs }: Pick<AgendaItem, 'brew' | 'step' | 'latestMs'>): boolean =>
  brew !== null && brew.status === 'running' && latestMs !== null && step.kind !== 'clean';
