/**
 * How late this bar's orders are, compared with the plan at the time when they were taken.
 */
import { learnPromiseShare } from '@even-kettle/core/learn';
import { MARGIN_S } from '@even-kettle/core/plan';
import { LEARN_FROM, isSold, type Sources } from './sources';

/** The share of the wait that a promise adds; null while the log has too few orders. */
export async function promiseShareOf({ records }: Sources): Promise<number | null> {
  const orders = new Map<string, { orderedMs: number; expectedMs: number; outMs: number }>();
  const sold = (await records.latest(LEARN_FROM)).filter(isSold);
  for (const { orderId, outcome, orderedMs, expectedMs, endedMs } of sold) {
    if (outcome !== 'served' || expectedMs === undefined) continue;
    const outMs = Math.max(endedMs, orders.get(orderId)?.outMs ?? 0);
    orders.set(orderId, { orderedMs, expectedMs, outMs });
  }
  const kept = [...orders.values()].map(({ orderedMs, expectedMs, outMs }) => ({
    waitS: (expectedMs - orderedMs) / 1000,
    lateS: (outMs - expectedMs) / 1000,
  }));
  return learnPromiseShare(kept, MARGIN_S);
}
