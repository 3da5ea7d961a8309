/**
 * A brew card as the command line's `--json` prints it: plain names for scripts.
 */
import { METHODS, type BrewCard, type CardPath, type StartCue } from '../recipe';
import type { Fill } from '../water';

export type ConvertJson = {
  recipe: string;
  doseG: number;
  brewWaterG: number;
  bypassG: number;
  beverageG: number;
  ratio: number;
  finalRatio: number;
  waterC: number;
  /** How the kettle is filled, never over its limit. */
  fills: Fill[];
  /** Ice that melts into the drink, grams; 0 without. */
  iceG: number;
  /** How warm it is handed over, degrees Celsius. */
  servedC: number;
  /** The grinder and its setting, where one is calibrated. */
  grinder: { name: string; setting: number } | null;
  brewTimeS: number;
  steps: {
    id: string;
    kind: string;
    startS: number;
    endS: number;
    targetG?: number;
    end: 'clock' | 'weight' | 'cue';
    attended: boolean;
    /** Where a pour's water goes, part by part, each but the last up to a reading. */
    paths?: CardPath[];
    /** What a pour waits for in place of the clock. */
    startCue?: StartCue;
  }[];
  notes: string[];
};

/** @param grinder what the grinder is to be set to, where it is known */
export const convertJson = (card: BrewCard, grinder: ConvertJson['grinder'] = null): ConvertJson => ({
  recipe: card.recipeId,
  doseG: card.doseG,
  brewWaterG: card.brewWaterG,
  bypassG: card.bypassG,
  beverageG: card.beverageG,
  ratio: card.ratio,
  finalRatio: card.finalRatio,
  waterC: card.waterC,
  fills: card.fills,
  iceG: card.addition === 'ice' ? card.additionG : 0,
  servedC: card.servedC,
  grinder,
  brewTimeS: card.brewTimeS,
  steps: card.steps.map(({ id, kind, startS, endS, targetG, end, attended, paths, startCue }) => ({
    id,
    kind,
    startS,
    endS,
    ...filledTo(card, kind, targetG),
    end,
    attended,
    ...(paths ? { paths } : {}),
    ...(startCue ? { startCue } : {}),
  })),
  notes: card.notes,
});

/** What a globe or a pot is filled to is its brew water. */
function filledTo(card: BrewCard, kind: string, targetG: number | undefined): { targetG?: number } {
  if (targetG !== undefined) return { targetG };
  return kind === 'fill' && METHODS[card.method].heatedIn !== 'kettle' ? { targetG: card.brewWaterG } : {};
}
