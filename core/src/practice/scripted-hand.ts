/**
 * Hands that are made up: one that pours exactly as the drill asks, and ones that shake, start late and stop late. They
 * drive the same kettle as a person does. The exact one is what a try is measured against.
 */
import { SPOUT_S, normal, spoutOf, tiltFor, type BedPoint, type Hand, type KettleNature } from '../pour';
import { pourAt, type Drill } from './drill';
import { freshRun, isOver, kettleFor, stepRun, STEP_S, type HandNow, type PourRun } from './pour-run';

export type HandNature = {
  /** How far the spout strays from the path, as a share of the bed's radius. */
  straysBy: number;
  /** How unsteady the flow is, a share of it. */
  flowBy: number;
  /** How many seconds a pour starts late, and how many grams it stops off, at most. */
  lateS: number;
  stopsOffG: number;
  /** Pours from high where nothing says so. */
  high?: true;
};

export const EXACT_HAND: HandNature = { straysBy: 0, flowBy: 0, lateS: 0, stopsOffG: 0 };

/** A hand with so much of every fault: 0 is exact, 1 is careless. */
export const noisyHand = (noise: number): HandNature => ({
  straysBy: 0.35 * noise,
  flowBy: 0.5 * noise,
  lateS: 6 * noise,
  stopsOffG: 14 * noise,
  ...(noise > 0.7 ? { high: true } : {}),
});

/** How long a hand strays one way, seconds. */
const STRAYS_S = 1.2;
/** The flow of the last grams follows the hand's tilt by so long: kettle and spout together, seconds. */
const LAG_S = SPOUT_S + 0.17;

/** Lives a drill by a made-up hand. @param random numbers from 0 up to 1 */
export function pourBy(
  nature: HandNature,
  drill: Drill,
  random: () => number,
  side: Hand = 'right',
): PourRun {
  const kettle = kettleFor(drill);
  const off = drill.pours.map((_, n) => ({
    lateS: n === 0 ? 0 : nature.lateS * random(),
    stopG: nature.stopsOffG * (2 * random() - 1),
  }));
  let run = freshRun(drill);
  let stray = { x: 0, y: 0, flow: 0 };
  const drift = (value: number) =>
    value * Math.exp(-STEP_S / STRAYS_S) + Math.sqrt(1 - Math.exp((-2 * STEP_S) / STRAYS_S)) * normal(random);
  let steps = 0;
  while (!isOver(run, drill) && steps * STEP_S < 2 * drill.endS + 10) {
    steps += 1;
    stray = { x: drift(stray.x), y: drift(stray.y), flow: drift(stray.flow) };
    run = stepRun(run, drill, handAt(run, drill, nature, off, stray, kettle, side), kettle);
  }
  return run;
}

function handAt(
  run: PourRun,
  drill: Drill,
  nature: HandNature,
  off: readonly { lateS: number; stopG: number }[],
  stray: { x: number; y: number; flow: number },
  kettle: KettleNature,
  side: Hand,
): HandNow {
  const n = pourAt(drill, run.timeS);
  const pour = drill.pours[n]!;
  const { lateS, stopG } = off[n]!;
  const inS = run.timeS - pour.startS - lateS;
  const height = heightAt(drill, n, inS, nature);
  // The hand knows how long the water takes to follow it, at the start as at the end.
  const leadS = n === 0 && !run.hasBegun ? 0 : LAG_S;
  const comingG = run.kettle.flowGPerS * LAG_S;
  if (inS < -leadS || run.bed.pouredG + comingG >= pour.targetG + stopG) return { at: null, tilt: 0, height };
  const path = spoutOf(pour.parts, Math.max(0, inS), side) ?? { x: 0, y: 0 };
  const at = inBed({ x: path.x + nature.straysBy * stray.x, y: path.y + nature.straysBy * stray.y });
  const wanted = flowFor(run, drill, n, inS + LAG_S) * Math.max(0.15, 1 + nature.flowBy * stray.flow);
  return { at, tilt: tiltFor(wanted, run.kettle, kettle), height };
}

/** The flow of the part of the pour that the water has come to, corrected for what it lags behind its line, g/s. */
function flowFor({ bed }: PourRun, drill: Drill, n: number, inS: number): number {
  const { corners, startS } = drill.pours[n]!;
  const reached = corners.findIndex(({ g }, at) => at > 0 && bed.pouredG < g);
  const to = reached < 0 ? corners.length - 1 : reached;
  const flow = (corners[to]!.g - corners[to - 1]!.g) / (corners[to]!.s - corners[to - 1]!.s);
  const shouldG = corners[to - 1]!.g + flow * (startS + inS - LAG_S - corners[to - 1]!.s);
  return Math.min(1.25 * flow, Math.max(0.8 * flow, flow + (shouldG - bed.pouredG) / 2));
}

function heightAt({ pours }: Drill, n: number, inS: number, { high }: HandNature): HandNow['height'] {
  const { parts } = pours[n]!;
  const part = parts.find(({ toS }) => inS < toS) ?? parts.at(-1);
  return part?.height ?? (high ? 'high' : 'low');
}

const inBed = ({ x, y }: BedPoint): BedPoint => {
  const out = Math.max(1, Math.hypot(x, y));
  return { x: x / out, y: y / out };
};

/** A hand that does whatever: it wanders over the bed, and tilts now and then. */
export function pourAtRandom(drill: Drill, random: () => number): PourRun {
  const kettle = kettleFor(drill);
  let run = freshRun(drill);
  let now: HandNow = { at: { x: 0, y: 0 }, tilt: 0.6, height: 'low' };
  for (let steps = 0; !isOver(run, drill) && steps * STEP_S < 2 * drill.endS + 10; steps += 1) {
    if (random() < STEP_S / STRAYS_S) {
      const at = inBed({ x: 2.4 * random() - 1.2, y: 2.4 * random() - 1.2 });
      now = { at: random() < 0.35 ? null : at, tilt: random(), height: random() < 0.5 ? 'low' : 'high' };
    }
    run = stepRun(run, drill, now, kettle);
  }
  return run;
}
