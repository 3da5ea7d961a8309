/**
 * The best times for a given sequence. First every step as soon as the sequence lets it (the least solution of its
 * difference constraints, by Bellman and Ford); from there, since no step can be sooner, sets of steps are moved later
 * for as long as that lowers the cost. The cost is L-natural-convex in the starts, so the steepest such set, a minimum
 * cut, leads to the optimum (K. Murota, Discrete Convex Analysis, 2003, chapter 10).
 */
import { cutOf } from './cut';
import { APART_PER_S, BENT_PER_S, FROZEN_PER_S, LATE_PER_S } from './price';
import { NONE, range, sequenceOf, sortBy } from './sequence';
import { NEVER, type Tables } from './tables';

const { abs, max, sign } = Math;

/** A sequence that has not come to rest after so many rounds goes round in circles: a lag's maximum cannot be kept. */
const MOST_ROUNDS = 16;
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
// eslint-disable-next-line max-lines-per-function -- one timetable in shared arrays; its parts are the functions within
export function timingOf(t: Tables, bentPerS = BENT_PER_S): Timing {
  const { read, before, after, floor, ceiling, helds, heldBefore, heldAfter } = sequenceOf(t);
  const pinned = Uint8Array.from(range(t.steps), (i) => Number(i < t.next[t.brewOf[i]!]!));
  const order = Int32Array.from(range(t.steps).filter((i) => !pinned[i]));
  const wish = new Int32Array(t.steps);
  /** The holds that begin, and that end, with each step. */
  const begins = range(t.steps).map((i) => range(helds.length).filter((h) => helds[h]!.from === i));
  const ends = range(t.steps).map((i) => range(helds.length).filter((h) => helds[h]!.to === i));
  const finish = new Int32Array(t.brews);

  const endOf = (start: Int32Array, i: number) => (pinned[i] ? t.pinnedEnd[i]! : start[i]! + t.duration[i]!);

  function settle(start: Int32Array): boolean {
    read(start);
    for (let k = 0; k < order.length; k += 1) wish[order[k]!] = start[order[k]!]!;
    sortBy(order, wish);
    for (let k = 0; k < order.length; k += 1) {
      const i = order[k]!;
      const b = t.brewOf[i]!;
      let soonest = i === t.next[b] ? t.soonest[b]! : 0;
      if (t.attended[i] && floor[i]! > soonest) soonest = floor[i]!;
      if (t.frozen[i] !== NEVER && t.frozen[i]! > soonest) soonest = t.frozen[i]!;
      start[i] = soonest;
    }
    for (let round = 0; round < MOST_ROUNDS; round += 1) {
      if (!pushLater(start)) return keepsCeilings(start);
    }
    return false;
  }

  /** One round: every step at least as late as what comes before it asks. True where something moved. */
  function pushLater(start: Int32Array): boolean {
    let moved = false;
    for (let k = 0; k < order.length; k += 1) {
      const i = order[k]!;
      const next = t.next[t.brewOf[i]!]!;
      let at = start[i]!;
      if (i > next) {
        const soonest = start[i - 1]! + t.duration[i - 1]! + t.lagMin[i]!;
        if (soonest > at) at = soonest;
      }
      if (t.attended[i] && before[i] !== NONE) {
        const soonest = start[before[i]!]! + t.duration[before[i]!]!;
        if (soonest > at) at = soonest;
      }
      const taken = begins[i]!;
      for (let n = 0; n < taken.length; n += 1) {
        const earlier = heldBefore[taken[n]!]!;
        if (earlier === NONE) continue;
        const soonest = endOf(start, helds[earlier]!.to);
        if (soonest > at) at = soonest;
      }
      if (at !== start[i]) {
        start[i] = at;
        moved = true;
      }
      // What comes too late for the step before it pushes that one later too.
      for (let j = i; j > next; j -= 1) {
        const soonest = start[j]! - t.lagMax[j]! - t.duration[j - 1]!;
        if (soonest <= start[j - 1]!) break;
        start[j - 1] = soonest;
        moved = true;
      }
    }
    return moved;
  }

  function keepsCeilings(start: Int32Array): boolean {
    for (let k = 0; k < order.length; k += 1) if (start[order[k]!]! > ceiling[order[k]!]!) return false;
    return true;
  }

  function costOf(start: Int32Array): number {
    let cost = 0;
    for (let b = 0; b < t.brews; b += 1) {
      finish[b] = endOf(start, t.serve[b]!);
      const next = t.next[b]!;
      for (let i = next; i < t.first[b + 1]!; i += 1) {
        if (t.frozen[i] !== NEVER && t.frozen[i] !== start[i])
          cost += FROZEN_PER_S * abs(start[i]! - t.frozen[i]!);
        if (i === t.first[b]) continue;
        const lag = start[i]! - endOf(start, i - 1);
        cost += t.penalty[i]! * abs(lag - t.lagIdeal[i]!);
        if (i === next && lag > t.lagMax[i]!) cost += bentPerS * (lag - t.lagMax[i]!);
      }
    }
    for (let o = 0; o < t.orders.length; o += 1) {
      const { placedAt, dueAt, weight, serveWithin } = t.orders[o]!;
      const [first, last] = outOf(o);
      cost +=
        weight *
        (last -
          placedAt +
          LATE_PER_S * max(0, last - dueAt) +
          APART_PER_S * max(0, last - first - serveWithin));
    }
    return cost;
  }

  const firstAndLast: [number, number] = [0, 0];
  /** The first and the last finish of an order, as of the last `costOf`. */
  function outOf(o: number): [number, number] {
    let first = NEVER;
    let last = -NEVER;
    for (const b of t.orders[o]!.brews) {
      if (finish[b]! < first) first = finish[b]!;
      if (finish[b]! > last) last = finish[b]!;
    }
    firstAndLast[0] = first;
    firstAndLast[1] = last;
    return firstAndLast;
  }

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
    const { brews, dueAt, weight, serveWithin } = t.orders[o]!;
    const [first, last] = outOf(o);
    const lastNode = t.steps + 2 * o;
    const firstNode = lastNode + 1;
    for (const b of brews)
      if (finish[b] === last && !pinned[t.serve[b]!]) cut.pull(t.serve[b]!, lastNode, Infinity);
    cut.price(lastNode, weight * (1 + (last >= dueAt ? LATE_PER_S : 0)));
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
    const { brews, dueAt, serveWithin } = t.orders[o]!;
    if (!brews.some((b) => inSet[t.serve[b]!])) return;
    const [first, last] = outOf(o);
    const apart = last - first - serveWithin;
    if (apart !== 0) atMost(abs(apart));
    for (const b of brews) {
      const at = finish[b]!;
      if (inSet[t.serve[b]!]) {
        if (at < last) atMost(last - at);
        if (at < dueAt) atMost(dueAt - at);
      } else if (at > first) atMost(at - first);
    }
  }

  return { settle, perfect, costOf };
}
