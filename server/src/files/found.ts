/**
 * What a check of a large file has found.
 */
import type { ImportFound } from '@even-kettle/core/contract';

export const nothingFound = (): ImportFound => ({
  rows: 0,
  faulty: 0,
  shows: [],
  faults: [],
  fromMs: null,
  toMs: null,
});

/** A time at which something in the file happened, bar milliseconds. */
export function happenedAt(found: ImportFound, atMs: number): void {
  found.fromMs = Math.min(found.fromMs ?? Infinity, atMs);
  found.toMs = Math.max(found.toMs ?? -Infinity, atMs);
}
