/** Schools of the long-handled pot: driven by what is seen, and watched. How long it heats follows the mass of its water. */
import type { Recipe } from '../../recipe';
import { BURNS, STOVE, beans, flameHolds, handStep, passive, potFinish } from '../parts';

export const potFoam: Recipe = {
  id: 'pot-foam',
  version: 2,
  method: 'foam-pot',
  name: 'Long-handled pot, foam shared',
  why: 'Thick and small, with its foam; made in front of the guest.',
  otherwise: 'Others let the foam rise two or three times; this one lifts once and shares it.',
  suits: ['heavy'],
  filter: 'none: the grounds settle in the cup',
  bed: 'none',
  refDoseG: 8,
  ratio: 9,
  bypassTimesDose: 0,
  grindBand: 96,
  waterC: 20,
  waterIs: 'to start with',
  endWindowS: { from: 165, to: 300 },
  steps: [
    handStep('fill', 'fill', 'Cool water into the pot', 12, 'weighed in', {
      phase: 'prep',
      hint: 'From the cold tap, not from the kettle.',
    }),
    ...beans,
    handStep('stir', 'stir', 'Coffee into cool water, stir', 20, 'stirred', {
      phase: 'prep',
      hint: 'Sugar goes in now, if it was ordered.',
    }),
    handStep('flame', 'flame', 'On the smallest flame', 4, 'flame on', { phase: 'prep', anchor: 'end' }),
    passive('heat', 'settle', 'Warming', { sAtRef: 120 }),
    handStep('watch', 'watch', 'Watch the foam', 90, 'foam closes the ring', {
      lasts: { sAtRef: 90 },
      window: { earlyS: 0, lateS: 20, penalty: 2 },
      cueWindow: { earlyS: 45, lateS: 90 },
      mistake: 'Letting it boil: the foam is lost. Lift as the ring closes.',
    }),
    handStep('share', 'decant', 'Lift, share the foam', 8, 'foam shared', {
      phase: 'finish',
      window: { earlyS: 0, lateS: 3, penalty: 2 },
    }),
    passive('settle', 'settle', 'Grounds settling', { s: 60 }, { phase: 'finish' }),
    ...potFinish.map((step) => (step.kind === 'serve' ? { ...step, name: 'Cup, hand over' } : step)),
  ],
  holds: flameHolds('fill', 'flame', 'share'),
  cautions: [BURNS, ...STOVE],
};
