/**
 * Every step as soon as a sequence lets it: the least solution of its difference constraints, by Bellman and Ford. Letters
 * are those of the tables (`tables.ts`).
 */
import { NONE, range, sortBy, type Sequence } from './sequence';
import { NEVER, type Tables } from './tables';

/** A sequence that has not come to rest after so many rounds goes round in circles: a lag's maximum cannot be kept. */
const MOST_ROUNDS = 16;

/** Sets starts to the soonest that the sequence allows. False where it cannot be kept; the starts are then spoilt. */
export function settlerOf(t: Tables, sequence: Sequence): (start: Int32Array) => boolean {
  const { read, before, floor, ceiling, helds, heldBefore } = sequence;
  const endOf = endsOf(t);
  /** Steps that have not begun, by their wish. */
  const order = Int32Array.from(range(t.steps).filter((i) => !isPinned(t, i)));
  const wish = new Int32Array(t.steps);
  /** The holds that begin with each step. */
  const begins = range(t.steps).map((i) => range(helds.length).filter((h) => helds[h]!.from === i));

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

  return settle;
}

/** Whether a step has begun, so that its start stands. */
export const isPinned = (t: Tables, i: number): boolean => i < t.next[t.brewOf[i]!]!;

/** When a step is over: as it was, or as it is planned from these starts. */
export function endsOf(t: Tables): (start: Int32Array, i: number) => number {
  const pinned = Uint8Array.from(range(t.steps), (i) => Number(isPinned(t, i)));
  return (start, i) => (pinned[i] ? t.pinnedEnd[i]! : start[i]! + t.duration[i]!);
}
