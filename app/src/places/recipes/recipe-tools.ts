/**
 * What works on recipes rather than brews them: the editor, versions, files, codes, paper. One piece, since all of it
 * stands on the same checking of recipes; loaded apart from the first page.
 */
export { EditRecipe } from './editor';
export { ImportRecipes } from './import';
export { NewRecipe } from './new-recipe';
export { PrintRecipe } from './print';
export { ShareRecipe } from './share';
export { RecipeVersions } from './versions';
