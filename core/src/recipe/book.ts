/**
 * Recipes by version: a brew keeps the version that it was made with, so old ones stay in the book.
 */
import { SCHOOLS } from './methods';
import type { Recipe, RecipeRef } from './recipe';
import { EARLIER } from './methods/earlier';

/** Finds the recipe of a cup or brew. */
export type RecipeBook = (ref: RecipeRef) => Recipe | undefined;

export function bookOf(recipes: Iterable<Recipe>): RecipeBook {
  const byVersion = new Map<string, Recipe>();
  for (const recipe of [...EARLIER, ...recipes]) byVersion.set(`${recipe.id}@${recipe.version}`, recipe);
  return ({ recipeId, recipeVersion }) => byVersion.get(`${recipeId}@${recipeVersion}`);
}

/**
 * The recipes that ship and those that were saved on a bar. A version that was saved there stays what it is, although a
 * newer app ships one of the same number.
 */
export const withSaved = (saved: readonly Recipe[]): Recipe[] => [
  ...SCHOOLS.filter(({ id, version }) => !saved.some((own) => own.id === id && own.version === version)),
  ...saved,
];

/** Every version there is: those that shipped once, those that ship, and those that were saved on a bar. */
export const everyVersion = (saved: readonly Recipe[]): Recipe[] => {
  const own = new Set(saved.map(({ id, version }) => `${id}@${version}`));
  return [...[...EARLIER, ...SCHOOLS].filter(({ id, version }) => !own.has(`${id}@${version}`)), ...saved];
};

/** The latest version of each recipe, in the order in which they first come. */
export function latestOf(recipes: Iterable<Recipe>): Recipe[] {
  const latest = new Map<string, Recipe>();
  for (const recipe of recipes) {
    const known = latest.get(recipe.id);
    if (!known || known.version < recipe.version) latest.set(recipe.id, recipe);
  }
  return [...latest.values()];
}
