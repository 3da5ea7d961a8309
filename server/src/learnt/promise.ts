/**
 * How late this bar's orders are, compared with the plan at the time when they were taken.
 */
import { learnPromiseShares } from '@even-kettle/core/learn';
import { MARGIN_S, USUAL_SHARES, loadOf, type PromiseShares } from '@even-kettle/core/plan';
import { LEARN_FROM, isSold, type Sources } from './sources';

/** The share of the wait that a promise adds, by how full the bar is; without those that the log has too few orders for. */
export async function promiseSharesOf({ records, bar }: Sources): Promise<PromiseShares> {
  const orders = new Map<string, { orderedMs: number; expectedMs: number; outMs: number }>();
  const sold = (await records.latest(LEARN_FROM)).filter(isSold);
  for (const { orderId, outcome, orderedMs, expectedMs, endedMs } of sold) {
    if (outcome !== 'served' || expectedMs === undefined) continue;
    const outMs = Math.max(endedMs, orders.get(orderId)?.outMs ?? 0);
    orders.set(orderId, { orderedMs, expectedMs, outMs });
  }
  const all = [...orders.values()];
  const kept = all.map(({ orderedMs, expectedMs, outMs }) => {
    const open = all.filter((other) => other.orderedMs < orderedMs && other.outMs > orderedMs).length;
    return {
      load: loadOf(open, bar().hands),
      waitS: (expectedMs - orderedMs) / 1000,
      lateS: (outMs - expectedMs) / 1000,
    };
  });
  return learnPromiseShares(kept, MARGIN_S, USUAL_SHARES);
}
