/**
 * How hot the water should be, and how hot it can be here.
 */
import { boilingPointC } from '../water';
import type { Recipe } from './recipe';
import { round } from './round';

export type RoastLevel = 'very light' | 'light' | 'medium' | 'medium-dark' | 'dark';
export const ROAST_LEVELS: readonly RoastLevel[] = ['very light', 'light', 'medium', 'medium-dark', 'dark'];

/** Degrees that a roast level moves a recipe's water, from medium. */
export const ROAST_SHIFT_C: Record<RoastLevel, number> = {
  'very light': 3,
  light: 1.5,
  medium: 0,
  'medium-dark': -3,
  dark: -6,
};

export type BrewTemperature = {
  /** What the recipe asks for with this roast, and what is used, degrees Celsius. */
  wishedC: number;
  waterC: number;
  /** What the place allows, to a tenth below boiling. */
  highestC: number;
};

/** A first water cooler than this is meant to be cool, degrees Celsius. */
const COOL_C = 60;

/**
 * Water that starts cool or warm, or that is still rising, is not moved by the roast: nobody sets it to a degree. Nor is
 * the very hot water after a cool bloom: that school is for the darker roasts as it is.
 */
export const followsRoast = (recipe: Recipe): boolean =>
  (recipe.waterIs === 'in the kettle' || recipe.waterIs === 'in the top') &&
  !recipe.steps.some(({ pour }) => pour?.waterC !== undefined && pour.waterC < COOL_C);

/**
 * The recipe's temperature, shifted by the roast and never above the local boiling point.
 * @param altitudeM metres above the sea, -400 to 5,000
 */
export function brewTemperature(recipe: Recipe, roast: RoastLevel, altitudeM: number): BrewTemperature {
  const wishedC = recipe.waterC + (followsRoast(recipe) ? ROAST_SHIFT_C[roast] : 0);
  const highestC = Math.floor(round(boilingPointC(altitudeM) * 10, 6)) / 10;
  return { wishedC, waterC: Math.min(wishedC, highestC), highestC };
}

/** In words, where the place does not allow what the recipe wishes. */
export function temperatureNote(
  { wishedC, waterC, highestC }: BrewTemperature,
  altitudeM: number,
): string | null {
  if (wishedC <= highestC) return null;
  return `The recipe wishes ${wishedC} °C; at ${altitudeM} m water boils at ${highestC} °C, so ${waterC} °C it is: pour straight off the boil.`;
}
