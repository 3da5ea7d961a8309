/** Schools of the flat-bottom dripper. */
import type { PourPart, Recipe } from '../../recipe';
import {
  BURNS,
  KETTLE,
  SPIRAL,
  WASHING_SPIRAL,
  along,
  bloom,
  drawdown,
  equalPours,
  flatPrep,
  kettleHolds,
  paperFinish,
  pourTo,
  straightOn,
  warmCup,
} from '../parts';

/** Ten pulses: dabs until half of the water is in, small pours in the middle after that, the last towards the edge. */
const pulsePath = (index: number): PourPart =>
  index < 5
    ? { path: 'cross' }
    : index < 9
      ? { path: 'centre', height: 'low' }
      : { path: 'edge', wall: 'kept' };

export const flatSmall: Recipe = {
  id: 'flat-small',
  version: 2,
  method: 'flat',
  name: 'Many small pulses, level kept',
  why: 'Even and sweet; the level hardly moves, so every part of the bed sees the same water.',
  otherwise: 'Others pour few large pulses: fewer moves, hotter slurry.',
  suits: ['sweet'],
  filter: 'paper, fluted or flat',
  bed: 'level',
  refDoseG: 20,
  ratio: 16.4,
  bypassTimesDose: 0,
  grindBand: 48,
  waterC: 93,
  waterIs: 'in the kettle',
  endWindowS: { from: 165, to: 195 },
  steps: [
    ...flatPrep,
    along(bloom(2.2, 5), { path: 'cross' }),
    ...equalPours('pulse', [36, 47, 58, 69, 80, 91, 102, 113, 124, 135], 6, {
      hint: 'Before the bed shows.',
    }).map((step, index) => along(step, pulsePath(index))),
    straightOn('swirl-end', 'swirl', 'Swirl'),
    warmCup,
    drawdown,
    ...paperFinish,
  ],
  holds: kettleHolds(warmCup.id),
  cautions: [BURNS, KETTLE],
};

export const flatFew: Recipe = {
  id: 'flat-few',
  version: 2,
  method: 'flat',
  name: 'Few larger pulses',
  why: 'Sweet and fuller; hands free between the pours.',
  otherwise: 'Others pour many small pulses and keep the level: more even, but the hands stay.',
  suits: ['sweet'],
  filter: 'paper, fluted or flat',
  bed: 'level',
  refDoseG: 24,
  ratio: 15.4,
  bypassTimesDose: 0,
  grindBand: 47,
  waterC: 93,
  waterIs: 'in the kettle',
  endWindowS: { from: 180, to: 220 },
  steps: [
    ...flatPrep,
    along(bloom(2.4, 6), SPIRAL),
    straightOn('swirl-bloom', 'swirl', 'Swirl the bloom'),
    along(pourTo('pour-2', 'First of three pours', 35, 0.5, 6), SPIRAL),
    along(pourTo('pour-3', 'Second of three pours', 75, 0.75, 5), SPIRAL),
    along(pourTo('pour-4', 'Last of three pours', 115, 1, 5), WASHING_SPIRAL),
    { ...straightOn('tap-level', 'swirl', 'Tap level'), hint: 'A light tap, so that the bed lies flat.' },
    warmCup,
    drawdown,
    ...paperFinish,
  ],
  holds: kettleHolds(warmCup.id),
  cautions: [BURNS, KETTLE],
};
