/**
 * A day at the bar in figures: what went out, how long people waited and why, what was lost.
 */
import { PROMISE_S } from '../plan';
import type { MethodId } from '../recipe';
import { quantile } from './statistics';
import { speedOf } from './window';

/** One finished brew, as much of it as a day's page needs. */
export type DayBrew = {
  brewId: string;
  orderId: string;
  method: MethodId;
  outcome: 'served' | 'abandoned';
  reason: string | null;
  attempt: number;
  /** Served, and sent back: brewed again since. */
  isSentBack?: boolean | undefined;
  cups: number;
  doseG: number;
  /** Water that was really poured, grams. */
  pouredG: number;
  handsS: number;
  orderedMs: number;
  promisedMs: number | null;
  startedMs: number;
  endedMs: number;
  realBrewS: number | null;
  windowToS: number;
  windowFromS: number;
  /** The queue that its order stood in last. */
  queueId?: string | undefined;
  /** Other orders that had a cup of it. */
  sharers?: readonly Pick<DayBrew, 'orderId' | 'orderedMs' | 'promisedMs'>[] | undefined;
};

export type LateCause =
  | 'waited for hands or a brewer'
  | 'brewed again'
  | 'drawdown over its window'
  | 'steps came late';

export type Day = {
  cups: number;
  orders: number;
  /** From order to handing over, of whole orders, seconds; null on a day without orders. */
  waitS: { median: number; p90: number; longest: number } | null;
  late: { orderId: string; byS: number; cause: LateCause }[];
  /** Orders by the queue in which they stood, where there are queues. */
  queues: { queueId: string; orders: number; medianWaitS: number; late: number }[];
  handsByMethod: { method: MethodId; cups: number; handsS: number }[];
  remade: number;
  abandoned: { reason: string; count: number }[];
  waste: { coffeeG: number; waterG: number };
  inWindow: { of: number; inside: number };
};

/** A promise is kept when it is missed by no more than this, seconds. */
const KEPT_S = 20;
/** A brew that starts so long after its order has waited for hands or a brewer, seconds. */
const WAITED_S = 240;

export function dayOf(brews: readonly DayBrew[]): Day {
  // A cup that was sent back is sold once, by what was brewed for it in the end; what went before is lost.
  const served = brews.filter(({ outcome, isSentBack }) => outcome === 'served' && !isSentBack);
  const abandoned = brews.filter(({ outcome }) => outcome === 'abandoned');
  const lost = [...abandoned, ...brews.filter(({ isSentBack }) => isSentBack)];
  const orders = groupBy(
    served.flatMap((brew) => [brew, ...(brew.sharers ?? []).map((sharer) => ({ ...brew, ...sharer }))]),
    ({ orderId }) => orderId,
  );
  const out = [...orders.entries()].map(([orderId, of]) => {
    const last = of.reduce((latest, brew) => (brew.endedMs > latest.endedMs ? brew : latest));
    const waitS = (last.endedMs - last.orderedMs) / 1000;
    const dueMs = last.promisedMs ?? last.orderedMs + PROMISE_S * 1000;
    return { orderId, last, waitS, byS: Math.round((last.endedMs - dueMs) / 1000) };
  });
  const waits = out.map(({ waitS }) => waitS);
  const methods = groupBy(served, ({ method }) => method);
  const timed = served.filter(({ realBrewS }) => realBrewS !== null);
  const reasons = groupBy(abandoned, ({ reason }) => reason ?? 'no reason given');
  return {
    cups: sum(served, ({ cups }) => cups),
    orders: orders.size,
    waitS:
      waits.length === 0
        ? null
        : { median: quantile(waits, 0.5), p90: quantile(waits, 0.9), longest: Math.max(...waits) },
    late: out
      .filter(({ byS }) => byS > KEPT_S)
      .map(({ orderId, byS, last }) => ({ orderId, byS, cause: causeOf(last) }))
      .sort((a, b) => b.byS - a.byS),
    queues: [
      ...groupBy(
        out.filter(({ last }) => last.queueId !== undefined),
        ({ last }) => last.queueId!,
      ).entries(),
    ].map(([queueId, of]) => ({
      queueId,
      orders: of.length,
      medianWaitS: quantile(
        of.map(({ waitS }) => waitS),
        0.5,
      ),
      late: of.filter(({ byS }) => byS > KEPT_S).length,
    })),
    handsByMethod: [...methods.entries()]
      .map(([method, of]) => ({
        method,
        cups: sum(of, ({ cups }) => cups),
        handsS: sum(of, ({ handsS }) => handsS),
      }))
      .sort((a, b) => b.handsS - a.handsS),
    remade: served.filter(({ attempt }) => attempt > 1).length,
    abandoned: [...reasons.entries()]
      .map(([reason, of]) => ({ reason, count: of.length }))
      .sort((a, b) => b.count - a.count),
    waste: { coffeeG: sum(lost, ({ doseG }) => doseG), waterG: sum(lost, ({ pouredG }) => pouredG) },
    inWindow: {
      of: timed.length,
      inside: timed.filter(
        ({ realBrewS, windowFromS, windowToS }) =>
          speedOf(realBrewS!, { from: windowFromS, to: windowToS }) === 'in time',
      ).length,
    },
  };
}

/** What held up an order's last cup most. */
function causeOf({ attempt, orderedMs, startedMs, realBrewS, windowToS }: DayBrew): LateCause {
  if (attempt > 1) return 'brewed again';
  if ((startedMs - orderedMs) / 1000 > WAITED_S) return 'waited for hands or a brewer';
  return realBrewS !== null && realBrewS > windowToS ? 'drawdown over its window' : 'steps came late';
}

const sum = <Item>(items: readonly Item[], of: (item: Item) => number): number =>
  items.reduce((all, item) => all + of(item), 0);

function groupBy<Item, Key>(items: readonly Item[], keyOf: (item: Item) => Key): Map<Key, Item[]> {
  const groups = new Map<Key, Item[]>();
  for (const item of items) {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}
