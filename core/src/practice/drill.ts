/**
 * What a pour drill asks for: its pours on one clock, where their water goes, and how the bed below takes it. A recipe's
 * drill is its brew card; the others train one thing each.
 */
import { bedOfCard, pathsOf } from '../brew';
import type { BedMove, BedNature, PouredSpan, TimedPart } from '../pour';
import type { BrewCard, CardStep } from '../recipe';

/** A corner of the line of weight over time. */
export type Corner = { s: number; g: number };

export type DrillPour = {
  name: string;
  startS: number;
  /** When it is over at the flow that is asked for. */
  endS: number;
  fromG: number;
  targetG: number;
  /** Straight between: from start and `fromG` to end and `targetG`. */
  corners: Corner[];
  /** Where its water goes, seconds from its start; empty where that does not matter. */
  parts: TimedPart[];
};

export type DrillMove = { name: string; atS: number; move: BedMove };

/** What counts in a drill: each measure's weight; one that is left out does not count. */
export const MEASURES = [
  'lineG',
  'overshootG',
  'flowOff',
  'uneven',
  'pathOff',
  'wallShare',
  'dryShare',
  'rhythmS',
] as const;
export type Measure = (typeof MEASURES)[number];

export const EXERCISES = ['hold', 'stop', 'bloom', 'beat'] as const;
export type Exercise = (typeof EXERCISES)[number];
export type DrillId = Exercise | 'recipe';

export type Drill = {
  id: DrillId;
  pours: DrillPour[];
  /** What is done to the bed in between; it happens by itself. */
  moves: DrillMove[];
  nature: BedNature;
  /** When it is over: a while after the last water. */
  endS: number;
  /** Until when a percolating brew should be dry; null where nothing drains by itself, or no window is known. */
  dryS: { from: number; to: number } | null;
  /** A tick at every so many seconds. */
  beatS?: number;
  weights: Partial<Record<Measure, number>>;
  /** Where a drill is stricter: what counts half when it is off by so much. */
  halves?: Partial<Record<Measure, number>>;
};

/** A drill goes on for so long after its last pour, so that the hand is seen to have stopped, seconds. */
const AFTER_S = 3;
/** The gas of coffee that is rested as it should be. */
const USUAL_GAS = 0.5;

const WHOLE: Drill['weights'] = {
  lineG: 1,
  overshootG: 1,
  flowOff: 0.6,
  uneven: 0.5,
  pathOff: 1,
  wallShare: 0.6,
  dryShare: 0.7,
  rhythmS: 0.7,
};

/** The pours of a recipe's card; null where it has none: its water is weighed in before. */
export function recipeDrill(card: BrewCard): Drill | null {
  const steps = card.steps.filter(
    ({ phase, kind, pourG }) => phase === 'brew' && kind === 'pour' && (pourG ?? 0) > 0,
  );
  const [first] = steps;
  if (!first) return null;
  const zeroS = first.startS;
  const pours = steps.map((step) => pourOf(step, zeroS));
  const endS = pours.at(-1)!.endS + AFTER_S;
  const drains = card.steps.some(({ kind }) => kind === 'drawdown');
  return {
    id: 'recipe',
    pours,
    moves: card.steps
      .filter(({ phase, kind, endS: over }) => phase === 'brew' && over > zeroS && isMove(kind))
      .map(({ name, endS: over, kind }) => ({ name, atS: over - zeroS, move: kind as BedMove })),
    nature: natureOf(card, pours, zeroS),
    endS,
    dryS: drains ? { from: card.brewWindowS.from - zeroS, to: card.brewWindowS.to - zeroS } : null,
    weights: WHOLE,
  };
}

const isMove = (kind: CardStep['kind']): kind is BedMove => kind === 'swirl' || kind === 'stir';

function pourOf(step: CardStep, zeroS: number): DrillPour {
  const startS = step.startS - zeroS;
  const targetG = step.targetG!;
  const fromG = targetG - step.pourG!;
  const flow = step.flowGPerS!;
  const opening = step.opening && step.opening.targetG > fromG ? step.opening : null;
  const openS = opening ? startS + (opening.targetG - fromG) / opening.flowGPerS : startS;
  const endS = openS + (targetG - (opening?.targetG ?? fromG)) / flow;
  return {
    name: step.name,
    startS,
    endS,
    fromG,
    targetG,
    corners: [
      { s: startS, g: fromG },
      ...(opening ? [{ s: openS, g: opening.targetG }] : []),
      { s: endS, g: targetG },
    ],
    parts: pathsOf(step),
  };
}

