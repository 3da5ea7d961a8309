/**
 * What a recipe (a school's way with a method) is: plain data, in numbers relative to the dose or to the brew
 * water, so that one recipe serves every cup size. `brewCard` turns it into exact targets for one cup.
 */

export type MethodId = 'cone' | 'flat' | 'hourglass' | 'sock' | 'siphon' | 'press' | 'air-press' | 'pot';

/** What the hands, or the water, do in a step. */
export type StepKind =
  | 'fill'
  | 'weigh'
  | 'grind'
  | 'heat'
  | 'set-filter'
  | 'warm'
  | 'load'
  | 'seal'
  | 'flame'
  | 'pour'
  | 'stir'
  | 'swirl'
  | 'watch'
  | 'dip'
  | 'plunge'
  | 'press'
  | 'drawdown'
  | 'settle'
  | 'serve'
  | 'clean';

export type Phase = 'prep' | 'brew' | 'finish' | 'clean';

/** How much a pour adds: a multiple of the dose; up to a share of the brew water; or one of the equal parts of what is left. */
export type Amount = { timesDose: number } | { toShare: number } | { restParts: number };

export type Pour = {
  amount: Amount;
  /** Grams a second. */
  flowGPerS: number;
  /** Where it is not the recipe's own temperature (a cool bloom), degrees Celsius; never shifted by roast. */
  waterC?: number;
  /** `server` is bypass: it does not pass the bed and does not count as brew water. */
  into?: 'brewer' | 'server';
};

/** When a step begins: at a reading of the brew's timer, or so long after the step before it. */
export type StepStart = { atS: number } | { afterS: number };

/** How long a step takes. `pour` follows from amount and flow, `heating` from the kettle, `drawdown` from the dose. */
export type StepLength = { s: number } | { sPerDoseG: number } | 'pour' | 'heating' | 'drawdown';

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
  /** The brew's timer starts when this step starts, or ends. Exactly one step of a recipe has it. */
  anchor?: 'start' | 'end';
  /** What to do and what is commonly forgotten, in a line. */
  hint?: string;
};

export type Tool = 'grinder' | 'kettle' | 'brewer' | 'burner';

/** One of a tool is held from the start of a step to the end of another, waits between included. */
export type Hold = { tool: Tool; from: string; to: string };

export type Recipe = {
  id: string;
  version: number;
  method: MethodId;
  name: string;
  /** Why one would choose it, in a line. */
  why: string;
  /** The dose that times and windows were set for, grams. */
  refDoseG: number;
  /** Grams of brew water to one gram of dose. */
  ratio: number;
  /** Grams of water added beside the bed, to one gram of dose. */
  bypassTimesDose: number;
  /** 0 coarse to 100 extra fine. */
  grindBand: number;
  /** Base water temperature for a medium roast, degrees Celsius. */
  waterC: number;
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
  weigh: { earlyS: 0, lateS: 300, penalty: 0 },
  'set-filter': { earlyS: 0, lateS: 300, penalty: 0.02 },
  load: { earlyS: 0, lateS: 120, penalty: 0.02 },
  pour: POUR_WINDOW,
  serve: { earlyS: 0, lateS: 60, penalty: 0.5 },
  clean: { earlyS: 0, lateS: 600, penalty: 0.05 },
};
/** From taring to the first water, or to the pour that ends in the anchor. */
const ANCHOR_WINDOW: StartWindow = { earlyS: 0, lateS: 120, penalty: 0.05 };
const STRAIGHT_ON: StartWindow = { earlyS: 0, lateS: 0, penalty: 0 };

/** How far a step's start may move: its own window, or its kind's usual one. Passive and clock steps follow straight on. */
export function startWindow(step: RecipeStep): StartWindow {
  if (step.window) return step.window;
  if (!step.attended || step.end.by === 'clock') return STRAIGHT_ON;
  if (step.anchor && step.kind === 'pour') return ANCHOR_WINDOW;
  return USUAL_WINDOW[step.kind] ?? POUR_WINDOW;
}
