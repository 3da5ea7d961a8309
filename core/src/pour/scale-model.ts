/**
 * A brew on a scale, as physics: what a hand pours, what the bed keeps and lets through, and what the scale makes of the
 * weight. It is what the simulated scale weighs. Plain state in, plain state out; randomness is given from outside.
 */

import { NO_DRAIN, type Bed } from './level';

export type ScaleModel = {
  timeS: number;
  /** The flow that leaves the spout now, g/s; it follows the hand with a delay. */
  flowGPerS: number;
  /** The hand's own unsteadiness, as a share of the flow. */
  sway: number;
  /** Poured in all; standing over the bed; run through, grams. The bed retains the rest. */
  pouredG: number;
  slurryG: number;
  drainedG: number;
  /** Other things on the scale (brewer, server, dose), grams. */
  loadG: number;
  /** The weight that the load cell shows, and how far it has crept, grams. */
  cellG: number;
  driftG: number;
  tareG: number;
};

export type ScaleNature = {
  /** How the bed drains. */
  bed: Bed;
  /** The water that the bed absorbs before any runs through, grams. */
  keepsG: number;
  /** Standard deviations of a hand's flow (share), of a reading (g) and of a minute's creep (g). */
  handNoise: number;
  readingNoiseG: number;
  driftGPerMin: number;
};

/** A practised hand and a café's scale. */
export const USUAL_NATURE: ScaleNature = {
  bed: NO_DRAIN,
  keepsG: 0,
  handNoise: 0.07,
  readingNoiseG: 0.04,
  driftGPerMin: 0.05,
};

/** The spout follows the hand, and the load cell the weight, with these delays, seconds. */
export const SPOUT_S = 0.22;
export const CELL_S = 0.28;
/** A hand's unsteadiness lasts about this long, seconds. */
const SWAY_S = 0.7;
/** Below this flow the spout stops dripping, g/s. */
const SHUT_G_PER_S = 0.15;

export const SCALE_RESOLUTION_G = 0.1;
/** Readings a second. */
export const SCALE_HZ = 10;

export const emptyScale = (loadG = 0): ScaleModel => ({
  timeS: 0,
  flowGPerS: 0,
  sway: 0,
  pouredG: 0,
  slurryG: 0,
  drainedG: 0,
  loadG,
  cellG: loadG,
  driftG: 0,
  tareG: 0,
});

/**
 * The scale after a short time.
 * @param wantedGPerS what the hand means to pour
 * @param random numbers from 0 up to 1
 */
export function stepScale(
  model: ScaleModel,
  forS: number,
  wantedGPerS: number,
  nature: ScaleNature,
  random: () => number,
): ScaleModel {
  const sway =
    model.sway * Math.exp(-forS / SWAY_S) +
    nature.handNoise * Math.sqrt(1 - Math.exp((-2 * forS) / SWAY_S)) * normal(random);
  const meant = wantedGPerS > 0 ? Math.max(0.2 * wantedGPerS, wantedGPerS * (1 + sway)) : 0;
  let flowGPerS = meant + (model.flowGPerS - meant) * Math.exp(-forS / SPOUT_S);
  if (wantedGPerS === 0 && flowGPerS < SHUT_G_PER_S) flowGPerS = 0;
  const addedG = ((flowGPerS + model.flowGPerS) / 2) * forS;
  const { slurryG, drainedG } = drain(model, addedG, forS, nature);
  const pouredG = model.pouredG + addedG;
  const weightG = model.loadG + pouredG;
  return {
    ...model,
    timeS: model.timeS + forS,
    flowGPerS,
    sway,
    pouredG,
    slurryG,
    drainedG,
    cellG: weightG + (model.cellG - weightG) * Math.exp(-forS / CELL_S),
    driftG: model.driftG + nature.driftGPerMin * Math.sqrt(forS / 60) * normal(random),
  };
}

/** Darcy, as in `level.ts`; the bed first takes its own share. */
function drain(
  { pouredG, slurryG, drainedG }: ScaleModel,
  addedG: number,
  forS: number,
  nature: ScaleNature,
) {
  const stillDryG = Math.max(0, nature.keepsG - pouredG);
  const overG = slurryG + Math.max(0, addedG - stillDryG);
  const { tauS, headG } = nature.bed;
  const throughG = Number.isFinite(tauS)
    ? Math.min(overG, (overG + headG) * (1 - Math.exp(-forS / tauS)))
    : 0;
  return { slurryG: overG - throughG, drainedG: drainedG + throughG };
}

/** What the display shows, grams. */
export function readingOf(model: ScaleModel, nature: ScaleNature, random: () => number): number {
  const seenG = model.cellG + model.driftG + nature.readingNoiseG * normal(random) - model.tareG;
  return Math.round(seenG / SCALE_RESOLUTION_G) / Math.round(1 / SCALE_RESOLUTION_G);
}

/** Zero on the display. */
export const tareScale = (model: ScaleModel): ScaleModel => ({
  ...model,
  tareG: model.cellG + model.driftG,
});

/** Two uniform numbers make a normal one (Box and Muller). */
export function normal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/**
 * The flow that a practised hand wants at this reading, g/s: the recipe's flow, slower before the target, and ended a
 * little early to allow for the delay of spout and scale.
 */
export function practisedFlow(
  readingG: number,
  {
    targetG,
    flowGPerS,
    opening,
  }: { targetG: number; flowGPerS: number; opening?: { targetG: number; flowGPerS: number } },
): number {
  const leftG = targetG - readingG;
  const fullGPerS = opening && readingG < opening.targetG ? opening.flowGPerS : flowGPerS;
  const calmGPerS = Math.min(fullGPerS, 2.5);
  if (leftG <= calmGPerS * (SPOUT_S + CELL_S)) return 0;
  return leftG < fullGPerS * 1.2 ? calmGPerS : fullGPerS;
}
