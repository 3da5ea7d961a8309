/**
 * The bed seen from above while it is poured on: rings and sectors of equal area that take water, let gas out, swell and
 * drain. It is a teaching model: its sums are those of `scale-model.ts` and `level.ts`, and how they are shared out over
 * the bed is our own, chosen so that what a trainee sees (dry clumps, a crater, water along the paper) comes from the
 * mistakes that make it at a real bed. Plain state in, plain state out.
 *
 * - A stream wets what lies under it as a bell curve, wider where it falls from high. What falls outside the wall's
 *   margin runs past the coffee: none at the margin, half of it at the wall (smoothstep between).
 * - A cell takes water until it holds its share of what the bed keeps, slower while gas leaves it. What it cannot take
 *   stands over the bed, level everywhere, and soaks into what is still dry.
 * - What is wetted leaves fewer dry clumps: under the stream a clump falls apart with every third of a cell's fill, in
 *   standing water only with every fill and a half. A swirl breaks half of them, a stir most.
 * - The pool drains by Darcy's law as in `level.ts`, more of it where a crater has made the bed thinner.
 * - A stream digs: `d crater/dt = k x flow`, with k ten times as large from high as from low, and less the deeper the
 *   water over the bed is. It fills again slowly, and by a swirl.
 */
import type { Bed } from './level';
import { KEPT_RADIUS, type BedPoint, type PourHeight } from './water-path';

export const BED_RINGS = 5;
export const BED_SECTORS = 12;
const CELLS = BED_RINGS * BED_SECTORS;
// Taken out once: they are called some million times in a drill.
const { exp, hypot, max, min, sqrt } = Math;

/** Each of one value a cell: ring by ring from the middle, in each ring clockwise from the far side. */
type Cells = Float64Array;

export type WettedBed = {
  /** All water so far; what stands over the bed; what ran through it; what ran past it along the wall, grams. */
  pouredG: number;
  slurryG: number;
  drainedG: number;
  bypassedG: number;
  /** The water that each cell holds, and what fell straight onto it, grams. */
  heldG: Cells;
  fellG: Cells;
  /** Shares, 0 to 1: grounds in dry clumps; gas still in the cell; how deep the stream has dug. */
  dry: Cells;
  gas: Cells;
  crater: Cells;
};

export type BedNature = {
  bed: Bed;
  /** The water that the bed keeps, grams. */
  keepsG: number;
  /** The gas of fresh coffee, 0 (old) to 1 (a day off roast). */
  gas: number;
};

/** Where water falls now; `spread` in radii of the bed, where it falls otherwise than from a spout (a shower). */
export type Stream = { at: BedPoint; flowGPerS: number; height: PourHeight; spread?: number };

const SPREAD: Record<PourHeight, number> = { low: 0.17, high: 0.21 };
const DIGS: Record<PourHeight, number> = { low: 0.003, high: 0.03 };
/** Half of what falls at the wall itself runs past. */
const PAST_AT_WALL = 0.5;
/** A cell takes its fill in so long, and so much longer while it is full of gas, seconds. */
const TAKES_S = 0.6;
const GAS_TAKES_S = 2.5;
/** A dry cell under standing water fills in about so long, seconds; water that stands less deep covers less, grams. */
const SOAKS_S = 2;
const COVERS_G = 6;
/** Fills of a cell that take the dry clumps down to a third: under the stream, and in standing water. */
const FILLS_UNDER_STREAM = 1 / 3;
const FILLS_IN_POOL = 1.5;
/** Gas leaves what is wet in about so long, seconds. */
const GAS_S = 18;
/** Water over the bed breaks the stream's fall, grams; a crater fills again in about so long, seconds. */
const CUSHION_G = 40;
const FILLS_AGAIN_S = 40;
const DEEPEST = 0.9;
/** What is left of dry clumps and craters. */
const LEAVES = { swirl: { dry: 0.5, crater: 0.25 }, stir: { dry: 0.15, crater: 0.15 } } as const;
export type BedMove = keyof typeof LEAVES;

