/**
 * Lays a recipe's steps out in time for one batch.
 *
 * A pour keeps its flow, so it grows with the batch; where it would run into the next start, that start and all later
 * ones move by the excess. Drawdown follows the dose by the method's exponent. Times are whole seconds, rounded up.
 */
import type { PathPart } from '../pour';
import { nearBoilingS, riseS } from '../water';
import { pourAmounts, type PourTarget } from './pours';
import { REHEAT, boundWaits } from './prep';
import { roundUp } from './round';
import {
  RecipeError,
  clockStartS,
  startWindow,
  type GlobeWay,
  type Phase,
  type Pour,
  type Recipe,
  type RecipeStep,
  type StartCue,
  type StepKind,
} from './recipe';

/** The wait between the end of the step before and a step's start, seconds; `maxS: null` is no limit. */
export type CardLag = { minS: number; idealS: number; maxS: number | null; penalty: number };

/** A part of a pour, up to a cumulative reading, grams; the last has none. */
export type CardPath = PathPart & { toG?: number };

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
  lag: CardLag;
  end: 'clock' | 'weight' | 'cue';
  cue?: string;
  /** When the cue may come, seconds from the anchor. */
  cueWindowS?: { from: number; to: number };
  /** For a pour: the cumulative scale reading to stop at, what this pour adds (grams), and its flow (g/s). */
  targetG?: number;
  pourG?: number;
  flowGPerS?: number;
  /** The first part of a pour that is poured otherwise: up to a reading, at a flow, expected at a time from the anchor. */
  opening?: { targetG: number; flowGPerS: number; untilS: number; cue?: string };
  /** Where its water goes, part by part: each up to a reading, the last to the target. */
  paths?: CardPath[];
  /** What it waits for in place of the clock; it is then expected at its start. */
  startCue?: StartCue;
  /** Nothing weighs it: it ends by its seconds and the eye. */
  byEye?: true;
  /** How many stirs, where they are counted. */
  stirs?: number;
  /** Where the pour's water is not the recipe's, degrees Celsius. */
  waterC?: number;
  /** The temperature to find, degrees Celsius. */
  checkC?: { from: number; to: number };
  anchor?: 'start' | 'end';
  hint?: string;
  mistake?: string;
};

export type Batch = {
  doseG: number;
  brewWaterG: number;
  pours: ReadonlyMap<string, PourTarget>;
  /** What is left of the kettle's heating when all that is done meanwhile is done, whole seconds. */
  heatLeftS: number;
  /** The same of a second filling. */
  reheatLeftS: number;
  /** What a globe or pot is filled with, and where its water boils, degrees Celsius. */
  filledAtC: number;
  boilsAtC: number;
  /** The most that the kettle's spout pours, g/s. */
  maxFlowGPerS: number;
  /** The power with which drawdown grows with the dose, and how far off it may be (standard deviation). */
  drawdownExponent: number;
  drawdownExponentSd: number;
  /** How long the brewer drains, times what the recipe expects. */
  drainShare: number;
};

export type Timeline = {
  steps: CardStep[];
  brewTimeS: number;
  brewWindowS: { from: number; to: number };
  /** From the end of the last pour to a dry bed, seconds; null where nothing drains by itself. */
  drawdownS: number | null;
  /** End of the last pour, seconds from the anchor. */
  lastPourEndS: number;
  notes: string[];
};

/** Less than this between the end of a pour and the next start, and the next start moves, seconds. */
export const BREATH_S = 3;
/** No pour starts sooner than this after the one before it ended, seconds. */
const SOONEST_S = 2;

/**
 * @param steps the recipe's own, or the same with a pour in parts
 * @throws RecipeError `recipe-broken` where the recipe has no anchor, or a step that pours nothing
 */
export function layOut(recipe: Recipe, batch: Batch, steps: readonly RecipeStep[] = recipe.steps): Timeline {
  return place(recipe, steps, batch, referenceOf(recipe));
}

