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
  row('pressure-pot', 'pressure-pot', 'Pressure pot', 14, 18, 180),
  row('foam-pot', 'foam-pot', 'Long-handled pot', 6, 18, 170),
];

export const brewerById = (id: string): Brewer | undefined => BREWERS.find((brewer) => brewer.id === id);
