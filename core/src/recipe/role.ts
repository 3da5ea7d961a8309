/**
 * What a step is for, whatever it is called: a recipe that people wrote has names and ids of its own.
 */
import type { CardStep } from './lay-out';
import { METHODS } from './methods';
import type { MethodId } from './recipe';

/** The flame is lit; and of a globe: its top is closed, the water heats and then rises, the coffee is drawn down. */
export type StepRole = 'light' | 'seal' | 'watch-water' | 'draw-down';

export function roleOf(method: MethodId, { kind, end, phase, checkC }: CardStep): StepRole | null {
  // A flame that is lowered to a temperature burns already.
  if (kind === 'flame' && phase === 'prep' && !checkC) return 'light';
  if (METHODS[method].heatedIn !== 'globe') return null;
  if (kind === 'seal') return 'seal';
  if (kind === 'watch') return 'watch-water';
  return kind === 'settle' && end === 'cue' && phase === 'brew' ? 'draw-down' : null;
}
