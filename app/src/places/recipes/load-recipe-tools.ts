/** What Recipes needs beyond reading them comes as a script of its own, when it is first needed. */
export const loadRecipeTools = () => import('./recipe-tools');
