/**
 * What this device's hands were looking at, and since when. If a cue is asked for late, nobody knows when it came.
 */
import { useEffect } from 'react';
import { onTick, useHere } from '../../client/bar-context';
import type { AgendaItem } from '@even-kettle/core/plan';

/** Tapped this soon after it was asked for, it may have come before; later than that, somebody waited for it and saw it, milliseconds. */
const AT_ONCE_MS = 4000;
/** Shown again after less than this it was never out of sight, milliseconds. */
const BLINK_MS = 1500;

type Sight = { sinceMs: number; untilMs: number; notOverMs: number };
/** By `brew/step` of the awaited step; a few dozen a shift. */
const sights = new Map<string, Sight>();

const keyOf = (item: AgendaItem): string => `${item.brewId}/${item.awaited?.id ?? ''}`;

/** A card with this item is in sight at this moment. */
export function inSight(item: AgendaItem, nowMs: number): void {
  if (item.asks !== 'cue' || !item.awaited) return;
  const known = sights.get(keyOf(item));
  if (known && nowMs - known.untilMs < BLINK_MS) {
    known.untilMs = nowMs;
    return;
  }
  // Until it went out of sight it had surely not come; before it was first seen, since the last thing done in its brew.
  const notOverMs = known?.untilMs ?? item.brew?.lastMs ?? nowMs;
  sights.set(keyOf(item), { sinceMs: nowMs, untilMs: nowMs, notOverMs });
}

/** The last time at which the cue had surely not come, if a tap now cannot say when it did; undefined if it can. */
export function notOverMs(item: AgendaItem, tapMs: number): number | undefined {
  const sight = item.asks === 'cue' ? sights.get(keyOf(item)) : undefined;
  if (!sight || tapMs - sight.sinceMs > AT_ONCE_MS) return undefined;
  // Asked for as soon as it could come, it was in sight all along.
  return sight.sinceMs - sight.notOverMs > AT_ONCE_MS ? Math.round(sight.notOverMs) : undefined;
}

export function useSight(item: AgendaItem): void {
  const { clock } = useHere();
  useEffect(() => onTick(clock, 200, 0, (nowMs) => inSight(item, nowMs)), [clock, item]);
}
