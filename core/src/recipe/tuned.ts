/**
 * A recipe as one coffee is brewed by it: what was found good for that coffee is kept with it, and the recipe stays as it is.
 */
import { withFilter, type PlainFilter } from './filter';
import type { Recipe } from './recipe';
import { RATIO_RANGE } from './solve';
import { round } from './round';

/** What is changed for one coffee: so much more or less ratio, and so many degrees. */
export type Tuning = {
  ratioBy?: number | undefined;
  waterByC?: number | undefined;
  /** Brewed through another filter, to compare it. */
  filter?: PlainFilter | undefined;
};

/** The recipe itself where nothing is changed. */
export function tuned(recipe: Recipe, { ratioBy = 0, waterByC = 0, filter }: Tuning): Recipe {
  if (ratioBy === 0 && waterByC === 0 && filter === undefined) return recipe;
  const key = `${ratioBy} ${waterByC} ${filter ?? ''}`;
  const known = made.get(recipe) ?? new Map<string, Recipe>();
  made.set(recipe, known);
  const before = known.get(key);
  if (before) return before;
  const ratio = Math.min(RATIO_RANGE.max, Math.max(RATIO_RANGE.min, round(recipe.ratio + ratioBy, 2)));
  const through = filter === undefined ? recipe : withFilter(recipe, filter);
  const changed = { ...through, ratio, waterC: round(recipe.waterC + waterByC, 1) };
  known.set(key, changed);
  return changed;
}
/** Recipes are never changed, and what is worked out of one is kept by it: so each is made once. */
const made = new WeakMap<Recipe, Map<string, Recipe>>();
