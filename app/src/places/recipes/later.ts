/**
 * The places of Recipes, each loaded when it is first needed.
 */
import { later } from '../../ui/later';

/** See workshop.ts. */
export const workshop = () => import('./workshop');

export const RecipesPlace = later('the recipes', async () => (await import('./recipes-place')).RecipesPlace);
export const EditRecipe = later('the editor', async () => (await workshop()).EditRecipe);
export const RecipeVersions = later('the versions', async () => (await workshop()).RecipeVersions);
export const ShareRecipe = later('the code', async () => (await workshop()).ShareRecipe);
export const PrintRecipe = later('the card', async () => (await workshop()).PrintRecipe);
export const ImportRecipes = later('the reader', async () => (await workshop()).ImportRecipes);
