/**
 * A kettle in the hand: how far it is tilted, and what then leaves its spout. A full kettle is heavy and follows the hand
 * slowly, and pours from a small tilt; an emptier one must be tilted further.
 */
import { SPOUT_S } from './scale-model';

export type TiltedKettle = {
  /** How far it is tilted now, 0 upright to 1. */
  tilt: number;
  /** What leaves the spout, g/s. */
  flowGPerS: number;
  holdsG: number;
};

export type KettleNature = {
  /** What it holds when full, grams. */
  sizeG: number;
  /** What its spout pours at most, g/s. */
  mostGPerS: number;
};

/** It follows the hand within so long, empty and for a full one more, seconds. */
const FOLLOWS_S = 0.1;
const FULL_FOLLOWS_S = 0.14;
/** Full it pours from this tilt on, and empty from so much further. */
const FULL_LIP = 0.1;
const EMPTY_LIP = 0.35;
/** Flow grows faster than the tilt over the lip. */
const GROWS = 1.4;
const SHUT_G_PER_S = 0.1;

const fullness = ({ holdsG }: TiltedKettle, { sizeG }: KettleNature): number =>
  Math.min(1, Math.max(0, holdsG / sizeG));

/** The tilt at which water reaches the lip. */
export const lipOf = (kettle: TiltedKettle, nature: KettleNature): number =>
  FULL_LIP + EMPTY_LIP * (1 - fullness(kettle, nature));

/** What a tilt pours once the kettle has followed it, g/s. */
export function flowAt(tilt: number, kettle: TiltedKettle, nature: KettleNature): number {
  const lip = lipOf(kettle, nature);
  return kettle.holdsG <= 0 || tilt <= lip ? 0 : nature.mostGPerS * ((tilt - lip) / (1 - lip)) ** GROWS;
}

/** The tilt for a flow; the inverse of `flowAt`. */
export function tiltFor(flowGPerS: number, kettle: TiltedKettle, nature: KettleNature): number {
  const lip = lipOf(kettle, nature);
  return flowGPerS <= 0
    ? 0
    : lip + (1 - lip) * Math.min(1, Math.max(0, flowGPerS / nature.mostGPerS)) ** (1 / GROWS);
}

/** The kettle after a short time, with what it poured meanwhile, grams. */
export function stepKettle(
  kettle: TiltedKettle,
  forS: number,
  wantedTilt: number,
  nature: KettleNature,
): { kettle: TiltedKettle; pouredG: number } {
  const followsS = FOLLOWS_S + FULL_FOLLOWS_S * fullness(kettle, nature);
  const tilt = wantedTilt + (kettle.tilt - wantedTilt) * Math.exp(-forS / followsS);
  const meant = flowAt(tilt, kettle, nature);
  let flowGPerS = meant + (kettle.flowGPerS - meant) * Math.exp(-forS / SPOUT_S);
  if (meant === 0 && flowGPerS < SHUT_G_PER_S) flowGPerS = 0;
  const pouredG = Math.min(kettle.holdsG, ((flowGPerS + kettle.flowGPerS) / 2) * forS);
  return { kettle: { tilt, flowGPerS, holdsG: kettle.holdsG - pouredG }, pouredG };
}
