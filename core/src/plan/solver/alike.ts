/**
 * Brews that differ in nothing but whose they are. A timetable stays valid when two of them change places, so that which of
 * them goes first is a question of cost alone, and is answered by trying all pairs. Letters are those of the tables
 * (`tables.ts`).
 */
import { BENT_PER_S } from './price';
import type { Tables } from './tables';
import { timingCostOf } from './timing-cost';

/** Less than this is rounding. */
const GAIN = 0.005;

type Costed = { start: Int32Array; cost: number };

/** The timetable with alike brews in the turn that costs least, as far as changing two of them brings something. */
export function inTurn(t: Tables, best: Costed): Costed {
  const pairs = alikeIn(t);
  if (pairs.length === 0) return best;
  const start = best.start.slice();
  const { costOf } = timingCostOf(t, BENT_PER_S);
  let { cost } = best;
  for (let isBetter = true; isBetter;) {
    isBetter = false;
    for (const [b, c] of pairs) {
      swap(t, start, b, c);
      const swapped = isEarly(t, start, b) || isEarly(t, start, c) ? Infinity : costOf(start);
      if (swapped < cost - GAIN) {
        cost = swapped;
        isBetter = true;
      } else swap(t, start, b, c);
    }
  }
  return { start, cost };
}

/** Pairs of brews that have not begun, in which everything but the order is the same. Moving a frozen start costs, as everywhere. */
function alikeIn(t: Tables): [number, number][] {
  const kinds = new Map<string, number[]>();
  for (let b = 0; b < t.brews; b += 1) {
    if (t.next[b] !== t.first[b]) continue;
    const kind = kindOf(t, b);
    kinds.set(kind, [...(kinds.get(kind) ?? []), b]);
  }
  return [...kinds.values()].flatMap((brews) =>
    brews.flatMap((b, n) => brews.slice(n + 1).map((c): [number, number] => [b, c])),
  );
}

function kindOf(t: Tables, b: number): string {
  const from = t.first[b]!;
  const steps = Array.from({ length: t.first[b + 1]! - from }, (_, n) => {
    const i = from + n;
    return [t.duration[i], t.attended[i], t.lagMin[i], t.lagIdeal[i], t.lagMax[i], t.penalty[i]];
  });
  const holds = t.holds[b]!.map(({ tool, from: first, to }) => [tool, first - from, to - from]);
  return JSON.stringify([steps, holds, t.serve[b]! - from, t.coolS[b]]);
}

const isEarly = (t: Tables, start: Int32Array, b: number): boolean => start[t.first[b]!]! < t.soonest[b]!;

function swap(t: Tables, start: Int32Array, b: number, c: number): void {
  const [atB, atC, steps] = [t.first[b]!, t.first[c]!, t.first[b + 1]! - t.first[b]!];
  for (let n = 0; n < steps; n += 1) {
    const kept = start[atB + n]!;
    start[atB + n] = start[atC + n]!;
    start[atC + n] = kept;
  }
}
