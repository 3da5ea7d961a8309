/**
 * The queues of a bar, each with what it promises. A bar that names none has one.
 */
import { openOrders, type BarState, type InQueue, type RingStroke } from '../../brew';
import { promiseS } from './quote';

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

/** The share for an order that comes now; undefined where nothing was learnt of such a load. */
export const shareNow = (
  state: BarState,
  { hands, promiseShares = {} }: { hands: number; promiseShares?: PromiseShares | undefined },
): number | undefined => promiseShares[loadOf(openOrders(state).length, hands)];

/**
 * What an order says of its time: as it is planned, and by when it is promised. What is fetched at a time is promised for
 * that, where it can be kept.
 * @param outS when the plan has it out, seconds of bar time
 * @param share of the wait that a promise adds, where the bar's own record says so
 */
export function timesOf(
  outS: number,
  nowS: number,
  { pickUpMs }: InQueue,
  share?: number,
): { promisedMs: number; expectedMs: number } {
  const expectedMs = Math.ceil(outS) * 1000;
  return {
    promisedMs:
      pickUpMs !== undefined && pickUpMs >= expectedMs ? pickUpMs : promiseS(outS, nowS, share) * 1000,
    expectedMs,
  };
}
