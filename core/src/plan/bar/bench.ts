/**
 * What stands on the bench, as the planner needs to know it.
 */
import {
  BREWERS,
  METHODS,
  RecipeError,
  brewCard,
  brewerById,
  capacityOf,
  fitsBrewer,
  round,
  tuned,
  wayOutInWords,
  type BrewCard,
  type Brewer,
  type Grinder,
  type BrewSite,
  type Recipe,
  type RecipeBook,
  type StepKind,
  type Tuning,
} from '../../recipe';
import { askOf, brewAt, type BarState, type CupAsk, type Trial } from '../../brew';
import { kettleLimitG, type Kettle } from '../../water';

/** What weighs under a brewer: a scale that people read, none, the simulated one, or one that a bridge speaks for. */
export const STATION_SCALES = ['read', 'none', 'simulated', 'bridge'] as const;
export type StationScale = (typeof STATION_SCALES)[number];

export type Station = {
  id: string;
  name: string;
  brewerId: string;
  /** Left out: people read it. */
  scale?: StationScale | undefined;
  /** Held in the hand, as a sock may be. */
  handHeld?: boolean | undefined;
  /** A single cup stands under its brewer in place of a server. */
  intoCup?: boolean | undefined;
  /** Out of use for now: nothing new is brewed there. */
  out?: boolean | undefined;
};

export type BenchKettle = {
  /** Newton's k off its base, per minute, where it has been learnt. */
  coolingPerMin?: number | undefined;
  id: string;
  name: string;
  powerW: number;
  sizeMl: number;
  maxFlowGPerS?: number | undefined;
};

export type Bench = {
  hands: number;
  stations: Station[];
  grinders: Grinder[];
  kettles: BenchKettle[];
  /** The bar's own brewers, beside those that every bar knows. */
  brewers?: Brewer[] | undefined;
  /** What kettles and globes are filled with: a boiler tap's 90 °C, or the mains' 15. */
  tapC: number;
  /** How quickly what stands there cools; left out, a room's usual. */
  roomC?: number | undefined;
  burners: number;
  altitudeM: number;
  /** For the record of what was ground, and with which water; a bar has them, a planner needs none. */
  coffees?: {
    name: string;
    roastedOn?: string | undefined;
    grindOffsets?: Record<string, number> | undefined;
    recipeChanges?: Record<string, RecipeChange> | undefined;
  }[];
  water?: { name: string };
  /** Learnt: how long each kind of attended step takes these hands, times the card's length. */
  pace?: Partial<Record<StepKind, number>> | undefined;
  /** Learnt of a recipe with a coffee, by `bedKey`. */
  beds?: Record<string, LearntBed> | undefined;
};

/** What was found good for a coffee with a recipe: ratio and degrees, and steps by grinder. */
export type RecipeChange = Omit<Tuning, 'filter'> & { grindBy?: Record<string, number> | undefined };
type WithChanges = Pick<NonNullable<Bench['coffees']>[number], 'grindOffsets' | 'recipeChanges'>;

/**
 * What is changed of a recipe for a coffee, for a card or for the event that starts a brew.
 * @param trial what is changed for one cup besides
 */
export function tuningFor(coffee: WithChanges | undefined, recipeId: string, trial: Trial = {}): Tuning {
  const kept = coffee?.recipeChanges?.[recipeId] ?? {};
  const ratioBy = round((kept.ratioBy ?? 0) + (trial.ratioBy ?? 0), 1);
  const waterByC = round((kept.waterByC ?? 0) + (trial.waterByC ?? 0), 1);
  return {
    ...(ratioBy ? { ratioBy } : {}),
    ...(waterByC ? { waterByC } : {}),
    ...(trial.filter ? { filter: trial.filter } : {}),
  };
}

/** Steps off the recipe's band by which a grinder stands for a coffee with a recipe. */
export const grindOffsetFor = (
  coffee: WithChanges | undefined,
  recipeId: string,
  grinderId: string,
  trial: Trial = {},
): number =>
  (trial.grindBy ?? 0) +
  (coffee?.grindOffsets?.[grinderId] ?? 0) +
  (coffee?.recipeChanges?.[recipeId]?.grindBy?.[grinderId] ?? 0);

const coffeeOf = ({ coffees }: Pick<Bench, 'coffees'>, name: string) =>
  coffees?.find((coffee) => coffee.name === name);

/**
 * What the log has taught of a bed: what a gram keeps, g/g; the power with which drawdown grows with the dose, and how far
 * off that may be; how long it takes, times what its card expects. The last is planned with and stands on no card: a card
 * says how long a brew should take.
 */
export type LearntBed = {
  retentionGPerG?: number | undefined;
  drawdownExponent?: number | undefined;
  drawdownExponentSd?: number | undefined;
  drawdownLevel?: number | undefined;
};

export const bedKey = (recipeId: string, coffee: string): string => `${recipeId} ${coffee}`;

