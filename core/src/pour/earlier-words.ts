/**
 * What recipes of earlier versions call otherwise.
 */
import type { WaterPath } from './water-path';

const EARLIER_PATHS: Readonly<Record<string, WaterPath>> = { plume: 'halo' };

/** A recipe as an earlier version wrote it, in today's words; anything else as it is. */
export function inTodaysWords(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inTodaysWords);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, inner]) => [
      key,
      key === 'path' && typeof inner === 'string'
        ? Object.hasOwn(EARLIER_PATHS, inner)
          ? EARLIER_PATHS[inner]
          : inner
        : inTodaysWords(inner),
    ]),
  );
}
