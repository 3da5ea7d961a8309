/**
 * What a dial-in compares: one thing of a recipe in two or three values, the usual one among them.
 */
import type { Trial } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { round } from '@even-kettle/core/recipe';
import { WORDS } from './words';

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

const signed = (value: number): string => (value > 0 ? `+${value}` : `−${Math.abs(value)}`);

/** In a line, as whoever keeps it reads it; null for the usual. */
export function trialInWords({ grindBy, waterByC, ratioBy }: Trial): string | null {
  if (grindBy) return WORDS.grinderBy(signed(grindBy));
  if (waterByC) return WORDS.waterAt(signed(waterByC));
  return ratioBy ? WORDS.ratioAt(signed(ratioBy)) : null;
}

/** The coffees with what won kept for one of them with a recipe, on top of what was kept; null where it is not on the bench. */
export function coffeesWithTrial(
  bar: Bar,
  name: string,
  recipeId: string,
  trial: Trial,
): Bar['coffees'] | null {
  const coffee = bar.coffees.find((each) => each.name === name);
  const [grinder] = bar.grinders;
  if (!coffee || (trial.grindBy && !grinder)) return null;
  const kept = coffee.recipeChanges?.[recipeId] ?? {};
  const plus = (a: number | undefined, b: number | undefined) => round((a ?? 0) + (b ?? 0), 1);
  const changed = {
    ...kept,
    ...(trial.ratioBy ? { ratioBy: plus(kept.ratioBy, trial.ratioBy) } : {}),
    ...(trial.waterByC ? { waterByC: plus(kept.waterByC, trial.waterByC) } : {}),
    ...(trial.grindBy && grinder
      ? { grindBy: { ...kept.grindBy, [grinder.id]: plus(kept.grindBy?.[grinder.id], trial.grindBy) } }
      : {}),
  };
  return bar.coffees.map((each) =>
    each === coffee ? { ...each, recipeChanges: { ...each.recipeChanges, [recipeId]: changed } } : each,
  );
}
