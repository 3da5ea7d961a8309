/** The two stove-top pots: driven by what is seen, and watched. How long they heat follows the mass of their water. */
import type { Recipe } from '../recipe';
import { BURNS, PRESSURE, STOVE, beans, flameHolds, handStep, passive, potFinish } from './parts';

export const potPressure: Recipe = {
  id: 'pot-pressure',
  version: 2,
  method: 'pressure-pot',
  name: 'Stove-top pressure pot',
  why: 'Dense and small; what a guest knows from home, made with care.',
  otherwise: 'Others start from cold water: slower, and the coffee is hot for longer before it brews.',
  suits: ['heavy'],
  filter: 'metal basket',
  bed: 'level',
  refDoseG: 16,
  ratio: 9.5,
  bypassTimesDose: 0,
  grindBand: 66,
  waterC: 70,
  waterIs: 'to start with',
  endWindowS: { from: 165, to: 315 },
  steps: [
    handStep('fill', 'fill', 'Water into the pot, to below the valve', 12, 'filled', {
      phase: 'prep',
      hint: 'Always filled whole.',
    }),
    ...beans,
    handStep('load', 'load', 'Basket level, joint dry and tight', 8, 'closed tight', {
      phase: 'prep',
      hint: 'Level, never packed.',
      mistake: 'Tamping the basket: never, or the valve must let it out.',
    }),
    handStep('flame', 'flame', 'On the flame', 4, 'flame on', {
      phase: 'prep',
      anchor: 'end',
      window: { earlyS: 0, lateS: 60, penalty: 0.05 },
      hint: 'No wider than the base.',
    }),
    passive(
      'heat',
      'watch',
      'Heating',
      { sAtRef: 180 },
      {
        end: { by: 'cue', cue: 'first flow' },
        cueWindow: { earlyS: 60, lateS: 90 },
      },
    ),
    handStep('lower', 'flame', 'Lower the flame', 4, 'lowered', {
      window: { earlyS: 0, lateS: 5, penalty: 2 },
    }),
    handStep('watch', 'watch', 'Watch the stream', 46, 'sputter', {
      lasts: { sAtRef: 46 },
      window: { earlyS: 0, lateS: 5, penalty: 2 },
      cueWindow: { earlyS: 65, lateS: 85 },
    }),
    handStep('off', 'flame', 'Off; cool the base under a cold cloth', 8, 'quiet', {
      phase: 'finish',
      window: { earlyS: 0, lateS: 3, penalty: 2 },
    }),
    ...potFinish.filter(({ kind }) => kind !== 'clean'),
    passive('cool', 'cool', 'Pot cooling', { s: 120 }, { phase: 'clean' }),
    handStep('clean', 'clean', 'Unscrew, empty, rinse', 20, 'station ready', {
      phase: 'clean',
      hint: 'Only once no steam comes.',
    }),
  ],
  holds: flameHolds('fill', 'flame', 'off'),
  cautions: [BURNS, ...STOVE, ...PRESSURE],
};

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
