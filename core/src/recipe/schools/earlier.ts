/**
 * Versions of shipped recipes that are brewed no more, for the brews of the log that were made by them.
 */
import type { Recipe } from '../recipe';
import { potFoam, potPressure } from './pots';
import { handStep } from './parts';

/** The pots had no step for their water, and their times did not follow its mass. */
const timed = (recipe: Recipe, lasts: Record<string, Recipe['steps'][number]['lasts']>): Recipe => ({
  ...recipe,
  version: 1,
  steps: recipe.steps
    .filter(({ kind }) => kind !== 'fill' && kind !== 'cool')
    .map((step) => (lasts[step.id] === undefined ? step : { ...step, lasts: lasts[step.id]! })),
});

const pressure = timed(potPressure, { heat: { untilS: 180 }, watch: { untilS: 230 } });
const foam = timed(potFoam, { heat: { untilS: 120 }, watch: { untilS: 210 } });

export const EARLIER: readonly Recipe[] = [
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
