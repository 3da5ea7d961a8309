/**
 * The brew card: one recipe converted to one cup, with every target, time and window exact. It is what the bar
 * brews from, what the planner plans and what the log compares with.
 */
import { boilingPointC, heatingTimeS, kettleFillG, type Kettle } from '../water';
import { METHODS } from './method';
import { pourAmounts } from './pours';
import {
  RecipeError,
  startWindow,
  type Hold,
  type MethodId,
  type Phase,
  type Recipe,
  type RecipeStep,
  type StepKind,
} from './recipe';

/** What is asked for: the cup (beverage, ml), or the dose or the brew water in grams. */
export type Ask = { cupMl: number } | { doseG: number } | { brewWaterG: number };

export type RoastLevel = 'very light' | 'light' | 'medium' | 'medium-dark' | 'dark';
export const ROAST_LEVELS: readonly RoastLevel[] = ['very light', 'light', 'medium', 'medium-dark', 'dark'];

/** Degrees that a roast level moves a recipe's water, from medium. */
const ROAST_SHIFT_C: Record<RoastLevel, number> = {
  'very light': 3,
  light: 1.5,
  medium: 0,
  'medium-dark': -3,
  dark: -6,
};

/** Where and with what the cup is brewed. */
export type Place = { altitudeM: number; roast: RoastLevel; kettle: Kettle };

/** Sea level, medium roast, a 1,200 W kettle filled from a 90 C boiler tap. */
export const DEFAULT_PLACE: Place = {
  altitudeM: 0,
  roast: 'medium',
  kettle: { powerW: 1200, filledAtC: 90 },
};

export type CardLag = { minS: number; idealS: number; maxS: number | null; penalty: number };

export type CardStep = {
  id: string;
  kind: StepKind;
  name: string;
  phase: Phase;
  attended: boolean;
  /** Whole seconds from the timer's anchor; negative before it. */
  startS: number;
  endS: number;
  /** Whole seconds, rounded up. */
  durationS: number;
  /** The wait between the end of the step before and this step's start. */
  lag: CardLag;
  end: 'clock' | 'weight' | 'cue';
  cue?: string;
  /** For a pour: the cumulative scale reading to stop at, and what this pour adds, grams. */
  targetG?: number;
  pourG?: number;
  flowGPerS?: number;
  anchor?: 'start' | 'end';
  hint?: string;
};

export type BrewCard = {
  recipeId: string;
  recipeVersion: number;
  method: MethodId;
  doseG: number;
  brewWaterG: number;
  bypassG: number;
  beverageG: number;
  ratio: number;
  finalRatio: number;
  grindBand: number;
  waterC: number;
  kettleFillG: number;
  /** From the timer's anchor to the end mark: expected, and the window in which it should fall, seconds. */
  brewTimeS: number;
  brewWindowS: { from: number; to: number };
  steps: CardStep[];
  holds: Hold[];
  notes: string[];
};

/** Smallest and largest that a card is made for: a sip to a large carafe. */
export const CUP_RANGE_ML = { min: 60, max: 1000 } as const;
const DOSE_RANGE_G = { min: 4, max: 90 } as const;
const WATER_RANGE_G = { min: 60, max: 1400 } as const;
/** Less than this between the end of a pour and the next start, and the next start moves, seconds. */
const BREATH_S = 3;
/** No pour starts sooner than this after the one before it ended, seconds. */
const SOONEST_S = 2;

/**
 * Converts a recipe to what is asked for.
 * @throws RecipeError `not-a-quantity` or `out-of-range` with the field, where the ask makes no cup
 */
export function brewCard(recipe: Recipe, ask: Ask, place: Place = DEFAULT_PLACE): BrewCard {
  const method = METHODS[recipe.method];
  const { doseG, brewWaterG } = solve(recipe, ask);
  const bypassG = Math.round(recipe.bypassTimesDose * doseG);
  const notes: string[] = [];
  const waterC = waterTemperature(recipe, place, notes);
  const fillG = kettleFillG(brewWaterG, method.rinseG);
  const pours = pourAmounts(recipe, doseG, brewWaterG);
  const timeline = layOut(recipe, { doseG, pours, heatS: heatingTimeS(fillG, waterC, place.kettle) });
  notes.push(...timeline.notes);
  return {
    recipeId: recipe.id,
    recipeVersion: recipe.version,
    method: recipe.method,
    doseG,
    brewWaterG,
    bypassG,
    beverageG: Math.round(brewWaterG - method.retentionGPerG * doseG - method.lossG + bypassG),
    ratio: round(brewWaterG / doseG, 2),
    finalRatio: round((brewWaterG + bypassG) / doseG, 2),
    grindBand: recipe.grindBand,
    waterC,
    kettleFillG: fillG,
    brewTimeS: timeline.brewTimeS,
    brewWindowS: timeline.brewWindowS,
    steps: timeline.steps,
    holds: recipe.holds,
    notes,
  };
}