/** A dry bed. */
export const dryBed = ({ gas }: Pick<BedNature, 'gas'>): WettedBed => ({
  pouredG: 0,
  slurryG: 0,
  drainedG: 0,
  bypassedG: 0,
  heldG: new Float64Array(CELLS),
  fellG: new Float64Array(CELLS),
  dry: new Float64Array(CELLS).fill(1),
  gas: new Float64Array(CELLS).fill(gas),
  crater: new Float64Array(CELLS),
});

/** The middle of a cell; all cells have the same area. */
function cellAt(cell: number): BedPoint {
  const ring = Math.floor(cell / BED_SECTORS);
  const radius = (ringEdge(ring) + ringEdge(ring + 1)) / 2;
  const angle = (2 * Math.PI * ((cell % BED_SECTORS) + 0.5)) / BED_SECTORS;
  return { x: radius * Math.sin(angle), y: radius * Math.cos(angle) };
}
/** The inner edge of a ring, as a share of the bed's radius. */
export const ringEdge = (ring: number): number => sqrt(ring / BED_RINGS);

const MIDDLES = Array.from({ length: CELLS }, (_, cell) => cellAt(cell));

/** The share of what falls there that runs past the coffee. */
export function pastShare({ x, y }: BedPoint): number {
  const out = min(1, max(0, (hypot(x, y) - KEPT_RADIUS) / (1 - KEPT_RADIUS)));
  return PAST_AT_WALL * out * out * (3 - 2 * out);
}

/**
 * The bed after a short time (a tenth of a second at most).
 * @param stream where water falls; null while none does
 */
export function stepBed(
  bed: WettedBed,
  forS: number,
  stream: Stream | null,
  { bed: darcy, keepsG }: BedNature,
): WettedBed {
  const fillG = keepsG / CELLS;
  const heldG = bed.heldG.slice();
  const fellG = bed.fellG.slice();
  const dry = bed.dry.slice();
  const gas = bed.gas.slice();
  const crater = bed.crater.slice();
  const addedG = stream ? stream.flowGPerS * forS : 0;
  const pastG = stream ? addedG * pastShare(stream.at) : 0;
  const falls = stream ? footprint(stream.at, stream.spread ?? SPREAD[stream.height]) : null;
  let slurryG = bed.slurryG;

  // Worked out once for all cells: this runs fifty times for each second that is poured.
  const soaks = min(1, bed.slurryG / COVERS_G) * (1 - exp(-forS / SOAKS_S));
  const fillsAgain = exp(-forS / FILLS_AGAIN_S);
  const digsG = stream
    ? (DIGS[stream.height] * stream.flowGPerS * CELLS * forS * exp(-slurryG / CUSHION_G)) / 10
    : 0;
  for (let cell = 0; cell < CELLS; cell += 1) {
    const onG = falls ? (addedG - pastG) * falls[cell]! : 0;
    const roomG = max(0, fillG - heldG[cell]!);
    const tookG = min(onG, roomG, (fillG / (TAKES_S + GAS_TAKES_S * gas[cell]!)) * forS);
    fellG[cell]! += onG;
    slurryG += onG - tookG;
    const soakedG = min(slurryG, soaks * (roomG - tookG));
    heldG[cell]! += tookG + soakedG;
    slurryG -= soakedG;
    const breaks = onG / FILLS_UNDER_STREAM + soakedG / FILLS_IN_POOL;
    if (breaks > 0 && fillG > 0) dry[cell]! *= exp(-breaks / fillG);
    if (gas[cell]! > 0 && heldG[cell]! > 0) gas[cell]! *= exp((-forS * heldG[cell]!) / fillG / GAS_S);
    if (falls || crater[cell]! > 0)
      crater[cell] = min(DEEPEST, crater[cell]! * fillsAgain + (falls ? digsG * falls[cell]! : 0));
  }

  const throughG = Number.isFinite(darcy.tauS)
    ? min(slurryG, (slurryG + darcy.headG) * (1 - exp((-forS * thinness(crater)) / darcy.tauS)))
    : 0;
  return {
    pouredG: bed.pouredG + addedG,
    slurryG: slurryG - throughG,
    drainedG: bed.drainedG + throughG,
    bypassedG: bed.bypassedG + pastG,
    heldG,
    fellG,
    dry,
    gas,
    crater,
  };
}

