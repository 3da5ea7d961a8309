/** Schools of the press. */
import type { Recipe } from '../../recipe';
import {
  BURNS,
  KETTLE,
  NEVER_FORCE,
  along,
  decantedFinish,
  handStep,
  kettleHolds,
  passive,
  pourStep,
  pressFinish,
  pressPrep,
  straightOn,
  warmCup,
} from '../parts';

const allTheWater = { amount: { toShare: 1 } };
const patient = { earlyS: 0, lateS: 60, penalty: 0.3 };

export const pressLong: Recipe = {
  id: 'press-long',
  version: 2,
  method: 'press',
  name: 'Settle before plunging',
  why: 'Heavy and sweet; the long wait lets the fines sink, and needs no hands.',
  otherwise: 'Others plunge at four minutes: quicker, with more in the cup that settles later.',
  suits: ['heavy', 'sweet', 'to share'],
  filter: 'metal mesh',
  bed: 'none',
  refDoseG: 42,
  ratio: 15.7,
  bypassTimesDose: 0,
  grindBand: 20,
  waterC: 95,
  waterIs: 'in the kettle',
  endWindowS: { from: 460, to: 520 },
  steps: [
    ...pressPrep,
    along(
      pourStep('pour', 'All the water', { afterS: 0 }, { ...allTheWater, flowGPerS: 20 }, { anchor: 'end' }),
      { path: 'all over' },
    ),
    straightOn('wet', 'stir', 'Wet with a short push, lid on', 5),
    warmCup,
    passive('steep', 'settle', 'Steeping', { untilS: 400 }),
    handStep('dip', 'dip', 'Dip down and up, so the crust falls', 5, 'crust has fallen', {
      start: { atS: 400 },
      window: patient,
    }),
    passive('sink', 'settle', 'Fines sinking', { untilS: 440 }),
    handStep('plunge', 'plunge', 'Plunge with almost no force', 20, 'plunge done', {
      start: { atS: 440 },
      window: patient,
      hint: NEVER_FORCE,
    }),
    ...pressFinish,
  ],
  holds: kettleHolds(warmCup.id),
  cautions: [BURNS, KETTLE, NEVER_FORCE],
};

export const pressShort: Recipe = {
  id: 'press-short',
  version: 2,
  method: 'press',
  name: 'Stir, shorter',
  why: 'Heavy, with more edge; out in under five minutes.',
  otherwise: 'Others wait seven minutes for the fines to sink, for a cleaner cup.',
  suits: ['heavy'],
  filter: 'metal mesh',
  bed: 'none',
  refDoseG: 18,
  ratio: 15,
  bypassTimesDose: 0,
  grindBand: 24,
  waterC: 94,
  waterIs: 'in the kettle',
  endWindowS: { from: 265, to: 310 },
  steps: [
    ...pressPrep,
    along(
      pourStep('pour', 'All the water', { afterS: 0 }, { ...allTheWater, flowGPerS: 15 }, { anchor: 'end' }),
      { path: 'all over' },
    ),
    straightOn('stir', 'stir', 'Stir', 6),
    warmCup,
    passive('steep', 'settle', 'Steeping', { untilS: 240 }),
    handStep('plunge', 'plunge', 'Plunge slowly', 25, 'plunge done', {
      start: { atS: 240 },
      window: { earlyS: 0, lateS: 45, penalty: 0.3 },
      hint: NEVER_FORCE,
    }),
    ...decantedFinish,
  ],
  holds: kettleHolds(warmCup.id),
  cautions: [BURNS, KETTLE, NEVER_FORCE],
};
