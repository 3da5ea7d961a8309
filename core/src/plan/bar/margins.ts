/** What the bar leaves free for people, who are never exact. */

/** The next station is a step away: so long after a step that ends with a tap, seconds. */
export const TAP_MARGIN_S = 1;

/** A step at the very end of its window is outside it after the least delay: so much of a window is left free, seconds. */
export const EDGE_S = 3;
/** Narrower windows are used to their end, seconds. */
export const NARROW_S = 6;
