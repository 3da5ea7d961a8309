import { loadSchemas } from '../../client/load-schemas';

/** What Recipes needs beyond reading them comes as a script of its own, when it is first needed. */
export async function loadRecipeTools() {
  await loadSchemas();
  return import('./recipe-tools');
}
