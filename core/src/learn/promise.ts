/**
 * How much a promise has to add to the plan's time, learnt from how late this bar's orders were: apart for a quiet bar and a
 * full one, since what goes wrong in a rush says little of a quiet hour.
 */
import { LOADS, type Load, type PromiseShares } from '../plan';
import { quantile } from './statistics';

/** An order that is out: how full the bar was, how long it was expected to take, and how long after that it came, seconds. */
export type KeptOrder = { load: Load; waitS: number; lateS: number };

/** Fewer orders than this teach nothing yet, and the usual share counts as so many. */
const FEWEST = 5;
const USUAL_COUNTS = 8;
/** The percentage of orders that should be out by their promise. */
const KEPT_SHARE = 0.95;
/** Limits of the learnt share, as shares of the wait. */
const LEAST = 0.03;
const MOST = 0.3;

/**
 * The share of the wait that a promise adds, besides its fixed seconds, for each load that enough orders came in.
 * @param fixedS the seconds that every promise adds
 * @param usual the shares that a bar begins with
 */
export function learnPromiseShares(
  orders: readonly KeptOrder[],
  fixedS: number,
  usual: Readonly<Record<Load, number>>,
): PromiseShares {
  const shares: PromiseShares = {};
  for (const load of LOADS) {
    const asked = orders
      .filter((order) => order.load === load && order.waitS > 0)
      .map(({ waitS, lateS }) => Math.max(0, lateS - fixedS) / waitS);
    if (asked.length < FEWEST) continue;
    const share =
      (asked.length * quantile(asked, KEPT_SHARE) + USUAL_COUNTS * usual[load]) /
      (asked.length + USUAL_COUNTS);
    shares[load] = Math.min(MOST, Math.max(LEAST, Math.round(100 * share) / 100));
  }
  return shares;
}