/** @param reference null for the reference batch itself, whose window is the recipe's own */
function place(
  recipe: Recipe,
  steps: readonly RecipeStep[],
  batch: Batch,
  reference: Reference | null,
): Timeline {
  const laid: CardStep[] = [];
  const moved: { name: string; byS: number }[] = [];
  const notes: string[] = [];
  let endS = 0;
  let anchorS: number | null = null;
  let movedS = 0;
  let lastPourEndS = 0;
  let drawdownS: number | null = null;
  let boiledS: number | null = null;
  let drained: { drawdownS: number; window: { from: number; to: number } } | null = null;

  for (const step of steps) {
    const pour = batch.pours.get(step.id);
    let startS = endS + ('afterS' in step.start ? step.start.afterS : 0);
    const atS = clockStartS(step.start);
    if (atS !== null) {
      const clockS = (anchorS ?? 0) + atS + movedS;
      const soonestS = endS + (step.kind === 'pour' ? BREATH_S : 0);
      startS = Math.max(clockS, soonestS);
      if (startS > clockS) {
        movedS += startS - clockS;
        moved.push({ name: step.name, byS: movedS });
      }
    }
    let durationS: number;
    if (step.lasts === 'drawdown') {
      drained = scaleDrawdown(recipe, batch, lastPourEndS - (anchorS ?? 0), reference);
      drawdownS = drained.drawdownS;
      durationS = Math.max(1, Math.ceil(drawdownS - (startS - lastPourEndS)));
    } else if (typeof step.lasts === 'object' && 'untilS' in step.lasts) {
      durationS = Math.ceil((anchorS ?? 0) + step.lasts.untilS + movedS - startS);
      if (durationS < 1) notes.push(`${step.name} has no time left at this size, so it falls away.`);
    } else {
      durationS = lengthS(recipe, step, batch, pour);
    }
    if (typeof step.lasts === 'object' && 'globe' in step.lasts) {
      // Water that is driven up rises on while the hands do something else.
      if (step.lasts.globe === 'rise' && boiledS !== null)
        durationS = Math.max(1, durationS - (startS - boiledS));
      boiledS = startS + durationS;
    }
    if (durationS < 1) continue;
    if (step.anchor) anchorS = step.anchor === 'start' ? startS : startS + durationS;
    laid.push(cardStep(step, startS, durationS, startS - endS, pour, batch, laid.length === 0));
    endS = startS + durationS;
    if (step.kind === 'pour') lastPourEndS = endS;
  }
  if (anchorS === null)
    throw new RecipeError('recipe-broken', 'steps', `${recipe.id} has no step that starts its timer.`);

  const zeroS = anchorS;
  for (const step of laid) shift(step, -zeroS);
  boundWaits(laid);
  const brewTimeS = laid.findLast((step) => step.phase === 'brew')?.endS ?? 0;
  return {
    steps: laid,
    brewTimeS,
    brewWindowS: drained ? drained.window : movedWindow(recipe, brewTimeS, reference),
    drawdownS,
    lastPourEndS: lastPourEndS - zeroS,
    notes: [...movedNotes(moved), ...notes],
  };
}

/** Where nothing drains, the window's edges keep their distance to the end mark. */
function movedWindow({ endWindowS: { from, to } }: Recipe, brewTimeS: number, reference: Reference | null) {
  const byS = reference ? brewTimeS - reference.brewTimeS : 0;
  return { from: from + byS, to: to + byS };
}

function movedNotes(moved: { name: string; byS: number }[]): string[] {
  const why = 'because the pours before grow with the batch';
  if (moved.length <= 2)
    return moved.map(({ name, byS }) => `${name} starts ${byS} s later than the recipe’s clock, ${why}.`);
  return [
    `From ${moved[0]!.name} on, pours start later than the recipe’s clock (${moved[0]!.byS} s, at the end ${moved.at(-1)!.byS} s), ${why}.`,
  ];
}

function shift(step: CardStep, byS: number): void {
  step.startS += byS;
  step.endS += byS;
  if (step.opening) step.opening.untilS += byS;
  if (step.cueWindowS) step.cueWindowS = { from: step.cueWindowS.from + byS, to: step.cueWindowS.to + byS };
}

