/**
 * Lantern Pier, the demo's bar in the hall of a small ferry landing: people come off the boats, so orders come in
 * bursts. All of it is made up.
 */
import type { BarEvent, CupAsk, OrderTaken } from '../brew';
import type { Bar, Coffee } from '../contract';
import { SCHOOLS, bookOf, type MethodId } from '../recipe';
import { liveDays, liveShift, seededRandom, type SimulatedShift } from '../rush';
import { METRIC } from '../units';

const DAY_MS = 86_400_000;
/** Days off roast of its coffees. */
const dayBefore = (nowMs: number, days: number): string =>
  new Date(nowMs - days * DAY_MS).toISOString().slice(0, 10);

/** Sheets of paper of each method on the shelf as the demo begins. */
const PAPERS_COUNTED: readonly [MethodId, number][] = [
  ['cone', 300],
  ['flat', 100],
  ['hourglass', 80],
  ['air-press', 350],
];

/** Each with its days off roast. */
const COFFEES: [daysOffRoast: number, Omit<Coffee, 'roastedOn'>][] = [
  [9, { id: 'saltmarsh', name: 'Saltmarsh', roast: 'light', notes: 'redcurrant, black tea', decaf: false }],
  [12, { id: 'low-beacon', name: 'Low Beacon', roast: 'medium', notes: 'hazelnut, plum', decaf: false }],
  [6, { id: 'night-ferry', name: 'Night Ferry', roast: 'medium-dark', notes: 'cocoa, walnut', decaf: false }],
  [15, { id: 'slack-tide', name: 'Slack Tide decaf', roast: 'medium', notes: 'caramel, apple', decaf: true }],
];

