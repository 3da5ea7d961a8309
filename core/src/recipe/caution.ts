/**
 * Which caution belongs before a step.
 */
import type { CardStep } from './lay-out';
import { METHODS } from './methods';
import type { CautionId } from './methods/caution-words';
import type { MethodId } from './recipe';
import { roleOf } from './role';

/** Which caution a step asks for; null for most. */
export function cautionFor(step: CardStep, method: MethodId): CautionId | null {
  if (step.kind === 'plunge' || step.kind === 'dip') return 'plunge';
  if (step.kind === 'press') return 'press';
  // A flame is cautioned of as it is lit, not whenever a hand goes to it.
  if (step.kind === 'flame' && roleOf(method, step) !== 'light') return null;
  return METHODS[method].cautions[step.kind] ?? null;
}
