/**
 * Who comes after whom: the order in which each pair of hands takes its steps, and each unit of a tool its brews, read
 * off a wish of starts. Wishes may overlap; the one whose middle is sooner goes first.
 */
import { NEVER, type Tables } from './tables';

/** Nothing before, or nothing after. */
export const NONE = -1;

/** A tool from the start of one step to the end of another; `begun` where it is held already. */
export type Held = { tool: number; from: number; to: number; begun: boolean };

export type Sequence = {
  /** Reads the order off these starts. */
  read: (start: Int32Array) => void;
  /** By step: the one before, and the one after, on the same pair of hands. */
  before: Int32Array;
  after: Int32Array;
  /** By step: no sooner than, and no later than, for the sake of what has begun and of pairs that are away. */
  floor: Int32Array;
  ceiling: Int32Array;
  helds: Held[];
  /** By hold: the one before, and the one after, on the same unit. */
  heldBefore: Int32Array;
  heldAfter: Int32Array;
};

// eslint-disable-next-line max-lines-per-function -- one sequence in shared arrays; its parts are the functions within
export function sequenceOf(t: Tables): Sequence {
  const hand = Int32Array.from(range(t.steps).filter((i) => t.attended[i] && i >= t.next[t.brewOf[i]!]!));
  const middle = new Int32Array(t.steps);
  const before = new Int32Array(t.steps).fill(NONE);
  const after = new Int32Array(t.steps).fill(NONE);
  const floor = new Int32Array(t.steps);
  const ceiling = new Int32Array(t.steps).fill(NEVER);
  const fixed = fixedOf(t);
  const freeAt = new Int32Array(t.hands);
  const last = new Int32Array(t.hands);
  /** The end of a fixed stretch that the next step on a pair has to wait for. */
  const waitsUntil = new Int32Array(t.hands);

  const helds = heldsOf(t);
  const heldMiddle = new Int32Array(helds.length);
  const heldBefore = new Int32Array(helds.length).fill(NONE);
  const heldAfter = new Int32Array(helds.length).fill(NONE);
  const tools = t.toolNames.map((_, tool) => {
    const of = Int32Array.from(range(helds.length).filter((h) => helds[h]!.tool === tool));
    const begun = of.filter((h) => helds[h]!.begun).length;
    const units = Math.max(t.units[tool]!, 1);
    return { of, begun, units, slots: Math.max(units, begun), scarce: of.length > units };
  });
  const mostSlots = Math.max(1, ...tools.map(({ slots }) => slots));
  const unitFree = new Int32Array(mostSlots);
  const unitLast = new Int32Array(mostSlots);

  const endOf = (start: Int32Array, i: number) =>
    i < t.next[t.brewOf[i]!]! ? t.pinnedEnd[i]! : start[i]! + t.duration[i]!;

  function readHands(start: Int32Array): void {
    for (let k = 0; k < hand.length; k += 1) middle[hand[k]!] = 2 * start[hand[k]!]! + t.duration[hand[k]!]!;
    sortBy(hand, middle);
    freeAt.fill(0);
    last.fill(NONE);
    waitsUntil.fill(0);
    let f = 0;
    while (f < fixed.length && fixed[f]!.from === 0) takeFixed(f++);
    for (let k = 0; k < hand.length; k += 1) {
      const i = hand[k]!;
      while (f < fixed.length && 2 * fixed[f]!.from <= middle[i]!) takeFixed(f++);
      const pair = choose(freeAt, t.hands, start[i]!);
      const previous = last[pair]!;
      before[i] = previous;
      after[i] = NONE;
      if (previous !== NONE) after[previous] = i;
      ceiling[i] = NEVER;
      floor[i] = waitsUntil[pair]!;
      waitsUntil[pair] = 0;
      last[pair] = i;
      freeAt[pair] = start[i]! + t.duration[i]!;
    }
    while (f < fixed.length) takeFixed(f++);
  }

  function takeFixed(f: number): void {
    const { from, to } = fixed[f]!;
    const pair = pairFor(from);
    if (last[pair] !== NONE) ceiling[last[pair]!] = from - t.duration[last[pair]!]!;
    freeAt[pair] = to;
    waitsUntil[pair] = Math.max(waitsUntil[pair]!, to);
  }

  /** Who leaves, or is held, from then on: a pair that is free by then; else one whose step must be over by then, not one that is held itself. */
  function pairFor(from: number): number {
    const pair = choose(freeAt, t.hands, from);
    if (freeAt[pair]! <= from || waitsUntil[pair] === 0) return pair;
    for (let other = 0; other < t.hands; other += 1) if (waitsUntil[other] === 0) return other;
    return pair;
  }

  function readTools(start: Int32Array): void {
    for (const { of, begun, units, slots, scarce } of tools) {
      if (!scarce) continue;
      for (let k = 0; k < of.length; k += 1) {
        const { from, to, begun: isBegun } = helds[of[k]!]!;
        heldMiddle[of[k]!] = isBegun ? -NEVER : start[from]! + endOf(start, to);
      }
      sortBy(of, heldMiddle);
      unitFree.fill(-NEVER);
      unitLast.fill(NONE);
      for (let k = 0; k < of.length; k += 1) {
        if (k === begun && slots > units) withdraw(slots, slots - units);
        const h = of[k]!;
        const held = helds[h]!;
        const unit = choose(unitFree, slots, held.begun ? -NEVER : start[held.from]!);
        const previous = unitLast[unit]!;
        heldBefore[h] = previous;
        heldAfter[h] = NONE;
        if (previous !== NONE) heldAfter[previous] = h;
        unitLast[unit] = h;
        unitFree[unit] = endOf(start, held.to);
      }
    }
  }

  /** Of more units in use than there are, those that come free first are not there to be taken again. */
  function withdraw(slots: number, count: number): void {
    for (let n = 0; n < count; n += 1) {
      let soonest = 0;
      for (let unit = 1; unit < slots; unit += 1) if (unitFree[unit]! < unitFree[soonest]!) soonest = unit;
      unitFree[soonest] = NEVER;
    }
  }

  return {
    read: (start) => {
      readHands(start);
      readTools(start);
    },
    before,
    after,
    floor,
    ceiling,
    helds,
    heldBefore,
    heldAfter,
  };
}

