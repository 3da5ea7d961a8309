/**
 * What a try at a pour was worth: each measure against what the same drill makes possible, and one thing to change.
 */
import { mean } from '../learn';
import { BED_RINGS, BED_SECTORS, byRing, dryShareOf, unevennessOf } from '../pour';
import { MEASURES, pourAt, shouldReadG, type Drill, type Measure } from './drill';
import { dryAtS, type PourRun, type Sample } from './pour-run';
import { EXACT_HAND, pourBy } from './scripted-hand';

/** Null where it cannot be known: a real scale tells nothing of the bed. */
export type Measures = Record<Measure, number | null>;

export type PourScore = {
  /** 0 to 100. */
  score: number;
  measures: Measures;
  /** How far the pours were over (above 0) or under their targets on average, grams. */
  overG: number;
  /** How late (above 0) or early they began on average, seconds. */
  lateS: number;
  /** How much faster (above 0) or slower than asked for the water ran, a share. */
  fasterBy: number;
  /** What cost most, to be changed at the next try; null where nothing did. */
  advice: Measure | null;
  /** When the bed was dry, seconds; null where it does not drain, or is not known. */
  dryS: number | null;
};

/** What is off by so much counts half: grams, shares of the flow, of the bed or of the water, and seconds. */
const HALF: Record<Measure, number> = {
  lineG: 9,
  overshootG: 6,
  flowOff: 0.4,
  uneven: 0.35,
  pathOff: 0.3,
  wallShare: 0.05,
  dryShare: 0.1,
  rhythmS: 4,
};
/** Of measures that the drill itself cannot make nought, only what is over the exact hand's counts. */
const OVER_THE_EXACT: ReadonlySet<Measure> = new Set([
  'flowOff',
  'uneven',
  'pathOff',
  'wallShare',
  'dryShare',
  'lineG',
]);
/** A measure that takes less than this share of the score is not worth a word. */
const WORTH_A_WORD = 0.03;

/** Scores a try on the modelled bed. */
export function scorePour(run: PourRun, drill: Drill): PourScore {
  const exact = exactRun(drill);
  return weigh(
    drill,
    measuresOf(run, drill, exact),
    measuresOf(exact, drill, exact),
    run.samples,
    dryAtS(run, drill),
  );
}

/** Scores a real pour by what its scale read; where the water fell is not known. */
export function scoreTrace(samples: readonly Sample[], drill: Drill): PourScore {
  const exact = exactRun(drill);
  const none = { uneven: null, pathOff: null, wallShare: null, dryShare: null };
  return weigh(
    drill,
    { ...byTheScale(samples, drill), ...none },
    { ...byTheScale(exact.samples, drill), ...none },
    samples,
    null,
  );
}

/** A drill is plain data that is never changed, so its exact pour is worked out once. */
export function exactRun(drill: Drill): PourRun {
  const known = exactRuns.get(drill);
  if (known) return known;
  const exact = pourBy(EXACT_HAND, drill, () => 0.5);
  exactRuns.set(drill, exact);
  return exact;
}
const exactRuns = new WeakMap<Drill, PourRun>();

function weigh(
  drill: Drill,
  measures: Measures,
  exact: Measures,
  samples: readonly Sample[],
  dryS: number | null,
): PourScore {
  let logScore = 0;
  let weights = 0;
  let worst: { measure: Measure; cost: number } | null = null;
  for (const measure of MEASURES) {
    const weight = drill.weights[measure] ?? 0;
    const value = measures[measure];
    if (weight === 0 || value === null) continue;
    const off = Math.max(0, value - (OVER_THE_EXACT.has(measure) ? (exact[measure] ?? 0) : 0));
    const cost = weight * Math.log(1 + (off / (drill.halves?.[measure] ?? HALF[measure])) ** 2);
    logScore -= cost;
    weights += weight;
    if (cost > (worst?.cost ?? 0)) worst = { measure, cost };
  }
  // The measures multiply, as in a cup: what is lost by one is not made good by another. A drill of few is not judged more mildly.
  const score = 100 * Math.exp((logScore * SEVERITY) / Math.max(weights, 1));
  const { overG, lateS, fasterBy } = leanings(samples, drill);
  return {
    score: Math.round(score),
    measures,
    overG,
    lateS,
    fasterBy,
    advice:
      worst && 1 - Math.exp((-worst.cost * SEVERITY) / Math.max(weights, 1)) >= WORTH_A_WORD
        ? worst.measure
        : null,
    dryS,
  };
}
const SEVERITY = 2;