/** What is learnt of a bed, for a card or for the event that starts a brew; nothing where nothing is. */
export function learntBed(
  beds: Bench['beds'],
  recipeId: string,
  coffee: string,
): { retentionGPerG?: number; drawdownExponent?: number; drawdownExponentSd?: number } {
  const { retentionGPerG, drawdownExponent, drawdownExponentSd } = beds?.[bedKey(recipeId, coffee)] ?? {};
  return {
    ...(retentionGPerG === undefined ? {} : { retentionGPerG }),
    ...(drawdownExponent === undefined ? {} : { drawdownExponent }),
    ...(drawdownExponentSd === undefined ? {} : { drawdownExponentSd }),
  };
}

/** What the recipes need to know of the bench, apart from coffee and brewer. */
export const placeOf = (bench: Bench, roast: BrewSite['roast']): BrewSite => ({
  altitudeM: bench.altitudeM,
  roast,
  kettle: kettleOf(bench),
  setBy: 'bar',
});

/** The kettle that brews are planned with before it is known how much they ask for: the bench's first. */
export const kettleOf = (bench: Bench): Kettle => asKettle(bench.kettles[0], bench.tapC);

/** A kettle of the bench, filled from its tap. */
export function asKettle(kettle: BenchKettle | undefined, tapC: number): Kettle {
  if (!kettle) return { powerW: 1200, filledAtC: tapC };
  const { powerW, sizeMl, maxFlowGPerS } = kettle;
  return { powerW, sizeMl, filledAtC: tapC, ...(maxFlowGPerS === undefined ? {} : { maxFlowGPerS }) };
}

/**
 * The kettle that a card's water goes into: the first that takes all of it at once; else the largest.
 */
export function kettleFor(
  { kettles }: Bench,
  { method, kettleFillG, waterC }: Pick<BrewCard, 'method' | 'kettleFillG' | 'waterC'>,
): BenchKettle | undefined {
  const gentle = METHODS[method].drawdownExponent !== null;
  const takes = ({ sizeMl }: BenchKettle) =>
    kettleFillG <= kettleLimitG(sizeMl, Math.min(100, waterC), gentle);
  const largest = kettles.reduce<BenchKettle | undefined>(
    (most, each) => (most && most.sizeMl >= each.sizeMl ? most : each),
    undefined,
  );
  return kettles.find(takes) ?? largest;
}

/** A brewer by its id: one of the bar's own, or one that every bar knows. */
export const brewerOf = ({ brewers }: Pick<Bench, 'brewers'>, id: string): Brewer | undefined =>
  brewers?.find((own) => own.id === id) ?? brewerById(id);

/** The first station whose brewer neither every bar nor this one knows; -1 where each is known. */
export const stationOfNoBrewer = (bench: Pick<Bench, 'brewers' | 'stations'>): number =>
  bench.stations.findIndex(({ brewerId }) => !brewerOf(bench, brewerId));

/** Every brewer that a station here could have. */
export const allBrewers = ({ brewers = [] }: Pick<Bench, 'brewers'>): Brewer[] => [...BREWERS, ...brewers];

/** The brewers that stand on the bench, each kind once, in their own order. */
export const brewersOn = (bench: Bench): Brewer[] =>
  [...new Set(bench.stations.map(({ brewerId }) => brewerId))]
    .map((id) => brewerOf(bench, id))
    .filter((brewer) => brewer !== undefined);

/**
 * What makes two stations brew alike: the same brewer, weighed or not, on its stand or in the hand, into a server or the cup. The planner counts
 * stations of one kind as units of one tool.
 */
export const kindOf = ({
  brewerId,
  scale,
  handHeld,
  intoCup,
}: Pick<Station, 'brewerId' | 'scale' | 'handHeld' | 'intoCup'>): string =>
  [brewerId, scale === 'none' ? 'no-scale' : null, handHeld ? 'hand-held' : null, intoCup ? 'into-cup' : null]
    .filter(Boolean)
    .join('/');

/** One way to brew a cup here: its card, and the stations that are alike for it. */
export type Way = { kind: string; card: BrewCard; stations: Station[] };

type NoWay = { ok: false; field: string; reason: string };

/** The card of a cup as this bench would brew it first, with all stations that could; or why there is none. */
export function cardFor(
  bench: Bench,
  cup: CupAsk,
  book: RecipeBook,
): { ok: true; card: BrewCard; stations: Station[] } | NoWay {
  const found = waysFor(bench, cup, book);
  if (!found.ok) return found;
  return { ok: true, card: found.ways[0]!.card, stations: found.ways.flatMap(({ stations }) => stations) };
}

/**
 * Every way in which this bench can brew a cup, in the order of its stations; or why there is none. Bench and cup are plain data
 * that is never changed, so the ways are found once for each: the agenda asks for every waiting cup at every turn. What cannot
 * be brewed is looked at again, since its recipe may be saved meanwhile.
 */
export function waysFor(bench: Bench, cup: CupAsk, book: RecipeBook): Ways {
  const byBook = known.get(bench) ?? new WeakMap<RecipeBook, WeakMap<CupAsk, Ways>>();
  const byCup = byBook.get(book) ?? new WeakMap<CupAsk, Ways>();
  const found = byCup.get(cup) ?? findWays(bench, cup, book);
  if (found.ok) known.set(bench, byBook.set(book, byCup.set(cup, found)));
  return found;
}
type Ways = { ok: true; ways: Way[] } | NoWay;
const known = new WeakMap<Bench, WeakMap<RecipeBook, WeakMap<CupAsk, Ways>>>();

