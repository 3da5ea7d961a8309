/**
 * Any one quantity in, dose and water out.
 */
import { iceShare } from '../water';
import { METHODS } from './methods';
import { RecipeError, type Recipe } from './recipe';
import { round } from './round';

/** What goes into the cup beside the coffee. Sugar is served beside and changes no figure. */
export const ADDITIONS = ['ice', 'milk', 'sugar'] as const;
export type Addition = (typeof ADDITIONS)[number];

/** The one quantity that is given: beverage (ml), the whole drink, dose or brew water (g), or a number of cups. */
export type Leading =
  | { cupMl: number }
  | { drinkG: number }
  | { doseG: number }
  | { brewWaterG: number }
  | { cups: number; eachMl?: number };

/** What is asked for: one quantity, and where wanted another ratio than the recipe's, and an addition. */
export type Ask = Leading & { ratio?: number; addition?: Addition };

/** A recipe that has ice of its own is always brewed over it; milk and sugar then go beside and change no figure. */
export const askedOf = (recipe: Pick<Recipe, 'iceTimesDose'>, ask: Ask): Ask =>
  recipe.iceTimesDose === undefined ? ask : { ...ask, addition: 'ice' };

/** Smallest and largest cup that an order can ask for. */
export const CUP_RANGE_ML = { min: 60, max: 1000 } as const;
/** Less is no brew, more is no brewer's. */
export const DOSE_RANGE_G = { min: 3, max: 120 } as const;
export const RATIO_RANGE = { min: 6, max: 25 } as const;
export const CUPS_RANGE = { min: 1, max: 12 } as const;
/** What rounding may add to a dose that came out at an end of its range, grams. */
const SLACK_G = 0.25;

/** Of the ratio, what is brewed where milk is added; the rest is the milk's own mass. */
const BREWED_WITH_MILK = 0.9;
/** The same over ice, by the rules of card version 1. */
const BREWED_OVER_ICE = 0.8;

/** The numbers that the sums are made with, each per gram of dose except the loss. */
export type Yield = {
  /** Brew water, g/g; and what of it does not grow with the dose, grams: ice melts by what a siphon loses, too. */
  ratio: number;
  fixedWaterG: number;
  retentionGPerG: number;
  /** The recipe's own bypass, g/g. */
  bypass: number;
  /** Brew water and ice or milk together, g/g: the ratio before anything is added. */
  whole: number;
  /** Ice, which counts as bypass, g/g. */
  ice: number;
  /** Milk, which does not, g/g. */
  milk: number;
  lossG: number;
  /** A cup with no size, millilitres: the recipe's own share where it says how many it makes. */
  usualCupMl: number;
};

/**
 * @param retentionGPerG the bar's own, from its weighed cups, where it has one
 * @param iceByShare whether ice takes a share of the ratio, whatever it melts (`cardRules`)
 */
export function yieldOf(
  recipe: Recipe,
  { ratio: wished, addition }: Pick<Ask, 'ratio' | 'addition'>,
  retentionGPerG?: number,
  iceByShare = false,
): Yield {
  const method = METHODS[recipe.method];
  const ownIce = recipe.iceTimesDose;
  const iceShared = addition === 'ice' && iceByShare && ownIce === undefined;
  const share = addition === 'milk' ? BREWED_WITH_MILK : iceShared ? BREWED_OVER_ICE : 1;
  const range = { min: Math.ceil(round((RATIO_RANGE.min / share) * 10, 6)) / 10, max: RATIO_RANGE.max };
  const asked = wished === undefined ? recipe.ratio : inRange('ratio', 'Ratio', wished, range, '');
  const retention = retentionGPerG ?? recipe.retentionGPerG ?? method.retentionGPerG;
  const ice = addition === 'ice' && !iceByShare && ownIce === undefined ? iceShare(method.meetsIceC) : 0;
  const ratio = ice > 0 ? icedRatio(asked, retention - recipe.bypassTimesDose, ice) : asked * share;
  // Below the strongest brew that there is, the melted drink comes out weaker.
  const whole =
    ice > 0 && ratio === RATIO_RANGE.min
      ? ratio + ice * (ratio - retention + recipe.bypassTimesDose)
      : asked + (ownIce ?? 0);
  if (ratio - retention + recipe.bypassTimesDose <= 0)
    throw new RecipeError(
      'recipe-broken',
      'ratio',
      `At 1:${round(ratio, 1)} the coffee keeps all the water. Ask for a higher ratio.`,
    );
  const each = {
    ratio,
    fixedWaterG: ice > 0 ? (method.lossG * ice) / (1 + ice) : 0,
    retentionGPerG: retention,
    bypass: recipe.bypassTimesDose,
    whole,
    ice: addition === 'ice' ? whole - ratio : 0,
    milk: addition === 'milk' ? whole - ratio : 0,
    lossG: method.lossG,
    usualCupMl: method.usualCupMl,
  };
  const { refDoseG, servings } = recipe;
  if (servings === undefined) return each;
  return { ...each, usualCupMl: Math.round((refDoseG * beveragePerDose(each) - each.lossG) / servings) };
}

