/** Schools of the pressure pot: driven by what is seen, and watched. How long it heats follows the mass of its water. */
import type { Recipe } from '../../recipe';
import { BURNS, PRESSURE, STOVE, beans, flameHolds, handStep, passive, potFinish } from '../parts';

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

/** Denser still: a low hill in the basket, which the lid levels as it is screwed on. */
export const potHeaped: Recipe = {
  ...potPressure,
  cautions: [...potPressure.cautions],
  id: 'pot-heaped',
  version: 1,
  name: 'Stove-top pressure pot, heaped',
  why: 'A fuller basket in the same pot: denser still.',
  otherwise: 'Others fill it level: it runs more easily.',
  bed: 'heaped',
  refDoseG: 18.4,
  // The same cup from a basket that holds 15 % more.
  ratio: 8.44,
  grindBand: 62,
  steps: potPressure.steps.map((step) =>
    step.id === 'load'
      ? {
          ...step,
          name: 'Basket heaped, joint dry and tight',
          hint: 'A loose hill, never packed.',
          mistake: 'Tamping the basket: never, or the valve must let it out.',
        }
      : step,
  ),
};
