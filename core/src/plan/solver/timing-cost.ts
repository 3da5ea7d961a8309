/**
 * What a timetable costs: every step away from its ideal, every order until it is out. Letters are those of the tables
 * (`tables.ts`).
 */
import { APART_PER_S, FROZEN_PER_S, LATE_PER_S, TOLD_PER_S } from './price';
import { endsOf } from './settle';
import { NEVER, type Tables } from './tables';

const { abs, max } = Math;

export type TimingCost = {
  costOf: (start: Int32Array) => number;
  /** The first and the last finish of an order, as of the last `costOf`. */
  outOf: (order: number) => [number, number];
  /** By brew, as of the last `costOf`. */
  finish: Int32Array;
};

/** @param bentPerS what bending a running brew by a second is charged */
export function timingCostOf(t: Tables, bentPerS: number): TimingCost {
  const finish = new Int32Array(t.brews);
  const endOf = endsOf(t);

  function costOf(start: Int32Array): number {
    let cost = 0;
    for (let b = 0; b < t.brews; b += 1) {
      finish[b] = endOf(start, t.serve[b]!) + t.coolS[b]!;
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
      const { placedAt, dueAt, promisedAt, weight, serveWithin } = t.orders[o]!;
      const [first, last] = outOf(o);
      cost +=
        TOLD_PER_S * max(0, last - promisedAt) +
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

  return { costOf, outOf, finish };
}
