/**
 * From one brew to one change: what was tasted, timed and seen (craft, section 7), against each other and against the
 * record. Where they contradict each other that is said, with what to check before anything is changed.
 */
import { tasteInWords, type Note, type Taste } from '../brew';
import { BREWERS, METHODS, type MethodId, type RoastLevel } from '../recipe';
import { showClock } from '../units';
import { stepsTo, type GrindSlope } from './grind-slope';
import { speedOf, type Speed } from './window';

export type Tried = {
  method: MethodId;
  roast: RoastLevel;
  taste: Taste;
  notes: readonly Note[];
  /** Null where its end was not told. */
  brewS: number | null;
  windowS: { from: number; to: number };
  /** What the recipe expects, seconds. */
  expectedS: number;
  waterC: number;
  /** What water can have here at the most, degrees Celsius: a tenth below the local boiling point. */
  highestC: number;
  /** One pour, stirred at its end: fines on the wall and a low dome are right then. */
  stirredOnePour?: boolean;
  /** Temperatures that were read where the card asks for one, °C. */
  reads?: readonly { readC: number; from: number; to: number }[];
  /** The bar keeps one grind for all: flow, path, temperature and ratio are changed instead. */
  oneGrind?: boolean;
};

/** What the record knows besides. */
export type Evidence = {
  /** Limits of the run's brew time and its shift, seconds. */
  chart: { lowS: number; highS: number; shift: { byS: number } | null } | null;
  /** Null where no grinder is calibrated. */
  grind: { slope: GrindSlope; setting: number } | null;
};

/** One thing to change: steps coarser, degrees hotter, times the dose more water; or what is done by hand. */
export type OneChange =
  | { what: 'grind'; stepsCoarser: number; expect: { brewS: number; plusMinusS: number } | null }
  | { what: 'temperature'; byC: number }
  | { what: 'ratio'; by: number }
  | { what: 'by-hand'; words: string };

export type Advice =
  | { kind: 'leave'; because: string[] }
  | { kind: 'change'; change: OneChange; because: string[] }
  /** Two signs that do not go together: what to look at first. */
  | { kind: 'contradiction'; words: string; checkFirst: string[]; because: string[] };

/** The one change that this brew asks for. */
export function adviseOn(tried: Tried, evidence: Evidence): Advice {
  const because = reasonsOf(tried, evidence);
  const contradiction = contradictionOf(tried);
  if (contradiction) return { kind: 'contradiction', ...contradiction, because };
  const change = changeFor(tried, evidence);
  return change ? { kind: 'change', change, because } : { kind: 'leave', because };
}

const speedOfTried = ({ brewS, windowS }: Tried): Speed | null =>
  brewS === null ? null : speedOf(brewS, windowS);

function contradictionOf(tried: Tried): { words: string; checkFirst: string[] } | null {
  const speed = speedOfTried(tried);
  const balance = tried.taste.balance ?? 0;
  if (balance > 0 && speed === 'fast')
    return {
      words: 'It ran fast and is bitter all the same; coarser would make it faster still.',
      checkFirst: [
        'The dose: too much coffee for the water tastes harsh.',
        'The water: is it hotter than the card says?',
        'The bed: a channel lets water through and over-extracts beside it; swirl, and pour more gently.',
      ],
    };
  if (balance < 0 && speed === 'slow')
    return {
      words: 'It ran slow and is sour all the same; finer would make it slower still.',
      checkFirst: [
        'The water: is it cooler than the card says?',
        'The bed: dry clumps or a slope leave part of it unwetted.',
        'The time since roasting: very fresh coffee holds its gas and brews unevenly.',
      ],
    };
  if (tried.taste.strength === -2 && balance > 0)
    return {
      words: 'It is weak and bitter at once.',
      checkFirst: [
        'The dose: was it all in the brewer?',
        'The wall: water that runs past the bed thins what the bed over-extracts.',
      ],
    };
  return null;
}

const LIGHT: ReadonlySet<RoastLevel> = new Set<RoastLevel>(['very light', 'light']);
const DARK: ReadonlySet<RoastLevel> = new Set<RoastLevel>(['medium-dark', 'dark']);
const STEP_C = 2;

/** The first that the signs ask for: what was seen, then time, then taste. */
function changeFor(tried: Tried, evidence: Evidence): OneChange | null {
  return (
    measuredChange(tried) ??
    seenChange(tried, evidence) ??
    timeChange(tried, evidence) ??
    tasteChange(tried, evidence) ??
    muddyChange(tried)
  );
}

/** A thermometer is read to a degree; further off than that is off. */
const READ_OFF_C = 1;

/** What was measured too hot or too cool is put right before anything else, unless the cup says the opposite. */
function measuredChange({ reads = [], taste, method }: Tried): OneChange | null {
  const balance = taste.balance ?? 0;
  const off = reads.find(({ readC, from, to }) => readC > to + READ_OFF_C || readC < from - READ_OFF_C);
  if (!off) return null;
  const { readC, from, to } = off;
  const isHot = readC > to;
  if (isHot ? balance < 0 : balance > 0) return null;
  const isOverFlame = METHODS[method].heatedIn !== 'kettle';
  const asked = from === to ? `${to}` : `${from} to ${to}`;
  const first = isHot
    ? isOverFlame
      ? 'lower the flame first'
      : 'cooler water first'
    : isOverFlame
      ? 'a little more flame, or cover it, first'
      : 'warmer water first';
  return byHand(`Read ${readC} °C, asked ${asked}: ${first}.`);
}

