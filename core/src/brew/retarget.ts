/**
 * The card of a brew as it now stands: its targets after what was really poured, with a pulse that was passed or
 * skipped left out, and at the dose that was really in the brewer (craft, "re-targeting while brewing").
 *
 * Targets are readings of the scale, so a pour that stopped short or ran on within the next target changes nothing but
 * the size of the next pour. Past the next target, every target already passed is left out and the rest are spread in
 * proportion between the reading and the brew water. Past the brew water the brew is over, at its real ratio. Nothing
 * ever asks to take water out.
 */
import { equalShares, type BrewCard, type CardStep, type Hold } from '../recipe';
import type { StepMark } from './state';

export type PourFacts = {
  marks: Readonly<Record<string, StepMark>>;
  /** Steps that a person left out. */
  skipped: ReadonlySet<string>;
  /** The dose that is really in the brewer, grams; the card's own where nobody said otherwise. */
  doseG?: number;
};

/** Less than this is not worth a pour of its own, grams. */
const LEAST_POUR_G = 1;

/** A pour on its way through re-targeting; `exactG` is its target before rounding to what a scale is read to. */
type Pour = { step: CardStep; exactG: number };

/** @param planned the card that the brew was started with; given back itself where nothing has moved a target */
export function retargetedCard(planned: BrewCard, facts: PourFacts): BrewCard {
  const scale = (facts.doseG ?? planned.doseG) / planned.doseG;
  const waterG = Math.round(planned.brewWaterG * scale);
  const { amounts, left, pouredG, over } = spread(planned, facts, scale, waterG);
  const moved =
    scale !== 1 || left.size > 0 || planned.steps.some((step) => amounts.get(step.id)?.differs ?? false);
  if (!moved) return planned;
  const steps = layOutAgain(planned, amounts, left, scale);
  const realWaterG = over ? Math.round(pouredG) : waterG;
  const tooMuchG = over ? Math.max(0, realWaterG - waterG) : 0;
  return { ...planned, ...massesOf(planned, scale, realWaterG, tooMuchG), ...timesOf(planned, steps), steps };
}

type Amount = { targetG: number; fromG: number; differs: boolean };
type Spread = {
  amounts: Map<string, Amount>;
  /** Steps that are left out: skipped, or pours whose target was passed. */
  left: Set<string>;
  pouredG: number;
  /** No pour is left, so what was poured is the brew's water. */
  over: boolean;
};

function spread(planned: BrewCard, { marks, skipped }: PourFacts, scale: number, waterG: number): Spread {
  const amounts = new Map<string, Amount>();
  const left = new Set(skipped);
  let ahead: Pour[] = planned.steps
    .filter((step) => step.targetG !== undefined && !skipped.has(step.id))
    .map((step) => ({ step, exactG: step.targetG! * scale }));
  // The brew water is whole grams; the last of all targets is it, whether or not a pour before it is left out.
  const lastG = planned.brewWaterG * scale;
  const reads = (exactG: number) => (exactG === lastG ? waterG : Math.round(exactG));
  let pouredG = 0;
  const set = ({ step }: Pour, targetG: number, reachedG: number) => {
    const differs = targetG !== step.targetG || Math.abs(reachedG - pouredG - step.pourG!) > 1e-9;
    amounts.set(step.id, { targetG, fromG: pouredG, differs });
    pouredG = Math.max(pouredG, reachedG);
  };
  while (ahead.some(({ step }) => marks[step.id]?.doneMs !== undefined)) {
    const [pour, ...rest] = ahead as [Pour, ...Pour[]];
    const mark = marks[pour.step.id];
    ahead = rest;
    if (mark?.doneMs === undefined) {
      left.add(pour.step.id);
      continue;
    }
    // What the card asked for when it was tapped stands, whatever the targets have become since.
    const targetG = mark.targetG ?? reads(pour.exactG);
    set(pour, targetG, mark.readingG ?? targetG);
    ahead = respread(ahead, pouredG, lastG, marks, left);
  }
  for (const pour of ahead) {
    const targetG = Math.max(reads(pour.exactG), Math.ceil(pouredG));
    if (targetG - pouredG < LEAST_POUR_G && !marks[pour.step.id]) left.add(pour.step.id);
    else set(pour, targetG, targetG);
  }
  const over = amounts.size > 0 && ahead.every(({ step }) => left.has(step.id));
  return { amounts, left, pouredG, over };
}

