/**
 * Lantern Pier, the demo's bar in the hall of a small ferry landing: people come off the boats, so orders come in
 * bursts. All of it is made up.
 */
import { v7 as uuid } from 'uuid';
import type { Bar, Coffee } from '@even-kettle/core/contract';
import type { CupAsk, OrderTaken } from '@even-kettle/core/brew';
import { liveShift, seededRandom, type Shift } from '@even-kettle/core/rush';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { METRIC } from '@even-kettle/core/units';
import { FIRST_BAR } from '../bench';

const COFFEES: Coffee[] = [
  { id: 'saltmarsh', name: 'Saltmarsh', roast: 'light', notes: 'redcurrant, black tea', decaf: false },
  { id: 'low-beacon', name: 'Low Beacon', roast: 'medium', notes: 'hazelnut, plum', decaf: false },
  { id: 'night-ferry', name: 'Night Ferry', roast: 'medium-dark', notes: 'cocoa, walnut', decaf: false },
  { id: 'slack-tide', name: 'Slack Tide decaf', roast: 'medium', notes: 'caramel, apple', decaf: true },
];

export const LANTERN_PIER: Bar = {
  ...FIRST_BAR,
  name: 'Lantern Pier',
  altitudeM: 12,
  units: METRIC,
  coffees: COFFEES,
};

/** Cups as `method coffee size`; each line an order. */
type Line = [atMin: number, name: string, ...cups: [recipeId: string, coffee: number, cupMl: number][]];
const T = 'cone-thirds';
const S = 'cone-steady';
const P = 'press-long';

/** Minutes before the demo's first moment. The last boat came in six minutes ago. */
const TIMETABLE: Line[] = [
  [-118, 'two on deck', [T, 0, 250], [P, 1, 250]],
  [-116, 'pilot', [S, 1, 300]],
  [-112, 'window', [T, 3, 220]],
  [-88, 'bicycle', [T, 0, 300], [T, 1, 250]],
  [-86, 'harbour office', [P, 2, 600]],
  [-83, 'yellow coat', [S, 0, 250]],
  [-58, 'bench', [P, 2, 250], [T, 0, 250]],
  [-55, 'ticket desk', [S, 3, 250]],
  [-52, 'rucksack', [T, 1, 350]],
  [-34, 'mate', [P, 1, 250]],
  [-33, 'family', [T, 0, 250], [T, 1, 250], [S, 3, 200]],
  [-6.2, 'corner table', [P, 2, 250], [T, 1, 250]],
  [-5.7, 'harbour office', [P, 2, 600]],
  [-3.7, 'grey hat', [P, 0, 250]],
  [-2.7, 'deckhand', [S, 1, 250]],
  [-2.2, 'dog', [T, 0, 300]],
  [-1.7, 'two by the door', [S, 0, 250], [P, 2, 250]],
  [-0.7, 'school trip', [T, 3, 220], [T, 1, 250]],
  [-0.4, 'captain', [T, 0, 250]],
];

/** The shift up to a moment, as its log would hold it. */
export function shiftUpTo(nowMs: number): Shift {
  const orders = TIMETABLE.map(([atMin, name, ...cups], line): OrderTaken => ({
    id: uuid(),
    type: 'order-taken',
    atMs: Math.round(nowMs + atMin * 60_000),
    orderId: `pier-${line + 1}`,
    name,
    cups: cups.map(([recipeId, coffee, cupMl], cup): CupAsk => {
      const { name: coffeeName, roast } = COFFEES[coffee]!;
      return {
        cupId: `pier-${line + 1}-${cup + 1}`,
        recipeId,
        recipeVersion: 1,
        coffee: coffeeName,
        roast,
        cupMl,
      };
    }),
  }));
  return liveShift({
    bench: LANTERN_PIER,
    book: bookOf(SCHOOLS),
    orders,
    fromMs: orders[0]!.atMs,
    untilMs: nowMs,
    newId: () => uuid(),
    random: seededRandom(8),
  });
}
