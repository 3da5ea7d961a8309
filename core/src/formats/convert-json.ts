/**
 * A brew card as the command line's `--json` prints it: plain names for scripts.
 */
import type { BrewCard } from '../recipe';

export type ConvertJson = {
  recipe: string;
  doseG: number;
  brewWaterG: number;
  bypassG: number;
  beverageG: number;
  ratio: number;
  finalRatio: number;
  waterC: number;
  brewTimeS: number;
  steps: {
    id: string;
    kind: string;
    startS: number;
    endS: number;
    targetG?: number;
    end: 'clock' | 'weight' | 'cue';
    attended: boolean;
  }[];
  notes: string[];
};

export const convertJson = (card: BrewCard): ConvertJson => ({
  recipe: card.recipeId,
  doseG: card.doseG,
  brewWaterG: card.brewWaterG,
  bypassG: card.bypassG,
  beverageG: card.beverageG,
  ratio: card.ratio,
  finalRatio: card.finalRatio,
  waterC: card.waterC,
  brewTimeS: card.brewTimeS,
  steps: card.steps.map(({ id, kind, startS, endS, targetG, end, attended }) => ({
    id,
    kind,
    startS,
    endS,
    ...(targetG === undefined ? {} : { targetG }),
    end,
    attended,
  })),
  notes: card.notes,
});
