/**
 * What the command line reads: figures, recipes by name or file, planning files. What is wrong is said in words.
 */
import { InvalidArgumentError } from 'commander';
import { BREWERS, SCHOOLS, brewerById, type Brewer, type Recipe } from '@even-kettle/core/recipe';
import { PLAN_FILE_MAX, RECIPES_FILE_MAX, readRecipes } from '@even-kettle/core/formats';
import { readNumber } from '@even-kettle/core/units';

/** What a command writes to, and reads files with. */
export type Io = {
  out: (text: string) => void;
  err: (text: string) => void;
  /** @throws Error with a `code`, as the file system gives */
  readFile: (path: string) => { size: number; text: () => string };
  /** Any clock that only goes forward, milliseconds. */
  nowMs: () => number;
};

/** The path that stands for standard input. */
export const STDIN = '-';

/** A wrong argument or a wrong file: said on stderr, with exit code 2. */
export class Wrong extends Error {}
/** @param name what the figure is called */
export const number = (name: string) => (text: string) => {
  const read = readNumber(text, name);
  if (read.ok) return read.value;
  throw new InvalidArgumentError(read.reason);
};
export function findRecipe(which: string, io: Io): Recipe {
  if (which.endsWith('.json')) {
    const found = readFile(which, io);
    if (found.length === 1) return found[0]!;
    throw new Wrong(`${which} holds ${found.length} recipes; give a file with one.`);
  }
  const recipe = SCHOOLS.find(({ id }) => id === which);
  if (recipe) return recipe;
  throw new Wrong(
    `There is no recipe “${which.slice(0, 48)}”; there are ${SCHOOLS.map(({ id }) => id).join(', ')}.`,
  );
}

export function findBrewer(which: string, recipe: Recipe): Brewer {
  const brewer = brewerById(which);
  if (brewer?.method === recipe.method) return brewer;
  const fitting = BREWERS.filter(({ method }) => method === recipe.method).map(({ id }) => id);
  throw new Wrong(
    `${brewer ? `The ${brewer.name} does not brew ${recipe.id}` : `There is no brewer “${which.slice(0, 40)}”`}; give one of: ${fitting.join(', ')}.`,
  );
}

export function readText(path: string, io: Io, most: number, what: string) {
  const file = (() => {
    try {
      return io.readFile(path);
    } catch (error) {
      throw new Wrong(`${path} cannot be read: ${(error as Error).message}`);
    }
  })();
  // What is far too large is not even read.
  if (file.size > most)
    throw new Wrong(`${path} is ${Math.round(file.size / 1e6)} MB; ${what} is at most ${most / 1e6} MB.`);
  return file;
}

export function readFile(path: string, io: Io): Recipe[] {
  const file = readText(path, io, RECIPES_FILE_MAX, 'a file of recipes');
  const read = readRecipes(file.text());
  if (read.ok) return read.recipes;
  throw new Wrong(
    [`${path}:`, ...read.faults.map(({ field, reason }) => `  ${field}: ${reason}`)].join('\n'),
  );
}

export function readChecked<Value>(
  path: string,
  io: Io,
  read: (
    text: string,
  ) => { ok: true; value: Value } | { ok: false; faults: { field: string; reason: string }[] },
): Value {
  const got = read(readText(path, io, PLAN_FILE_MAX, 'a planning file').text());
  if (got.ok) return got.value;
  const shown = got.faults.slice(0, 20).map(({ field, reason }) => `  ${field}: ${reason}`);
  throw new Wrong([`${path}:`, ...shown].join('\n'));
}
