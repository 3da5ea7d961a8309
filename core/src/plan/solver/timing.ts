/**
 * The best times for a given sequence. First every step as soon as the sequence lets it (`settle.ts`); from there, since no
 * step can be sooner, sets of steps are moved later for as long as that lowers the cost (`timing-cost.ts`). The cost is
 * L-natural-convex in the starts, so the steepest such set, a minimum cut, leads to the optimum (K. Murota, Discrete Convex
 * Analysis, 2003, chapter 10). Letters are those of the tables (`tables.ts`).
 */
import { cutOf } from './cut';
import { APART_PER_S, BENT_PER_S, LATE_PER_S, TOLD_PER_S } from './price';
import { NONE, range, sequenceOf, type Sequence } from './sequence';
import { endsOf, isPinned, settlerOf } from './settle';
import { NEVER, type Tables } from './tables';
import { timingCostOf, type TimingCost } from './timing-cost';

const { abs, max, sign } = Math;

/** Moves later of one timing; more have not been seen to be needed. */
const MOST_MOVES = 120;
const TINY = 1e-9;

export type Timing = {
  /**
   * Takes the sequence from these starts and sets them to the soonest that it allows. False where it cannot be kept;
   * the starts are then spoilt.
   */
  settle: (start: Int32Array) => boolean;
  /** Moves what `settle` gave later where that is cheaper, to the least cost of the sequence; gives that cost. */
  perfect: (start: Int32Array) => number;
  costOf: (start: Int32Array) => number;
};

/** @param bentPerS what bending a running brew by a second is charged: the search's own price, or the open format's */
export function timingOf(t: Tables, bentPerS = BENT_PER_S): Timing {
  const sequence = sequenceOf(t);
  const cost = timingCostOf(t, bentPerS);
  return {
    settle: settlerOf(t, sequence),
    perfect: perfecterOf(t, sequence, cost, bentPerS),
    costOf: cost.costOf,
  };
}

