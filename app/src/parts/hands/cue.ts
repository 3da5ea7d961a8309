/**
 * A cue that is waited for: since when, and how far along its wait should be.
 */
import { anchorMs, timelineAt } from '@even-kettle/core/brew';
import type { AgendaItem } from '@even-kettle/core/plan';

const awaitedTime = (item: AgendaItem, nowMs: number) =>
  item.brew ? timelineAt(item.brew, nowMs).find(({ step }) => step.id === item.awaited?.id) : undefined;

/**
 * What the card counts from: the brew's timer; before it has started, the beginning of the step whose end is waited for.
 * `lessS` is what that takes from times of the card, seconds. Null where nothing runs.
 */
export function cueClock(item: AgendaItem, nowMs: number): { fromMs: number; lessS: number } | null {
  const zeroMs = item.brew ? anchorMs(item.brew, nowMs) : null;
  if (zeroMs !== null) return { fromMs: zeroMs, lessS: 0 };
  const time = awaitedTime(item, nowMs);
  return time ? { fromMs: time.startMs, lessS: time.step.startS } : null;
}

/** How much of the usual wait for its cue is over, from 0 to 1. */
export function cueShare(item: AgendaItem, nowMs: number): number {
  const time = awaitedTime(item, nowMs);
  const share = time ? (nowMs - time.startMs) / (time.endMs - time.startMs) : 0;
  return Math.min(1, Math.max(0, share));
}