/** The pours after a reading: those that it has passed go, the others share what is left in proportion. */
function respread(
  ahead: Pour[],
  readingG: number,
  waterG: number,
  marks: PourFacts['marks'],
  left: Set<string>,
): Pour[] {
  const passed = ahead.filter(({ step, exactG }) => exactG <= readingG && !marks[step.id]);
  if (passed.length === 0) return ahead;
  for (const { step } of passed) left.add(step.id);
  const fromG = passed.at(-1)!.exactG;
  const share = waterG > fromG ? (waterG - readingG) / (waterG - fromG) : 0;
  return ahead
    .filter((pour) => !passed.includes(pour))
    .map(({ step, exactG }) => ({
      step,
      exactG: exactG === waterG ? waterG : readingG + (exactG - fromG) * share,
    }));
}

/** The steps that are left, each at its new size; what comes after a step that is left out keeps its place on the clock. */
function layOutAgain(
  planned: BrewCard,
  amounts: ReadonlyMap<string, Amount>,
  left: ReadonlySet<string>,
  scale: number,
): CardStep[] {
  const steps: CardStep[] = [];
  let endS = planned.steps[0]!.startS;
  let owedS = 0;
  for (const old of planned.steps) {
    if (left.has(old.id)) {
      owedS += old.lag.idealS + old.durationS;
      continue;
    }
    const step: CardStep = { ...old };
    const amount = amounts.get(old.id);
    if (amount?.differs) setAmount(step, amount);
    // A drawdown grows with its bed.
    if (old.kind === 'drawdown' && scale !== 1)
      step.durationS = Math.ceil(old.durationS * scale ** planned.drawdownExponent - 1e-9);
    // What goes on by itself follows straight on; what is waited for by eye takes what was owed with it.
    if (owedS > 0 && step.attended && step.end !== 'clock') {
      step.lag = later(step.lag, owedS);
      owedS = 0;
    } else if (step.end !== 'clock') owedS = 0;
    step.startS = endS + step.lag.idealS;
    step.endS = step.startS + step.durationS;
    const byS = step.endS - old.endS;
    if (step.cueWindowS && byS !== 0)
      step.cueWindowS = { from: step.cueWindowS.from + byS, to: step.cueWindowS.to + byS };
    if (step.opening && old.opening)
      step.opening = { ...step.opening, untilS: step.startS + openingS(step, amount?.fromG) };
    endS = step.endS;
    steps.push(step);
  }
  return steps;
}

const later = (lag: CardStep['lag'], byS: number): CardStep['lag'] => ({
  ...lag,
  minS: lag.minS + byS,
  idealS: lag.idealS + byS,
  maxS: lag.maxS === null ? null : lag.maxS + byS,
});

function setAmount(step: CardStep, { targetG, fromG }: Amount): void {
  const grown = targetG / step.targetG!;
  step.targetG = targetG;
  step.pourG = Math.max(0, Math.round((targetG - fromG) * 10) / 10);
  if (step.opening) {
    const openingG = Math.round(step.opening.targetG * grown);
    if (openingG > fromG) step.opening = { ...step.opening, targetG: openingG };
    else delete step.opening;
  }
  if (step.paths)
    step.paths = step.paths.map((part) =>
      part.toG === undefined ? part : { ...part, toG: Math.round(part.toG * grown) },
    );
  const restG = step.opening ? targetG - step.opening.targetG : step.pourG;
  step.durationS = Math.max(
    1,
    Math.ceil(openingS(step, fromG) + Math.max(0, restG) / step.flowGPerS! - 1e-9),
  );
}

/** Seconds of a pour's opening, from a reading on. */
const openingS = ({ opening, targetG, pourG }: CardStep, fromG = (targetG ?? 0) - (pourG ?? 0)): number =>
  opening ? Math.ceil(Math.max(0, opening.targetG - fromG) / opening.flowGPerS - 1e-9) : 0;

/** @param tooMuchG brew water beyond the plan: so much of the bypass is left out, as far as there is any */
function massesOf(planned: BrewCard, scale: number, brewWaterG: number, tooMuchG: number) {
  const doseG = Math.round(planned.doseG * scale * 10) / 10;
  const iceG = planned.addition === 'ice' ? planned.additionG : 0;
  const ownBypassG = Math.round((planned.bypassG - iceG) * scale);
  const bypassG = Math.max(0, ownBypassG - tooMuchG) + Math.round(iceG * scale);
  const retainedG = Math.min(planned.retainedG * scale, brewWaterG);
  const beverageG = Math.max(0, Math.round(brewWaterG + bypassG - retainedG - planned.lossG));
  const hundredth = (value: number) => Math.round(value * 100) / 100;
  return {
    doseG,
    brewWaterG,
    bypassG,
    beverageG,
    retainedG: brewWaterG + bypassG - beverageG - planned.lossG,
    drinkG: beverageG + (planned.drinkG - planned.beverageG),
    perCupG: equalShares(beverageG, planned.perCupG.length),
    ratio: hundredth(brewWaterG / doseG),
    finalRatio: hundredth((brewWaterG + bypassG) / doseG),
  };
}

