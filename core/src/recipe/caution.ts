/**
 * Which caution belongs before a step.
 */
import type { CardStep } from './lay-out';
import { METHODS } from './methods';
import type { CautionId } from './methods/caution-words';
import type { MethodId, Recipe } from './recipe';
import type { RoastLevel } from './temperature';
import { roleOf } from './role';

/** Water of less than this is cool, degrees Celsius. */
export const COOL_C = 40;

/** What is said where a coffee and a recipe do not suit each other; null for most. */
export const roastCaution = ({ steps }: Pick<Recipe, 'steps'>, roast: RoastLevel): string | null =>
  (roast === 'light' || roast === 'very light') && steps.some(({ pour }) => (pour?.waterC ?? COOL_C) < COOL_C)
    ? `A ${roast} roast gives little to a cool bloom and easily tastes sour: this recipe is meant for medium and darker roasts.`
    : null;

/** Which caution a step asks for; null for most. */
export function cautionFor(step: CardStep, method: MethodId): CautionId | null {
  if (step.kind === 'plunge' || step.kind === 'dip') return 'plunge';
  if (step.kind === 'press') return 'press';
  // A flame is cautioned of as it is lit, not whenever a hand goes to it.
  if (step.kind === 'flame' && roleOf(method, step) !== 'light') return null;
  return METHODS[method].cautions[step.kind] ?? null;
}
