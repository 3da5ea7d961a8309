/**
 * A function that stays the same one while what it does is brought up to date, so that a part of the page that is given it
 * need not be rendered again.
 */
import { useCallback, useInsertionEffect, useRef } from 'react';

export function useStable<Args extends unknown[], Result>(
  latest: (...args: Args) => Result,
): (...args: Args) => Result {
  const held = useRef(latest);
  useInsertionEffect(() => {
    held.current = latest;
  });
  return useCallback((...args: Args) => held.current(...args), []);
}
