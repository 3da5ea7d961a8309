/**
 * The bar's recipes: those that ship, and every version that was saved here. Nothing is ever overwritten.
 */
import { Mutex } from 'async-mutex';
import type { DataSource } from 'typeorm';
import type { SaveRecipe } from '@even-kettle/core/contract';
import { readRecipe } from '@even-kettle/core/formats';
import {
  SCHOOLS,
  bookOf,
  everyVersion,
  latestOf,
  withSaved,
  type Fault,
  type Recipe,
  type RecipeBook,
} from '@even-kettle/core/recipe';
import { RecipeVersionRow } from './rows';
import { inTransaction } from './transaction';

/** The most saved versions that a bar can have, and their bytes in all: every page loads them. */
const SAVED_MAX = 2000;
const SAVED_MAX_BYTES = 8e6;

export type Saved =
  | { ok: true; recipe: Recipe }
  | { ok: false; why: 'not-valid'; faults: Fault[] }
  | { ok: false; why: 'conflict' | 'full'; reason: string };

export type RecipeRepository = {
  book: RecipeBook;
  /** Every version that was saved here. */
  saved: () => readonly Recipe[];
  /** The latest of each recipe, shipped or saved. */
  latest: () => Recipe[];
  /** All versions of one recipe, oldest first; empty if it does not exist. */
  versions: (id: string) => Recipe[];
  /** Reads the table again, after other code has written to it. It waits for no save: one may wait for whoever calls this. */
  reload: () => Promise<void>;
  /** Saves a new recipe or the next version of one, and assigns its version number. */
  save: (asked: SaveRecipe) => Promise<Saved>;
};

/** Reads the saved recipes. A row that is no valid recipe is skipped and reported to `warn`. */
export async function openRecipes(
  source: DataSource,
  warn: (message: string) => void,
): Promise<RecipeRepository> {
  const lock = new Mutex();
  const saved: Recipe[] = [];
  let bytes = 0;
  let find = bookOf(SCHOOLS);
  const reload = async () => {
    saved.length = bytes = 0;
    for (const row of await source.manager.find(RecipeVersionRow, {
      order: { recipeId: 'ASC', version: 'ASC' },
    })) {
      const read = readStored(row.body);
      bytes += row.body.length;
      if (read.ok) saved.push(read.recipe);
      else
        warn(
          `The saved recipe ${row.recipeId}@${row.version} cannot be read: ${read.faults[0]!.field} ${read.faults[0]!.reason}`,
        );
    }
    find = bookOf(withSaved(saved));
  };
  await reload();
  const versions = (id: string) =>
    everyVersion(saved)
      .filter((recipe) => recipe.id === id)
      .sort((a, b) => a.version - b.version);

  return {
    book: (ref) => find(ref),
    saved: () => saved,
    latest: () => latestOf(withSaved(saved)),
    versions,
    reload,
    save: ({ recipe: asked, basedOn }) =>
      lock.runExclusive(async () => {
        const read = readRecipe(asked);
        if (!read.ok) return { ok: false, why: 'not-valid', faults: read.faults };
        if (saved.length >= SAVED_MAX || bytes > SAVED_MAX_BYTES)
          return {
            ok: false,
            why: 'full',
            reason: `This bar has ${saved.length} saved versions of recipes, ${(bytes / 1e6).toFixed(1)} MB of them, which is the most that it can hold.`,
          };
        const latest = versions(read.recipe.id).at(-1)?.version ?? null;
        if (latest !== basedOn)
          return { ok: false, why: 'conflict', reason: conflict(read.recipe.id, latest, basedOn) };
        const recipe = { ...read.recipe, version: (latest ?? 0) + 1 };
        const row = {
          recipeId: recipe.id,
          version: recipe.version,
          savedMs: Date.now(),
          body: JSON.stringify(recipe),
        };
        await inTransaction(source, (manager) => manager.insert(RecipeVersionRow, row));
        saved.push(recipe);
        bytes += row.body.length;
        find = bookOf(withSaved(saved));
        return { ok: true, recipe };
      }),
  };
}

/** A row that is not even JSON is skipped too. */
function readStored(body: string): ReturnType<typeof readRecipe> {
  try {
    return readRecipe(JSON.parse(body));
  } catch {
    return { ok: false, faults: [{ field: 'recipe', reason: 'is not whole' }] };
  }
}

function conflict(id: string, latest: number | null, basedOn: number | null): string {
  if (latest === null) return `There is no recipe “${id}” here to make version ${basedOn} of the base.`;
  if (basedOn === null)
    return `There is a recipe “${id}” here already; give yours another id, or save it as its next version.`;
  return `“${id}” has come to version ${latest} since version ${basedOn} was opened; look at what changed, then save on that.`;
}
