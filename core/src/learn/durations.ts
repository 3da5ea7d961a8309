/**
 * How long each kind of attended step really takes a person. Somebody new is taken to be as quick as the bar; the bar,
 * while it knows nothing, as quick as the card says.
 */
import type { StepKind } from '../recipe';
import { quantile } from './statistics';

/** A step that was done, against what its card allowed. */
export type DoneStep = {
  kind: StepKind;
  /** The person, where known. */
  by: string | null;
  plannedS: number;
  realS: number;
};

export type LearntDuration = {
  /** Times the card's length: the median and the middle 80 %. */
  factor: number;
  from: number;
  to: number;
  /** The same in seconds, and the card's own length, each in the middle. */
  medianS: number;
  fromS: number;
  toS: number;
  cardS: number;
  steps: number;
  /** Whose steps these are: the person's own, or the bar's while theirs are too few. */
  whose: 'own' | 'bar';
};

/** Fewer steps than this say nothing yet of a person, or of a bar. */
const FEWEST = 6;
/** Of each kind only the latest count. */
const LATEST = 60;
/** Beyond this it was no step but an interruption, times the card's length. */
const MOST_FACTOR = 4;

/**
 * Kinds whose length is the hands' own. Pours, presses and waits are as long as the recipe wants them, and a drawdown
 * as long as the bed wants it.
 */
export const HANDS_OWN: ReadonlySet<StepKind> = new Set<StepKind>([
  'fill',
  'weigh',
  'grind',
  'set-filter',
  'warm',
  'load',
  'seal',
  'flame',
  'decant',
  'serve',
  'clean',
]);

/** Looks up a kind of step: of a person, or of the bar. Null where nothing is known yet. */
export type Durations = (kind: StepKind, by?: string) => LearntDuration | null;

/** @param steps oldest first */
export function learnDurations(steps: readonly DoneStep[]): Durations {
  const done = new Map<string, DoneStep[]>();
  for (const step of steps) {
    const { kind, by, plannedS, realS } = step;
    const factor = realS / plannedS;
    if (!HANDS_OWN.has(kind) || !(plannedS > 0) || !(factor > 0) || factor > MOST_FACTOR) continue;
    for (const key of by === null ? [kind] : [kind, `${kind} ${by}`])
      done.set(key, [...(done.get(key) ?? []), step].slice(-LATEST));
  }
  const learnt = new Map(
    [...done].filter(([, of]) => of.length >= FEWEST).map(([key, of]) => [key, rangeOf(of)]),
  );
  return (kind, by) => {
    const own = by === undefined ? undefined : learnt.get(`${kind} ${by}`);
    if (own) return { ...own, whose: 'own' };
    const bar = learnt.get(kind);
    return bar ? { ...bar, whose: 'bar' } : null;
  };
}

function rangeOf(steps: readonly DoneStep[]) {
  const factors = steps.map(({ plannedS, realS }) => realS / plannedS);
  const real = steps.map(({ realS }) => realS);
  return {
    factor: quantile(factors, 0.5),
    from: quantile(factors, 0.1),
    to: quantile(factors, 0.9),
    medianS: quantile(real, 0.5),
    fromS: quantile(real, 0.1),
    toS: quantile(real, 0.9),
    cardS: quantile(
      steps.map(({ plannedS }) => plannedS),
      0.5,
    ),
    steps: steps.length,
  };
}
