/**
 * Why an event of a brew cannot be: what its steps, its station and its card have to say.
 */
import type { CardStep } from '../recipe';
import type { Refusal } from './applied';
import type {
  BrewEvent,
  BrewGiven,
  BrewMoved,
  BrewServed,
  BrewStarted,
  DoseCorrected,
  StepBegun,
  StepCorrected,
  StepDone,
  StepSkipped,
} from './events';
import type { CupsMoved } from './order-events';
import { brewAt, holdsStation, type BarState, type BrewState } from './state';
import { beginsByItself } from './timeline';

export const NOT_HANDED_OVER: Refusal = {
  code: 'step-not-next',
  field: 'brewId',
  reason: 'A cup is tasted once it has been handed over.',
};

/** Null where nothing speaks against it. */
export function refusalOf(
  state: BarState,
  brew: BrewState,
  event: Exclude<BrewEvent, BrewStarted | BrewGiven | CupsMoved>,
): Refusal | null {
  switch (event.type) {
    case 'brew-abandoned':
      return running(brew, 'be given up');
    case 'dose-corrected':
      return running(brew, 'change its dose') ?? badDose(brew, event);
    case 'brew-moved':
      return cannotMove(state, brew, event);
    case 'brew-noted':
      return null;
    case 'cup-tasted':
      return brew.servedMs === undefined ? NOT_HANDED_OVER : null;
    case 'step-taken':
      return running(brew, 'change hands') ?? notAhead(brew, event.stepId);
    case 'step-skipped':
      return running(brew, 'leave a step out') ?? cannotSkip(brew, event);
    case 'step-corrected':
      return cannotCorrect(brew, event);
    default:
      return cannotTake(brew, event);
  }
}

function running(brew: BrewState, what: string): Refusal | null {
  if (brew.status === 'running') return null;
  return {
    code: 'already-done',
    field: 'brewId',
    reason: `The brew is ${brew.status} already, so it cannot ${what}.`,
  };
}

/** Further from the card than this and it is another brew, not a dose to correct. */
const DOSE_FACTOR = 1.5;

function badDose({ planned }: BrewState, { doseG }: DoseCorrected): Refusal | null {
  const [least, most] = [planned.doseG / DOSE_FACTOR, planned.doseG * DOSE_FACTOR];
  if (doseG >= least && doseG <= most) return null;
  return {
    code: 'not-fitting',
    field: 'doseG',
    reason: `The card says ${planned.doseG} g; a dose from ${least.toFixed(1)} to ${most.toFixed(1)} g can still be brewed with this card. For another dose, stop this brew and start the cup again.`,
  };
}

function cannotMove(state: BarState, brew: BrewState, { stationId, stationName }: BrewMoved): Refusal | null {
  if (!holdsStation(brew))
    return { code: 'already-done', field: 'brewId', reason: 'The brew is no longer at a station.' };
  const holder = brewAt(state, stationId);
  if (!holder) return null;
  const reason =
    holder.id === brew.id ? 'The brew is there already.' : `${stationName} is held by another brew.`;
  return { code: holder.id === brew.id ? 'already-done' : 'station-busy', field: 'stationId', reason };
}

/** A step that still lies ahead, or why it does not. */
function notAhead(brew: BrewState, stepId: string): Refusal | null {
  const index = brew.card.steps.findIndex((step) => step.id === stepId);
  const step = brew.card.steps[index];
  if (!step) return noSuchStep(brew, stepId, 'stepId');
  const passed = brew.card.steps.slice(index + 1).some((later) => brew.marks[later.id] !== undefined);
  if (!passed && brew.marks[stepId]?.doneMs === undefined) return null;
  return { code: 'already-done', field: 'stepId', reason: `“${step.name}” has been done already.` };
}

function cannotSkip(brew: BrewState, { stepId }: StepSkipped): Refusal | null {
  const refusal = notAhead(brew, stepId);
  if (refusal) return refusal;
  const step = brew.card.steps.find(({ id }) => id === stepId)!;
  const needed =
    step.anchor !== undefined || step.kind === 'serve' || step.kind === 'clean' || !step.attended;
  if (!needed && !brew.marks[stepId]) return null;
  return {
    code: 'step-not-next',
    field: 'stepId',
    reason: needed
      ? `“${step.name}” cannot be left out.`
      : `“${step.name}” has been begun; say that it is done, with what the scale reads.`,
  };
}

