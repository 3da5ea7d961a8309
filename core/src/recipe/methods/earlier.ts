/**
 * Versions of shipped recipes that are brewed no more, for the brews of the log that were made by them.
 */
import type { Recipe, RecipeStep } from '../recipe';
import { potFoam } from './foam-pot/schools';
import { handStep } from './parts';
import { potPressure } from './pressure-pot/schools';
import { siphonLate, siphonSlow } from './siphon/schools';

/** Beans were weighed and ground before anything else. */
function beansFirst(steps: readonly RecipeStep[]): RecipeStep[] {
  const isBeans = ({ kind }: RecipeStep) => kind === 'weigh' || kind === 'grind';
  return [...steps.filter(isBeans), ...steps.filter((step) => !isBeans(step))];
}
const heldFromWeighing = ({ holds }: Recipe): Recipe['holds'] =>
  holds.map((hold) => (hold.tool === 'brewer' ? { ...hold, from: 'weigh' } : hold));

/** The pots had no step for their water, and their times did not follow its mass. */
const timed = (recipe: Recipe, lasts: Record<string, RecipeStep['lasts']>): Recipe => ({
  ...recipe,
  version: 1,
  holds: heldFromWeighing(recipe),
  steps: beansFirst(recipe.steps)
    .filter(({ kind }) => kind !== 'fill' && kind !== 'cool')
    .map((step) => (lasts[step.id] === undefined ? step : { ...step, lasts: lasts[step.id]! })),
});
const pressure = timed(potPressure, { heat: { untilS: 180 }, watch: { untilS: 230 } });
const foam = timed(potFoam, { heat: { untilS: 120 }, watch: { untilS: 210 } });

const siphon = (recipe: Recipe): Recipe => ({
  ...recipe,
  version: 1,
  holds: heldFromWeighing(recipe),
  steps: beansFirst(recipe.steps),
});

export const EARLIER: readonly Recipe[] = [
  siphon(siphonLate),
  siphon(siphonSlow),
  {
    ...pressure,
    steps: pressure.steps.map((step) =>
      step.id === 'load'
        ? handStep('load', 'load', 'Water in, basket level, joint tight', 20, 'closed tight', {
            phase: 'prep',
          })
        : step,
    ),
  },
  foam,
];
