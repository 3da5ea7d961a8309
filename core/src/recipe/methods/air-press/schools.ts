/** Schools of the air press. */
import type { Recipe } from '../../recipe';
import {
  BURNS,
  KETTLE,
  NEVER_FORCE,
  along,
  airPressPrep,
  handStep,
  kettleHolds,
  pourStep,
  pressFinish,
  straightOn,
} from '../parts';

export const airStirred: Recipe = {
  id: 'air-stirred',
  version: 2,
  method: 'air-press',
  name: 'Fine, stirred, pressed',
  why: 'Round and quick: a minute and a half from first water to hiss.',
  otherwise: 'Others steep longer and stir less: calmer, a little sweeter.',
  suits: ['quick', 'sweet'],
  filter: 'paper disc',
  bed: 'none',
  refDoseG: 16.5,
  ratio: 14.8,
  bypassTimesDose: 0,
  grindBand: 72,
  waterC: 90,
  waterIs: 'in the kettle',
  endWindowS: { from: 83, to: 93 },
  steps: [
    ...airPressPrep,
    along(
      pourStep(
        'pour',
        'All the water',
        { afterS: 0 },
        { amount: { toShare: 1 }, flowGPerS: 20 },
        { anchor: 'start' },
      ),
      { path: 'all over' },
    ),
    straightOn('stir', 'stir', 'Stir', 45),
    handStep('press', 'press', 'Press to the hiss', 28, 'hiss', {
      cueWindow: { earlyS: 3, lateS: 7 },
      hint: NEVER_FORCE,
      mistake: 'Pressing on the scale: take it off first.',
    }),
    ...pressFinish.map((step) => (step.kind === 'serve' ? { ...step, name: 'Swirl, cup, hand over' } : step)),
  ],
  holds: kettleHolds('pour'),
  cautions: [BURNS, KETTLE, NEVER_FORCE],
};
