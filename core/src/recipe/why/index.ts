/**
 * Why a number is what it is: its formula, what went into it and where each of those came from, as data.
 */
import { cardRules } from '../card-version';
import { asBrewed, brewCard, retentionAt, type BrewSite } from '../card';
import type { Grinder } from '../grind';
import type { Recipe } from '../recipe';
import { askedOf, yieldOf, type Ask } from '../solve';
import { beverageG, brewWaterG, bypassG, doseG, drinkG, finalRatio, ratio } from './amounts';
import type { Case, Derivation, Teller } from './derivation';
import { grindSetting, kettleFillG, mixedC, waterC } from './setting-up';
import { targetWhy } from './target';
import { brewTimeS, handsTimeS } from './times';

export type { Derivation, DerivedFrom, Source } from './derivation';

const TELLERS = {
  doseG,
  brewWaterG,
  bypassG,
  beverageG,
  drinkG,
  ratio,
  finalRatio,
  waterC,
  mixedC,
  kettleFillG,
  brewTimeS,
  handsTimeS,
  grindSetting,
} satisfies Record<string, Teller>;
type Figure = keyof typeof TELLERS;

export const WHY_OF = Object.keys(TELLERS) as Figure[];
/** A figure of the card, or a pour's target as `target:` and the step's id. */
export type WhyOf = Figure | `target:${string}`;

/**
 * The derivation of one figure of a card; null where the card has no such figure.
 * @throws RecipeError where the ask makes no card
 */
export function why(
  of: WhyOf,
  own: Recipe,
  wanted: Ask,
  place: BrewSite,
  grinding: { grinder?: Grinder | undefined; offsetSteps?: number } = {},
): Derivation | null {
  const ask = askedOf(own, wanted);
  const card = brewCard(own, ask, place);
  const recipe = asBrewed(own, ask, place);
  const { grinder, offsetSteps = 0 } = grinding;
  const at: Case = {
    recipe,
    ask,
    place,
    card,
    each: yieldOf(recipe, ask, retentionAt(place), cardRules(place.cardVersion).iceByShare),
    grinder,
    offsetSteps,
  };
  if (of.startsWith('target:')) return targetWhy(at, of.slice('target:'.length));
  const told = TELLERS[of as Figure](at);
  if (!told) return null;
  const value = told.value ?? (card as unknown as Record<string, number>)[of]!;
  return { ...told, value };
}