/**
 * Brew water of a gram of dose for a drink over ice: the hot coffee and the ice that it melts are together as much as the
 * recipe's own beverage, so that the drink is as strong. (x - kept) (1 + ice) = R - kept, and never under the least ratio.
 * @param keptG what a gram keeps, less its bypass
 */
const icedRatio = (ratio: number, keptG: number, ice: number): number =>
  Math.max(RATIO_RANGE.min, (ratio - keptG) / (1 + ice) + keptG);

/** Beverage of a gram of dose before losses, g/g: R - r + b, ice included. */
export const beveragePerDose = ({
  ratio,
  retentionGPerG,
  bypass,
  ice,
}: Pick<Yield, 'ratio' | 'retentionGPerG' | 'bypass' | 'ice'>): number =>
  ratio - retentionGPerG + bypass + ice;

export type Solved = { doseG: number; brewWaterG: number; cups: number };

/**
 * Dose to 0.1 g and brew water to 1 g. With R the ratio, r the retention, b the bypass (each per gram of dose) and L
 * the losses: beverage = dose x (R - r + b) - L.
 * @throws RecipeError `not-a-quantity` or `out-of-range`, naming the field and what would be right
 */
export function solve(ask: Ask, each: Yield): Solved {
  const cups = 'cups' in ask ? wholeCups(ask.cups) : 1;
  const { doseG, brewWaterG } = doseAndWater(ask, each);
  if (doseG * beveragePerDose(each) - each.lossG >= 1) return { doseG, brewWaterG, cups };
  throw new RecipeError(
    'out-of-range',
    FIELDS.find((field) => field in ask)!,
    `${doseG} g of coffee in ${brewWaterG} g of water leaves nothing for the cup; ask for more.`,
  );
}

const FIELDS = ['cupMl', 'drinkG', 'doseG', 'brewWaterG', 'cups'] as const;

function doseAndWater(ask: Ask, each: Yield): { doseG: number; brewWaterG: number } {
  if ('brewWaterG' in ask) {
    const given = asked(
      'brewWaterG',
      'Brew water',
      ask.brewWaterG,
      (dose) => dose * each.ratio + each.fixedWaterG,
      'g',
    );
    const brewWaterG = Math.round(given);
    return { doseG: round((brewWaterG - each.fixedWaterG) / each.ratio, 1), brewWaterG };
  }
  const doseG = round(exactDoseG(ask, each), 1);
  return { doseG, brewWaterG: Math.round(round(doseG * each.ratio + each.fixedWaterG, 6)) };
}

function exactDoseG(ask: Exclude<Ask, { brewWaterG: number }>, each: Yield): number {
  if ('doseG' in ask) return asked('doseG', 'Dose', ask.doseG, (dose) => dose, 'g');
  if ('drinkG' in ask) {
    const perDose = beveragePerDose(each) + each.milk;
    const drinkG = asked('drinkG', 'Drink', ask.drinkG, (dose) => dose * perDose - each.lossG, 'g');
    return (drinkG + each.lossG) / perDose;
  }
  const perDose = beveragePerDose(each);
  const beverageMl = (dose: number) => dose * perDose - each.lossG;
  if ('cupMl' in ask) return (asked('cupMl', 'Cup', ask.cupMl, beverageMl, 'ml') + each.lossG) / perDose;
  const eachMl = ask.eachMl ?? each.usualCupMl;
  const share = (dose: number) => beverageMl(dose) / ask.cups;
  return (asked('eachMl', 'Each cup', eachMl, share, 'ml') * ask.cups + each.lossG) / perDose;
}

function wholeCups(cups: number): number {
  inRange('cups', 'Cups', cups, CUPS_RANGE, '');
  if (Number.isInteger(cups)) return cups;
  throw new RecipeError('not-a-quantity', 'cups', `Cups must be a whole number, not ${round(cups, 2)}.`);
}

/** A quantity that grows with the dose is legal where the dose that it comes to is. */
function asked(
  field: string,
  name: string,
  value: number,
  ofDose: (doseG: number) => number,
  unit: string,
): number {
  const slack = { min: ofDose(DOSE_RANGE_G.min - SLACK_G), max: ofDose(DOSE_RANGE_G.max + SLACK_G) };
  if (value > 0 && value >= slack.min && value <= slack.max) return value;
  const digits = field === 'doseG' ? 1 : 0;
  const min = Math.max(1, Math.ceil(ofDose(DOSE_RANGE_G.min)));
  return inRange(field, name, value, { min, max: round(Math.floor(ofDose(DOSE_RANGE_G.max)), digits) }, unit);
}

function inRange(
  field: string,
  name: string,
  value: number,
  { min, max }: { min: number; max: number },
  unit: string,
): number {
  const of = unit ? ` ${unit}` : '';
  if (!Number.isFinite(value))
    throw new RecipeError('not-a-quantity', field, `${name} must be a number${of && ` of${of}`}.`);
  if (value >= min && value <= max) return value;
  throw new RecipeError(
    'out-of-range',
    field,
    `${name} must be from ${min} to ${max}${of}, not ${round(value, 1)}.`,
  );
}
