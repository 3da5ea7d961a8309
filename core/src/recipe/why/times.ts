/**
 * Why so long: the brew, and the hands in it.
 */
import { referenceOf } from '../lay-out';
import { METHODS } from '../methods';
import { doseOf, input, type Teller } from './derivation';

export const brewTimeS: Teller = (at) => {
  const { recipe, card } = at;
  const method = METHODS[recipe.method];
  const draining = card.steps.some((step) => step.kind === 'drawdown');
  const from = `from ${method.anchorMark} to ${method.endMark}`;
  const start = card.steps.find((step) => step.anchor)!;
  const end = card.steps.findLast((step) => step.phase === 'brew')!;
  const anchorS = start.anchor === 'end' ? start.endS : start.startS;
  if (!draining)
    return {
      name: 'Brew time',
      unit: 's',
      formula: 'end − start',
      inputs: [
        input('end', `End of “${end.name}”`, end.endS, 's', 'derived'),
        input(
          'start',
          `${start.anchor === 'end' ? 'End' : 'Start'} of “${start.name}”`,
          anchorS,
          's',
          'recipe',
        ),
      ],
      note: `Counted ${from}.`,
    };
  const { lastPourEndS } = referenceOf(recipe);
  const middleS = (recipe.endWindowS.from + recipe.endWindowS.to) / 2;
  const lastPour = card.steps.findLast((step) => step.kind === 'pour')!;
  const drain = at.place.brewer?.drainShare ?? 1;
  return {
    name: 'Brew time',
    unit: 's',
    formula: `poured + max(swirled, ceil(${drain === 1 ? '' : 'drain × '}(dry − ref) × (dose ÷ refDose) ^ p))`,
    inputs: [
      input('poured', 'End of the last pour', lastPour.endS, 's', 'derived'),
      input(
        'swirled',
        'Moves after it',
        card.steps.find((step) => step.kind === 'drawdown')!.startS - lastPour.endS + 1,
        's',
        'recipe',
      ),
      input('dry', 'Middle of the recipe’s window', middleS, 's', 'recipe'),
      input('ref', 'End of its last pour at the reference dose', lastPourEndS, 's', 'derived'),
      ...(drain === 1 ? [] : [input('drain', 'How long this brewer drains', drain, '×', 'brewer')]),
      doseOf(at),
      input('refDose', 'Reference dose', recipe.refDoseG, 'g', 'recipe'),
      input(
        'p',
        'How drawdown grows with the dose',
        at.place.drawdownExponent ?? method.drawdownExponent!,
        '',
        at.place.drawdownExponent === undefined ? 'default' : 'log',
      ),
    ],
    note: `Counted ${from}. The log’s own drawdowns replace p when there are enough of them.`,
  };
};

export const handsTimeS: Teller = (at) => ({
  name: 'Hands time',
  unit: 's',
  formula: PHASES_OF.join(' + '),
  inputs: PHASES_OF.map((phase) =>
    input(
      phase,
      `Attended steps: ${phase}`,
      at.card.steps.reduce(
        (sum, step) => sum + (step.attended && step.phase === phase ? step.durationS : 0),
        0,
      ),
      's',
      'default',
    ),
  ),
  note: 'Each person’s own times replace the defaults when the log has enough of them.',
});

const PHASES_OF = ['prep', 'brew', 'finish', 'clean'] as const;
