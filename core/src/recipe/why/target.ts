/**
 * Why a pour ends at its reading.
 */
import { doseOf, input, waterOf, type Case, type Derivation } from './derivation';

export function targetWhy(at: Case, stepId: string): Derivation | null {
  const { card, recipe } = at;
  const step = card.steps.find((each) => each.id === stepId);
  if (!step || step.targetG === undefined) return null;
  const before = input('before', 'Reading before', step.targetG - step.pourG!, 'g', 'derived');
  const told = { name: `Reading after “${step.name}”`, value: step.targetG, unit: 'g' };
  const amount = recipe.steps.find((each) => each.id === stepId)?.pour?.amount;
  const ROUNDED = 'What rounding leaves goes to the last of the largest pours, so that all add up.';
  const plain: Derivation = {
    ...told,
    formula: 'before + pour',
    inputs: [before, input('pour', 'This pour', step.pourG!, 'g', 'derived')],
  };
  if (!amount)
    return {
      ...plain,
      note: `One part of a pour that would rise over the rim of the ${at.place.brewer?.name ?? 'brewer'}.`,
    };
  const derived: Derivation =
    'timesDose' in amount
      ? {
          ...told,
          formula: 'before + round(times × dose, 0)',
          inputs: [before, input('times', 'Times the dose', amount.timesDose, 'g/g', 'recipe'), doseOf(at)],
        }
      : 'toShare' in amount
        ? {
            ...told,
            formula: 'round(share × water, 0)',
            inputs: [input('share', 'Share of the brew water', amount.toShare, '', 'recipe'), waterOf(at)],
          }
        : 'restParts' in amount
          ? {
              ...told,
              formula: 'before + round((water − before) ÷ parts, 0)',
              inputs: [
                before,
                waterOf(at),
                input('parts', 'Equal parts that are left', amount.restParts, '', 'recipe'),
              ],
            }
          : {
              ...told,
              formula: 'before + fixed',
              inputs: [before, input('fixed', 'Fixed amount', amount.g, 'g', 'recipe')],
            };
  return { ...derived, note: ROUNDED };
}