function cardStep(
  step: RecipeStep,
  startS: number,
  durationS: number,
  idealS: number,
  pour: PourTarget | undefined,
  batch: Batch,
  first: boolean,
): CardStep {
  const window = startWindow(step);
  const endS = startS + durationS;
  const { cueWindow } = step;
  // Set one by one: spreading a dozen optional parts is most of what a card would cost.
  const laid: CardStep = {
    id: step.id,
    kind: step.kind,
    name: step.name,
    phase: step.phase,
    attended: step.attended,
    startS,
    endS,
    durationS,
    lag: {
      minS: Math.max(Math.min(idealS, SOONEST_S), idealS - window.earlyS),
      idealS,
      maxS: first || window.lateS === null ? null : idealS + window.lateS,
      penalty: first ? 0 : window.penalty,
    },
    end: step.end.by,
  };
  if (step.end.by === 'cue') laid.cue = step.end.cue;
  if (cueWindow)
    laid.cueWindowS = { from: Math.max(startS + 1, endS - cueWindow.earlyS), to: endS + cueWindow.lateS };
  if (pour && step.pour) setPour(laid, step.pour, pour, batch);
  if ('when' in step.start) laid.startCue = step.start.when;
  if (step.stirs) laid.stirs = step.stirs;
  if (step.checkC) laid.checkC = step.checkC;
  if (step.anchor) laid.anchor = step.anchor;
  if (step.hint) laid.hint = step.hint;
  if (step.mistake) laid.mistake = step.mistake;
  return laid;
}

function setPour(step: CardStep, pour: Pour, target: PourTarget, batch: Batch): void {
  const { opening, waterC, paths } = pour;
  step.pourG = target.pourG;
  step.targetG = target.targetG;
  step.flowGPerS = Math.min(pour.flowGPerS, batch.maxFlowGPerS);
  if (waterC !== undefined) step.waterC = waterC;
  if (paths)
    step.paths = paths
      .filter(
        ({ toShare }) => toShare === undefined || toShare * batch.brewWaterG > target.targetG - target.pourG,
      )
      .map(({ toShare, ...part }) => ({
        ...part,
        ...(toShare === undefined ? {} : { toG: Math.round(toShare * batch.brewWaterG) }),
      }));
  const openingG = openingOf(pour, target, batch.brewWaterG);
  if (!opening || openingG <= 0) return;
  const flowGPerS = Math.min(opening.flowGPerS, batch.maxFlowGPerS);
  step.opening = {
    targetG: Math.round(target.targetG - target.pourG + openingG),
    flowGPerS,
    untilS: step.startS + roundUp(openingG / flowGPerS),
    ...(opening.cue ? { cue: opening.cue } : {}),
  };
}

/** Grams that a pour's opening adds: up to its share of the brew water, no more than the pour. */
function openingOf({ opening }: Pour, { pourG, targetG }: PourTarget, brewWaterG: number): number {
  if (!opening) return 0;
  return Math.min(pourG, Math.max(0, opening.toShare * brewWaterG - (targetG - pourG)));
}

/** What is done with the kettle's water, but for what is rinsed from the tap. */
const USES_WATER: ReadonlySet<StepKind> = new Set<StepKind>(['set-filter', 'warm', 'pour', 'bypass']);

/**
 * Heating that the steps between a filling and the next use of the kettle do not cover, whole seconds. Those are prep
 * of a known length, so this is known before anything is laid out.
 * @param fillAt the filling's place among the steps; -1 where there is none
 */
export function heatLeftS(
  steps: readonly RecipeStep[],
  fillAt: number,
  doseG: number,
  heatS: number,
  isRinsedFromTap: boolean,
): number {
  if (fillAt < 0 || !steps.some((step) => step.lasts === 'heating')) return 0;
  let coveredS = 0;
  for (const { kind, lasts, phase } of steps.slice(fillAt + 1)) {
    if (USES_WATER.has(kind) && !(isRinsedFromTap && phase === 'prep')) break;
    if (typeof lasts === 'string') continue;
    if ('s' in lasts) coveredS += roundUp(lasts.s);
    else if ('sPerDoseG' in lasts) coveredS += roundUp(lasts.sPerDoseG * doseG);
  }
  return Math.max(0, roundUp(heatS - coveredS));
}

/** Water at least this hot takes the short way to the boil, degrees Celsius. */
const HOT_FILL_C = 80;

function globeS(way: GlobeWay, { brewWaterG, filledAtC, boilsAtC }: Batch): number {
  const heatingS = way === 'rise' ? 0 : nearBoilingS(brewWaterG, filledAtC, boilsAtC);
  return heatingS + (way === 'near boiling' ? 0 : riseS(brewWaterG));
}

