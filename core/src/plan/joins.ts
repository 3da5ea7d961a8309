/**
 * Alike work together or apart: the moves of the search that change which steps make a batch. Letters are those of the
 * tables (`tables.ts`).
 */
import { batchOf, join, leave, mayJoin, part, type Mates } from './batches';
import type { Tables } from './tables';

/** A plan as the search has it: when each step starts, and what is done together. */
export type Timetable = { start: Int32Array; mates: Mates };

/** How many neighbours are tried together, and how far apart they may be, seconds. */
const TRIED = 16;
const NEAR_S = 240;

export type Joins = {
  /** Has one step, drawn at random, done together with others like it, or by itself again. */
  move: (plan: Timetable) => void;
  /** The first steps that could be done together with the next one like them. */
  neighbours: (plan: Timetable) => [i: number, j: number][];
  /** After a move: what was moved takes along what is done together with it, or leaves it. */
  follow: (plan: Timetable, current: Int32Array) => void;
  /** Brings the batch of `j` to that of `i`, with what goes before or after in its brews. */
  bring: (plan: Timetable, i: number, j: number) => void;
};

/** @returns null where nothing may be done together */
export function joinsOf(t: Tables, random: () => number): Joins | null {
  const { batch } = t;
  if (!batch) return null;
  const open = t.keys.flatMap((_, i) => (batch[i] && i >= t.next[t.brewOf[i]!]! ? [i] : []));

  /** Has a step begin then: sooner, with what goes before it in its brew; later, with what comes after. */
  function shift(start: Int32Array, m: number, at: number): void {
    const b = t.brewOf[m]!;
    const by = at - start[m]!;
    const [from, to] = by > 0 ? [m, t.first[b + 1]!] : [t.next[b]!, m + 1];
    for (let k = from; k < to; k += 1) start[k] = Math.max(0, start[k]! + by);
    start[m] = at;
  }

  function bring({ start, mates }: Timetable, i: number, j: number): void {
    for (const m of batchOf(mates, j)) shift(start, m, start[i]!);
    join(mates, i, j);
  }

  /** Two brews go side by side: narrow windows may let them do most of their like work together, or none. */
  function bringTheRest(plan: Timetable, i: number, j: number): void {
    for (const one of open)
      for (const other of open)
        if (
          t.brewOf[one] === t.brewOf[i] &&
          t.brewOf[other] === t.brewOf[j] &&
          mayJoin(t, plan.mates, one, other)
        )
          if (random() < 0.75) bring(plan, one, other);
  }

  function follow({ start, mates }: Timetable, current: Int32Array): void {
    if (random() < 0.5)
      for (const i of open)
        if (mates[i] !== i && start[i] !== current[i])
          for (const m of batchOf(mates, i)) if (start[m] === current[m]) shift(start, m, start[i]!);
    part(mates, start);
  }

  return {
    move: (plan) => {
      const i = open[Math.floor(random() * open.length)];
      if (i === undefined) return;
      const { start, mates } = plan;
      if (mates[i] !== i && random() < 0.3) {
        leave(mates, i);
        return;
      }
      const like = open.filter((j) => mayJoin(t, mates, i, j));
      like.sort((a, c) => Math.abs(start[a]! - start[i]!) - Math.abs(start[c]! - start[i]!));
      // The nearer in time, the likelier.
      const j = like[Math.floor(random() * random() * like.length)];
      if (j === undefined) return;
      bring(plan, i, j);
      if (random() < 0.5) bringTheRest(plan, i, j);
    },
    neighbours: ({ start, mates }) => {
      const inTurn = open.toSorted((a, c) => start[a]! - start[c]!);
      const pairs = inTurn.flatMap((i, n): [number, number][] => {
        const j = inTurn.slice(n + 1).find((other) => mayJoin(t, mates, i, other));
        return j !== undefined && start[j]! - start[i]! < NEAR_S ? [[i, j]] : [];
      });
      return pairs.slice(0, TRIED);
    },
    follow,
    bring,
  };
}