/** Largest single pour of a card, grams: what a dripper must hold at once. */
export const largestPourG = (card: BrewCard): number =>
  Math.max(0, ...card.steps.map((step) => step.pourG ?? 0));

/**
 * Dose to 0.1 g and brew water to 1 g, from any one quantity. With R the ratio, r the retention, b the bypass
 * (each per gram of dose) and L the losses: beverage = dose x (R - r + b) - L.
 */
function solve(recipe: Recipe, ask: Ask): { doseG: number; brewWaterG: number } {
  const method = METHODS[recipe.method];
  if ('brewWaterG' in ask) {
    const brewWaterG = Math.round(quantity('brewWaterG', 'Brew water', ask.brewWaterG, WATER_RANGE_G, 'g'));
    return { doseG: round(brewWaterG / recipe.ratio, 1), brewWaterG };
  }
  const doseG =
    'doseG' in ask
      ? round(quantity('doseG', 'Dose', ask.doseG, DOSE_RANGE_G, 'g'), 1)
      : round(
          (quantity('cupMl', 'Cup', ask.cupMl, CUP_RANGE_ML, 'ml') + method.lossG) /
            (recipe.ratio - method.retentionGPerG + recipe.bypassTimesDose),
          1,
        );
  return { doseG, brewWaterG: Math.round(doseG * recipe.ratio) };
}

function quantity(
  field: string,
  name: string,
  value: number,
  range: { min: number; max: number },
  unit: string,
): number {
  if (!Number.isFinite(value))
    throw new RecipeError('not-a-quantity', field, `${name} must be a number of ${unit}.`);
  if (value < range.min || value > range.max) {
    throw new RecipeError(
      'out-of-range',
      field,
      `${name} must be from ${range.min} to ${range.max} ${unit}, not ${round(value, 1)}.`,
    );
  }
  return value;
}

function waterTemperature(recipe: Recipe, place: Place, notes: string[]): number {
  const wishedC = recipe.waterC + ROAST_SHIFT_C[place.roast];
  const boilingC = boilingPointC(place.altitudeM);
  if (wishedC <= boilingC) return wishedC;
  const usedC = Math.floor(boilingC * 10) / 10;
  notes.push(
    `The recipe wishes ${wishedC} °C; at ${place.altitudeM} m water boils at ${usedC} °C, so that is used.`,
  );
  return usedC;
}

type Timeline = {
  steps: CardStep[];
  brewTimeS: number;
  brewWindowS: { from: number; to: number };
  notes: string[];
};
type Batch = { doseG: number; pours: Map<string, { pourG: number; targetG: number }>; heatS: number };

/**
 * Lays the steps out in time. A pour keeps its flow, so it grows with the batch; where it would run into the next
 * start, that start and all later ones move by the excess. Drawdown follows the dose by the method's exponent.
 */
function layOut(recipe: Recipe, batch: Batch): Timeline {
  const notes: string[] = [];
  const laid: (CardStep & { startS: number })[] = [];
  let endS = 0;
  let anchorS: number | null = null;
  let movedS = 0;
  let lastPourEndS = 0;
  let window = recipe.endWindowS;

  for (const step of recipe.steps) {
    const pour = batch.pours.get(step.id);
    let startS: number =
      'afterS' in step.start ? endS + step.start.afterS : (anchorS ?? 0) + step.start.atS + movedS;
    if ('atS' in step.start && startS < endS + BREATH_S && step.kind === 'pour') {
      const excessS = endS + BREATH_S - startS;
      movedS += excessS;
      startS += excessS;
      notes.push(
        `${step.name} starts ${excessS} s later than the recipe’s clock, because the pour before it grew with the batch.`,
      );
    }
    startS = Math.max(startS, endS);
    let durationS: number;
    if (step.lasts === 'drawdown') {
      const scaled = scaleDrawdown(recipe, batch.doseG, lastPourEndS - (anchorS ?? 0));
      window = scaled.window;
      durationS = Math.max(1, Math.ceil(scaled.drawdownS - (startS - lastPourEndS)));
    } else {
      durationS = lengthS(step, batch, pour?.pourG, laid);
    }
    if (durationS === 0) continue;
    if (step.anchor) anchorS = step.anchor === 'start' ? startS : startS + durationS;
    laid.push(cardStep(step, startS, durationS, startS - endS, pour, laid.length === 0));
    endS = startS + durationS;
    if (step.kind === 'pour') lastPourEndS = endS;
  }
  if (anchorS === null)
    throw new RecipeError('recipe-broken', 'steps', `${recipe.id} has no step that starts its timer.`);

  const zeroS = anchorS;
  const steps = laid.map((step) => ({ ...step, startS: step.startS - zeroS, endS: step.endS - zeroS }));
  const lastOfBrew = steps.findLast((step) => step.phase === 'brew');
  return { steps, brewTimeS: lastOfBrew?.endS ?? 0, brewWindowS: window, notes };
}

