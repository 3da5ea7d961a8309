/** What the open format charges for, by the second; and what the search charges itself. */
export const LATE_PER_S = 4;
export const APART_PER_S = 3;
/** By which a step that follows a begun one exceeds its max lag. */
export const RELAXED_PER_S = 20;
/**
 * A second by which a frozen start is moved: so dear that it is moved only where nothing keeps it, and then as little as
 * can be. Counted by the second, since five steps a second later are no change of mind, and one a minute later is.
 */
export const FROZEN_PER_S = 1e4;