/** A swirl of the brewer, or a stir: clumps fall apart, the bed lies level again. */
export function moveBed(bed: WettedBed, move: BedMove): WettedBed {
  const leaves = LEAVES[move];
  return {
    ...bed,
    dry: bed.dry.map((share) => share * leaves.dry),
    crater: bed.crater.map((depth) => depth * leaves.crater),
  };
}

/**
 * How far a cell has swollen, 0 to 1: grounds swell as they take water, by a quarter, and the rest is the gas that lifts them
 * while it leaves.
 */
export const swellOf = (
  { heldG, gas }: Pick<WettedBed, 'heldG' | 'gas'>,
  cell: number,
  keepsG: number,
): number => (keepsG <= 0 ? 0 : min(1, (heldG[cell]! * CELLS) / keepsG) * (0.25 + 0.75 * gas[cell]!));

/** How much faster a bed with craters lets water through: the flow is inverse to the depth that it has to pass. */
function thinness(crater: Cells): number {
  let sum = 0;
  for (const depth of crater) sum += 1 / (1 - 0.5 * depth);
  return sum / CELLS;
}

/** What of a stream falls on each cell; sums to 1. */
function footprint(at: BedPoint, spread: number): Float64Array {
  const shares = new Float64Array(CELLS);
  let sum = 0;
  for (let cell = 0; cell < CELLS; cell += 1) {
    const { x, y } = MIDDLES[cell]!;
    const share = exp(-((x - at.x) ** 2 + (y - at.y) ** 2) / (2 * spread * spread));
    shares[cell] = share;
    sum += share;
  }
  // Far outside the bed nothing would be left of the curve: it then falls on the nearest cells.
  if (sum < 1e-12) return footprint(towardsMiddle(at), spread);
  for (let cell = 0; cell < CELLS; cell += 1) shares[cell]! /= sum;
  return shares;
}
const towardsMiddle = ({ x, y }: BedPoint): BedPoint => {
  const out = hypot(x, y);
  return { x: x / out, y: y / out };
};

/** The share of the grounds that lie in dry clumps. */
export const dryShareOf = ({ dry }: Pick<WettedBed, 'dry'>): number => meanOf(dry);

/** How unevenly water fell on the bed: the coefficient of variation over its cells; 0 is even, null before any fell. */
export function unevennessOf(fellG: ArrayLike<number>): number | null {
  const mean = meanOf(fellG);
  if (mean <= 0) return null;
  let squares = 0;
  for (let cell = 0; cell < fellG.length; cell += 1) squares += (fellG[cell]! - mean) ** 2;
  return sqrt(squares / fellG.length) / mean;
}

function meanOf(values: ArrayLike<number>): number {
  let sum = 0;
  for (let n = 0; n < values.length; n += 1) sum += values[n]!;
  return values.length === 0 ? 0 : sum / values.length;
}

/** How much of what fell is in each ring, from the middle; sums to 1 where any fell. */
export function byRing(fellG: ArrayLike<number>): number[] {
  const rings = Array.from({ length: BED_RINGS }, (_, ring) => {
    let sum = 0;
    for (let n = 0; n < BED_SECTORS; n += 1) sum += fellG[ring * BED_SECTORS + n]!;
    return sum;
  });
  const all = rings.reduce((sum, each) => sum + each, 0);
  return all > 0 ? rings.map((each) => each / all) : rings;
}
