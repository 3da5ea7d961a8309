/**
 * The card of a cup, or the reason why there is none; a log of older rules must not stop the bar.
 */
import {
  RecipeError,
  brewCard,
  type Ask,
  type BrewCard,
  type BrewSite,
  type RecipeBook,
  type RecipeRef,
} from '../recipe';

export type MadeCard =
  | { ok: true; card: BrewCard }
  | { ok: false; code: 'unknown-recipe' | 'does-not-make-a-cup'; field: string; reason: string };

export function makeCard(book: RecipeBook, ref: RecipeRef, ask: Ask, place?: BrewSite): MadeCard {
  const recipe = book(ref);
  if (!recipe) {
    return {
      ok: false,
      code: 'unknown-recipe',
      field: 'recipeId',
      reason: `There is no recipe ${ref.recipeId} version ${ref.recipeVersion}.`,
    };
  }
  try {
    return { ok: true, card: brewCard(recipe, ask, place) };
  } catch (error) {
    if (!(error instanceof RecipeError || error instanceof RangeError)) throw error;
    return {
      ok: false,
      code: 'does-not-make-a-cup',
      field: error instanceof RecipeError ? error.field : 'altitudeM',
      reason: error.message,
    };
  }
}
