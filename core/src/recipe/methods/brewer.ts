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
  /** What this brewer's filter is, where it is not the recipe's; and what a gram keeps with it, g/g. */
  filter?: string | undefined;
  retentionGPerG?: number | undefined;
  /** How long it drains, times what a recipe expects; 1 where left out. */
  drainShare?: number | undefined;
  /** It is always filled whole: its basket sets the dose, and nothing scales inside it. */
  filledWhole?: boolean | undefined;
};
