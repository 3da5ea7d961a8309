/**
 * A brewer and what it holds. A cup that fits none is said to fit none, never clamped.
 */
import type { MethodId } from '../recipe';

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
