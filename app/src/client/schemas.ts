/**
 * All that is read and written by schemas: the API's answers, and files. One script, loaded when something first needs it,
 * and the only one that holds the schema library: a second would bring that library to the first page.
 */
export {
  barChangeSchema as barChange,
  inviteSchema as invite,
  makeKeySchema as makeKey,
  pairSchema as pair,
  tasteSchema as taste,
} from '@even-kettle/core/contract';
export { readAnswer } from '@even-kettle/core/contract/routes';
export {
  RECIPES_FILE_MAX,
  plainFrom,
  pourOf,
  previewImport,
  readRecipe,
  readRecipeText,
  readRecipes,
  readSteps,
  stepTableCsv,
  timesOf,
  writeRecipes,
} from '@even-kettle/core/formats';
