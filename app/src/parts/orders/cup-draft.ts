/**
 * A cup as it is being asked for: what has been chosen and typed, and what that makes.
 */
import { MILKS, brewAlike, type CupAsk, type Milk } from '@even-kettle/core/brew';
import { isGassy } from '@even-kettle/core/learn';
import { brewerOf, cardFor } from '@even-kettle/core/plan';
import {
  ADDITIONS,
  CUP_RANGE_ML,
  METHODS,
  type Addition,
  type MethodId,
  type Recipe,
  type RecipeBook,
} from '@even-kettle/core/recipe';
import { readVolume, type Units } from '@even-kettle/core/units';
import { newId } from '../../client/bar-context';
import type { Bar } from '@even-kettle/core/contract';
import { DECIMAL } from '../../ui/typed';
import { sizeText } from '../../words/size-text';
import { type QuoteDraft } from './use-quotes';
import { WORDS } from './words';

export type Draft = {
  key: string;
  coffeeId: string;
  recipeId: string;
  sizeText: string;
  additions: Addition[];
  milk: Milk;
  toGo: boolean;
  allergy: string;
  note: string;
};

/** What the counter knows while an order is being taken. */
export type Counter = {
  bar: Bar;
  menu: Recipe[];
  book: RecipeBook;
  units: Units;
  /** For the age of a coffee, bar milliseconds. */
  nowMs: number;
};

export type DraftRead =
  | { ok: true; cup: CupAsk; doseG: number; brewWaterG: number; brewTimeS: number }
  | { ok: false; reason: string };

/**
 * What is worked out of a draft at a counter. Both are plain data that is never changed, so that it is found once for each:
 * while one cup of six is typed the others stay the very same, and are neither worked out nor drawn again.
 */
const found = new WeakMap<Counter, WeakMap<Draft, Found>>();
type Found = { read?: DraftRead; sizesMl?: number[]; byRecipe: Map<string, Draft> };

function foundOf(draft: Draft, counter: Counter): Found {
  let drafts = found.get(counter);
  if (!drafts) found.set(counter, (drafts = new WeakMap()));
  let known = drafts.get(draft);
  if (!known) drafts.set(draft, (known = { byRecipe: new Map() }));
  return known;
}

export function readDraft(draft: Draft, counter: Counter): DraftRead {
  const known = foundOf(draft, counter);
  return (known.read ??= workOut(draft, counter));
}

function workOut(draft: Draft, { bar, menu, book, units, nowMs }: Counter): DraftRead {
  const size = readVolume(draft.sizeText, WORDS.size, units, CUP_RANGE_ML, DECIMAL);
  if (!size.ok) return size;
  const coffee = bar.coffees.find(({ id }) => id === draft.coffeeId);
  const recipe = menu.find(({ id }) => id === draft.recipeId);
  if (!coffee || !recipe) return { ok: false, reason: WORDS.chooseCoffeeAndMethod };
  const cup: CupAsk = {
    cupId: draft.key,
    recipeId: recipe.id,
    recipeVersion: recipe.version,
    coffee: coffee.name,
    roast: coffee.roast,
    cupMl: Math.round(size.value),
    ...additionsOf(draft.additions),
    ...(isGassy(coffee.roastedOn, nowMs) ? { gassy: true } : {}),
    ...serviceOfDraft(draft, coffee.decaf),
  };
  const brewed = cardFor(bar, cup, book);
  if (!brewed.ok) return brewed;
  const { doseG, brewWaterG, brewTimeS } = brewed.card;
  return { ok: true, cup, doseG, brewWaterG, brewTimeS };
}

/** A size that was shown in other units and read again differs by so little, ml. */
const SAME_ML = 2;

/**
 * A cup as it is changed. What was not touched stays as it was asked for, also where the house has gone on since: a recipe's
 * version, a coffee's freshness; and the brew that it shares, unless it is brewed otherwise now.
 */
export function asChanged(ask: CupAsk, typed: CupAsk): CupAsk {
  const { gassy, ...rest } = typed;
  const sameCoffee = typed.coffee === ask.coffee;
  const isGassyNow = sameCoffee ? ask.gassy : gassy;
  const own: CupAsk = {
    ...rest,
    cupId: ask.cupId,
    roast: sameCoffee ? ask.roast : typed.roast,
    recipeVersion: typed.recipeId === ask.recipeId ? ask.recipeVersion : typed.recipeVersion,
    cupMl: Math.abs(typed.cupMl - ask.cupMl) <= SAME_ML ? ask.cupMl : typed.cupMl,
    ...(isGassyNow ? { gassy: true } : {}),
    ...(ask.cups ? { cups: ask.cups } : {}),
  };
  const shared = ask.with ? { ...own, with: ask.with } : own;
  return brewAlike(ask, shared) ? shared : own;
}

/** Recipes of the methods that a station here brews. */
export const recipesOn = (bar: Bar, recipes: Recipe[]): Recipe[] =>
  recipes.filter(({ method }) =>
    bar.stations.some(({ brewerId }) => brewerOf(bar, brewerId)?.method === method),
  );

export const firstDraft = ({ bar, menu, units }: Counter): Draft => ({
  key: newId(),
  coffeeId: bar.coffees[0]?.id ?? '',
  recipeId: menu[0]?.id ?? '',
  ...PLAIN,
  sizeText: sizeText(250, units),
});

const PLAIN = { additions: [], milk: MILKS[0], toGo: false, allergy: '', note: '' };

