/**
 * Tries at pours, kept on this device: all scores, and of each drill the best one's trace.
 */
import { useSyncExternalStore } from 'react';
import { drillKey, packSamples, unpackSamples, type PourTry, type Sample } from '@even-kettle/core/practice';
import { storage } from '../../device/settings';

type Kept = { tries: PourTry[]; best: Record<string, { score: number; packed: number[] }> };

const KEPT_AS = 'even-kettle.practice@1';
const NOTHING: Kept = { tries: [], best: {} };
/** The latest so many stay. */
const TRIES_MAX = 300;

const listeners = new Set<() => void>();
let current: Kept | null = null;

function kept(): Kept {
  if (current) return current;
  try {
    current = whole(JSON.parse(storage()?.getItem(KEPT_AS) ?? 'null'));
  } catch {
    current = NOTHING;
  }
  return current;
}

/** What is stored as far as it can be shown; a device may hold anything. */
function whole(read: Partial<Kept> | null): Kept {
  const tries = Array.isArray(read?.tries) ? read.tries : [];
  const best = Object.entries(read?.best ?? {});
  return {
    tries: tries.filter((each) => typeof each?.score === 'number' && typeof each.drill === 'string'),
    best: Object.fromEntries(
      best.filter(([, each]) => typeof each?.score === 'number' && Array.isArray(each.packed)),
    ),
  };
}

export function keepTry(tried: PourTry, samples: readonly Sample[]): void {
  const before = kept();
  const key = ownKey(tried);
  const best = before.best[key];
  current = {
    tries: [...before.tries, tried].slice(-TRIES_MAX),
    best:
      !tried.onScale && (!best || tried.score > best.score)
        ? { ...before.best, [key]: { score: tried.score, packed: packSamples(samples) } }
        : before.best,
  };
  try {
    storage()?.setItem(KEPT_AS, JSON.stringify(current));
  } catch {
    // The device is full: the tries of this page are still shown.
  }
  for (const listener of listeners) listener();
}

export function useTries(): PourTry[] {
  return useSyncExternalStore(subscribe, kept, kept).tries;
}

/** The trace of this person's best try at a drill; empty for none. */
export function bestPour(of: Pick<PourTry, 'drill' | 'recipeId' | 'cupMl' | 'person'>): Sample[] {
  return unpackSamples(kept().best[ownKey(of)]?.packed ?? []);
}

const ownKey = (of: Pick<PourTry, 'drill' | 'recipeId' | 'cupMl' | 'person'>): string =>
  `${of.person ?? ''}|${drillKey(of)}`;

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
