/**
 * Calls with every frame that is drawn, while it is wanted, with the seconds since the one before.
 */
import { useEffect } from 'react';
import { useStable } from '../../ui/use-stable';

/** A page that was hidden does not catch up on what it missed, seconds. */
const LONGEST_S = 0.25;

export function useFrames(isWanted: boolean, frame: (forS: number) => void): void {
  const call = useStable(frame);
  useEffect(() => {
    if (!isWanted) return undefined;
    let lastMs = performance.now();
    let next = 0;
    const turn = (nowMs: number) => {
      call(Math.min(LONGEST_S, Math.max(0, (nowMs - lastMs) / 1000)));
      lastMs = nowMs;
      next = requestAnimationFrame(turn);
    };
    next = requestAnimationFrame(turn);
    return () => cancelAnimationFrame(next);
  }, [isWanted, call]);
}