/** The bed takes its own water first, so that it is dry at the card's time with what is left. */
function natureOf(card: BrewCard, pours: readonly DrillPour[], zeroS: number): BedNature {
  let keepsG = card.retainedG;
  const spans: PouredSpan[] = pours.map(({ startS, endS, fromG, targetG }) => {
    const pourG = targetG - fromG;
    const takenG = Math.min(keepsG, pourG);
    keepsG -= takenG;
    const flow = pourG / (endS - startS);
    return { startS: startS + zeroS + takenG / flow, endS: endS + zeroS, pourG: pourG - takenG };
  });
  const bed = bedOfCard(
    card,
    spans.filter(({ pourG }) => pourG > 0),
  );
  return { bed, keepsG: card.retainedG, gas: USUAL_GAS };
}

/** A bed to exercise on: 18 g of rested coffee, which drains away. */
const EXERCISE_BED: BedNature = { bed: { tauS: 30, headG: 41 }, keepsG: 36, gas: USUAL_GAS };

function straight(
  name: string,
  startS: number,
  fromG: number,
  pourG: number,
  flowGPerS: number,
  parts: Omit<TimedPart, 'fromS' | 'toS'>[] = [],
): DrillPour {
  const endS = startS + pourG / flowGPerS;
  const targetG = fromG + pourG;
  return {
    name,
    startS,
    endS,
    fromG,
    targetG,
    corners: [
      { s: startS, g: fromG },
      { s: endS, g: targetG },
    ],
    parts: parts.map((part) => ({ ...part, fromS: 0, toS: endS - startS })),
  };
}

const times = (count: number, make: (n: number) => DrillPour): DrillPour[] =>
  Array.from({ length: count }, (_, n) => make(n));

const BEAT_S = 8;
const exerciseOf = (
  id: Exercise,
  pours: DrillPour[],
  weights: Drill['weights'],
  rest: Partial<Drill> = {},
): Drill => ({
  id,
  pours,
  moves: [],
  nature: EXERCISE_BED,
  endS: pours.at(-1)!.endS + AFTER_S,
  dryS: null,
  weights,
  ...rest,
});

/** The names of an exercise's pours are its place's to say: they are numbered here. */
export function exercise(id: Exercise): Drill {
  switch (id) {
    // Four grams a second for twenty-five seconds.
    case 'hold':
      return exerciseOf('hold', [straight('1', 0, 0, 100, 4)], { flowOff: 2, lineG: 1, wallShare: 0.3 });
    // Three pours of 50 g; the stop is what counts.
    case 'stop':
      return exerciseOf(
        'stop',
        times(3, (n) => straight(String(n + 1), n * 14, n * 50, 50, 6)),
        { overshootG: 2, rhythmS: 0.4, wallShare: 0.2 },
      );
    // The bloom of 18 g, every ground wet within eight seconds.
    case 'bloom':
      return exerciseOf('bloom', [straight('1', 0, 0, 44, 5.5, [{ path: 'spiral', wall: 'kept' }])], {
        dryShare: 2,
        uneven: 1,
        overshootG: 0.7,
        wallShare: 0.7,
        lineG: 0.4,
      });
    // Six pulses, each on a beat of the metronome's eight seconds.
    case 'beat':
      return exerciseOf(
        'beat',
        times(6, (n) => straight(String(n + 1), n * BEAT_S, n * 20, 20, 6, [{ path: 'ring' }])),
        { rhythmS: 2, overshootG: 1, lineG: 0.5, pathOff: 0.3 },
        { beatS: BEAT_S / 4, halves: { rhythmS: 1, lineG: 5 } },
      );
  }
}

/** What the scale should read at a second of the drill, grams. */
export function shouldReadG({ pours }: Pick<Drill, 'pours'>, atS: number): number {
  const pour = pours.findLast(({ startS }) => startS <= atS);
  if (!pour) return 0;
  const next = pour.corners.findIndex(({ s }) => s > atS);
  if (next < 0) return pour.targetG;
  const [from, to] = [pour.corners[next - 1]!, pour.corners[next]!];
  return from.g + ((to.g - from.g) * (atS - from.s)) / (to.s - from.s);
}

/** The flow that is asked for at a second, g/s; 0 between pours. */
export function shouldFlow({ pours }: Pick<Drill, 'pours'>, atS: number): number {
  const pour = pours.find(({ startS, endS }) => startS <= atS && atS < endS);
  const next = pour?.corners.findIndex(({ s }) => s > atS) ?? -1;
  if (!pour || next < 1) return 0;
  const [from, to] = [pour.corners[next - 1]!, pour.corners[next]!];
  return (to.g - from.g) / (to.s - from.s);
}

/** Which pour a second belongs to: from the middle of the pause before it to the middle of the one after. */
export function pourAt({ pours }: Pick<Drill, 'pours'>, atS: number): number {
  const after = pours.findIndex((pour, n) => {
    const next = pours[n + 1];
    return !next || atS < (pour.endS + next.startS) / 2;
  });
  return after < 0 ? pours.length - 1 : after;
}
