/**
 * When a step is announced: get ready, now, late. Each once a step, decided from the agenda alone.
 */
import { latenessOf, type AgendaItem } from '@even-kettle/core/plan';

export type Signal = 'ready' | 'now' | 'late';
export type Heard = { key: string; signal: Signal };

/** "Get ready" comes this long before a step is due, milliseconds; earlier for hands that come late. */
export const READY_MS = 5000;
/** "Late" comes this long after, or when what the recipe forgives is over, if that is sooner. */
const LATE_MS = 6000;
/** A step that was due longer ago than this when the page opened is not announced. */
const STALE_MS = 30_000;

/**
 * The signal that a step is at.
 * @param earlyMs how much sooner than usual this person is warned
 */
export function signalOf(item: AgendaItem, nowMs: number, earlyMs: number): Signal | null {
  if (item.begunMs !== null || item.asks === 'runs') return null;
  // A cue that is waited for has no signal of its own.
  if (item.asks === 'cue') return null;
  const leftMs = item.dueMs - nowMs;
  if (leftMs < -STALE_MS) return null;
  if (leftMs > 0) return leftMs <= READY_MS + earlyMs ? 'ready' : null;
  const late = latenessOf(item, nowMs);
  const pastMs =
    late?.leftMs === null || late?.leftMs === undefined
      ? LATE_MS
      : Math.min(LATE_MS, late.byMs + late.leftMs);
  return late && late.cost !== 'nothing' && late.byMs >= pastMs ? 'late' : 'now';
}

const ORDER: readonly Signal[] = ['ready', 'now', 'late'];

/**
 * The signals for this moment, and those that have been given by then. Only the step at hand is announced; if several
 * are due at once, the others wait their turn.
 */
export function toHear(
  items: readonly AgendaItem[],
  nowMs: number,
  earlyMs: number,
  heard: ReadonlyMap<string, Signal>,
): Heard | null {
  // A step that is being done is not shouted over, but the one after it may say "get ready".
  const [first, second] = items;
  const candidates = first && (first.begunMs !== null || first.asks === 'runs') ? [second] : [first];
  for (const item of candidates) {
    const signal = item ? signalOf(item, nowMs, earlyMs) : null;
    if (!item || !signal) continue;
    const before = heard.get(item.key);
    if (before === undefined || ORDER.indexOf(before) < ORDER.indexOf(signal))
      return { key: item.key, signal };
  }
  return null;
}