/** @param nowMs the day by which its coffees have their age */
export const lanternPier = (nowMs: number): Bar => ({
  name: 'Lantern Pier',
  tapC: 90,
  burners: 1,
  roomC: 21,
  tasteAfterMin: 7,
  altitudeM: 12,
  hands: 2,
  units: METRIC,
  water: { name: 'Harbour tap, filtered', hardnessPpm: 70 },
  stations: [
    { id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m', scale: 'simulated' },
    { id: 'cone-2', name: 'Cone 2', brewerId: 'cone-m', scale: 'simulated' },
    { id: 'sock-1', name: 'Sock', brewerId: 'sock', scale: 'simulated' },
    { id: 'siphon-1', name: 'Siphon', brewerId: 'siphon-m' },
    { id: 'press-1', name: 'Press 1', brewerId: 'press-350' },
    { id: 'press-2', name: 'Press 2', brewerId: 'press-1l' },
  ],
  grinders: [
    {
      id: 'big',
      name: 'Big grinder',
      points: [
        { band: 15, setting: 32 },
        { band: 50, setting: 17.5 },
        { band: 80, setting: 6 },
      ],
      keepsG: 0.6,
    },
    {
      id: 'small',
      name: 'Hand grinder',
      points: [
        { band: 40, setting: 26 },
        { band: 96, setting: 4 },
      ],
      keepsG: 0.1,
    },
  ],
  kettles: [1, 2, 3].map((n) => ({
    id: `kettle-${n}`,
    name: `Kettle ${n}`,
    powerW: 1200,
    sizeMl: 1000,
    device: 'simulated' as const,
  })),
  people: [
    { id: 'imre', name: 'Imre' },
    { id: 'noor', name: 'Noor' },
    { id: 'tavi', name: 'Tavi' },
  ],
  coffees: COFFEES.map(([daysOffRoast, coffee]) => ({
    ...coffee,
    roastedOn: dayBefore(nowMs, daysOffRoast),
  })),
  queues: [
    { id: 'counter', name: 'Counter', promise: 'soon' },
    { id: 'tables', name: 'Tables', promise: 'within', withinMin: 15 },
    { id: 'boats', name: 'For the boat', promise: 'pick-up', stroke: 'double' },
  ],
  menu: [
    { id: 'm1', coffeeId: 'saltmarsh', recipeId: 'cone-thirds', sizesMl: [250, 300] },
    { id: 'm2', coffeeId: 'low-beacon', recipeId: 'cone-steady', sizesMl: [250, 300] },
    { id: 'm3', coffeeId: 'night-ferry', recipeId: 'press-long', sizesMl: [250, 600] },
    { id: 'm4', coffeeId: 'saltmarsh', recipeId: 'sock-fours', sizesMl: [250, 300] },
    { id: 'm5', coffeeId: 'saltmarsh', recipeId: 'siphon-late', sizesMl: [350] },
    { id: 'm6', coffeeId: 'slack-tide', recipeId: 'cone-thirds', sizesMl: [220, 300] },
    { id: 'm7', coffeeId: 'night-ferry', recipeId: 'siphon-late', sizesMl: [350], before: '11:00' },
  ],
  cloths: [
    { id: 'blue-cloth', name: 'Blue cloth', stationId: 'sock-1' },
    { id: 'siphon-cloth', name: 'Siphon cloth', stationId: 'siphon-1' },
  ],
});

/** The second demo bar, high up: what altitude does to every recipe. */
export const upperBasin = (nowMs: number): Bar => ({
  ...lanternPier(nowMs),
  name: 'Upper Basin',
  altitudeM: 2150,
});

/** Cups as `method coffee size`, and what is to be minded; each line an order. */
type Cup = [recipeId: string, coffee: number, cupMl: number, more?: Partial<CupAsk>];
type Line = [atMin: number, name: string, ...cups: Cup[]];
const T = 'cone-thirds';
const S = 'cone-steady';
const P = 'press-long';
const K = 'sock-fours';
const L = 'siphon-late';

/** Minutes before the demo's first moment. The last boat came in six minutes ago. */
const TIMETABLE: Line[] = [
  [-118, 'two on deck', [T, 0, 250], [P, 1, 250]],
  [-116, 'pilot', [S, 1, 300]],
  [-112, 'window', [T, 3, 220]],
  [-88, 'bicycle', [T, 0, 300], [T, 1, 250]],
  [-86, 'harbour office', [L, 2, 350]],
  [-83, 'yellow coat', [K, 0, 250]],
  [-58, 'bench', [P, 2, 250], [T, 0, 250]],
  [-55, 'ticket desk', [S, 3, 250]],
  [-52, 'rucksack', [T, 1, 350]],
  [-34, 'mate', [K, 1, 300]],
  [-33, 'family', [T, 0, 250], [T, 1, 250], [S, 3, 200]],
  [-9, 'corner table', [P, 2, 250], [T, 1, 250]],
  [-8.4, 'harbour office', [P, 2, 600]],
  [-6.5, 'grey hat', [K, 0, 300, { toGo: true }]],
  [-6.1, 'deckhand', [S, 1, 250, { allergy: 'nuts', addition: 'milk', milk: 'oat' }]],
  [-3.4, 'dog', [T, 0, 220]],
  [-3.1, 'captain', [T, 0, 220, { with: { orderId: 'pier-16', cupId: 'pier-16-1' } }]],
  [-1.2, 'two by the door', [K, 0, 250], [P, 3, 250, { note: 'not too hot', decaf: true }]],
];

/** What the log has to find. */
const DRIFTS = { coffee: 'Saltmarsh', fromDay: 11, longerS: 17 };
const DAYS = 14;
const OPENING_HOUR = 8;
/** Cups that are asked for on a day, the more often the more often they stand here. */
const USUAL: [recipeId: string, coffee: number, cupMl: number][] = [
  [T, 0, 250],
  [T, 0, 250],
  [T, 0, 300],
  [T, 1, 250],
  [S, 1, 250],
  [P, 2, 250],
  [P, 2, 250],
  [K, 0, 300],
  [L, 0, 350],
];

/**
 * Two weeks of cups before a day, with something to find in them: the grinder was moved about in the first days, and
 * since the eleventh the cone with Saltmarsh runs longer.
 */
export function twoWeeksBefore(
  nowMs: number,
  newId: () => string,
  bench: Bar = lanternPier(nowMs),
): BarEvent[] {
  const today = new Date(nowMs);
  const opening = (daysAgo: number): number =>
    new Date(today.getFullYear(), today.getMonth(), today.getDate() - daysAgo, OPENING_HOUR).getTime();
  const cups = liveDays({
    bench,
    book: bookOf(SCHOOLS),
    daysMs: Array.from({ length: DAYS }, (_, day) => opening(DAYS - day)),
    cupsADay: 16,
    menu: USUAL.map(([recipeId, coffee, cupMl]) => {
      const { name, roast } = COFFEES[coffee]![1];
      return { recipeId, recipeVersion: shippedVersion(recipeId), coffee: name, roast, cupMl };
    }),
    people: bench.people.map(({ id }) => id),
    truths: [
      {
        recipeId: T,
        coffee: DRIFTS.coffee,
        longerS: 3,
        spreadS: 5,
        secondsPerStep: -9,
        drift: { fromDay: DRIFTS.fromDay, longerS: DRIFTS.longerS },
      },
    ],
    coarserOn: (coffee, day) => (coffee === 'Saltmarsh' && day < 4 ? [1, 2, -1, 0.5][day]! : 0),
    random: seededRandom(23),
    newId,
    prefix: 'past',
  });
  const base = (atMs: number) => ({ id: newId(), atMs });
  const things: BarEvent[] = [
    ...COFFEES.map(([, { name }], index): BarEvent => ({
      ...base(opening(6) - 1_200_000),
      type: 'coffee-weighed',
      coffee: name,
      stockG: [2000, 1500, 900, 250][index]!,
    })),
    ...PAPERS_COUNTED.map(([method, sheets]): BarEvent => ({
      ...base(opening(6) - 1_100_000),
      type: 'papers-counted',
      method,
      sheets,
    })),
    // The last bag of decaf runs low.
    { ...base(nowMs - DAY_MS / 8), type: 'coffee-weighed', coffee: COFFEES[3]![1].name, stockG: 94 },
    // Boiled every morning; today only one of them was.
    ...Array.from({ length: DAYS }, (_, day) => opening(DAYS - day) - 1_800_000).flatMap((atMs): BarEvent[] =>
      bench.cloths.map(({ id }) => ({ ...base(atMs), type: 'cloth-boiled', clothId: id })),
    ),
    ...bench.cloths
      .slice(0, 1)
      .map(({ id }): BarEvent => ({ ...base(nowMs - DAY_MS / 8), type: 'cloth-boiled', clothId: id })),
  ];
  return [...cups, ...things].sort((a, b) => a.atMs - b.atMs);
}

const shippedVersion = (recipeId: string): number => SCHOOLS.find(({ id }) => id === recipeId)!.version;

/** The shift up to a moment, as its log would hold it. */
export function shiftUpTo(
  nowMs: number,
  newId: () => string,
  bench: Bar = lanternPier(nowMs),
): SimulatedShift {
  const orders = TIMETABLE.map(([atMin, name, ...cups], line): OrderTaken => ({
    id: newId(),
    type: 'order-taken',
    atMs: Math.round(nowMs + atMin * 60_000),
    orderId: `pier-${line + 1}`,
    name,
    queueId: 'counter',
    cups: cups.map(([recipeId, coffee, cupMl, more], cup): CupAsk => {
      const { name: coffeeName, roast } = COFFEES[coffee]![1];
      return {
        cupId: `pier-${line + 1}-${cup + 1}`,
        recipeId,
        recipeVersion: shippedVersion(recipeId),
        coffee: coffeeName,
        roast,
        cupMl,
        ...more,
      };
    }),
  }));
  return liveShift({
    bench,
    book: bookOf(SCHOOLS),
    orders,
    fromMs: orders[0]!.atMs,
    untilMs: nowMs,
    newId,
    random: seededRandom(8),
    by: 'noor',
    bySecond: 'tavi',
    cueOffS: ({ awaited, cup }) =>
      awaited?.kind === 'drawdown' && cup.recipeId === T && cup.coffee === DRIFTS.coffee ? DRIFTS.longerS : 0,
  });
}
