/**
 * Which steps are done together in a timetable during the search: a ring of steps for each batch. Letters are those of the
 * tables (`tables.ts`).
 */
import type { Tables } from './tables';

/** By step: the next of its batch, round in a ring; the step itself where it is done alone. */
export type Mates = Int32Array;

export const alone = (t: Tables): Mates => Int32Array.from({ length: t.steps }, (_, i) => i);

export type Batches = {
  mates: Mates;
  /** By step: how long it lasts, its batch's length where it is in one, seconds. */
  lasts: Int32Array;
  /** By step: 1 for the one of its batch that stands for all. */
  leads: Uint8Array;
  /** Takes the batches of a timetable. */
  take: (mates: Mates) => void;
};

export function batchesOf(t: Tables): Batches {
  const mates = alone(t);
  const lasts = t.duration.slice();
  const leads = new Uint8Array(t.steps).fill(1);
  return {
    mates,
    lasts,
    leads,
    take: (given) => {
      if (!t.batch) return;
      mates.set(given);
      lasts.set(t.duration);
      leads.fill(1);
      for (let i = 0; i < t.steps; i += 1) {
        if (mates[i] === i || !leads[i]) continue;
        let all = t.batch[i]!.setup;
        for (const j of batchOf(mates, i)) {
          all += t.batch[j]!.each;
          if (j !== i) leads[j] = 0;
        }
        for (const j of batchOf(mates, i)) lasts[j] = all;
      }
    },
  };
}

/** The steps that are done together with this one, itself first. */
export function batchOf(mates: Mates, i: number): number[] {
  const all = [i];
  for (let j = mates[i]!; j !== i; j = mates[j]!) all.push(j);
  return all;
}

/** Whether the batches of two steps may be one. */
export function mayJoin(t: Tables, mates: Mates, i: number, j: number): boolean {
  const rule = t.batch?.[i];
  if (!rule || t.batch![j]?.key !== rule.key) return false;
  const all = [...batchOf(mates, i), ...batchOf(mates, j)];
  return (
    all.length <= Math.min(...all.map((each) => t.batch![each]!.max)) &&
    new Set(all.map((each) => t.brewOf[each])).size === all.length
  );
}

/** Makes one batch of those of two steps. */
export function join(mates: Mates, i: number, j: number): void {
  const after = mates[i]!;
  mates[i] = mates[j]!;
  mates[j] = after;
}

/** Takes a step out of its batch. */
export function leave(mates: Mates, i: number): void {
  let last = i;
  while (mates[last] !== i) last = mates[last]!;
  mates[last] = mates[i]!;
  mates[i] = i;
}

/** Lets go what is not begun at its batch's time any more. */
export function part(mates: Mates, start: Int32Array): void {
  for (let i = 0; i < mates.length; i += 1) {
    if (mates[i] === i) continue;
    const all = batchOf(mates, i);
    const stay = all.filter((j) => start[j] === start[i]);
    if (stay.length === all.length) continue;
    for (const j of all) mates[j] = j;
    ring(mates, stay);
    const rest = all.filter((j) => !stay.includes(j));
    ring(
      mates,
      rest.filter((j) => start[j] === start[rest[0]!]),
    );
  }
}

/** Joins steps to one batch. */
export function ring(mates: Mates, steps: readonly number[]): void {
  steps.forEach((j, n) => (mates[j] = steps[(n + 1) % steps.length]!));
}
