/**
 * One try at a drill: a kettle that is tilted over a bed, with a scale below. It is stepped in equal short times; what it
 * leaves is a trace, and how the water lies on the bed.
 */
import {
  CELL_S,
  dryBed,
  dryShareOf,
  moveBed,
  stepBed,
  stepKettle,
  type BedPoint,
  type KettleNature,
  type PourHeight,
  type TiltedKettle,
  type WettedBed,
} from '../pour';
import { pourAt, type Drill } from './drill';

/** What the hand does now: where the spout is (null: away from the bed), how far it tilts the kettle, 0 to 1, and how high. */
export type HandNow = { at: BedPoint | null; tilt: number; height: PourHeight };

/** A tenth of a second of a try: the scale's reading, what leaves the spout, and where it falls. */
export type Sample = { s: number; g: number; flowGPerS: number; at: BedPoint | null };

export type PourRun = {
  /** Seconds since the first water; 0 before it. */
  timeS: number;
  hasBegun: boolean;
  kettle: TiltedKettle;
  bed: WettedBed;
  /** What the load cell has come to, grams; it follows the weight with a lag. */
  cellG: number;
  /** It only grows, in place: a copy for each step would cost more than the step. */
  samples: Sample[];
  /** What had fallen on each cell when each pour's time began. */
  fellBefore: Float64Array[];
  /** The share of dry clumps when the first pour's time was over; null until then. */
  dryAfterFirst: number | null;
  /** Moves of the recipe that have been done. */
  moved: number;
};

/** A step of the simulation, seconds. */
export const STEP_S = 0.02;
const SAMPLE_S = 0.1;
/** A kettle of one litre; the spout pours half as much again as the drill asks for at most, or ten grams a second. */
const KETTLE_G = 1000;
const LEAST_MOST_G_PER_S = 10;
const SPARE_G = 80;

export function kettleFor({ pours }: Pick<Drill, 'pours'>): KettleNature & { holdsG: number } {
  const flows = pours.flatMap(({ corners }) =>
    corners.slice(1).map(({ s, g }, n) => (g - corners[n]!.g) / (s - corners[n]!.s)),
  );
  return {
    sizeG: KETTLE_G,
    mostGPerS: Math.max(LEAST_MOST_G_PER_S, 1.5 * Math.max(...flows)),
    holdsG: Math.min(KETTLE_G, Math.max(KETTLE_G / 2, pours.at(-1)!.targetG + SPARE_G)),
  };
}

export function freshRun(drill: Drill): PourRun {
  const bed = dryBed(drill.nature);
  return {
    timeS: 0,
    hasBegun: false,
    kettle: { tilt: 0, flowGPerS: 0, holdsG: kettleFor(drill).holdsG },
    bed,
    cellG: 0,
    samples: [],
    fellBefore: [bed.fellG],
    dryAfterFirst: null,
    moved: 0,
  };
}

/** The try after one more step of the simulation. Its clock starts with the first water. */
export function stepRun(run: PourRun, drill: Drill, hand: HandNow, nature: KettleNature): PourRun {
  // A kettle that is not over the bed pours nothing: it is set upright.
  const { kettle, pouredG } = stepKettle(run.kettle, STEP_S, hand.at ? hand.tilt : 0, nature);
  const hasBegun = run.hasBegun || pouredG > 0;
  if (!hasBegun) return { ...run, kettle };
  const timeS = run.timeS + STEP_S;
  const last = run.samples.at(-1);
  const at = hand.at ?? last?.at ?? null;
  const stream =
    pouredG > 0 ? { at: at ?? { x: 0, y: 0 }, flowGPerS: pouredG / STEP_S, height: hand.height } : null;
  let bed = stepBed(run.bed, STEP_S, stream, drill.nature);
  const due = drill.moves[run.moved];
  const moves = due !== undefined && timeS >= due.atS && pouredG === 0;
  if (moves) bed = moveBed(bed, due.move);
  const { fellBefore, dryAfterFirst } = atPour(run, drill, bed, timeS);
  const cellG = bed.pouredG + (run.cellG - bed.pouredG) * Math.exp(-STEP_S / CELL_S);
  const sampled = timeS >= (last?.s ?? -SAMPLE_S) + SAMPLE_S - 1e-9;
  if (sampled)
    run.samples.push({
      s: Math.round(timeS * 100) / 100,
      g: Math.round(cellG * 10) / 10,
      flowGPerS: kettle.flowGPerS,
      at: kettle.flowGPerS > 0 ? at : null,
    });
  return {
    samples: run.samples,
    timeS,
    hasBegun,
    kettle,
    bed,
    cellG,
    fellBefore,
    dryAfterFirst,
    moved: run.moved + (moves ? 1 : 0),
  };
}

function atPour({ fellBefore, dryAfterFirst }: PourRun, drill: Drill, bed: WettedBed, timeS: number) {
  const n = pourAt(drill, timeS);
  if (n < fellBefore.length) return { fellBefore, dryAfterFirst };
  return {
    fellBefore: [...fellBefore, bed.fellG],
    dryAfterFirst: dryAfterFirst ?? dryShareOf(bed),
  };
}

/** What the scale makes of the flow, g/s: the slope of its readings over the last moments, so that it comes as late as they do. */
export function scaleFlow({ samples }: Pick<PourRun, 'samples'>): number {
  const last = samples.at(-1);
  const first = samples.find(({ s }) => last !== undefined && s >= last.s - FLOW_OVER_S - 1e-9);
  return !last || !first || first === last ? 0 : Math.max(0, (last.g - first.g) / (last.s - first.s));
}
const FLOW_OVER_S = 0.5;

export const isOver = ({ timeS }: PourRun, { endS }: Drill): boolean => timeS >= endS;

/** A bed that drains longer than this counts as stalled, seconds. */
const STALLED_S = 1200;
/** A smaller rest counts as dry, grams. */
const DRY_G = 1;

/** When the bed is dry if nothing more is poured, seconds of the try; null where it does not drain by itself. */
export function dryAtS(run: PourRun, { nature }: Drill): number | null {
  if (!Number.isFinite(nature.bed.tauS)) return null;
  let { bed, timeS } = run;
  while (bed.slurryG > DRY_G && timeS < STALLED_S) {
    bed = stepBed(bed, 5 * STEP_S, null, nature);
    timeS += 5 * STEP_S;
  }
  return timeS;
}
