/**
 * Whether this device's person wants nothing to move that need not.
 */
import { useSyncExternalStore } from 'react';

const query = () => globalThis.matchMedia?.('(prefers-reduced-motion: reduce)');

function subscribe(listener: () => void): () => void {
  const asked = query();
  asked?.addEventListener('change', listener);
  return () => asked?.removeEventListener('change', listener);
}
const isReduced = (): boolean => query()?.matches ?? false;

export const useReducedMotion = (): boolean => useSyncExternalStore(subscribe, isReduced, isReduced);
