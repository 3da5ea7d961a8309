/**
 * What guests of Practice ask for: the bar's menu, in equal shares.
 */
import type { Bar } from '@even-kettle/core/contract';
import type { LabLine } from '@even-kettle/core/practice';
import { METHODS, brewerById, type Recipe } from '@even-kettle/core/recipe';
import { WORDS } from './words';

/** The menu of the bar; where there is none, the first recipe of each method that stands here. */
export function menuOf(bar: Bar, recipes: readonly Recipe[]): LabLine[] {
  const coffee = bar.coffees.find(({ decaf }) => !decaf) ?? bar.coffees[0];
  const lines = (bar.menu ?? []).flatMap(({ coffeeId, recipeId, sizesMl, off }): LabLine[] => {
    const recipe = recipes.find(({ id }) => id === recipeId);
    const of = bar.coffees.find(({ id }) => id === coffeeId);
    if (off || !recipe || !of) return [];
    return [lineOf(recipe, of.name, of.roast, sizesMl[0])];
  });
  if (lines.length > 0) return lines;
  const methods = [...new Set(bar.stations.map(({ brewerId }) => brewerById(brewerId)?.method))];
  return methods.flatMap((method) => {
    const recipe = recipes.find((each) => each.method === method);
    return recipe ? [lineOf(recipe, coffee?.name ?? WORDS.coffee, coffee?.roast ?? 'medium', undefined)] : [];
  });
}

const lineOf = (
  recipe: Recipe,
  coffee: string,
  roast: LabLine['roast'],
  cupMl = METHODS[recipe.method].usualCupMl,
): LabLine => ({ recipeId: recipe.id, recipeVersion: recipe.version, coffee, roast, cupMl, share: 2 });
