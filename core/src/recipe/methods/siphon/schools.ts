/** Schools of the siphon. */
import type { Recipe, RecipeStep } from '../../recipe';
import {
  BURNS,
  FLAME,
  beans,
  beansMeanwhile,
  flameHolds,
  handStep,
  passive,
  siphonFinish,
  siphonPrep,
} from '../parts';

const siphon = {
  version: 1,
  method: 'siphon',
  filter: 'cloth on a spring hook, or a paper disc',
  bed: 'none',
  bypassTimesDose: 0,
} as const satisfies Partial<Recipe>;

const LIT_S = 5;
/** The top is sealed as the water begins to rise. */
const SEAL_S = 5;

const light = handStep('flame', 'flame', 'Light the flame', LIT_S, 'flame on', {
  phase: 'prep',
  hint: 'Chain in place; the top set in loosely.',
  mistake: 'Heating an empty or wet globe: it breaks.',
});
const heating = passive(
  'heat',
  'watch',
  'Water heating',
  { globe: 'near boiling' },
  {
    phase: 'prep',
    end: { by: 'cue', cue: 'near boiling' },
    cueWindow: { earlyS: 35, lateS: 70 },
  },
);
const seal = handStep('seal', 'seal', 'Seal the top gently', SEAL_S, 'sealed', {
  phase: 'prep',
  window: { earlyS: 0, lateS: 20, penalty: 0.3 },
});
const rising = passive(
  'rise',
  'watch',
  'Water rising',
  { globe: 'rise' },
  {
    phase: 'prep',
    end: { by: 'cue', cue: 'risen' },
    cueWindow: { earlyS: 35, lateS: 70 },
  },
);
/** Up to the water standing above, at its temperature. */
const waterFirst = (checkC: { from: number; to: number }): RecipeStep[] => [
  ...siphonPrep,
  light,
  heating,
  seal,
  ...beansMeanwhile,
  rising,
  handStep('lower', 'flame', 'Lower the flame, check the top', 8, 'steady', {
    phase: 'prep',
    checkC,
    window: { earlyS: 0, lateS: 20, penalty: 0.3 },
    hint: 'Too hot: stir air in or lower the flame. Too cool: cover it.',
  }),
];
/** The flame does not wait: what is late here overcooks. */
const ON_THE_FLAME = { earlyS: 3, lateS: 8, penalty: 2 };
const coffeeIn = (name: string, lengthS: number, stirs?: number): RecipeStep =>
  handStep('coffee-in', 'stir', name, lengthS, 'all wetted', {
    anchor: 'start',
    window: { earlyS: 0, lateS: 20, penalty: 0.3 },
    ...(stirs ? { stirs } : {}),
  });
const flameOff = (name: string, atS: number, lengthS: number, stirs?: number): RecipeStep =>
  handStep('flame-off', 'flame', name, lengthS, 'flame off', {
    start: { atS },
    window: ON_THE_FLAME,
    ...(stirs ? { stirs } : {}),
  });
const down = (lengthS: number, earlyS: number, lateS: number): RecipeStep =>
  passive(
    'down',
    'settle',
    'Drawing down',
    { s: lengthS },
    {
      end: { by: 'cue', cue: 'final bubbling' },
      cueWindow: { earlyS, lateS },
    },
  );

export const siphonLate: Recipe = {
  ...siphon,
  version: 2,
  id: 'siphon-late',
  name: 'Coffee when the water has settled',
  why: 'Full yet clean; the temperature is known before the coffee meets it.',
  otherwise: 'Others put the coffee in first: the water wets it on its way up, but how hot is less known.',
  suits: ['rich', 'clear', 'to share'],
  refDoseG: 26,
  ratio: 15,
  grindBand: 54,
  waterC: 92,
  waterIs: 'in the top',
  endWindowS: { from: 93, to: 123 },
  steps: [
    ...waterFirst({ from: 91, to: 94 }),
    coffeeIn('Coffee in, press under, stir 6', 12, 6),
    passive('steep', 'settle', 'Steeping', { untilS: 50 }),
    flameOff('Stir 4, flame off', 50, 8, 4),
    down(50, 15, 15),
    ...siphonFinish,
  ],
  holds: flameHolds('set-filter', 'flame', 'flame-off'),
  cautions: [BURNS, ...FLAME],
};

export const siphonSlow: Recipe = {
  ...siphon,
  version: 2,
  id: 'siphon-slow',
  name: 'Longer and calmer',
  why: 'Rounder and sweeter than the quick one; forgiving of a coarser grind.',
  otherwise: 'Others keep it under a minute on the flame, for a brighter cup.',
  suits: ['rich', 'sweet', 'to share'],
  refDoseG: 24,
  ratio: 14,
  grindBand: 48,
  waterC: 90,
  waterIs: 'in the top',
  endWindowS: { from: 160, to: 195 },
  steps: [
    ...waterFirst({ from: 89, to: 92 }),
    coffeeIn('Coffee in, stir 14', 20, 14),
    passive(
      'steep',
      'settle',
      'Steeping on the lowest flame',
      { untilS: 110 },
      {
        hint: 'The lowest flame that holds the water up.',
      },
    ),
    flameOff('Flame off, stir 3', 110, 6, 3),
    // Counted from the flame going off, at the step's start.
    { ...down(59, 15, 20), lasts: { untilS: 175 } },
    ...siphonFinish,
  ],
  holds: flameHolds('set-filter', 'flame', 'flame-off'),
  cautions: [BURNS, ...FLAME],
};

export const siphonEarly: Recipe = {
  ...siphon,
  id: 'siphon-early',
  name: 'Coffee waits above',
  why: 'Fewest moves: the water rises into the coffee by itself.',
  otherwise: 'Others add the coffee when the water has settled, to know its temperature.',
  suits: ['rich', 'to share'],
  refDoseG: 25,
  ratio: 15.2,
  grindBand: 50,
  waterC: 92,
  waterIs: 'still rising',
  endWindowS: { from: 105, to: 135 },
  steps: [
    ...beans,
    ...siphonPrep,
    handStep('load', 'load', 'Coffee in the top, dry; seal it', 10, 'sealed', { phase: 'prep' }),
    light,
    passive(
      'rise',
      'watch',
      'Water heating and rising',
      { globe: 'both' },
      {
        phase: 'prep',
        end: { by: 'cue', cue: 'coffee is wetted' },
        cueWindow: { earlyS: 35, lateS: 70 },
      },
    ),
    coffeeIn('Press all under', 12),
    passive('steep', 'settle', 'Steeping', { untilS: 50 }),
    flameOff('Stir, flame off', 50, 10),
    down(60, 15, 15),
    ...siphonFinish,
  ],
  holds: flameHolds('weigh', 'flame', 'flame-off'),
  cautions: [BURNS, ...FLAME],
};
