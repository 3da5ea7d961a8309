/** A cup that is brewed on the test bar's cone, event by event: seconds count from the first order. */
import type { BarEvent } from '@even-kettle/core/brew';
import { CARD_VERSION, SCHOOLS, bookOf } from '@even-kettle/core/recipe';

export const book = bookOf(SCHOOLS);
export const T0 = Date.UTC(2026, 0, 5, 8);
export const at = (seconds: number): number => T0 + seconds * 1000;

const cupOf = (orderId: string) => `${orderId.toLowerCase()}1`;

/** An order of one cup: of order A it is a1, and its brew is a1.1. */
export const taken = (orderId: string, name?: string): BarEvent => ({
  id: `o${orderId}`,
  type: 'order-taken',
  atMs: at(0),
  orderId,
  ...(name === undefined ? {} : { name }),
  cups: [
    {
      cupId: cupOf(orderId),
      recipeId: 'cone-thirds',
      recipeVersion: 1,
      coffee: 'Saltmarsh',
      roast: 'medium',
      cupMl: 250,
    },
  ],
});

export const started = (orderId: string, stationId = 'cone-1', stationName = 'Cone 1'): BarEvent => ({
  id: `s${orderId}`,
  type: 'brew-started',
  atMs: at(0),
  brewId: `${cupOf(orderId)}.1`,
  orderId,
  cupId: cupOf(orderId),
  stationId,
  stationName,
  brewerId: 'cone-m',
  altitudeM: 0,
  kettlePowerW: 1200,
  kettleFilledAtC: 90,
  prepVersion: CARD_VERSION,
});

/** A step of order A's brew. */
export const done = (stepId: string, seconds: number): BarEvent => ({
  id: stepId,
  type: 'step-done',
  atMs: at(seconds),
  brewId: 'a1.1',
  stepId,
});

export const prep = [done('fill', 12), done('set-filter', 24), done('weigh', 64), done('load', 94)];
export const firstWater: BarEvent = {
  id: 'b',
  type: 'step-begun',
  atMs: at(100),
  brewId: 'a1.1',
  stepId: 'bloom',
};
