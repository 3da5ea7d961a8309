/**
 * What a step is for, whatever it is called: a recipe that people wrote has names and ids of its own.
 */
import type { CardStep } from './lay-out';
import type { MethodId } from './recipe';

/** Of a siphon: the top is closed; the water heats, then rises; the coffee is drawn down. */
export type StepRole = 'seal' | 'watch-water' | 'draw-down';

export function roleOf(method: MethodId, { kind, end, phase }: CardStep): StepRole | null {
  if (method !== 'siphon') return null;
  if (kind === 'seal') return 'seal';
  if (kind === 'watch') return 'watch-water';
  return kind === 'settle' && end === 'cue' && phase === 'brew' ? 'draw-down' : null;
}
