/**
 * How the brew water is divided among a recipe's pours.
 */
import { RecipeError, type Recipe, type RecipeStep } from './recipe';

export type PourTarget = { pourG: number; targetG: number };

/**
 * What each pour adds and the cumulative reading to stop at, whole grams. The pours sum to the brew water exactly;
 * what rounding leaves goes to the last of the largest pours.
 * @throws RecipeError `recipe-broken` where the amounts run backwards or do not reach the brew water
 */
export function pourAmounts(recipe: Recipe, doseG: number, brewWaterG: number): Map<string, PourTarget> {
  const steps = recipe.steps.filter((step) => step.pour && step.pour.into !== 'server');
  const exactG = exactAmounts(steps, doseG, brewWaterG);
  const wholeG = exactG.map(Math.round);
  const leftG = brewWaterG - wholeG.reduce((sum, grams) => sum + grams, 0);
  const largest = wholeG.lastIndexOf(Math.max(...wholeG));
  if (largest >= 0) wholeG[largest]! += leftG;
  if (wholeG.some((grams) => grams <= 0) || Math.abs(leftG) > steps.length) {
    throw new RecipeError(
      'recipe-broken',
      'steps',
      `The pours of ${recipe.id} do not add up to its brew water at ${doseG} g.`,
    );
  }
  let targetG = 0;
  return new Map(
    steps.map((step, index) => {
      targetG += wholeG[index]!;
      return [step.id, { pourG: wholeG[index]!, targetG }];
    }),
  );
}

function exactAmounts(steps: RecipeStep[], doseG: number, brewWaterG: number): number[] {
  let pouredG = 0;
  let restFromG = 0;
  return steps.map((step, index) => {
    const amount = step.pour!.amount;
    const before = steps[index - 1]?.pour?.amount;
    if ('restParts' in amount && !(before && 'restParts' in before)) restFromG = pouredG;
    const addsG =
      'timesDose' in amount
        ? amount.timesDose * doseG
        : 'toShare' in amount
          ? amount.toShare * brewWaterG - pouredG
          : (brewWaterG - restFromG) / amount.restParts;
    pouredG += addsG;
    return addsG;
  });
}
