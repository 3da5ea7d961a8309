/**
 * The queues of a bar, each with what it promises. A bar that names none has one.
 */
import { openOrders, type BarState, type InQueue, type RingStroke } from '../../brew';

export const QUEUE_PROMISES = ['soon', 'within', 'pick-up'] as const;
export type Queue = {
  id: string;
  name: string;
  /** As soon as it can be; within so many minutes; or at the time at which it is wanted, and not long before. */
  promise: (typeof QUEUE_PROMISES)[number];
  withinMin?: number | undefined;
  /** How much its waiting counts when the bar is full; 1 if left out. */
  share?: number | undefined;
  /** The ring of its badges. */
  stroke?: RingStroke | undefined;
};

/** How long a queue promises where it does not say, minutes. */
const WITHIN_MIN = 10;

/**
 * What an order that stands in a queue says of it.
 * @param pickUpMs when it is wanted, for a queue of such orders
 */
export const asInQueue = (queue: Queue | undefined, pickUpMs: number | null): InQueue =>
  queue
    ? {
        queueId: queue.id,
        ...(queue.promise === 'within' ? { withinS: (queue.withinMin ?? WITHIN_MIN) * 60 } : {}),
        ...(queue.promise === 'pick-up' && pickUpMs !== null ? { pickUpMs } : {}),
        ...(queue.share === undefined ? {} : { share: queue.share }),
        ...(queue.stroke === undefined ? {} : { stroke: queue.stroke }),
      }
    : {};

/** How full a bar is when an order comes, by the orders that are open for each pair of hands. */
export const LOADS = ['quiet', 'busy', 'full'] as const;
export type Load = (typeof LOADS)[number];
const BUSY_FROM = 2;
const FULL_FROM = 5;

/** @param open orders that were open before it */
export const loadOf = (open: number, hands: number): Load =>
  open < BUSY_FROM * hands ? 'quiet' : open < FULL_FROM * hands ? 'busy' : 'full';

/** The share of the wait that a promise adds, where the bar's own record says so of a load. */
export type PromiseShares = Partial<Record<Load, number>>;

/** What a promise adds to the plan's time, besides a share of the wait, seconds. */
export const MARGIN_S = 15;
/** The share of the wait that it adds, until the bar's own record says so: of full bars' long waits more goes otherwise. */
export const USUAL_SHARES: Readonly<Record<Load, number>> = { quiet: 0.08, busy: 0.08, full: 0.12 };

/** The share for an order that comes now: as the bar's own record says of such a load, else the usual one. */
export function shareNow(
  state: BarState,
  { hands, promiseShares = {} }: { hands: number; promiseShares?: PromiseShares | undefined },
): number {
  const load = loadOf(openOrders(state).length, hands);
  return promiseShares[load] ?? USUAL_SHARES[load];
}

/**
 * What an order says of its time: as it is planned, and by when it is promised. What is fetched at a time is promised for
 * that, where it can be kept.
 * @param outS when the plan has it out, seconds of bar time
 * @param share of the wait that a promise adds: hands and beds are never exact. Nothing is planned with it.
 */
export function timesOf(
  outS: number,
  nowS: number,
  { pickUpMs }: InQueue,
  share: number = USUAL_SHARES.quiet,
): { promisedMs: number; expectedMs: number } {
  const expectedMs = Math.ceil(outS) * 1000;
  const byS = Math.ceil(outS + MARGIN_S + share * Math.max(0, outS - nowS));
  return {
    promisedMs: pickUpMs !== undefined && pickUpMs >= expectedMs ? pickUpMs : byS * 1000,
    expectedMs,
  };
}