/** Whole seconds, rounded up. */
function lengthS(recipe: Recipe, step: RecipeStep, batch: Batch, target: PourTarget | undefined): number {
  const { lasts } = step;
  if (lasts === 'pour') {
    if (!step.pour || !target)
      throw new RecipeError(
        'recipe-broken',
        `steps.${step.id}`,
        `${step.id} lasts as long as its pour, but pours nothing.`,
      );
    return pourLengthS(step.pour, target, batch);
  }
  if (lasts === 'heating') return step.id === REHEAT.id ? batch.reheatLeftS : batch.heatLeftS;
  if (typeof lasts === 'string' || 'untilS' in lasts) return 0;
  if ('hotS' in lasts) return roundUp(batch.filledAtC >= HOT_FILL_C ? lasts.hotS : lasts.coldS);
  if ('sAtRef' in lasts) return roundUp((lasts.sAtRef * batch.brewWaterG) / (recipe.refDoseG * recipe.ratio));
  if ('globe' in lasts) return Math.max(1, roundUp(globeS(lasts.globe, batch)));
  return roundUp('s' in lasts ? lasts.s : lasts.sPerDoseG * batch.doseG);
}

/** Seconds of a pour at its flow, or the kettle's where that is less, rounded up. */
function pourLengthS(pour: Pour, target: PourTarget, batch: Batch): number {
  const openingG = openingOf(pour, target, batch.brewWaterG);
  const openingS = pour.opening ? openingG / Math.min(pour.opening.flowGPerS, batch.maxFlowGPerS) : 0;
  const restS = (target.pourG - openingG) / Math.min(pour.flowGPerS, batch.maxFlowGPerS);
  return Math.max(1, roundUp(openingS + restS));
}

/**
 * t = t_ref x (dose / dose_ref)^p, where t_ref runs from the end of the last pour at the reference dose to the middle
 * of the recipe's window; the window's edges keep their proportion to it, and lie further off by what is not known of p
 * (80 % of it).
 */
function scaleDrawdown(recipe: Recipe, batch: Batch, lastPourEndS: number, reference: Reference | null) {
  const refPourEndS = reference?.lastPourEndS ?? lastPourEndS;
  const { from, to } = recipe.endWindowS;
  const refS = (from + to) / 2 - refPourEndS;
  const drawdownS = batch.drainShare * refS * (batch.doseG / recipe.refDoseG) ** batch.drawdownExponent;
  const doubt = Z80 * batch.drawdownExponentSd * Math.abs(Math.log(batch.doseG / recipe.refDoseG));
  const edge = (atS: number, off: number) =>
    Math.round(lastPourEndS + (drawdownS * (atS - refPourEndS)) / refS + off * doubt * drawdownS);
  return { drawdownS, window: { from: edge(from, -1), to: edge(to, 1) } };
}

/** 80 % of a normal distribution lie within so many standard deviations. */
const Z80 = 1.2816;

/** The reference batch: from the anchor to the end of the last pour and to the end mark, seconds. */
type Reference = { lastPourEndS: number; brewTimeS: number };
/** A recipe is plain data that nobody changes, so its reference is worked out once. */
const references = new WeakMap<Recipe, Reference>();

export function referenceOf(recipe: Recipe): Reference {
  const known = references.get(recipe);
  if (known) return known;
  const brewWaterG = Math.round(recipe.refDoseG * recipe.ratio);
  const batch: Batch = {
    doseG: recipe.refDoseG,
    brewWaterG,
    pours: pourAmounts(recipe, recipe.refDoseG, brewWaterG),
    heatLeftS: 0,
    reheatLeftS: 0,
    filledAtC: 90,
    boilsAtC: 100,
    maxFlowGPerS: Infinity,
    // At the reference dose the power is of no account.
    drawdownExponent: 0,
    drawdownExponentSd: 0,
    drainShare: 1,
  };
  const { lastPourEndS, brewTimeS } = place(recipe, recipe.steps, batch, null);
  references.set(recipe, { lastPourEndS, brewTimeS });
  return { lastPourEndS, brewTimeS };
}
