/**
 * What a figure is derived from: the words of a derivation, and the inputs that several of them share.
 *
 * Formulas are written for people, with the symbols of their inputs; `×`, `÷`, `−` and `^` are the usual signs, and
 * `round(x, n)` is to n decimals.
 */
import { iceShare } from '../../water';
import type { BrewCard, BrewSite } from '../card';
import { METHODS } from '../methods';
import type { Grinder } from '../grind';
import type { Recipe } from '../recipe';
import type { Ask, Yield } from '../solve';

/** Where a figure came from. `asked`: given by the person; `derived`: worked out from the others, ask for its own why. */
export type Source = 'asked' | 'recipe' | 'method' | 'brewer' | 'bar' | 'log' | 'default' | 'derived';

export type DerivedFrom = { symbol: string; name: string; value: number; unit: string; from: Source };

export type Derivation = {
  name: string;
  value: number;
  unit: string;
  formula: string;
  inputs: DerivedFrom[];
  /** What a formula alone does not say. */
  note?: string;
};

export type Case = {
  recipe: Recipe;
  ask: Ask;
  place: BrewSite;
  card: BrewCard;
  each: Yield;
  grinder: Grinder | undefined;
  offsetSteps: number;
};
export type Told = Omit<Derivation, 'value'> & { value?: number };
/** Tells one figure of a card; null where the card has none. */
export type Teller = (at: Case) => Told | null;

export const input = (
  symbol: string,
  name: string,
  value: number,
  unit: string,
  from: Source,
): DerivedFrom => ({
  symbol,
  name,
  value,
  unit,
  from,
});

export const doseOf = ({ card, ask }: Case) =>
  input('dose', 'Dose', card.doseG, 'g', 'doseG' in ask ? 'asked' : 'derived');
export const waterOf = ({ card, ask }: Case) =>
  input('water', 'Brew water', card.brewWaterG, 'g', 'brewWaterG' in ask ? 'asked' : 'derived');
export const lossOf = ({ each }: Case) =>
  input('loss', 'Lost to steam and the lower bulb', each.lossG, 'g', 'method');
export const recipeRatio = ({ recipe, ask }: Case) =>
  input('R', 'Ratio', ask.ratio ?? recipe.ratio, 'g/g', ask.ratio === undefined ? 'recipe' : 'asked');
export const retentionOf = ({ recipe, place, each }: Case) =>
  input(
    'kept',
    `Water kept by each gram (${place.brewer?.filter ?? recipe.filter})`,
    each.retentionGPerG,
    'g/g',
    place.retentionGPerG !== undefined
      ? 'log'
      : place.brewer?.retentionGPerG !== undefined
        ? 'brewer'
        : recipe.retentionGPerG !== undefined
          ? 'recipe'
          : 'default',
  );
export const bypassOf = ({ recipe }: Case) =>
  input('bypass', 'Bypass', recipe.bypassTimesDose, 'g/g', 'recipe');
export const setBy = ({ place }: Case): Source =>
  place.setBy === 'bar' ? 'bar' : place.setBy === 'asked' ? 'asked' : 'default';

export const ownIceOf = ({ recipe }: Case) => input('I', 'Ice', recipe.iceTimesDose ?? 0, 'g/g', 'recipe');
/** The ratio of water and ice together. */
export const icedWhole = (at: Case) =>
  at.each.whole === (at.ask.ratio ?? at.recipe.ratio)
    ? recipeRatio(at)
    : input('R', 'Ratio with its ice', at.each.whole, 'g/g', 'derived');
/** The ratio as brewed, with an addition's share where there is one. */
export const brewedRatio = (at: Case): { formula: string; inputs: DerivedFrom[] } => {
  const { addition } = at.ask;
  if (addition === 'milk')
    return {
      formula: 'R × milk',
      inputs: [
        recipeRatio(at),
        input('milk', 'Share that is brewed, the rest being milk', 0.9, '', 'default'),
      ],
    };
  if (addition !== 'ice' || at.recipe.iceTimesDose !== undefined)
    return { formula: 'R', inputs: [recipeRatio(at)] };
  const ice = iceShare(METHODS[at.recipe.method].meetsIceC);
  const own = at.each.bypass > 0 ? '(kept − bypass)' : 'kept';
  return {
    formula: `((R − ${own}) ÷ (1 + ice) + ${own})`,
    inputs: [
      icedWhole(at),
      retentionOf(at),
      ...(at.each.bypass > 0 ? [bypassOf(at)] : []),
      input('ice', 'Ice that a gram of hot coffee melts', ice, 'g/g', 'method'),
    ],
  };
};