function timesOf(planned: BrewCard, steps: CardStep[]) {
  const brewTimeS = steps.findLast((step) => step.phase === 'brew')?.endS ?? planned.brewTimeS;
  const byS = brewTimeS - planned.brewTimeS;
  const { from, to } = planned.brewWindowS;
  return {
    brewTimeS,
    brewWindowS: { from: from + byS, to: to + byS },
    handsTimeS: steps.reduce((sum, step) => sum + (step.attended ? step.durationS : 0), 0),
    holds: holdsOf(planned, steps),
  };
}

/** A tool that was held to a step that is left out is held to the last one before it that is not. */
function holdsOf(planned: BrewCard, steps: CardStep[]): Hold[] {
  const there = new Set(steps.map(({ id }) => id));
  const nearest = (id: string, direction: 1 | -1) => {
    let index = planned.steps.findIndex((step) => step.id === id);
    while (planned.steps[index] && !there.has(planned.steps[index]!.id)) index += direction;
    return planned.steps[index]?.id ?? id;
  };
  return planned.holds.map((hold) => ({
    ...hold,
    from: nearest(hold.from, 1),
    to: nearest(hold.to, -1),
  }));
}

/** Within this share of the brew water a pour is fine. */
export const FINE_SHARE = 0.02;

/** What a pour came to, against what the card asked for. */
export type PourOutcome = {
  stepId: string;
  verdict: 'fine' | 'over' | 'short';
  /** Reading less target, grams. */
  offG: number;
  /** Names of pours that it has passed, so that they are left out. */
  leftOut: string[];
  /** The last pour is behind: what follows is the brew's real ratio, not a rescue. */
  final: boolean;
  /** Grams of water to a gram of coffee that the brew comes to. */
  ratio: number;
  /**
   * Strength of the drink against the plan's: 1 as planned, above it stronger. What was dissolved is taken as unchanged for
   * the dose, so it goes with 1 / drink, bypass and melted ice counted in (craft 3.11). Null where all of the water would stay
   * in the bed.
   */
  strengthShare: number | null;
  /** So much less bypass, grams, makes the drink as strong as planned again; 0 where there is none to leave out. */
  bypassLessG: number;
  /** The next reading to stop at, grams; null after the last pour. */
  nextTargetG: number | null;
};

/**
 * The outcome of the latest pour whose reading is known; null before there is one.
 * A pour that ends by a cue ends where the cue came, so it is never short.
 */
export function pourOutcome(
  planned: BrewCard,
  card: BrewCard,
  { marks, skipped }: PourFacts,
): PourOutcome | null {
  const pours = planned.steps.filter((step) => step.targetG !== undefined);
  const last = pours.findLast((step) => marks[step.id]?.doneMs !== undefined);
  const mark = last && marks[last.id];
  if (!last || mark?.readingG === undefined) return null;
  const offG = Math.round((mark.readingG - (mark.targetG ?? last.targetG!)) * 10) / 10;
  const next = card.steps.find((step) => step.targetG !== undefined && marks[step.id]?.doneMs === undefined);
  const waterG = next ? card.brewWaterG : mark.readingG;
  const ratio = Math.round((waterG / card.doseG) * 100) / 100;
  const fine = Math.abs(offG) <= FINE_SHARE * card.brewWaterG;
  const there = new Set(card.steps.map(({ id }) => id));
  const after = pours.slice(pours.indexOf(last) + 1);
  const leftOut = after.filter(({ id }) => !there.has(id) && !skipped.has(id)).map(({ name }) => name);
  const short = offG < 0 && last.end !== 'cue';
  return {
    stepId: last.id,
    verdict: fine || (offG < 0 && !short) ? 'fine' : short ? 'short' : 'over',
    offG,
    leftOut,
    final: !next,
    ratio,
    strengthShare: strengthShareOf(planned, card, ratio),
    bypassLessG: next
      ? 0
      : Math.max(0, Math.round((planned.bypassG * card.doseG) / planned.doseG) - card.bypassG),
    nextTargetG: next?.targetG ?? null,
  };
}

/** A beverage counts its bypass and the ice that melts into it. */
function strengthShareOf(planned: BrewCard, card: BrewCard, ratio: number): number | null {
  if (card.beverageG <= 0 || ratio <= planned.retainedG / planned.doseG) return null;
  const share = planned.beverageG / planned.doseG / (card.beverageG / card.doseG);
  return Math.round(share * 1000) / 1000;
}
