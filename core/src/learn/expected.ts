/**
 * What a rush will ask for, from the log's own weekdays and hours: the same hours of the weeks before.
 */
import type { MethodId } from '../recipe';
import { pieces } from './statistics';

export const WEEK_MS = 7 * 86_400_000;
/** So many weeks are looked back on. */
export const WEEKS_BACK = 4;

/** One finished brew, as much of it as counts here. */
export type PastBrew = {
  orderedMs: number;
  outcome: 'served' | 'abandoned';
  attempt: number;
  cups: number;
  coffee: string;
  method: MethodId;
  doseG: number;
};

export type ExpectedDose = { coffee: string; method: MethodId; doseG: number; brews: number };
export type ExpectedRush = {
  /** Brews and cups of a usual week, by dose, the most first. */
  doses: ExpectedDose[];
  cups: number;
  /** How many weeks stand behind it; 0 where the log knows nothing of these hours. */
  weeks: number;
};

/** The same hours some weeks before. */
export const weekBefore = (weeks: number, { fromMs, toMs }: { fromMs: number; toMs: number }) => ({
  fromMs: fromMs - weeks * WEEK_MS,
  toMs: toMs - weeks * WEEK_MS,
});

/** @param weeks the brews that were ordered in the same hours of each week before; null where the bar was not open */
export function expectedRush(weeks: readonly (readonly PastBrew[] | null)[]): ExpectedRush {
  const open = weeks.filter((brews) => brews !== null);
  const most = Math.max(1, open.length);
  const doses = new Map<string, ExpectedDose>();
  let cups = 0;
  for (const { outcome, attempt, coffee, method, doseG, ...brew } of open.flat()) {
    // What was brewed again was asked for once.
    if (outcome !== 'served' || attempt > 1) continue;
    cups += brew.cups;
    const known = doses.get(`${coffee} ${method} ${doseG.toFixed(1)}`);
    if (known) known.brews += 1;
    else doses.set(`${coffee} ${method} ${doseG.toFixed(1)}`, { coffee, method, doseG, brews: 1 });
  }
  const known = [...doses.values()];
  const brews = known.map((dose) => dose.brews);
  // Rounded once, in all: many doses of half a brew each are no brew more or less.
  const usual = pieces(Math.round(brews.reduce((sum, each) => sum + each, 0) / most), brews);
  return {
    doses: known
      .map((dose, n) => ({ ...dose, brews: usual[n]! }))
      .filter(({ brews }) => brews > 0)
      .sort((a, b) => b.brews - a.brews || a.coffee.localeCompare(b.coffee)),
    cups: Math.round(cups / most),
    weeks: open.length,
  };
}

/** So much hardness may come into a kettle before it is descaled: calcium carbonate, grams. */
const SCALE_G = 12;
/** Where nobody has measured the water it counts as medium hard, ppm. */
const USUAL_HARDNESS_PPM = 120;

/** How much water may go through the bar's kettles before they are descaled, litres. Our own rule of thumb: 12 g of hardness for each kettle. */
export const descaleAfterL = (kettles: number, hardnessPpm = USUAL_HARDNESS_PPM): number =>
  hardnessPpm <= 0 ? Infinity : Math.round((kettles * SCALE_G * 1000) / hardnessPpm);
