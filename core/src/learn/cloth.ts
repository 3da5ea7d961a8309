/**
 * Cloth care (craft, section 8): how often a cloth has been used, when it was boiled, how its drawdown has crept, and
 * what is due.
 */
import { median } from './statistics';

export type ClothRecord = {
  /** When it came into use, milliseconds. */
  sinceMs: number;
  /** Its boilings, oldest first, milliseconds. */
  boiledMs: readonly number[];
  /** The brews that ran through it, oldest first. */
  brews: readonly { atMs: number; drawdownS: number | null }[];
};

export type ClothState = {
  uses: number;
  lastBoiledMs: number | null;
  /** How much longer it draws down now than in its first week, as a share; null while too few are known. */
  creep: number | null;
  due: ('boil before first use' | 'boil today' | 'replace: worn' | 'replace: runs slow')[];
};

/** Replaced after so many brews, or once drawdown has crept so far above its own first week's median. */
export const CLOTH_BREWS = 90;
export const CLOTH_CREEP = 0.2;
const WEEK_MS = 7 * 86_400_000;
const DAY_MS = 86_400_000;
const FEWEST = 5;

/** @param dayStartMs when today's service began: a cloth in use is boiled once a day */
export function clothState({ sinceMs, boiledMs, brews }: ClothRecord, dayStartMs: number): ClothState {
  const lastBoiledMs = boiledMs.at(-1) ?? null;
  const timed = brews.flatMap(({ atMs, drawdownS }) => (drawdownS === null ? [] : [{ atMs, drawdownS }]));
  const first = timed.filter(({ atMs }) => atMs < sinceMs + WEEK_MS).map(({ drawdownS }) => drawdownS);
  const later = timed.filter(({ atMs }) => atMs >= sinceMs + WEEK_MS).map(({ drawdownS }) => drawdownS);
  const latest = later.slice(-FEWEST);
  const known = first.length >= FEWEST && latest.length >= FEWEST;
  const creep = known ? median(latest) / median(first) - 1 : null;
  const usedToday = brews.some(({ atMs }) => atMs >= dayStartMs && atMs < dayStartMs + DAY_MS);
  const due: ClothState['due'] = [];
  if (lastBoiledMs === null) due.push('boil before first use');
  else if (usedToday && lastBoiledMs < dayStartMs) due.push('boil today');
  if (brews.length >= CLOTH_BREWS) due.push('replace: worn');
  if (creep !== null && creep >= CLOTH_CREEP) due.push('replace: runs slow');
  return { uses: brews.length, lastBoiledMs, creep, due };
}

export type CareTask = { when: 'opening' | 'service' | 'closing'; words: string };

/** What a bar with cloths does every day (craft, section 8). */
export const CLOTH_CARE: readonly CareTask[] = [
  { when: 'opening', words: 'Boil every cloth once; rinse with clean hot water. No soap.' },
  { when: 'service', words: 'Rinse each cloth at once after its brew; keep it cold and wet.' },
  { when: 'closing', words: 'Rinse, and leave every cloth under cold clean water. It must never dry out.' },
];
