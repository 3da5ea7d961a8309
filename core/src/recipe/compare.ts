/**
 * The same coffee and cup in every method, side by side; and a method for what a guest asks for.
 */
import { showClock } from '../units';
import { brewerFor } from './capacity';
import { brewCard, type BrewCard, type BrewSite } from './card';
import { BREWERS, METHODS } from './methods';
import type { Brewer } from './methods/brewer';
import { METHOD_IDS, RecipeError, type MethodId, type Recipe, type Wish } from './recipe';
import type { Ask } from './solve';

/** One method's row: its recipe and card, or why it cannot make the cup. */
export type MethodRow = { recipe: Recipe } & (
  | { ok: true; card: BrewCard; brewer: Brewer | undefined }
  | { ok: false; reason: string }
);

/**
 * One row a method, in the methods' own order: the chosen recipe for its method, else the method's first.
 * @param brewers those that a row may be brewed in; left out, every brewer there is
 */
export function methodTable(
  recipes: readonly Recipe[],
  ask: Ask,
  place: BrewSite,
  { chosen, brewers = BREWERS }: { chosen?: Recipe; brewers?: readonly Brewer[] } = {},
): MethodRow[] {
  const lead = (method: MethodId) =>
    chosen?.method === method ? chosen : recipes.find((recipe) => recipe.method === method);
  return METHOD_IDS.map(lead)
    .filter((recipe) => recipe !== undefined)
    .map((recipe) => rowOf(recipe, ask, place, brewers));
}

function rowOf(recipe: Recipe, ask: Ask, place: BrewSite, brewers: readonly Brewer[]): MethodRow {
  try {
    const { brewer: _elsewhere, ...bare } = place;
    const card = brewCard(recipe, ask, bare);
    const brewer = brewerFor(card, brewers);
    return { recipe, ok: true, card: brewer ? brewCard(recipe, ask, { ...bare, brewer }) : card, brewer };
  } catch (error) {
    if (error instanceof RecipeError) return { recipe, ok: false, reason: error.message };
    throw error;
  }
}

/** A recipe for a wish, best first, with what speaks for it and against it. */
export type Suggestion = { row: MethodRow & { ok: true }; score: number; reasons: string[] };

/** Out within this from the order counts as quick, seconds; over the other, a guest asks. */
const QUICK_S = 240;
const SLOW_S = 540;

/**
 * Recipes for what a guest wants. A recipe's own word counts most, then its method's, then what the figures say; the
 * reasons are the same figures in words.
 */
export function suggest(
  wish: Wish,
  recipes: readonly Recipe[],
  ask: Ask,
  place: BrewSite,
  brewers: readonly Brewer[] = BREWERS,
): Suggestion[] {
  return recipes
    .map((recipe) => rowOf(recipe, ask, place, brewers))
    .filter((row): row is MethodRow & { ok: true } => row.ok)
    .map((row) => weigh(wish, row, place))
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score || a.row.card.brewTimeS - b.row.card.brewTimeS);
}

function weigh(wish: Wish, row: MethodRow & { ok: true }, place: BrewSite): Suggestion {
  const { recipe, card, brewer } = row;
  const method = METHODS[recipe.method];
  const reasons: string[] = [];
  let score = 0;
  const count = (points: number, reason: string) => {
    score += points;
    reasons.push(reason);
  };
  if (recipe.suits.includes(wish)) count(3, recipe.why);
  if (method.suits.includes(wish)) count(2, `${method.name}: ${method.character}`);
  if (score === 0) return { row, score, reasons };
  if (wish === 'clear') count(method.clarity / 5, `clarity ${method.clarity} of 5`);
  if (wish === 'heavy' || wish === 'rich') count(method.body / 5, `body ${method.body} of 5`);
  const readyS = card.steps.find((step) => step.kind === 'serve')!.startS - card.steps[0]!.startS;
  if (wish === 'quick') count(readyS <= QUICK_S ? 2 : 0, `ready in ${showClock(readyS)}`);
  else if (readyS > SLOW_S) count(-0.5, `takes ${showClock(readyS)}`);
  const darker = place.roast === 'medium-dark' || place.roast === 'dark';
  if (darker && card.mixedC !== undefined) count(1, `tames bitterness of a ${place.roast} roast`);
  if (wish === 'to share')
    count(brewer ? 0.5 : -2, brewer ? `one brew in the ${brewer.name}` : 'not in one brew');
  else if (!brewer) count(-2, 'fits no brewer in one go');
  return { row, score, reasons };
}
