/** What the open format charges for, by the second; and what the search charges itself. */
export const LATE_PER_S = 4;
export const APART_PER_S = 3;
/** By which a step that follows a begun one exceeds its max lag. */
export const RELAXED_PER_S = 20;
/** Any plan that keeps a frozen start is better than one that does not. */
export const FROZEN_BROKEN = 1e6;
