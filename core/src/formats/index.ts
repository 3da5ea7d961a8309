export { readRecipe, recipeJsonSchema, recipeSchema } from './recipe-schema';
export type { ReadRecipe } from './recipe-schema';
export { RECIPES_FILE_MAX, RECIPES_FORMAT, previewImport, readRecipes, writeRecipes } from './recipe-file';
export type { Incoming, ReadRecipes } from './recipe-file';
export { stepTableCsv } from './step-table';
export { convertJson } from './convert-json';
export type { ConvertJson } from './convert-json';
export { PLAN_FILE_MAX, planProblemSchema, planSchema, readPlan, readPlanProblem } from './plan-file';