// eslint-disable-next-line max-lines-per-function -- one cut over shared arrays; its parts are the functions within
function perfecterOf(
  t: Tables,
  { after, ceiling, helds, heldAfter }: Sequence,
  { costOf, outOf, finish }: TimingCost,
  bentPerS: number,
): Timing['perfect'] {
  const endOf = endsOf(t);
  const pinned = Uint8Array.from(range(t.steps), (i) => Number(isPinned(t, i)));
  const order = Int32Array.from(range(t.steps).filter((i) => !pinned[i]));
  /** The holds that end with each step. */
  const ends = range(t.steps).map((i) => range(helds.length).filter((h) => helds[h]!.to === i));
  const cut = cutOf(t.steps + 2 * t.orders.length, 6 * t.steps + 6 * t.brews + 4 * t.orders.length);
  const inSet = new Uint8Array(t.steps + 2 * t.orders.length);
  const set = new Int32Array(t.steps + 2 * t.orders.length);
  let room = 0;
  const atMost = (seconds: number) => {
    if (seconds < room) room = seconds;
  };

  function perfect(start: Int32Array): number {
    let cost = costOf(start);
    for (let move = 0; move < MOST_MOVES; move += 1) {
      cut.clear();
      priceSteps(start);
      for (let o = 0; o < t.orders.length; o += 1) priceOrder(o);
      const size = cut.solve(inSet, set);
      room = NEVER;
      for (let n = 0; n < size; n += 1) if (set[n]! < t.steps) roomOfStep(start, set[n]!);
      for (let o = 0; o < t.orders.length; o += 1) roomOfOrder(o);
      const by = room < NEVER ? room : 0;
      for (let n = 0; n < size; n += 1) {
        inSet[set[n]!] = 0;
        if (set[n]! < t.steps) start[set[n]!]! += by;
      }
      if (size === 0 || by <= 0) return cost;
      const now = costOf(start);
      if (now > cost - TINY * max(1, abs(cost))) return now;
      cost = now;
    }
    return cost;
  }

  /** What it costs to move each step a second later, alone and with its neighbours. */
  function priceSteps(start: Int32Array): void {
    for (let k = 0; k < order.length; k += 1) {
      const i = order[k]!;
      const b = t.brewOf[i]!;
      const end = start[i]! + t.duration[i]!;
      if (t.frozen[i] !== NEVER || (t.attended[i] && ceiling[i]! <= start[i]!)) cut.price(i, NEVER);
      if (t.attended[i] && after[i] !== NONE && start[after[i]!]! <= end) cut.pull(i, after[i]!, Infinity);
      for (const h of ends[i]!) {
        const later = heldAfter[h]!;
        if (later !== NONE && start[helds[later]!.from]! <= end) cut.pull(i, helds[later]!.from, Infinity);
      }
      if (i === t.first[b]) continue;
      const lag = start[i]! - endOf(start, i - 1);
      const penalty = t.penalty[i]!;
      const way = sign(lag - t.lagIdeal[i]!);
      if (i === t.next[b]) {
        cut.price(i, (way < 0 ? -penalty : penalty) + (lag >= t.lagMax[i]! ? bentPerS : 0));
        continue;
      }
      if (lag >= t.lagMax[i]!) cut.pull(i, i - 1, Infinity);
      if (lag <= t.lagMin[i]!) cut.pull(i - 1, i, Infinity);
      if (way !== 0) {
        cut.price(i, way * penalty);
        cut.price(i - 1, -way * penalty);
      } else if (penalty > 0) {
        cut.pull(i, i - 1, penalty);
        cut.pull(i - 1, i, penalty);
      }
    }
  }

  /** An order is out with its last cup: a node of its own that each of the last pulls along; and one for the first, which lets the rest off. */
  function priceOrder(o: number): void {
    const { brews, dueAt, promisedAt, weight, serveWithin } = t.orders[o]!;
    const [first, last] = outOf(o);
    const lastNode = t.steps + 2 * o;
    const firstNode = lastNode + 1;
    for (const b of brews)
      if (finish[b] === last && !pinned[t.serve[b]!]) cut.pull(t.serve[b]!, lastNode, Infinity);
    cut.price(
      lastNode,
      weight * (1 + (last >= dueAt ? LATE_PER_S : 0)) + (last >= promisedAt ? TOLD_PER_S : 0),
    );
    const apart = last - first - serveWithin;
    if (apart < 0) return;
    for (const b of brews) {
      if (finish[b] !== first) continue;
      if (pinned[t.serve[b]!]) cut.price(firstNode, NEVER);
      else cut.pull(firstNode, t.serve[b]!, Infinity);
    }
    if (apart === 0) cut.pull(lastNode, firstNode, APART_PER_S * weight);
    else {
      cut.price(lastNode, APART_PER_S * weight);
      cut.price(firstNode, -APART_PER_S * weight);
    }
  }

  /** How far a step of the set can go: to the next thing in the way, or the next corner of the price. */
  function roomOfStep(start: Int32Array, i: number): void {
    const b = t.brewOf[i]!;
    const end = start[i]! + t.duration[i]!;
    if (t.attended[i]) {
      atMost(ceiling[i]! - start[i]!);
      if (after[i] !== NONE && !inSet[after[i]!]) atMost(start[after[i]!]! - end);
    }
    for (const h of ends[i]!) {
      const later = heldAfter[h]!;
      if (later !== NONE && !inSet[helds[later]!.from]) atMost(start[helds[later]!.from]! - end);
    }
    if (i + 1 < t.first[b + 1]! && !inSet[i + 1]) {
      const lag = start[i + 1]! - end;
      atMost(lag - (lag > t.lagIdeal[i + 1]! ? t.lagIdeal[i + 1]! : t.lagMin[i + 1]!));
    }
    if (i > t.first[b]! && !inSet[i - 1]) {
      const lag = start[i]! - endOf(start, i - 1);
      if (lag < t.lagIdeal[i]!) atMost(t.lagIdeal[i]! - lag);
      if (i > t.next[b]! || lag < t.lagMax[i]!) atMost(t.lagMax[i]! - lag);
    }
  }

  /** How far until an order's price turns: its promise, its next cup, its cups further apart than they should be. */
  function roomOfOrder(o: number): void {
    const { brews, dueAt, promisedAt, serveWithin } = t.orders[o]!;
    if (!brews.some((b) => inSet[t.serve[b]!])) return;
    const [first, last] = outOf(o);
    const apart = last - first - serveWithin;
    if (apart !== 0) atMost(abs(apart));
    for (const b of brews) {
      const at = finish[b]!;
      if (inSet[t.serve[b]!]) {
        if (at < last) atMost(last - at);
        if (at < dueAt) atMost(dueAt - at);
        if (at < promisedAt) atMost(promisedAt - at);
      } else if (at > first) atMost(at - first);
    }
  }

  return perfect;
}
