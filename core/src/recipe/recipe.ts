/**
 * What a recipe (a school's way with a method) is: plain data, in numbers relative to the dose or to the brew
 * water, so that one recipe serves every cup size. `brewCard` turns it into exact targets for one cup.
 */

import type { PathPart } from '../pour';

export const METHOD_IDS = [
  'cone',
  'flat',
  'hourglass',
  'sock',
  'siphon',
  'press',
  'air-press',
  'pressure-pot',
  'foam-pot',
] as const;
export type MethodId = (typeof METHOD_IDS)[number];

/** What the hands, or the water, do in a step. */
export const STEP_KINDS = [
  'fill',
  'weigh',
  'grind',
  'heat',
  'set-filter',
  'warm',
  'load',
  'seal',
  'flame',
  'pour',
  'bypass',
  'stir',
  'swirl',
  'watch',
  'dip',
  'plunge',
  'press',
  'drawdown',
  'settle',
  'decant',
  'serve',
  'cool',
  'clean',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

export const PHASES = ['prep', 'brew', 'finish', 'clean'] as const;
export type Phase = (typeof PHASES)[number];

/**
 * How much a pour adds: a multiple of the dose; up to a share of the brew water; one of the equal parts of what is
 * left; or the same grams whatever the cup.
 */
export type Amount = { timesDose: number } | { toShare: number } | { restParts: number } | { g: number };

/** The first part of a pour that is poured otherwise than the rest: up to a share of the brew water, or until a cue. */
export type Opening = { toShare: number; flowGPerS: number; cue?: string };

export type Pour = {
  amount: Amount;
  /** Grams a second. */
  flowGPerS: number;
  opening?: Opening;
  /** Where it is not the recipe's own temperature (a cool bloom), degrees Celsius; never shifted by roast. */
  waterC?: number;
  /** Where the water goes, in order; left out where the recipe does not say. */
  paths?: PourPart[];
};

/** A part of a pour by one path, up to a share of the brew water; the last part goes to the pour's end. */
export type PourPart = PathPart & { toShare?: number };

/** What a pour may wait for in place of the clock: the bed is about to show, or the stream below thins. */
export const START_CUES = ['bed about to show', 'stream thins'] as const;
export type StartCue = (typeof START_CUES)[number];

/**
 * When a step begins: at a reading of the brew's timer; so long after the step before it; or, a pour, when something is
 * seen, which is expected at about a reading of the timer.
 */
export type StepStart = { atS: number } | { afterS: number } | { when: StartCue; aboutS: number };

/**
 * How long a step takes: seconds; seconds a gram of dose; until a reading of the timer; from hot or from cold water; so
 * many seconds at the reference dose, growing with the mass of the water; or as long as a globe's water takes over its
 * flame (its rise counts from near boiling, whatever the hands do meanwhile). `pour` follows from amount and flow, `heating` from the kettle, `drawdown`
 * from the dose.
 */
export type StepLength =
  | { s: number }
  | { sPerDoseG: number }
  | { untilS: number }
  | { hotS: number; coldS: number }
  | { sAtRef: number }
  | { globe: GlobeWay }
  | 'pour'
  | 'heating'
  | 'drawdown';

/** A globe's way over the flame: to near boiling, from there until it has risen, or both. */
export const GLOBE_WAYS = ['near boiling', 'rise', 'both'] as const;
export type GlobeWay = (typeof GLOBE_WAYS)[number];

/**
 * What ends a step. A clock step ends by itself, and must follow straight on the step before it, so that its end is
 * known with nobody looking; weight and cue steps wait for a person (or a scale), however long that takes.
 */
export type StepEnd = { by: 'clock' } | { by: 'weight' } | { by: 'cue'; cue: string };

/** How far the start may move, in seconds, and what a second away from the ideal costs a plan. `lateS: null` is no limit. */
export type StartWindow = { earlyS: number; lateS: number | null; penalty: number };

export type RecipeStep = {
  id: string;
  kind: StepKind;
  /** As a barista would say it: "second of four pours". */
  name: string;
  phase: Phase;
  attended: boolean;
  start: StepStart;
  lasts: StepLength;
  end: StepEnd;
  pour?: Pour;
  /** Left out: the kind's usual window (see `startWindow`). */
  window?: StartWindow;
  /** How much sooner or later than expected the cue that ends it may come, seconds. */
  cueWindow?: { earlyS: number; lateS: number };
  /** How many stirs, where they are counted. */
  stirs?: number;
  /** The temperature to find when looking, degrees Celsius at a medium roast. */
  checkC?: { from: number; to: number };
  /** The brew's timer starts when this step starts, or ends. Exactly one step of a recipe has it. */
  anchor?: 'start' | 'end';
  /** What to do, in a line. */
  hint?: string;
  /** What is most often forgotten or done wrong here, in a line. */
  mistake?: string;
};

export const TOOLS = ['grinder', 'kettle', 'brewer', 'burner'] as const;
export type Tool = (typeof TOOLS)[number];

/** One of a tool is held from the start of a step to the end of another, waits between included. */
export type Hold = { tool: Tool; from: string; to: string };

/**
 * What the recipe's temperature is a temperature of: the kettle's water, the water in a siphon's top, the water that a
 * pot starts with, or of water that is still rising when it meets the coffee.
 */
export const WATER_MEANINGS = ['in the kettle', 'in the top', 'to start with', 'still rising'] as const;
export type WaterMeaning = (typeof WATER_MEANINGS)[number];

/** What is done to the bed before the first water. */
export const BED_PREPARATIONS = ['level', 'shallow well', 'deep well', 'heaped', 'none'] as const;
export type BedPreparation = (typeof BED_PREPARATIONS)[number];

/** What a guest asks for. */
export const WISHES = ['clear', 'sweet', 'rich', 'heavy', 'quick', 'to share'] as const;
export type Wish = (typeof WISHES)[number];

export type Recipe = {
  id: string;
  version: number;
  method: MethodId;
  name: string;
  /** Why one would choose it, in a line. */
  why: string;
  /** Where schools disagree: what others do, and why, in a line. */
  otherwise?: string;
  /** What a guest asks for that this answers. */
  suits: Wish[];
  filter: string;
  bed: BedPreparation;
  /** The dose that times and windows were set for, grams. */
  refDoseG: number;
  /** Grams of brew water to one gram of dose. */
  ratio: number;
  /** Grams of water added beside the bed, to one gram of dose. */
  bypassTimesDose: number;
  /** Ice that the recipe itself has, to one gram of dose: its ratio and its grind are meant with it, and every cup has it. */
  iceTimesDose?: number;
  /** How many cups it makes at the reference dose; left out where it was written for one, or says nothing of it. */
  servings?: number;
  /** Where the filter keeps more or less than the method's usual one, g/g. */
  retentionGPerG?: number;
  /** 0 coarse to 100 extra fine. */
  grindBand: number;
  /** Base water temperature for a medium roast, degrees Celsius. */
  waterC: number;
  waterIs: WaterMeaning;
  /** Window of the end mark at the reference dose, seconds from the anchor. */
  endWindowS: { from: number; to: number };
  steps: RecipeStep[];
  holds: Hold[];
  cautions: string[];
};

/** The identity of one version of a recipe, as a brew keeps it. */
export type RecipeRef = { recipeId: string; recipeVersion: number };

export type RecipeErrorCode = 'not-a-quantity' | 'out-of-range' | 'recipe-broken';

/** A cup that a recipe cannot be converted to, or a recipe that contradicts itself. `field` names what to change. */
export class RecipeError extends Error {
  override name = 'RecipeError';
  constructor(
    readonly code: RecipeErrorCode,
    readonly field: string,
    message: string,
  ) {
    super(message);
  }
}

const POUR_WINDOW: StartWindow = { earlyS: 3, lateS: 8, penalty: 1 };
const USUAL_WINDOW: Partial<Record<StepKind, StartWindow>> = {
  fill: { earlyS: 0, lateS: 300, penalty: 0 },
  // Nothing is got ready sooner than it need be, and what waits has its price. A kettle comes to wait three minutes for its
  // first use at the most, a rinsed filter five for its water; ground coffee is bounded by the card (`boundWaits`).
  weigh: { earlyS: 0, lateS: 60, penalty: 0.05 },
  'set-filter': { earlyS: 0, lateS: 60, penalty: 0.05 },
  load: { earlyS: 0, lateS: 45, penalty: 0.05 },
  flame: { earlyS: 0, lateS: 120, penalty: 0.05 },
  pour: POUR_WINDOW,
  decant: { earlyS: 0, lateS: 20, penalty: 0.5 },
  bypass: { earlyS: 0, lateS: 30, penalty: 0.2 },
  serve: { earlyS: 0, lateS: 60, penalty: 0.5 },
  clean: { earlyS: 0, lateS: 600, penalty: 0.05 },
};
/** What is seen comes when it comes; after that the bed runs dry. */
const SEEN_WINDOW: StartWindow = { earlyS: 10, lateS: 12, penalty: 1 };
/** From taring to the first water, or to the pour that ends in the anchor. */
const ANCHOR_WINDOW: StartWindow = { earlyS: 0, lateS: 60, penalty: 0.05 };
const STRAIGHT_ON: StartWindow = { earlyS: 0, lateS: 0, penalty: 0 };

/** How far a step's start may move: its own window, or its kind's usual one. Passive and clock steps follow straight on. */
export function startWindow(step: RecipeStep): StartWindow {
  if (step.window) return step.window;
  if (!step.attended || step.end.by === 'clock') return STRAIGHT_ON;
  if ('when' in step.start) return SEEN_WINDOW;
  if (step.anchor && step.kind === 'pour') return ANCHOR_WINDOW;
  return USUAL_WINDOW[step.kind] ?? POUR_WINDOW;
}

/** The reading of the timer at which a step is meant to begin, seconds; null where it follows the step before it. */
export const clockStartS = (start: StepStart): number | null =>
  'atS' in start ? start.atS : 'when' in start ? start.aboutS : null;

/** The same start at another reading of the timer. */
export function startMoved(start: StepStart, byS: number): StepStart {
  if ('atS' in start) return { atS: start.atS + byS };
  return 'when' in start ? { ...start, aboutS: start.aboutS + byS } : start;
}
