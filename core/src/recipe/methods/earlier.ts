/**
 * Versions of shipped recipes that are brewed no more, for the brews of the log that were made by them.
 */
import type { Recipe, RecipeStep } from '../recipe';
import { potFoam } from './foam-pot/schools';
import { handStep, warmCup } from './parts';
import { potPressure } from './pressure-pot/schools';
import { withoutStep } from '../variants';
import { cone } from './cone';
import { flat } from './flat';
import { hourglass } from './hourglass';
import { press } from './press';
import { sock } from './sock';
import { airPress } from './air-press';
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

/** What pours said before their paths were data, by recipe. */
const HINTS: Record<string, string> = {
  'cone-steady': 'Keep the slurry near the rim.',
  'cone-onepour': 'Low, in the middle until pale; then outwards, and wash the wall down.',
  'cone-evenpulses': 'Circling evenly.',
  'flat-small': 'Spiral out and back; before the bed shows.',
  'sock-dense': 'Only the middle; stop when the stream runs pale.',
};

/** Nothing was said of where the water goes, and the cup was not warmed. */
function beforePaths(recipe: Recipe): Recipe {
  const { steps, holds, ...rest } = withoutStep(recipe, warmCup.id);
  // The kettle was free with the last pour.
  const warmed = recipe.steps.some(({ id }) => id === warmCup.id);
  const lastPour = steps.findLast(({ pour }) => pour)!.id;
  return {
    ...rest,
    holds: holds.map((hold) => (warmed && hold.tool === 'kettle' ? { ...hold, to: lastPour } : hold)),
    version: recipe.version - 1,
    steps: steps.map((step) => {
      if (!step.pour) return step;
      const { paths: _paths, ...pour } = step.pour;
      const hint = step.id === 'bloom' ? undefined : HINTS[recipe.id];
      return { ...step, pour, ...(hint ? { hint } : {}) };
    }),
  };
}

export const EARLIER: readonly Recipe[] = [
  ...[cone, flat, hourglass, sock, press, airPress].flatMap(({ schools }) => schools.map(beforePaths)),
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
