/**
 * What of a card is a usual value rather than this bar's own, and by how much it may be off: so that nobody takes a default
 * for a measurement.
 */
import { METHODS } from './methods';
import type { BrewCard, BrewSite } from './card';
import type { Recipe } from './recipe';

export type Uncertainty = {
  about: 'beverage' | 'time' | 'grind' | 'temperature';
  /** How far off it may be either way: grams, seconds, bands of the grind, degrees. */
  plusMinus: number;
  unit: 'g' | 's' | 'bands' | '°C';
  /** A whole sentence: what stands behind the figure, and what would make it sure. */
  why: string;
};

/** Our own estimates of how far the usual values are off on a bar that has taught nothing yet. */
const RETENTION_OFF_G_PER_G = 0.2;
const EXPONENT_OFF = 0.15;
const FEEL_OFF_BANDS = 6;
const STEAM_OFF_G = 6;
const STILL_RISING_OFF_C = 3;
/** Learnt from a bar's own cups, water kept by the bed is known to this. */
const LEARNT_OFF_G_PER_G = 0.07;
const LEAST_S = 3;

/** @param calibrated whether a grinder of the bar is calibrated for the recipe's band */
export function uncertaintiesOf(
  recipe: Recipe,
  card: BrewCard,
  place: BrewSite,
  calibrated: boolean,
): Uncertainty[] {
  const found: Uncertainty[] = [];
  const learnt = place.retentionGPerG !== undefined;
  const keptG = card.doseG * (learnt ? LEARNT_OFF_G_PER_G : RETENTION_OFF_G_PER_G);
  const lostG = card.lossG > 0 ? STEAM_OFF_G : 0;
  found.push({
    about: 'beverage',
    plusMinus: Math.max(1, Math.round(keptG + lostG)),
    unit: 'g',
    why: learnt
      ? 'What the bed keeps is learnt from this bar’s weighed cups.'
      : `What the bed keeps is the usual value${lostG > 0 ? ', and so is what is lost to steam' : ''}; a few weighed cups of this coffee would tell.`,
  });
  const drawdown = card.steps.find(({ kind }) => kind === 'drawdown');
  const size = Math.log(card.doseG / recipe.refDoseG);
  const sd = place.drawdownExponentSd ?? (place.drawdownExponent === undefined ? EXPONENT_OFF : 0);
  const timeS = drawdown ? Math.round(drawdown.durationS * Math.abs(size) * sd) : 0;
  if (timeS >= LEAST_S)
    found.push({
      about: 'time',
      plusMinus: timeS,
      unit: 's',
      why:
        place.drawdownExponent === undefined
          ? `The recipe was timed at ${recipe.refDoseG} g; how its drawdown grows with the dose is the usual value until the log has brews of other sizes.`
          : 'How its drawdown grows with the dose is learnt from this bar’s log.',
    });
  if (!calibrated)
    found.push({
      about: 'grind',
      plusMinus: FEEL_OFF_BANDS,
      unit: 'bands',
      why: 'No grinder here is calibrated for this band, so it is set by feel; two points on the Bench would tell.',
    });
  if (METHODS[recipe.method].heatedIn !== 'kettle' && card.waterIs === 'still rising')
    found.push({
      about: 'temperature',
      plusMinus: STILL_RISING_OFF_C,
      unit: '°C',
      why: 'The water is still rising when it meets the coffee, so its temperature is not known well.',
    });
  return found;
}
