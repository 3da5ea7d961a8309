/**
 * Whether a brew ended in its window. A tap is a second or two early or late, and that is no fault of the brew.
 */
export type Speed = 'fast' | 'in time' | 'slow';

/** Seconds by which a tap may miss the end mark. */
const THUMB_S = 2;

export const speedOf = (brewS: number, { from, to }: { from: number; to: number }): Speed =>
  brewS > to + THUMB_S ? 'slow' : brewS < from - THUMB_S ? 'fast' : 'in time';
