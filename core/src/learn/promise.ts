/**
 * How much a promise has to add to the plan's time, learnt from how late this bar's orders were.
 */
import { quantile } from './statistics';

/** An order that is out: how long it was expected to take, and how long after that it came, seconds. */
export type KeptOrder = { waitS: number; lateS: number };

/** Fewer orders than this are not enough to learn from. */
const FEWEST = 20;
/** The percentage of orders that should be out by their promise. */
const KEPT_SHARE = 0.95;
/** Limits of the learnt share, as shares of the wait. */
const LEAST = 0.03;
const MOST = 0.3;

/**
 * The share of the wait that a promise adds, besides its fixed seconds; null while there are too few orders.
 * @param fixedS the seconds that every promise adds
 */
export function learnPromiseShare(orders: readonly KeptOrder[], fixedS: number): number | null {
  const asked = orders
    .filter(({ waitS }) => waitS > 0)
    .map(({ waitS, lateS }) => Math.max(0, lateS - fixedS) / waitS);
  if (asked.length < FEWEST) return null;
  return Math.min(MOST, Math.max(LEAST, Math.round(100 * quantile(asked, KEPT_SHARE)) / 100));
}