/** Of those free by then the one that was free last; else the one that is free first. */
function choose(freeAt: Int32Array, count: number, at: number): number {
  let best = 0;
  for (let n = 1; n < count; n += 1) {
    const a = freeAt[n]!;
    const b = freeAt[best]!;
    if (a <= at ? b > at || a > b : b > at && a < b) best = n;
  }
  return best;
}

/** Stretches of hands that are not for placing: begun steps that are not over, and pairs that are away. */
function fixedOf(t: Tables): { from: number; to: number }[] {
  // Of more begun steps than pairs, those that are over last keep the pairs: nothing is laid on top of them.
  const begun = range(t.steps)
    .filter((i) => i < t.next[t.brewOf[i]!]! && t.attended[i] && t.pinnedEnd[i]! > 0)
    .map((i) => ({ from: 0, to: t.pinnedEnd[i]! }))
    .sort((a, b) => b.to - a.to)
    .slice(0, t.hands);
  const away = t.away
    .filter(({ to }) => to > 0)
    .flatMap(({ from, to, hands }) => Array.from({ length: hands }, () => ({ from: Math.max(0, from), to })));
  return [...begun, ...away].sort((a, b) => a.from - b.from || a.to - b.to);
}

const heldsOf = (t: Tables): Held[] =>
  t.holds.flatMap((holds, b) =>
    holds
      .filter(({ to }) => to >= t.next[b]! || t.pinnedEnd[to]! > 0)
      .map(({ tool, from, to }) => ({ tool, from, to, begun: from < t.next[b]! })),
  );

export const range = (count: number): number[] => Array.from({ length: count }, (_, n) => n);

/** By key; quick on what is nearly in order, and keeps the order of what is equal. */
export function sortBy(items: Int32Array, key: Int32Array): void {
  for (let k = 1; k < items.length; k += 1) {
    const item = items[k]!;
    const its = key[item]!;
    let at = k - 1;
    while (at >= 0 && key[items[at]!]! > its) {
      items[at + 1] = items[at]!;
      at -= 1;
    }
    items[at + 1] = item;
  }
}
