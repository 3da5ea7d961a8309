/**
 * What is answered on the first day, as settings of the bar.
 */
import { brewerOf } from '@even-kettle/core/plan';
import type { Bar, BarChange } from '@even-kettle/core/contract';
import { METHODS, brewerById } from '@even-kettle/core/recipe';

/** Stations for so many of each brewer: those that are there keep their names, new ones are named and numbered by their brewer. */
export function stationsFor(
  stations: Bar['stations'],
  counts: Readonly<Record<string, number>>,
  newId: () => string,
): Bar['stations'] {
  const kept = stations.filter((station, index) => {
    const before = stations.slice(0, index).filter(({ brewerId }) => brewerId === station.brewerId).length;
    return before < (counts[station.brewerId] ?? 0);
  });
  const names = new Set(kept.map(({ name }) => name));
  const named = (base: string, only: boolean): string => {
    for (let n = 1; ; n += 1) {
      const name = only && n === 1 ? base : `${base} ${n}`;
      if (names.has(name)) continue;
      names.add(name);
      return name;
    }
  };
  const added = Object.entries(counts).flatMap(([brewerId, count]) => {
    const there = kept.filter((station) => station.brewerId === brewerId).length;
    const base = (brewerById(brewerId)?.name ?? brewerId).slice(0, 20);
    return Array.from({ length: Math.max(0, count - there) }, () => ({
      id: newId(),
      name: named(base, count === 1),
      brewerId,
    }));
  });
  return [...kept, ...added];
}

/** Whether any of its brewers stands over a flame. */
export const needsFlame = (bar: Pick<Bar, 'stations' | 'brewers'>): boolean =>
  bar.stations.some(({ brewerId }) => {
    const brewer = brewerOf(bar, brewerId);
    return brewer !== undefined && METHODS[brewer.method].heatedIn !== 'kettle';
  });

export const KETTLES = {
  small: { powerW: 1000, sizeMl: 600 },
  usual: { powerW: 1200, sizeMl: 1000 },
  large: { powerW: 2000, sizeMl: 1700 },
} as const;
export type KettleKind = keyof typeof KETTLES;

/** Which of the usual kinds a kettle is, by its size. */
export const kindOfKettle = (sizeMl: number): KettleKind =>
  sizeMl <= 800 ? 'small' : sizeMl <= 1350 ? 'usual' : 'large';

/** Kettles of each kind; those that are there stay. */
export function kettlesFor(
  kettles: Bar['kettles'],
  counts: Readonly<Record<KettleKind, number>>,
  newId: () => string,
  nameOf: (n: number) => string,
): Bar['kettles'] {
  const kinds = Object.keys(KETTLES) as KettleKind[];
  const kept = kinds.flatMap((kind) =>
    kettles.filter(({ sizeMl }) => kindOfKettle(sizeMl) === kind).slice(0, counts[kind]),
  );
  const names = new Set(kept.map(({ name }) => name));
  let n = 0;
  const next = (): string => {
    do n += 1;
    while (names.has(nameOf(n)));
    return nameOf(n);
  };
  const added = kinds.flatMap((kind) => {
    const there = kept.filter(({ sizeMl }) => kindOfKettle(sizeMl) === kind).length;
    return Array.from({ length: Math.max(0, counts[kind] - there) }, () => ({
      id: newId(),
      name: next(),
      ...KETTLES[kind],
    }));
  });
  return [...kept, ...added];
}

/** The bands of the two grinds that most people know. */
export const CONE_BAND = 52;
export const PRESS_BAND = 20;

/** What a bar lacks before it can take an order. */
export const lacks = (bar: Bar): ('brewer' | 'kettle' | 'grinder' | 'coffee')[] => [
  ...(bar.stations.length === 0 ? (['brewer'] as const) : []),
  ...(bar.kettles.length === 0 ? (['kettle'] as const) : []),
  ...(bar.grinders.length === 0 ? (['grinder'] as const) : []),
  ...(bar.coffees.length === 0 ? (['coffee'] as const) : []),
];

export type Save = (change: BarChange, onSaved: () => void) => void;