/** A correction stays between what was done before and after it, and behind now. */
function cannotCorrect(
  brew: BrewState,
  { stepId, begunMs, doneMs, readingG, atMs }: StepCorrected,
): Refusal | null {
  const mark = brew.marks[stepId];
  const index = brew.planned.steps.findIndex((step) => step.id === stepId);
  const step = brew.planned.steps[index];
  if (!step) return noSuchStep(brew, stepId, 'stepId');
  if (mark?.doneMs === undefined)
    return {
      code: 'step-not-next',
      field: 'stepId',
      reason: `“${step.name}” is not done; there is nothing to correct.`,
    };
  if (readingG !== undefined && step.targetG === undefined)
    return {
      code: 'not-fitting',
      field: 'readingG',
      reason: `“${step.name}” pours nothing, so it has no reading.`,
    };
  const marked = (steps: typeof brew.planned.steps) =>
    steps.map(({ id }) => brew.marks[id]).filter((each) => each !== undefined);
  const before = marked(brew.planned.steps.slice(0, index)).at(-1);
  const after = marked(brew.planned.steps.slice(index + 1))[0];
  const fromMs = before?.doneMs ?? brew.startedMs;
  const toMs = after?.begunMs ?? after?.doneMs ?? atMs;
  const begins = begunMs ?? mark.begunMs;
  const ends = doneMs ?? mark.doneMs;
  if ((begins ?? fromMs) >= fromMs && ends <= toMs && (begins ?? ends) <= ends && ends >= fromMs) return null;
  return {
    code: 'out-of-time',
    field: begunMs === undefined ? 'doneMs' : 'begunMs',
    reason: `“${step.name}” must stay between the steps before and after it. Enter a time between theirs.`,
  };
}

function noSuchStep(brew: BrewState, stepId: string, field: string): Refusal {
  const left = brew.planned.steps.find(({ id }) => id === stepId);
  if (left) return { code: 'already-done', field, reason: `“${left.name}” has been left out of this brew.` };
  return {
    code: 'unknown',
    field,
    reason: `This recipe has no such step; it has ${brew.card.steps.map(({ id }) => id).join(', ')}.`,
  };
}

function cannotTake(brew: BrewState, event: StepBegun | StepDone | BrewServed): Refusal | null {
  const steps = brew.card.steps;
  const serving = event.type === 'brew-served';
  const index = steps.findIndex((step) => (serving ? step.kind === 'serve' : step.id === event.stepId));
  const step = steps[index];
  const field = serving ? 'brewId' : 'stepId';
  if (!step) return noSuchStep(brew, serving ? 'serve' : event.stepId, field);
  if (step.kind === 'serve' && !serving)
    return { code: 'step-not-next', field, reason: 'Use the event brew-served for the hand-over.' };
  if (brew.abandoned && (step.kind !== 'clean' || !holdsStation(brew)))
    return { code: 'already-done', field: 'brewId', reason: 'The brew has been stopped.' };

  const mark = brew.marks[step.id];
  const laterMarked = steps.slice(index + 1).some((later) => brew.marks[later.id] !== undefined);
  if (mark?.doneMs !== undefined || laterMarked || (event.type === 'step-begun' && mark)) {
    return { code: 'already-done', field, reason: `“${step.name}” has been done already.` };
  }
  if (event.type === 'step-begun' && beginsByItself(step)) {
    return { code: 'step-not-next', field, reason: `“${step.name}” begins by itself, so it needs no tap.` };
  }
  if (brew.abandoned) return null;
  // Who hands a cup over has taken its filter off, said or not.
  const implied = (earlier: CardStep) => earlier.phase === 'finish' && earlier.kind !== 'serve';
  const missing = steps
    .slice(0, index)
    .find(
      (earlier) =>
        !beginsByItself(earlier) && !implied(earlier) && brew.marks[earlier.id]?.doneMs === undefined,
    );
  if (missing) return { code: 'step-not-next', field, reason: `Do “${missing.name}” first.` };
  return null;
}
