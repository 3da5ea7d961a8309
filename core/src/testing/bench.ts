/** What the tests brew on and with. */
import type { BarEvent, CupAsk, OrderTaken } from '../brew';
import type { Bench } from '../plan';
import { CARD_VERSION, SCHOOLS, bookOf } from '../recipe';

export const book = bookOf(SCHOOLS);
export const T0 = Date.UTC(2026, 0, 5, 8, 0, 0);

export const BENCH: Bench = {
  hands: 1,
  grinders: [
    {
      id: 'grinder',
      name: 'Grinder',
      points: [
        { band: 20, setting: 30 },
        { band: 80, setting: 6 },
      ],
    },
  ],
  kettles: ['a', 'b', 'c'].map((id) => ({ id, name: `Kettle ${id}`, powerW: 1200, sizeMl: 1200 })),
  tapC: 90,
  burners: 1,
  altitudeM: 12,
  stations: [
    { id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m' },
    { id: 'cone-2', name: 'Cone 2', brewerId: 'cone-m' },
    { id: 'press-1', name: 'Press 1', brewerId: 'press-350' },
  ],
};

/** Ids that count up: `e1`, `e2` ... */
export function counter(prefix = 'e'): () => string {
  let count = 0;
  return () => `${prefix}${(count += 1)}`;
}

export const cup = (cupId: string, recipeId = 'cone-thirds', cupMl = 250): CupAsk => ({
  cupId,
  recipeId,
  recipeVersion: 1,
  coffee: 'Saltmarsh',
  roast: 'light',
  cupMl,
});

export const order = (orderId: string, atS: number, ...cups: CupAsk[]): OrderTaken => ({
  id: `taken-${orderId}`,
  type: 'order-taken',
  atMs: T0 + atS * 1000,
  orderId,
  cups,
});

export const started = (
  cupId: string,
  orderId: string,
  stationId: string,
  atS: number,
  attempt = 1,
): BarEvent => ({
  id: `started-${cupId}.${attempt}`,
  type: 'brew-started',
  atMs: T0 + atS * 1000,
  brewId: `${cupId}.${attempt}`,
  orderId,
  cupId,
  stationId,
  stationName: BENCH.stations.find(({ id }) => id === stationId)!.name,
  brewerId: BENCH.stations.find(({ id }) => id === stationId)!.brewerId,
  altitudeM: 12,
  kettlePowerW: 1200,
  kettleFilledAtC: 90,
  prepVersion: CARD_VERSION,
});

export const done = (brewId: string, stepId: string, atS: number, readingG?: number): BarEvent => ({
  id: `done-${brewId}-${stepId}`,
  type: 'step-done',
  atMs: T0 + atS * 1000,
  brewId,
  stepId,
  ...(readingG === undefined ? {} : { readingG }),
});

export const begun = (brewId: string, stepId: string, atS: number): BarEvent => ({
  id: `begun-${brewId}-${stepId}`,
  type: 'step-begun',
  atMs: T0 + atS * 1000,
  brewId,
  stepId,
});
