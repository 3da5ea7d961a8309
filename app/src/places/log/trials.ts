/**
 * What a dial-in compares: one thing of a recipe in two or three values, the usual one among them.
 */
import type { Trial } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { changeInWords, coarserWay, coffeesWithChange, type OneChange } from '@even-kettle/core/learn';

export const DIALS = ['grind', 'temperature', 'ratio'] as const;
export type Dial = (typeof DIALS)[number];

/** How far apart the values lie: steps of the grinder, degrees, parts of water. */
export const STEPS: Record<Dial, readonly number[]> = {
  grind: [0.5, 1, 2],
  temperature: [2, 3, 4],
  ratio: [0.5, 1],
};

const trialOf = (dial: Dial, by: number): Trial =>
  by === 0
    ? {}
    : dial === 'grind'
      ? { grindBy: by }
      : dial === 'temperature'
        ? { waterByC: by }
        : { ratioBy: by };

/** The usual value and those beside it: with two cups the one above, with three both. */
export const trialsOf = (dial: Dial, cups: 2 | 3, step: number): Trial[] =>
  (cups === 2 ? [0, step] : [-step, 0, step]).map((by) => trialOf(dial, by));

/** A trial as one change of the recipe, in the words of advice; null for the usual. */
function changeOf(
  { grindBy, waterByC, ratioBy }: Trial,
  grinder: Bar['grinders'][number] | undefined,
): OneChange | null {
  if (grindBy) {
    const stepsCoarser = grinder ? grindBy * coarserWay(grinder) : grindBy;
    return { what: 'grind', stepsCoarser, expect: null };
  }
  if (waterByC) return { what: 'temperature', byC: waterByC };
  return ratioBy ? { what: 'ratio', by: ratioBy } : null;
}

/** In a line, as whoever keeps it reads it; null for the usual. */
export function trialInWords(trial: Trial, { grinders: [grinder] }: Pick<Bar, 'grinders'>): string | null {
  const change = changeOf(trial, grinder);
  return change && changeInWords(change, null);
}

/** The coffees with what won kept for one of them with a recipe, on top of what was kept; null where there is nothing to keep. */
export function coffeesWithTrial(
  bar: Bar,
  coffee: string,
  recipeId: string,
  trial: Trial,
): Bar['coffees'] | null {
  const [grinder] = bar.grinders;
  const change = changeOf(trial, grinder);
  return change && coffeesWithChange(bar.coffees, { coffee, recipeId }, change, grinder);
}
