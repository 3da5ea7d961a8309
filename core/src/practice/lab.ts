/**
 * The rush lab's variants: the bar as it is but for its hands, tools, habits or guests.
 */
import { cardFor, type Bench, type Station } from '../plan';
import { HANDS_OWN } from '../learn';
import { METHODS, brewerById, type RecipeBook, type RoastLevel } from '../recipe';

/** How guests come within the hour. */
export type LabGuests = {
  cupsAnHour: number;
  /** Weights of twelve times five minutes. */
  curve: number[];
};

export type LabLine = {
  recipeId: string;
  recipeVersion: number;
  coffee: string;
  roast: RoastLevel;
  cupMl: number;
  share: number;
};

export type LabVariant = {
  id: string;
  name: string;
  guests: LabGuests;
  menu: LabLine[];
  /** 1 to 4. */
  hands: number;
  /** How long the hands' own steps take, times what these hands are known to take. */
  paceBy: number;
  /** Of each brewer so many stations. */
  stations: Record<string, number>;
  kettles: number;
  grinders: number;
  burners: number;
  /** Doses stand weighed in covered tins before the hour begins. */
  ahead: boolean;
  /** Equal cups of one order are brewed as one larger brew where a brewer takes it. */
  shared: boolean;
  /** Only the two lines of the menu with which the bar gets through the most cups are offered. */
  shortMenu: boolean;
};

/** What a lab's file says of itself. */
export const LAB_FORMAT = 'even-kettle/lab@1';

/** The bench as the variant has it: the bar's own tools as far as they go, and more of the same. */
export function benchOf(bench: Bench, variant: LabVariant): Bench {
  const stations = Object.entries(variant.stations).flatMap(([brewerId, count]) => {
    const own = bench.stations.filter((station) => station.brewerId === brewerId && !station.out);
    const like: Omit<Station, 'id' | 'name'> = own[0] ?? { brewerId };
    return Array.from(
      { length: count },
      (_, n) => own[n] ?? { ...like, id: `${brewerId}-lab-${n}`, name: `${brewerId} ${n + 1}` },
    );
  });
  const grinder = bench.grinders[0] ?? {
    id: 'lab',
    name: 'lab',
    points: [
      { band: 20, setting: 30 },
      { band: 80, setting: 6 },
    ],
  };
  const kettle = bench.kettles[0] ?? { id: 'lab', name: 'lab', powerW: 1200, sizeMl: 1000 };
  const { paceBy } = variant;
  return {
    ...bench,
    hands: variant.hands,
    burners: variant.burners,
    stations,
    grinders: times(variant.grinders, (n) => bench.grinders[n] ?? { ...grinder, id: `grinder-lab-${n}` }),
    kettles: times(variant.kettles, (n) => bench.kettles[n] ?? { ...kettle, id: `kettle-lab-${n}` }),
    // Pours and waits are as long as the recipe wants them, however quick the hands.
    pace: {
      ...bench.pace,
      ...Object.fromEntries([...HANDS_OWN].map((kind) => [kind, (bench.pace?.[kind] ?? 1) * paceBy])),
    },
  };
}
export const times = <Item>(count: number, make: (n: number) => Item): Item[] =>
  Array.from({ length: count }, (_, n) => make(n));

/** What a variant cannot be lived with, in words; null where it can. */
export function faultOf(bench: Bench, variant: LabVariant, book: RecipeBook): string | null {
  if (variant.menu.length === 0) return 'Nothing is on the menu.';
  const own = benchOf(bench, variant);
  for (const line of variant.menu) {
    const found = cardFor(own, { ...line, cupId: 'lab' }, book);
    if (!found.ok) return found.reason;
  }
  return null;
}

/** The bar as it is: its tools, its menu in equal shares, guests as they are given. */
export function variantOf(
  bench: Bench,
  menu: readonly LabLine[],
  guests: LabGuests,
  name: string,
): LabVariant {
  const stations: Record<string, number> = {};
  for (const { brewerId, out } of bench.stations)
    if (!out) stations[brewerId] = (stations[brewerId] ?? 0) + 1;
  return {
    id: 'a',
    name,
    guests,
    menu: [...menu],
    hands: bench.hands,
    paceBy: 1,
    stations,
    kettles: bench.kettles.length,
    grinders: bench.grinders.length,
    burners: bench.burners,
    ahead: false,
    shared: false,
    shortMenu: false,
  };
}

/**
 * A change of a variant, with a rough rank of what it costs a bar: a habit less than a tool, a tool less than a person.
 * `habits` is all habits at once; with `andHabits` they come on top of the change.
 */
export type LabChange = {
  what: 'ahead' | 'shared' | 'shortMenu' | 'habits' | 'kettle' | 'grinder' | 'burner' | 'station' | 'hands';
  brewerId?: string;
  andHabits?: true;
  cost: number;
  variant: LabVariant;
};

/** The ways of working that a variant may have. */
export const HABITS = ['ahead', 'shared', 'shortMenu'] as const;
const HABITS_COST = 4.5;

/** What could be changed of a variant, the cheapest first: a habit, all habits, one more of a tool, one more pair of hands; then these with all habits. */
export function changesOf(variant: LabVariant): LabChange[] {
  const isHeated = (id: string) => METHODS[brewerById(id)?.method ?? 'cone'].heatedIn !== 'kettle';
  const tools = (['kettle', 'grinder', 'burner'] as const).filter(
    (what) => what !== 'burner' || Object.keys(variant.stations).some(isHeated),
  );
  const more: LabChange[] = [
    ...tools.map((what, n): LabChange => {
      const counted = `${what}s` as const;
      return { what, cost: 5 + n, variant: { ...variant, [counted]: variant[counted] + 1 } };
    }),
    ...Object.entries(variant.stations).map(([brewerId, count], n): LabChange => ({
      what: 'station',
      brewerId,
      cost: 8 + n / 10,
      variant: { ...variant, stations: { ...variant.stations, [brewerId]: count + 1 } },
    })),
    ...(variant.hands < MOST_HANDS
      ? [{ what: 'hands' as const, cost: 20, variant: { ...variant, hands: variant.hands + 1 } }]
      : []),
  ];
  const missing = HABITS.filter((habit) => !variant[habit]);
  const habits = Object.fromEntries(HABITS.map((habit) => [habit, true]));
  const all: LabChange[] = [
    ...missing.map((what, n): LabChange => ({ what, cost: n + 1, variant: { ...variant, [what]: true } })),
    ...(missing.length > 1
      ? [{ what: 'habits' as const, cost: HABITS_COST, variant: { ...variant, ...habits } }]
      : []),
    ...more,
    ...(missing.length > 0
      ? more.map((change): LabChange => ({
          ...change,
          andHabits: true,
          cost: change.cost + HABITS_COST,
          variant: { ...change.variant, ...habits },
        }))
      : []),
  ];
  return all.sort((a, b) => a.cost - b.cost);
}
const MOST_HANDS = 4;