/** Ice changes the brew, and milk where there is no ice; what else goes in is only put in. */
export function additionsOf(additions: readonly Addition[]): Pick<CupAsk, 'addition' | 'besides'> {
  const [first, ...besides] = ADDITIONS.filter((each) => additions.includes(each));
  return { ...(first ? { addition: first } : {}), ...(besides.length > 0 ? { besides } : {}) };
}

const serviceOfDraft = (draft: Draft, decaf: boolean) => ({
  ...(draft.additions.includes('milk') ? { milk: draft.milk } : {}),
  ...(draft.toGo ? { toGo: true as const } : {}),
  ...(draft.allergy.trim() ? { allergy: draft.allergy.trim() } : {}),
  ...(draft.note.trim() ? { note: draft.note.trim() } : {}),
  ...(decaf ? { decaf: true as const } : {}),
});

/** A cup that was asked for, as it is typed; null where its coffee or its recipe are not here any more. */
export function draftOf(cup: CupAsk, { bar, menu, units }: Counter): Draft | null {
  const coffee = bar.coffees.find(({ name }) => name === cup.coffee);
  const recipe = menu.find(({ id }) => id === cup.recipeId);
  if (!coffee || !recipe) return null;
  return {
    key: cup.cupId,
    coffeeId: coffee.id,
    recipeId: recipe.id,
    sizeText: sizeText(cup.cupMl, units),
    additions: [...(cup.addition ? [cup.addition] : []), ...(cup.besides ?? [])],
    milk: cup.milk ?? MILKS[0],
    toGo: cup.toGo ?? false,
    allergy: cup.allergy ?? '',
    note: cup.note ?? '',
  };
}

/** Sizes that guests ask for, ml; and which of them, where all can be had, are offered. */
const USUAL_ML = [75, 90, 120, 150, 200, 250, 300, 350, 400, 500];
const MIDDLE_ML = 250;
const OFFERED = 3;

/** Up to three sizes that this bench can make of what has been chosen, around the commonest. */
export function sizesFor(draft: Draft, counter: Counter): number[] {
  const known = foundOf(draft, counter);
  return (known.sizesMl ??= findSizes(draft, counter));
}

function findSizes(draft: Draft, counter: Counter): number[] {
  const made = USUAL_ML.filter(
    (ml) => readDraft({ ...draft, sizeText: sizeText(ml, counter.units) }, counter).ok,
  );
  return made
    .toSorted((a, b) => Math.abs(a - MIDDLE_ML) - Math.abs(b - MIDDLE_ML))
    .slice(0, OFFERED)
    .sort((a, b) => a - b);
}

/** The cup by another recipe; a size that this bench cannot make by it gives way to the nearest usual one that it can. */
export function withRecipe(draft: Draft, recipeId: string, counter: Counter): Draft {
  const { units } = counter;
  const other = { ...draft, recipeId };
  if (readDraft(other, counter).ok) return other;
  const size = readVolume(draft.sizeText, WORDS.size, units, CUP_RANGE_ML, DECIMAL);
  const wantedMl = size.ok ? size.value : MIDDLE_ML;
  const [nearest] = sizesFor(other, counter).toSorted(
    (a, b) => Math.abs(a - wantedMl) - Math.abs(b - wantedMl),
  );
  return nearest === undefined ? other : { ...other, sizeText: sizeText(nearest, units) };
}

/** The draft with another recipe, the same one each time that it is asked for. */
function byRecipe(draft: Draft, recipeId: string, counter: Counter): Draft {
  if (draft.recipeId === recipeId) return draft;
  const known = foundOf(draft, counter).byRecipe;
  const other = known.get(recipeId) ?? { ...draft, recipeId };
  known.set(recipeId, other);
  return other;
}

/** The order with the cup at hand brewed by each method in turn. */
export function byMethod(drafts: Draft[], active: number, counter: Counter): QuoteDraft[] {
  const { menu } = counter;
  const methods = [...new Set(menu.map(({ method }) => method))];
  return methods.flatMap((method) => {
    const read = drafts.map((draft, index) => {
      const own = menu.find(({ id }) => id === draft.recipeId)!;
      const recipe = own.method === method ? own : menu.find((each) => each.method === method)!;
      return readDraft(index === active ? byRecipe(draft, recipe.id, counter) : draft, counter);
    });
    const cups = read.flatMap((each) => (each.ok ? [each.cup] : []));
    return cups.length === drafts.length ? [{ name: method, cups }] : [];
  });
}

/**
 * What may bring the cups of an order closer together: each of its kinds of cup brewed by another method.
 * Gives the quotes to ask for, each with what it would be in words.
 */
export function otherWays(drafts: Draft[], counter: Counter): (QuoteDraft & { what: string })[] {
  const { menu } = counter;
  const kinds = drafts.filter(
    (draft, index) =>
      drafts.findIndex((each) => each.recipeId === draft.recipeId && each.sizeText === draft.sizeText) ===
      index,
  );
  return kinds.flatMap((kind) => {
    const index = drafts.indexOf(kind);
    const own = menu.find(({ id }) => id === kind.recipeId)?.method;
    return byMethod(drafts, index, counter)
      .filter(({ name }) => name !== own)
      .map(({ name, cups }) => ({
        name: WORDS.cupBy(index + 1, name),
        cups,
        what: WORDS.cupByForIndex(index + 1, METHODS[name as MethodId].name.toLowerCase()),
      }));
  });
}
