/**
 * The state of a brew at a moment: which steps are over, which is running and when the others are due. Steps that end by
 * the clock end here, so they need no tap and are never stored or sent.
 */
import type { CardStep } from '../recipe';
import type { BrewState } from './state';

export type StepStatus = 'done' | 'running' | 'waiting' | 'skipped';

export type StepTime = {
  step: CardStep;
  status: StepStatus;
  /** The real time if it is known, else the time at which it is due by the card's rhythm, milliseconds of bar time. */
  startMs: number;
  endMs: number;
  /** The start was not tapped: it is worked out from the tap at the end and the step's usual length. */
  startInferred: boolean;
};

/** A step that runs by itself, whose start nobody has to tap. A drawdown does, even if the hands have to stay. */
export const beginsByItself = (step: CardStep): boolean =>
  !step.attended || step.end === 'clock' || step.kind === 'drawdown';

/** The steps of a brew as they stand at a moment, in order. */
export function timelineAt(brew: BrewState, nowMs: number): StepTime[] {
  const { steps } = brew.card;
  const lastMarked = steps.findLastIndex((step) => brew.marks[step.id] !== undefined);
  const times: StepTime[] = [];
  let previousEndMs = brew.startedMs;
  let open = false;

  steps.forEach((step, index) => {
    const time = open
      ? expected(step, previousEndMs)
      : index < lastMarked || brew.marks[step.id]
        ? marked(brew, index, previousEndMs)
        : atFrontier(step, previousEndMs, nowMs, index === 0);
    if (time.status !== 'done') {
      if (brew.abandoned) Object.assign(time, abandonedStep(step, brew.abandoned.atMs));
      open = true;
    }
    times.push(time);
    // A step that waits or overruns pushes what follows it along with now.
    previousEndMs = time.status === 'done' ? time.endMs : Math.max(time.endMs, pushedEndMs(time, nowMs));
  });
  return times;
}

/** Bar time of the timer's zero, if the brew has come to it. */
export function anchorMs(brew: BrewState, nowMs: number): number | null {
  const time = timelineAt(brew, nowMs).find(({ step }) => step.anchor !== undefined);
  if (!time || time.status === 'waiting' || time.status === 'skipped') return null;
  if (time.step.anchor === 'start') return time.startMs;
  return time.status === 'done' ? time.endMs : null;
}

/** How long a brew took from its anchor to its end mark, and by how much that may be off either way, milliseconds. */
export type BrewTime = { ms: number; plusMinusMs: number };

/**
 * The brew's time; null before its end mark, or if nobody tapped it. If the end was asked for late, it is between the last
 * time at which the step was surely not over and the tap.
 */
export function brewTimeOf(brew: BrewState): BrewTime | null {
  const times = timelineAt(brew, brew.lastMs);
  const anchor = times.find(({ step }) => step.anchor !== undefined);
  const end = times.findLast(({ step }) => step.phase === 'brew');
  if (!anchor || anchor.status !== 'done' || !end || end.status !== 'done') return null;
  const mark = brew.marks[end.step.id];
  if (end.step.end === 'cue' && mark?.doneMs === undefined) return null;
  const zeroMs = anchor.step.anchor === 'start' ? anchor.startMs : anchor.endMs;
  const doubtMs =
    mark?.notOverMs === undefined ? 0 : Math.max(0, end.endMs - Math.max(mark.notOverMs, zeroMs));
  return { ms: end.endMs - zeroMs - doubtMs / 2, plusMinusMs: doubtMs / 2 };
}

/** A time with more doubt than this is shown, but nothing is learnt from it, milliseconds. */
const SURE_MS = 5000;

/** The brew's time where it is sure enough to learn from, milliseconds; null otherwise. */
export function brewTimeMs(brew: BrewState): number | null {
  const time = brewTimeOf(brew);
  return time && time.plusMinusMs <= SURE_MS ? time.ms : null;
}

/** What the scale should read by the card after all pours so far, or the last reading that was entered, grams. */
export function pouredG(brew: BrewState): number {
  const last = brew.card.steps.findLast(
    (step) => step.targetG !== undefined && brew.marks[step.id]?.doneMs !== undefined,
  );
  return last ? (brew.marks[last.id]?.readingG ?? last.targetG ?? 0) : 0;
}

/** A step with a mark of its own, or with one after it, which closes it. */
function marked(brew: BrewState, index: number, previousEndMs: number): StepTime {
  const step = brew.card.steps[index]!;
  const mark = brew.marks[step.id];
  const lengthMs = step.durationS * 1000;
  if (mark?.doneMs !== undefined) {
    const endMs = mark.doneMs;
    const inferredMs = beginsByItself(step) ? previousEndMs : Math.max(previousEndMs, endMs - lengthMs);
    return {
      step,
      status: 'done',
      startMs: mark.begunMs ?? Math.min(inferredMs, endMs),
      endMs,
      startInferred: mark.begunMs === undefined,
    };
  }
  if (mark?.begunMs !== undefined) {
    return {
      step,
      status: 'running',
      startMs: mark.begunMs,
      endMs: mark.begunMs + lengthMs,
      startInferred: false,
    };
  }
  const limitMs = Math.max(previousEndMs, nextMarkedStartMs(brew, index));
  const endMs = step.end === 'clock' ? Math.min(previousEndMs + lengthMs, limitMs) : limitMs;
  return { step, status: 'done', startMs: previousEndMs, endMs, startInferred: true };
}

function nextMarkedStartMs(brew: BrewState, index: number): number {
  const next = brew.card.steps.slice(index + 1).find((step) => brew.marks[step.id] !== undefined)!;
  const mark = brew.marks[next.id]!;
  return mark.begunMs ?? mark.doneMs! - next.durationS * 1000;
}

/** The step that comes next. A brew's first step is begun by starting the brew. */
function atFrontier(step: CardStep, previousEndMs: number, nowMs: number, first: boolean): StepTime {
  const time = expected(step, previousEndMs);
  if (first) return { ...time, status: 'running', startInferred: false };
  if (!beginsByItself(step)) return time;
  const over = step.end === 'clock' && time.endMs <= nowMs;
  return { ...time, status: over ? 'done' : 'running' };
}

function expected(step: CardStep, previousEndMs: number): StepTime {
  const startMs = previousEndMs + step.lag.idealS * 1000;
  return { step, status: 'waiting', startMs, endMs: startMs + step.durationS * 1000, startInferred: true };
}

const abandonedStep = (step: CardStep, atMs: number): Partial<StepTime> =>
  step.kind === 'clean'
    ? { startMs: atMs, endMs: atMs + step.durationS * 1000, status: 'waiting' }
    : { status: 'skipped' };

/** When an unfinished step can be over at the soonest. */
function pushedEndMs(time: StepTime, nowMs: number): number {
  if (time.status === 'skipped') return 0;
  return time.status === 'running' ? nowMs : Math.max(time.startMs, nowMs) + time.step.durationS * 1000;
}
