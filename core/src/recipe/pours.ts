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
  const steps = recipe.steps.filter((step) => step.pour);
  if (steps.length === 0) return new Map();
  const wholeG = exactAmounts(steps, doseG, brewWaterG).map(Math.round);
  const leftG = brewWaterG - wholeG.reduce((sum, grams) => sum + grams, 0);
  wholeG[wholeG.lastIndexOf(Math.max(...wholeG))]! += leftG;
  if (wholeG.some((grams) => !(grams > 0)) || Math.abs(leftG) > steps.length) {
    throw new RecipeError(
      'recipe-broken',
      'steps',
      `The pours of ${recipe.id} do not add up to its brew water at ${doseG} g in ${brewWaterG} g. Each must add something, and the last must reach all of it.`,
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

/** What each pour adds before rounding, grams; nothing is refused here. */
export function exactAmounts(steps: readonly RecipeStep[], doseG: number, brewWaterG: number): number[] {
  let pouredG = 0;
  return steps.map((step) => {
    const amount = step.pour!.amount;
    const addsG =
      'timesDose' in amount
        ? amount.timesDose * doseG
        : 'toShare' in amount
          ? amount.toShare * brewWaterG - pouredG
          : 'g' in amount
            ? amount.g
            : (brewWaterG - pouredG) / amount.restParts;
    pouredG += addsG;
    return addsG;
  });
}