function cardStep(
  step: RecipeStep,
  startS: number,
  durationS: number,
  idealS: number,
  pour: { pourG: number; targetG: number } | undefined,
  first: boolean,
): CardStep {
  const window = startWindow(step);
  return {
    id: step.id,
    kind: step.kind,
    name: step.name,
    phase: step.phase,
    attended: step.attended,
    startS,
    endS: startS + durationS,
    durationS,
    lag: {
      minS: Math.max(Math.min(idealS, SOONEST_S), idealS - window.earlyS),
      idealS,
      maxS: first || window.lateS === null ? null : idealS + window.lateS,
      penalty: first ? 0 : window.penalty,
    },
    end: step.end.by,
    ...(step.end.by === 'cue' ? { cue: step.end.cue } : {}),
    ...(pour && step.pour ? { ...pour, flowGPerS: step.pour.flowGPerS } : {}),
    ...(step.anchor ? { anchor: step.anchor } : {}),
    ...(step.hint ? { hint: step.hint } : {}),
  };
}

/** Whole seconds, rounded up. Heating lasts only what the steps since the kettle was filled have not covered. */
function lengthS(step: RecipeStep, batch: Batch, pourG: number | undefined, before: CardStep[]): number {
  const { lasts } = step;
  if (lasts === 'pour') {
    if (pourG === undefined || !step.pour)
      throw new RecipeError(
        'recipe-broken',
        `steps.${step.id}`,
        `${step.id} lasts as long as its pour, but pours nothing.`,
      );
    return Math.max(1, Math.ceil(pourG / step.pour.flowGPerS));
  }
  if (lasts === 'heating') {
    const fillAt = before.findIndex((earlier) => earlier.kind === 'fill');
    const coveredS =
      fillAt < 0 ? 0 : before.slice(fillAt + 1).reduce((sum, earlier) => sum + earlier.durationS, 0);
    return Math.max(0, Math.ceil(batch.heatS - coveredS));
  }
  if (lasts === 'drawdown') return 0;
  return Math.ceil('s' in lasts ? lasts.s : lasts.sPerDoseG * batch.doseG);
}

/**
 * t = t_ref x (dose / dose_ref)^p, where t_ref runs from the end of the last pour at the reference dose to the middle
 * of the recipe's window; the window's edges keep their proportion to it.
 */
function scaleDrawdown(recipe: Recipe, doseG: number, lastPourEndS: number) {
  const refPourEndS = refLastPourEndS(recipe);
  const { from, to } = recipe.endWindowS;
  const refS = (from + to) / 2 - refPourEndS;
  const drawdownS = refS * (doseG / recipe.refDoseG) ** (METHODS[recipe.method].drawdownExponent ?? 0);
  const edge = (atS: number) => Math.round(lastPourEndS + (drawdownS * (atS - refPourEndS)) / refS);
  return { drawdownS, window: { from: edge(from), to: edge(to) } };
}

/** End of the last pour at the reference dose, seconds from the anchor. */
function refLastPourEndS(recipe: Recipe): number {
  const pours = pourAmounts(recipe, recipe.refDoseG, Math.round(recipe.refDoseG * recipe.ratio));
  const lastPour = recipe.steps.findLastIndex((step) => pours.has(step.id));
  const upToLastPour = { ...recipe, steps: recipe.steps.slice(0, lastPour + 1) };
  const endS = layOut(upToLastPour, { doseG: recipe.refDoseG, pours, heatS: 0 }).steps.at(-1)?.endS;
  if (endS === undefined) {
    throw new RecipeError('recipe-broken', 'steps', `${recipe.id} draws down, but nothing is poured.`);
  }
  return endS;
}

const round = (value: number, digits: number): number => Number(value.toFixed(digits));
