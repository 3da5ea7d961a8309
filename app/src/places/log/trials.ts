/**
 * What a dial-in compares: one thing of a recipe in two or three values, the usual one among them.
 */
import type { Trial } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { METHODS, withFilter, type Recipe } from '@even-kettle/core/recipe';
import { changeInWords, coarserWay, coffeesWithChange, type OneChange } from '@even-kettle/core/learn';

import { WORDS } from './words';

export const DIALS = ['grind', 'temperature', 'ratio'] as const;
export type Dial = (typeof DIALS)[number];

/** How far apart the values lie: steps of the grinder, degrees, parts of water. */
export const STEPS: Record<Dial, readonly number[]> = {
  grind: [0.5, 1, 2],
  temperature: [2, 3, 4],
  ratio: [0.5, 1],
};

const trialOf = (dial: Dial, by: number): Trial =>
  by === 0
    ? {}
    : dial === 'grind'
      ? { grindBy: by }
      : dial === 'temperature'
        ? { waterByC: by }
        : { ratioBy: by };

/** The usual value and those beside it: with two cups the one above, with three both. */
export const trialsOf = (dial: Dial, cups: 2 | 3, step: number): Trial[] =>
  (cups === 2 ? [0, step] : [-step, 0, step]).map((by) => trialOf(dial, by));

/** A trial as one change of the recipe, in the words of advice; null for the usual. */
function changeOf(
  { grindBy, waterByC, ratioBy }: Trial,
  grinder: Bar['grinders'][number] | undefined,
): OneChange | null {
  if (grindBy) {
    const stepsCoarser = grinder ? grindBy * coarserWay(grinder) : grindBy;
    return { what: 'grind', stepsCoarser, expect: null };
  }
  if (waterByC) return { what: 'temperature', byC: waterByC };
  return ratioBy ? { what: 'ratio', by: ratioBy } : null;
}

/** In a line, as whoever keeps it reads it; null for the usual. */
export function trialInWords(trial: Trial, { grinders: [grinder] }: Pick<Bar, 'grinders'>): string | null {
  const change = changeOf(trial, grinder);
  return change && changeInWords(change, null);
}

/** A name that begins with the recipe's own filter, without that. */
function withoutFilter({ name }: Recipe): string {
  const bare = name.replace(/^(?:thick paper|paper|cloth|metal|reusable filter), */i, '');
  return bare.charAt(0).toUpperCase() + bare.slice(1);
}

/** What a letter hid, as whoever opens it reads it; null for the usual way. */
export function hiddenInWords(trial: Trial, bar: Bar, recipes: readonly Recipe[]): string | null {
  if (trial.recipeId === undefined) return trialInWords(trial, bar);
  const recipe = recipes.find(({ id }) => id === trial.recipeId);
  const name = recipe ? `${METHODS[recipe.method].name}: ${recipe.name}` : trial.recipeId;
  if (!trial.filter) return name;
  const bare = recipe ? `${METHODS[recipe.method].name}: ${withoutFilter(recipe)}` : name;
  return WORDS.throughFilter(bare, WORDS.filters[trial.filter]);
}

/** The recipe that won; one through another filter than its own is a recipe of its own. */
export function recipeThatWon({ recipeId, filter }: Trial, recipes: readonly Recipe[]): Recipe | null {
  const recipe = recipes.find(({ id }) => id === recipeId);
  if (!recipe || !filter || withFilter(recipe, filter) === recipe) return recipe ?? null;
  const name = WORDS.throughFilter(withoutFilter(recipe), WORDS.filters[filter]).slice(0, 60);
  const id = `${recipe.id}-${filter}`.slice(0, 48);
  return recipes.find((each) => each.id === id) ?? { ...withFilter(recipe, filter), id, name, version: 1 };
}

/** The menu with the recipe that won in the place of one that it was compared with, or in a line of its own. */
export function menuWith(
  bar: Pick<Bar, 'menu'>,
  { coffeeId, recipeId, compared, sizeMl, lineId }: MenuChoice,
): NonNullable<Bar['menu']> {
  const menu = bar.menu ?? [];
  const line = menu.find((each) => each.coffeeId === coffeeId && compared.includes(each.recipeId));
  return line
    ? menu.map((each) => (each === line ? { ...each, recipeId } : each))
    : [...menu, { id: lineId, coffeeId, recipeId, sizesMl: [sizeMl] }];
}
export type MenuChoice = {
  coffeeId: string;
  recipeId: string;
  /** The recipes of the round. */
  compared: readonly string[];
  sizeMl: number;
  /** What a line of its own is called. */
  lineId: string;
};

/** The coffees with what won kept for one of them with a recipe, on top of what was kept; null where there is nothing to keep. */
export function coffeesWithTrial(
  bar: Bar,
  coffee: string,
  recipeId: string,
  trial: Trial,
): Bar['coffees'] | null {
  const [grinder] = bar.grinders;
  const change = changeOf(trial, grinder);
  return change && coffeesWithChange(bar.coffees, { coffee, recipeId }, change, grinder);
}