/** A muddy bed by itself, in a brew that was in time and of which nothing was tasted. */
function muddyChange({ taste }: Tried): OneChange | null {
  if (!taste.seen?.includes('muddy')) return null;
  return byHand('Pour more gently and lower next time, and taste that cup before you change anything else.');
}

function seenChange(tried: Tried, evidence: Evidence): OneChange | null {
  const { taste, notes, method } = tried;
  const seen = new Set(taste.seen);
  const noted = new Set(notes);
  if (seen.has('stall') || noted.has('stalled')) return byHand(METHODS[method].stall.advice);
  if (noted.has('hard-plunge'))
    return METHODS[method].pressedBy !== null ? grindChange(tried, evidence, 'coarser') : null;
  if (METHODS[method].heatedIn === 'globe' && (noted.has('too-hot') || (taste.balance ?? 0) > 0))
    return speedOfTried(tried) === 'slow' && !tried.oneGrind
      ? grindChange(tried, evidence, 'coarser')
      : byHand('Lower the flame, and take it off sooner.');
  if (seen.has('clumps'))
    return byHand('Stir the bloom until nothing is dry; bloom with half a dose more water.');
  if (seen.has('sloped')) return byHand('Swirl at the end of the pour, and circle evenly.');
  if (seen.has('wall') && !tried.stirredOnePour)
    return (taste.strength ?? 0) < 0
      ? byHand('Keep the water off the wall: pour lower and nearer the middle. Check the dose.')
      : byHand('A longer bloom, or a swirl at the end, brings the grounds down.');
  if (seen.has('lively-bloom'))
    return byHand('It is very fresh: open more slowly, with a deeper well in the bed and water 2 °C cooler.');
  return null;
}

function timeChange(tried: Tried, evidence: Evidence): OneChange | null {
  const { method, notes, brewS, windowS } = tried;
  const speed = notes.includes('ran-fast') ? 'fast' : speedOfTried(tried);
  if (speed === null || speed === 'in time') return null;
  if (METHODS[method].bedSetsTime && tried.oneGrind)
    return byHand(
      speed === 'slow'
        ? 'The grind stays: pour the last water faster and higher, so that the bed stays open.'
        : 'The grind stays: pour low and gently, in the middle, and split the last pour in two.',
    );
  if (METHODS[method].bedSetsTime)
    return grindChange(tried, evidence, speed === 'slow' ? 'coarser' : 'finer');
  if (brewS === null) return null;
  const off = showClock(speed === 'slow' ? brewS - windowS.to : windowS.from - brewS);
  const way = speed === 'slow' ? 'late' : 'early';
  if (METHODS[method].heatedIn === 'pot')
    return byHand(
      speed === 'slow' ? 'The flame was too low: a little more.' : 'The flame was too high: a little less.',
    );
  return byHand(
    `${METHODS[method].pressedBy ?? 'Done'} ${off} ${way}. The clock and the hand set this time: leave the grind as it is.`,
  );
}

function tasteChange(tried: Tried, evidence: Evidence): OneChange | null {
  const { method, roast, taste, waterC, highestC, oneGrind = false } = tried;
  const balance = taste.balance ?? 0;
  const strength = taste.strength ?? 0;
  const isThin = (taste.body ?? 0) < 0;
  // A pot's water starts where it was filled, and heats on.
  const isHeatedOn = METHODS[method].heatedIn === 'pot';
  // Water that cannot be hotter here leaves the grinder.
  const canBeHotter = waterC + STEP_C <= highestC;
  if (balance > 0) {
    if (!isHeatedOn && (DARK.has(roast) || oneGrind)) return { what: 'temperature', byC: -STEP_C };
    return oneGrind
      ? byHand('The grind stays: a smaller flame, and off it sooner.')
      : grindChange(tried, evidence, 'coarser');
  }
  if (balance < 0) {
    // Sour and thin, too little was drawn out of it altogether: a finer grind gives both.
    if (!isHeatedOn && canBeHotter && ((LIGHT.has(roast) && !isThin) || oneGrind))
      return { what: 'temperature', byC: STEP_C };
    return oneGrind ? ratioChange(method, 0.5) : grindChange(tried, evidence, 'finer');
  }
  if (taste.seen?.includes('no-bloom') && !oneGrind) return grindChange(tried, evidence, 'finer');
  if (strength !== 0) return ratioChange(method, strength < 0 ? -0.5 : 0.5);
  return null;
}

/** What is filled whole has one ratio: its size's own. */
function ratioChange(method: MethodId, by: number): OneChange {
  const isWhole = BREWERS.some((brewer) => brewer.method === method && brewer.filledWhole);
  if (!isWhole) return { what: 'ratio', by };
  return byHand(
    by < 0
      ? 'The pot is filled whole, so its ratio stays: one step finer, or less milk.'
      : 'The pot is filled whole, so its ratio stays: serve it with a little hot water.',
  );
}

