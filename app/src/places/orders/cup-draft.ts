/**
 * A cup as it is being asked for: what has been chosen and typed, and what that makes.
 */
import { type CupAsk } from '@even-kettle/core/brew';
import { cardFor } from '@even-kettle/core/plan';
import {
  CUP_RANGE_ML,
  METHODS,
  brewerById,
  type Addition,
  type MethodId,
  type Recipe,
  type RecipeBook,
} from '@even-kettle/core/recipe';
import { ML_PER_FL_OZ, readVolume, type Units } from '@even-kettle/core/units';
import { newId } from '../../client/bar-context';
import type { Bar } from '@even-kettle/core/contract';
import { DECIMAL } from '../../ui/typed';
import { type QuoteDraft } from './use-quotes';
import { WORDS } from './words';

export type Draft = {
  key: string;
  coffeeId: string;
  recipeId: string;
  sizeText: string;
  addition: Addition | 'nothing';
};

export type DraftRead =
  | { ok: true; cup: CupAsk; doseG: number; brewWaterG: number; brewTimeS: number }
  | { ok: false; reason: string };

export function readDraft(draft: Draft, bar: Bar, menu: Recipe[], book: RecipeBook, units: Units): DraftRead {
  const size = readVolume(draft.sizeText, WORDS.size, units, CUP_RANGE_ML, DECIMAL);
  if (!size.ok) return size;
  const coffee = bar.coffees.find(({ id }) => id === draft.coffeeId);
  const recipe = menu.find(({ id }) => id === draft.recipeId);
  if (!coffee || !recipe) return { ok: false, reason: WORDS.chooseACoffeeAndAMethod };
  const cup: CupAsk = {
    cupId: draft.key,
    recipeId: recipe.id,
    recipeVersion: recipe.version,
    coffee: coffee.name,
    roast: coffee.roast,
    cupMl: Math.round(size.value),
    ...(draft.addition === 'nothing' ? {} : { addition: draft.addition }),
  };
  const found = cardFor(bar, cup, book);
  if (!found.ok) return found;
  const { doseG, brewWaterG, brewTimeS } = found.card;
  return { ok: true, cup, doseG, brewWaterG, brewTimeS };
}

/** Recipes of the methods that a station here brews. */
export const recipesOn = (bar: Bar, recipes: Recipe[]): Recipe[] =>
  recipes.filter(({ method }) =>
    bar.stations.some(({ brewerId }) => brewerById(brewerId)?.method === method),
  );

export const firstDraft = (bar: Bar, menu: Recipe[], units: Units): Draft => ({
  key: newId(),
  coffeeId: bar.coffees[0]?.id ?? '',
  recipeId: menu[0]?.id ?? '',
  addition: 'nothing',
  sizeText: sizeText(250, units),
});

export const sizeText = (ml: number, units: Units): string =>
  units.volume === 'fl oz' ? (ml / ML_PER_FL_OZ).toFixed(1) : String(ml);

/** Sizes that guests ask for, ml; and which of them, where all can be had, are offered. */
const USUAL_ML = [75, 90, 120, 150, 200, 250, 300, 350, 400, 500];
const MIDDLE_ML = 250;
const OFFERED = 3;

/** Up to three sizes that this bench can make of what has been chosen, around the commonest. */
export function sizesFor(draft: Draft, bar: Bar, menu: Recipe[], book: RecipeBook, units: Units): number[] {
  const made = USUAL_ML.filter(
    (ml) => readDraft({ ...draft, sizeText: sizeText(ml, units) }, bar, menu, book, units).ok,
  );
  return made
    .toSorted((a, b) => Math.abs(a - MIDDLE_ML) - Math.abs(b - MIDDLE_ML))
    .slice(0, OFFERED)
    .sort((a, b) => a - b);
}

/** The cup by another recipe; a size that this bench cannot make by it gives way to the nearest usual one that it can. */
export function withRecipe(
  draft: Draft,
  recipeId: string,
  bar: Bar,
  menu: Recipe[],
  book: RecipeBook,
  units: Units,
): Draft {
  const other = { ...draft, recipeId };
  if (readDraft(other, bar, menu, book, units).ok) return other;
  const size = readVolume(draft.sizeText, WORDS.size, units, CUP_RANGE_ML, DECIMAL);
  const wantedMl = size.ok ? size.value : MIDDLE_ML;
  const [nearest] = sizesFor(other, bar, menu, book, units).toSorted(
    (a, b) => Math.abs(a - wantedMl) - Math.abs(b - wantedMl),
  );
  return nearest === undefined ? other : { ...other, sizeText: sizeText(nearest, units) };
}

/** The order with the cup at hand brewed by each method in turn. */
export function byMethod(
  drafts: Draft[],
  active: number,
  bar: Bar,
  menu: Recipe[],
  book: RecipeBook,
  units: Units,
): QuoteDraft[] {
  const methods = [...new Set(menu.map(({ method }) => method))];
  return methods.flatMap((method) => {
    const read = drafts.map((draft, index) => {
      const own = menu.find(({ id }) => id === draft.recipeId)!;
      const recipe = own.method === method ? own : menu.find((each) => each.method === method)!;
      return readDraft(index === active ? { ...draft, recipeId: recipe.id } : draft, bar, menu, book, units);
    });
    const cups = read.flatMap((each) => (each.ok ? [each.cup] : []));
    return cups.length === drafts.length ? [{ name: method, cups }] : [];
  });
}

/**
 * What may bring the cups of an order closer together: each of its kinds of cup brewed by another method.
 * Gives the quotes to ask for, each with what it would be in words.
 */
export function otherWays(
  drafts: Draft[],
  bar: Bar,
  menu: Recipe[],
  book: RecipeBook,
  units: Units,
): (QuoteDraft & { what: string })[] {
  const kinds = drafts.filter(
    (draft, index) =>
      drafts.findIndex((each) => each.recipeId === draft.recipeId && each.sizeText === draft.sizeText) ===
      index,
  );
  return kinds.flatMap((kind) => {
    const index = drafts.indexOf(kind);
    const own = menu.find(({ id }) => id === kind.recipeId)?.method;
    return byMethod(drafts, index, bar, menu, book, units)
      .filter(({ name }) => name !== own)
      .map(({ name, cups }) => ({
        name: WORDS.cupBy(index + 1, name),
        cups,
        what: WORDS.cupByForIndex(index + 1, METHODS[name as MethodId].name.toLowerCase()),
      }));
  });
}