function findWays(bench: Bench, cup: CupAsk, book: RecipeBook): Ways {
  const own = book(cup);
  const recipe = own && tuned(own, tuningFor(coffeeOf(bench, cup.coffee), cup.recipeId, cup.sample));
  if (!recipe)
    return {
      ok: false,
      field: 'recipeId',
      reason: `There is no recipe ${cup.recipeId} version ${cup.recipeVersion}.`,
    };
  try {
    const usual = {
      ...placeOf(bench, cup.roast),
      ...learntBed(bench.beds, cup.recipeId, cup.coffee),
      ...(cup.gassy ? { gassy: true as const } : {}),
    };
    const card = brewCard(recipe, askOf(cup), usual);
    const place = { ...usual, kettle: asKettle(kettleFor(bench, card), bench.tapC) };
    const missing = missingTool(bench, recipe);
    if (missing) return { ok: false, field: 'recipeId', reason: missing };
    const fits = bench.stations.filter(({ brewerId }) => {
      const brewer = brewerOf(bench, brewerId);
      return brewer?.method === recipe.method && fitsBrewer(brewer, card);
    });
    if (fits.length === 0) return { ok: false, field: 'cupMl', reason: whatWouldFit(bench, card) };
    const fitting = fits.filter(({ out }) => !out);
    if (fitting.length === 0)
      return {
        ok: false,
        field: 'recipeId',
        reason: `${fits.map(({ name }) => name).join(', ')}: out of use, and no other station brews this.`,
      };
    const ways = [...new Set(fitting.map(kindOf))].map((kind) => {
      const stations = fitting.filter((station) => kindOf(station) === kind);
      const { brewerId, scale, handHeld, intoCup } = stations[0]!;
      const by = {
        ...(scale === 'none' ? { withoutScale: true as const } : {}),
        ...(handHeld ? { handHeld: true as const } : {}),
        ...(intoCup ? { intoCup: true as const } : {}),
      };
      const at = { ...place, brewer: brewerOf(bench, brewerId)!, ...by };
      return { kind, card: brewCard(recipe, askOf(cup), at), stations };
    });
    return { ok: true, ways };
  } catch (error) {
    if (!(error instanceof RecipeError)) throw error;
    return { ok: false, field: error.field, reason: error.message };
  }
}

function missingTool(bench: Bench, recipe: Recipe): string | null {
  if (!bench.stations.some(({ brewerId }) => brewerOf(bench, brewerId)?.method === recipe.method)) {
    const name = METHODS[recipe.method].name.toLowerCase();
    // “Hourglass” is said without its h.
    return `No station on the bench brews with ${/^(air|hourglass)/.test(name) ? 'an' : 'a'} ${name}.`;
  }
  const there = {
    grinder: bench.grinders.length,
    kettle: bench.kettles.length,
    burner: bench.burners,
    brewer: 1,
  };
  const missing = recipe.holds.find(({ tool }) => there[tool] === 0);
  return missing ? `This recipe needs a ${missing.tool}, and there is none on the bench.` : null;
}

/**
 * How each cup that waits is to be brewed: chosen once, for the plan, the card and the station alike. Of several ways the
 * one with the fewest brews for its stations, those under way counted.
 * @param cups in the turn in which they will be brewed
 */
export function chooseWays(
  state: BarState,
  bench: Bench,
  book: RecipeBook,
  cups: readonly CupAsk[],
): Map<string, Way | NoWay> {
  const load = new Map<string, number>();
  for (const station of bench.stations)
    if (brewAt(state, station.id)) load.set(kindOf(station), (load.get(kindOf(station)) ?? 0) + 1);
  const chosen = new Map<string, Way | NoWay>();
  for (const cup of cups) {
    const found = waysFor(bench, cup, book);
    if (!found.ok) {
      chosen.set(cup.cupId, found);
      continue;
    }
    const share = ({ kind, stations }: Way) => (load.get(kind) ?? 0) / stations.length;
    const way = found.ways.reduce((best, each) => (share(each) < share(best) ? each : best));
    load.set(way.kind, (load.get(way.kind) ?? 0) + 1);
    chosen.set(cup.cupId, way);
  }
  return chosen;
}

/** Why no brewer of the bench takes the cup, and what could be done. */
function whatWouldFit(bench: Bench, card: BrewCard): string {
  const brewers = brewersOn(bench).filter(({ method }) => method === card.method);
  const nearest = brewers.toSorted((a, b) => distance(a, card) - distance(b, card))[0]!;
  const { words, waysOut } = capacityOf(nearest, card, brewers);
  return [words, ...waysOut.map(wayOutInWords)].join(' ');
}

const distance = (brewer: Brewer, { doseG }: BrewCard): number =>
  Math.max(brewer.minDoseG - doseG, doseG - brewer.maxDoseG, 0);
