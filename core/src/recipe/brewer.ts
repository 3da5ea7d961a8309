/**
 * The brewers and what they hold. A cup that fits none is said to fit none, never clamped.
 */
import type { MethodId } from './recipe';

export type Brewer = {
  id: string;
  method: MethodId;
  name: string;
  /** Dose range, grams. */
  minDoseG: number;
  maxDoseG: number;
  /** Most water that it holds at once, grams: under a dripper's rim, or all of it where coffee steeps. */
  maxWaterG: number;
  /** It is always filled whole: its basket sets the dose, and nothing scales inside it. */
  filledWhole?: true;
};

const row = (
  id: string,
  method: MethodId,
  name: string,
  minDoseG: number,
  maxDoseG: number,
  maxWaterG: number,
): Brewer => ({
  id,
  method,
  name,
  minDoseG,
  maxDoseG,
  maxWaterG,
});

const pot = (id: string, name: string, doseG: number, maxWaterG: number): Brewer => ({
  ...row(id, 'pressure-pot', name, doseG - BASKET_SLACK_G, doseG + BASKET_SLACK_G, maxWaterG),
  filledWhole: true,
});
/** A basket that is levelled holds this much more or less, grams. */
const BASKET_SLACK_G = 0.3;

export const BREWERS: readonly Brewer[] = [
  row('cone-s', 'cone', 'Cone S', 10, 20, 210),
  row('cone-m', 'cone', 'Cone M', 14, 32, 340),
  row('flat', 'flat', 'Flat-bottom', 14, 28, 300),
  row('hourglass-s', 'hourglass', 'Hourglass S', 18, 34, 380),
  row('hourglass-l', 'hourglass', 'Hourglass L', 28, 52, 640),
  row('sock', 'sock', 'Cloth sock', 16, 30, 280),
  row('siphon-s', 'siphon', 'Siphon S', 14, 20, 280),
  row('siphon-m', 'siphon', 'Siphon M', 20, 30, 430),
  row('siphon-l', 'siphon', 'Siphon L', 32, 42, 600),
  row('press-350', 'press', 'Press 350 ml', 14, 19, 300),
  row('press-1l', 'press', 'Press 1 l', 36, 53, 850),
  row('air-press', 'air-press', 'Air press', 11, 18, 250),
  // By its coffee: the basket's dose, give or take what rounding does to it.
  pot('pressure-pot-90', 'Pressure pot 90 ml', 11.3, 110),
  pot('pressure-pot', 'Pressure pot 150 ml', 18.8, 185),
  pot('pressure-pot-300', 'Pressure pot 300 ml', 37.5, 370),
  row('foam-pot', 'foam-pot', 'Long-handled pot', 6, 18, 170),
];

export const brewerById = (id: string): Brewer | undefined => BREWERS.find((brewer) => brewer.id === id);
