/** What the open format charges for, by the second; and what the search charges itself. */
export const LATE_PER_S = 4;
export const APART_PER_S = 3;
/** By which a step that follows a begun one exceeds its max lag. */
export const RELAXED_PER_S = 20;
/**
 * What the search charges itself for that: what can be kept is kept, whatever a rush or a row of late orders would gain
 * by bending a cup that is on its way.
 */
export const BENT_PER_S = 5 * RELAXED_PER_S;
/**
 * A second by which an order is out after the time that its guest was told: a new order takes what room is left, and only a
 * person's word (a rush, a drag) is worth more.
 */
export const TOLD_PER_S = 20;
/**
 * A second by which a frozen start is moved: so dear that it is moved only where nothing keeps it, and then as little as
 * can be. Counted by the second, since five steps a second later are no change of mind, and one a minute later is.
 */
export const FROZEN_PER_S = 1e4;
