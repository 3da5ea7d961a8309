/**
 * The places of Recipes, each loaded when it is first needed.
 */
import { lazyPlace } from '../../ui/lazy-place';
import { loadRecipeTools } from './load-recipe-tools';

export const RecipesPlace = lazyPlace(
  'the recipes',
  async () => (await import('./recipes-place')).RecipesPlace,
);
export const ShowMe = lazyPlace('the run', async () => (await import('./show-me')).ShowMe);
export const EditRecipe = lazyPlace('the editor', async () => (await loadRecipeTools()).EditRecipe);
export const NewRecipe = lazyPlace('the form', async () => (await loadRecipeTools()).NewRecipe);
export const RecipeVersions = lazyPlace('the versions', async () => (await loadRecipeTools()).RecipeVersions);
export const ShareRecipe = lazyPlace('the code', async () => (await loadRecipeTools()).ShareRecipe);
export const PrintRecipe = lazyPlace('the card', async () => (await loadRecipeTools()).PrintRecipe);
export const ImportRecipes = lazyPlace('the reader', async () => (await loadRecipeTools()).ImportRecipes);