const byHand = (words: string): OneChange => ({ what: 'by-hand', words });

/** As many steps as bring the time back where the time is off; one where only taste asks for it. */
function grindChange(
  { method, brewS, windowS, expectedS }: Tried,
  { grind }: Evidence,
  way: 'coarser' | 'finer',
): OneChange {
  const sign = way === 'coarser' ? 1 : -1;
  // Elsewhere the clock, the hand or the flame sets the time, whatever the grind.
  const tells = METHODS[method].bedSetsTime;
  const off = tells && brewS !== null && speedOf(brewS, windowS) !== 'in time';
  const wanted = grind && off ? stepsTo(grind.slope, grind.setting, expectedS) : sign;
  const stepsCoarser = Math.sign(wanted) === sign ? wanted : 0.5 * sign;
  return { what: 'grind', stepsCoarser, expect: grind && tells ? expectAfter(grind, stepsCoarser) : null };
}

function expectAfter(
  { slope, setting }: NonNullable<Evidence['grind']>,
  stepsCoarser: number,
): { brewS: number; plusMinusS: number } {
  const { brewS, plusMinusS } = slope.at(setting + stepsCoarser * slope.way);
  return { brewS: Math.round(brewS), plusMinusS: Math.round(plusMinusS) };
}

function reasonsOf(tried: Tried, { chart, grind }: Evidence): string[] {
  const { brewS, windowS, taste, method } = tried;
  const speed = speedOfTried(tried);
  const reasons: string[] = [];
  if (brewS !== null && speed !== 'in time')
    reasons.push(
      `${showClock(brewS)} is ${speed === 'slow' ? `${Math.round(brewS - windowS.to)} s over` : `${Math.round(windowS.from - brewS)} s under`} its window.`,
    );
  if (speed === 'in time') reasons.push(`${showClock(brewS!)} is inside its window.`);
  const said = tasteInWords({ ...taste, words: undefined });
  if (said) reasons.push(`It was ${said}.`);
  const bodyReason = bodyInWords(taste);
  if (bodyReason) reasons.push(bodyReason);
  const isBitterAndSlow = (taste.balance ?? 0) > 0 && speed === 'slow';
  if (METHODS[method].heatedIn === 'globe' && isBitterAndSlow)
    reasons.push('The bed drew down too slowly. If it is bitter in its time, too, lower the flame next.');
  if (chart?.shift)
    reasons.push(
      `The last brews run ${Math.abs(Math.round(chart.shift.byS))} s ${chart.shift.byS > 0 ? 'longer' : 'shorter'} than was usual: that is no single odd brew.`,
    );
  else if (chart && brewS !== null && (brewS > chart.highS || brewS < chart.lowS))
    reasons.push(
      'It lies outside what this coffee usually does, by itself: look at this brew before the grinder.',
    );
  if (grind && METHODS[method].bedSetsTime)
    reasons.push(
      grind.slope.brews === 0
        ? `A step is taken to be worth ${Math.abs(Math.round(grind.slope.secondsPerStep))} s; no brew here has shown it yet.`
        : `A step coarser is worth about ${Math.abs(Math.round(grind.slope.secondsPerStep))} s here, from ${grind.slope.brews} brew${grind.slope.brews === 1 ? '' : 's'}.`,
    );
  return reasons;
}

/** A light body with nothing sour about it is no fault; with it, it is one. */
function bodyInWords({ body = 0, balance = 0, strength = 0 }: Taste): string | null {
  if (body >= 0) return null;
  if (balance < 0) return 'Sour and thin together: too little was drawn out.';
  return balance === 0 && strength >= 0
    ? 'A light body with a clean taste is no fault. For more of it choose cloth, metal or a press.'
    : null;
}

/** A change in a line: "1.5 steps coarser: about 3:05 ± 0:12 (80 %), from 9 brews". */
export function changeInWords(change: OneChange, brews: number | null = null): string {
  switch (change.what) {
    case 'grind': {
      const many = Math.abs(change.stepsCoarser);
      const way = change.stepsCoarser > 0 ? 'coarser' : 'finer';
      const from =
        brews === null
          ? ''
          : brews === 0
            ? ', from what is usual'
            : `, from ${brews} brew${brews === 1 ? '' : 's'}`;
      const expect = change.expect
        ? `: about ${showClock(change.expect.brewS)} ± ${showClock(change.expect.plusMinusS)} (80 %)${from}`
        : '';
      return `${many} step${many === 1 ? '' : 's'} ${way}${expect}`;
    }
    case 'temperature':
      return `${Math.abs(change.byC)} °C ${change.byC > 0 ? 'hotter' : 'cooler'}`;
    case 'ratio':
      return change.by > 0
        ? `Ratio up by ${change.by}: more water on the dose`
        : `Ratio down by ${-change.by}: less water on the dose`;
    case 'by-hand':
      return change.words;
  }
}