function measuresOf(run: PourRun, drill: Drill, exact: PourRun): Measures {
  const { bed } = run;
  return {
    ...byTheScale(run.samples, drill),
    uneven: unevennessOf(bed.fellG) ?? UNEVENEST,
    pathOff: pathOff(run, drill, exact),
    wallShare: bed.pouredG > 0 ? bed.bypassedG / bed.pouredG : 0,
    dryShare: run.dryAfterFirst ?? dryShareOf(bed),
  };
}
/** All water in one cell. */
const UNEVENEST = Math.sqrt(BED_RINGS * BED_SECTORS - 1);

/** The measures that a scale alone gives. */
function byTheScale(
  samples: readonly Sample[],
  drill: Drill,
): Pick<Measures, 'lineG' | 'overshootG' | 'flowOff' | 'rhythmS'> {
  const pours = poursIn(samples, drill);
  const untilS = drill.pours.at(-1)!.endS + 1;
  const offs = samples.filter(({ s }) => s <= untilS).map(({ s, g }) => g - shouldReadG(drill, s));
  const stops = pours.map(({ stopG, targetG }) => Math.abs(stopG - targetG));
  const starts = pours.slice(1).map(({ lateS }) => lateS);
  const flows = pours.flatMap(({ flows: each }) => each);
  return {
    lineG: offs.length > 0 ? rms(offs) : drill.pours.at(-1)!.targetG,
    overshootG: meanOf(stops),
    flowOff: flows.length > 0 ? rms(flows) : 1,
    rhythmS: starts.length > 0 ? rms(starts) : drill.pours.length > 1 ? NEVER_S : null,
  };
}
/** A pour that never came counts as so late, seconds. */
const NEVER_S = 30;

type PourIn = { targetG: number; stopG: number; lateS: number; flows: number[] };

/** Starting and stopping are left out of how steady a flow was, seconds. */
const EDGE_S = 0.8;
const RUNS_G_PER_S = 0.5;

/** What of a try belongs to each pour of the drill. */
function poursIn(samples: readonly Sample[], drill: Drill): PourIn[] {
  return drill.pours.map(({ startS, corners, targetG }, n) => {
    const own = samples.filter(({ s }) => pourAt(drill, s) === n);
    const running = own.filter(({ flowGPerS }) => flowGPerS > RUNS_G_PER_S);
    const [first, last] = [running[0], running.at(-1)];
    const flowAt = (g: number) => {
      const to = Math.max(
        1,
        corners.findIndex((corner) => g < corner.g),
      );
      return (corners[to]!.g - corners[to - 1]!.g) / (corners[to]!.s - corners[to - 1]!.s);
    };
    return {
      targetG,
      stopG: own.at(-1)?.g ?? 0,
      lateS: first ? first.s - startS : NEVER_S,
      flows: running
        .filter(({ s }) => s > first!.s + EDGE_S && s < last!.s - EDGE_S)
        .map(({ g, flowGPerS }) => flowGPerS / flowAt(g) - 1),
    };
  });
}

function leanings(samples: readonly Sample[], drill: Drill): Pick<PourScore, 'overG' | 'lateS' | 'fasterBy'> {
  const pours = poursIn(samples, drill);
  return {
    overG: meanOf(pours.map(({ stopG, targetG }) => stopG - targetG)),
    lateS: meanOf(pours.slice(1).map(({ lateS }) => lateS)),
    fasterBy: meanOf(pours.flatMap(({ flows }) => flows)),
  };
}

/** How much of the water fell in other rings of the bed than by the exact hand, pour by pour: 0 none, 1 all. */
function pathOff(run: PourRun, drill: Drill, exact: PourRun): number | null {
  const said = drill.pours.flatMap(({ parts }, n) => (parts.length > 0 ? [n] : []));
  if (said.length === 0) return null;
  return meanOf(
    said.map((n) => {
      const [own, asked] = [ringsOf(run, n), ringsOf(exact, n)];
      if (own.every((share) => share === 0)) return 1;
      return own.reduce((sum, share, ring) => sum + Math.abs(share - asked[ring]!), 0) / 2;
    }),
  );
}

function ringsOf({ fellBefore, bed }: PourRun, n: number): number[] {
  const before = fellBefore[n];
  const after = fellBefore[n + 1] ?? bed.fellG;
  return before ? byRing(after.map((g, cell) => g - before[cell]!)) : byRing(new Float64Array(after.length));
}

/** Of nothing 0: a drill of one pour has no later ones. */
const meanOf = (values: readonly number[]): number => (values.length === 0 ? 0 : mean(values));
const rms = (values: readonly number[]): number => Math.sqrt(meanOf(values.map((each) => each * each)));
