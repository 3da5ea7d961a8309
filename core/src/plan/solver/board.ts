/**
 * Which brews use the hands and the tools, second by second, during the search for a plan; and where one brew fits best
 * among the others (`placement.ts`). Over-booking is allowed and costs: a plan is valid when that cost is zero.
 * Letters are those of the tables (`tables.ts`).
 */
import { placementOn } from './placement';
import { NEVER, type Tables } from './tables';

const { max, min } = Math;

/** What a second of over-booked hands, or tool, costs. */
export type Prices = { hands: number; tool: number };

export type Board = {
  /** The planned start of every step; NEVER while its brew is not placed. */
  start: Int32Array;
  /** The finish of every brew; NEVER while it is not placed. */
  finish: Int32Array;
  lift: (brew: number) => void;
  put: (brew: number) => void;
  /**
   * Sets the brew's starts to the best for these prices, begun no sooner than `from` and over by `to`; false where there is
   * none.
   */
  place: (brew: number, prices: Prices, from: number, to: number) => boolean;
};

export function boardOf(t: Tables): Board {
  const size = t.horizon + 2;
  const handsTaken = new Int16Array(size);
  for (const gap of t.away) add(handsTaken, gap.from, gap.to, gap.hands);
  const toolsTaken = Array.from(t.units, () => new Int16Array(size));
  const start = new Int32Array(t.steps).fill(NEVER);
  const finish = new Int32Array(t.brews).fill(NEVER);

  // What has begun stands, and takes its room.
  for (let b = 0; b < t.brews; b += 1) {
    for (let i = t.first[b]!; i < t.next[b]!; i += 1) {
      start[i] = t.pinnedStart[i]!;
      if (t.attended[i]) add(handsTaken, start[i]!, t.pinnedEnd[i]!, 1);
    }
    for (const { tool, from, to } of t.holds[b]!)
      if (to < t.next[b]!) add(toolsTaken[tool]!, start[from]!, t.pinnedEnd[to]!, 1);
  }

  /** By tool: how many brews have it in use. */
  const holders = new Int32Array(t.units.length);
  for (let b = 0; b < t.brews; b += 1)
    for (const { tool, from, to } of t.holds[b]!)
      if (from < t.next[b]! && to >= t.next[b]!) holders[tool]! += 1;

  const endOf = (i: number) => (i < t.next[t.brewOf[i]!]! ? t.pinnedEnd[i]! : start[i]! + t.duration[i]!);

  function takeHands(i: number, by: 1 | -1): void {
    add(handsTaken, start[i]!, start[i]! + t.duration[i]!, by);
  }

  function lift(b: number): void {
    for (let i = t.next[b]!; i < t.first[b + 1]!; i += 1) if (t.attended[i]) takeHands(i, -1);
    for (const { tool, from, to } of t.holds[b]!)
      if (to >= t.next[b]!) add(toolsTaken[tool]!, start[from]!, endOf(to), -1);
    finish[b] = NEVER;
  }

  function put(b: number): void {
    for (let i = t.next[b]!; i < t.first[b + 1]!; i += 1) if (t.attended[i]) takeHands(i, 1);
    for (const { tool, from, to } of t.holds[b]!)
      if (to >= t.next[b]!) add(toolsTaken[tool]!, start[from]!, endOf(to), 1);
    finish[b] = endOf(t.serve[b]!) + t.coolS[b]!;
  }

  const place = placementOn(t, { start, finish, handsTaken, toolsTaken, holders });
  return { start, finish, lift, put, place };
}

function add(taken: Int16Array, from: number, to: number, by: number): void {
  const end = min(to, taken.length);
  for (let s = max(0, from); s < end; s += 1) taken[s]! += by;
}
