/**
 * Recipes as an open file: `even-kettle/recipes@3`, JSON. Version 1, which cannot say where the water goes, and version 2, which cannot
 * say ice of its own, are read too. Reading never changes anything: it gives what is in the file,
 * recipe by recipe, and what it would change here.
 */
import { changesBetween, latestOf, type Change, type Fault, type Recipe } from '../recipe';
import { readRecipe } from './recipe-schema';

export const RECIPES_FORMAT = 'even-kettle/recipes@3';
/** Every recipe of an earlier version is one of the last. */
const RECIPES_FORMATS: readonly unknown[] = [
  'even-kettle/recipes@1',
  'even-kettle/recipes@2',
  RECIPES_FORMAT,
];
/** A file of all recipes that ship is under 200 KB; more than this is not one of ours, characters. */
export const RECIPES_FILE_MAX = 1_000_000;
const RECIPES_MAX = 500;

/** The file's text for some recipes. */
export const writeRecipes = (recipes: readonly Recipe[]): string =>
  `${JSON.stringify({ format: RECIPES_FORMAT, recipes }, null, 2)}\n`;

export type ReadRecipes = { ok: true; recipes: Recipe[] } | { ok: false; faults: Fault[] };

/** The recipes of a file, or every fault by its field (`recipes.0.steps.4.pour.amount`). */
export function readRecipes(text: string): ReadRecipes {
  const fail = (field: string, reason: string): ReadRecipes => ({ ok: false, faults: [{ field, reason }] });
  if (text.length > RECIPES_FILE_MAX)
    return fail(
      'file',
      `is ${Math.round(text.length / 1e6)} MB; a file of recipes is at most ${RECIPES_FILE_MAX / 1e6} MB.`,
    );
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return fail('file', `is not JSON: ${(error as Error).message}.`);
  }
  if (value === null || typeof value !== 'object' || Array.isArray(value))
    return fail('file', `must be an object with "format": "${RECIPES_FORMAT}" and "recipes".`);
  const { format, recipes, ...rest } = value as Record<string, unknown>;
  if (!RECIPES_FORMATS.includes(format)) return fail('format', wrongFormat(format));
  const extra = Object.keys(rest)[0];
  if (extra !== undefined) return fail(extra.slice(0, 40), 'is not part of this format.');
  if (!Array.isArray(recipes) || recipes.length === 0 || recipes.length > RECIPES_MAX)
    return fail('recipes', `must be a list of 1 to ${RECIPES_MAX} recipes.`);

  const faults: Fault[] = [];
  const read: Recipe[] = [];
  const seen = new Set<string>();
  for (const [index, each] of recipes.entries()) {
    const one = readRecipe(each);
    if (!one.ok) {
      faults.push(...one.faults.map(({ field, reason }) => ({ field: `recipes.${index}.${field}`, reason })));
      continue;
    }
    const key = `${one.recipe.id}@${one.recipe.version}`;
    if (seen.has(key)) faults.push({ field: `recipes.${index}.id`, reason: `${key} is in the file twice.` });
    seen.add(key);
    read.push(one.recipe);
  }
  return faults.length > 0 ? { ok: false, faults } : { ok: true, recipes: read };
}

function wrongFormat(format: unknown): string {
  const other = typeof format === 'string' ? /^even-kettle\/recipes@(\d{1,6})$/.exec(format) : null;
  if (other)
    return `is version ${other[1]} of the format; this app reads versions 1 to 3. A newer app can write it as version 3.`;
  return `must be "${RECIPES_FORMAT}".`;
}

/** What taking a recipe in would do. It never overwrites: a changed recipe becomes the next version. */
export type Incoming = {
  recipe: Recipe;
  what: 'new' | 'same' | 'earlier' | 'next version';
  /** The version that it would get here, or that it is. */
  version: number;
  changes: Change[];
};

/**
 * What would change here, recipe by recipe; of several versions in the file only the latest counts. One that is here already
 * as an earlier version is not proposed in place of a later one.
 * @param here every version
 */
export function previewImport(incoming: readonly Recipe[], here: readonly Recipe[]): Incoming[] {
  const latestHere = new Map(latestOf(here).map((recipe) => [recipe.id, recipe]));
  return latestOf(incoming).map((recipe) => {
    const known = latestHere.get(recipe.id);
    if (!known) return { recipe, what: 'new', version: 1, changes: [] };
    const changes = changesBetween(known, recipe);
    if (changes.length === 0) return { recipe, what: 'same', version: known.version, changes };
    const earlier = here.find((each) => each.id === recipe.id && changesBetween(each, recipe).length === 0);
    if (earlier) return { recipe, what: 'earlier', version: earlier.version, changes: [] };
    return { recipe, what: 'next version', version: known.version + 1, changes };
  });
}
