/**
 * How long a coffee has rested and whether it is at its best (craft, section 7), and how long its stock lasts.
 */
import type { RoastLevel } from '../recipe';

/** Days after roasting in which a coffee is good. */
export function restWindow(roast: RoastLevel): { fromDays: number; toDays: number } {
  if (roast === 'very light') return { fromDays: 7, toDays: 30 };
  return roast === 'light' ? { fromDays: 5, toDays: 21 } : { fromDays: 4, toDays: 14 };
}

export type Rest = {
  ageDays: number;
  fromDays: number;
  toDays: number;
  stands: 'too young' | 'good' | 'use first' | 'past';
  /** Days until it is good, or until its window ends; 0 once it has. */
  leftDays: number;
};

/** This many days before its best time ends, a coffee should be used first. */
const USE_FIRST_DAYS = 4;
const DAY_MS = 86_400_000;

/** @param roastedOn a day, `2026-11-20` */
export function restOf(roastedOn: string, roast: RoastLevel, nowMs: number): Rest {
  const window = restWindow(roast);
  const ageDays = Math.max(0, Math.floor((nowMs - Date.parse(`${roastedOn}T00:00:00Z`)) / DAY_MS));
  const { fromDays, toDays } = window;
  const until = (days: number) => Math.max(0, days - ageDays);
  if (ageDays < fromDays) return { ...window, ageDays, stands: 'too young', leftDays: until(fromDays) };
  if (ageDays > toDays) return { ...window, ageDays, stands: 'past', leftDays: 0 };
  const leftDays = until(toDays);
  return { ...window, ageDays, stands: leftDays <= USE_FIRST_DAYS ? 'use first' : 'good', leftDays };
}

/** Younger than this a coffee holds so much gas that it is brewed otherwise, days. */
const GASSY_DAYS = 4;

/** Whether a coffee is so fresh that its bed needs a deeper well and a slower opening. */
export const isGassy = (roastedOn: string | undefined, nowMs: number): boolean =>
  roastedOn !== undefined && restOf(roastedOn, 'medium', nowMs).ageDays < GASSY_DAYS;

/** In a few words: "12 days, good for 9 more". */
export function restInWords({ ageDays, stands, leftDays }: Rest): string {
  const age = `${ageDays} day${ageDays === 1 ? '' : 's'} old`;
  switch (stands) {
    case 'too young':
      return `${age}, too young for ${leftDays} more`;
    case 'good':
      return `${age}, good for ${leftDays} more`;
    case 'use first':
      return leftDays === 0 ? `${age}, use first: its last day` : `${age}, use first: ${leftDays} left`;
    case 'past':
      return `${age}, past its best`;
  }
}
