/**
 * What a tap on the hands card means, as events.
 */
import { kettleForStart, type BarEvent, type BrewStarted, type Pair } from '../../brew';
import { CARD_VERSION, grindSetting } from '../../recipe';
import type { AgendaItem } from './agenda';
import { asKettle, grindOffsetFor, kettleFor, learntBed, tuningFor, type Bench } from './bench';

/** How the device names a new event. */
export type NewId = () => string;

/** What is known beside the tap itself. */
export type TapFacts = {
  /** What the scale read, where a person or a scale told it, grams. */
  readingG?: number;
  /** What a thermometer said, °C. */
  readC?: number;
  /** How many grams early the card said to stop. */
  leadG?: number;
  /** Who, and on a bar with two pairs of hands which of them. */
  by?: string;
  pair?: Pair;
  /** Where a cue was asked for late: the last time at which it had surely not come. */
  notOverMs?: number;
};

/**
 * The events that one tap makes, in order; two where the tap also starts a waiting cup's brew. None while the step
 * ends by itself.
 * @param atMs bar time of the tap
 */
export function tapEvents(
  item: AgendaItem,
  bench: Bench,
  atMs: number,
  newId: NewId,
  { readingG, readC, leadG, by, pair, notOverMs }: TapFacts = {},
): BarEvent[] {
  if (item.asks === 'runs') return [];
  const { brewId, step } = item;
  const base = () => ({ id: newId(), atMs, ...(by === undefined ? {} : { by }) });
  const byPair = pair === undefined ? {} : { pair };
  if (item.asks === 'cue')
    return [
      {
        ...base(),
        type: 'step-done',
        brewId,
        stepId: item.awaited!.id,
        ...(notOverMs === undefined ? {} : { notOverMs }),
      },
    ];
  const read = readC === undefined ? {} : { readC };
  if (item.asks === 'start')
    return [{ ...base(), ...byPair, ...read, type: 'step-begun', brewId, stepId: step.id }];
  if (step.kind === 'serve') return [{ ...base(), ...byPair, type: 'brew-served', brewId }];
  const done: BarEvent = {
    ...base(),
    ...byPair,
    type: 'step-done',
    brewId,
    stepId: step.id,
    ...(readingG === undefined ? {} : { readingG }),
    ...read,
    ...(leadG === undefined || leadG === 0 ? {} : { leadG }),
  };
  if (item.brew) return [done];
  // The tap says that the first step is over; it began a step's length before, but not before it was asked for.
  const startedMs = Math.max(item.order.takenMs, atMs - step.durationS * 1000);
  return [startEvent(item, bench, startedMs, newId, by), done];
}

/** The event that starts brewing a waiting cup at its station. */
export function startEvent(
  item: Pick<AgendaItem, 'brewId' | 'order' | 'cup' | 'card' | 'station' | 'kettle' | 'fromTin'>,
  bench: Bench,
  atMs: number,
  newId: NewId,
  by?: string,
): BrewStarted {
  const { scale, handHeld, intoCup } = item.station;
  return {
    id: newId(),
    type: 'brew-started',
    atMs,
    brewId: item.brewId,
    orderId: item.order.id,
    cupId: item.cup.cupId,
    stationId: item.station.id,
    stationName: item.station.name,
    brewerId: item.station.brewerId,
    altitudeM: bench.altitudeM,
    ...(item.kettle ? { kettleId: item.kettle.id } : {}),
    ...kettleForStart(asKettle(item.kettle ?? kettleFor(bench, item.card), bench.tapC)),
    ...groundFor(item, bench),
    ...learntBed(bench.beds, item.cup.recipeId, item.cup.coffee),
    ...tuningFor(
      bench.coffees?.find(({ name }) => name === item.cup.coffee),
      item.cup.recipeId,
      item.cup.sample,
    ),
    ...(by === undefined ? {} : { by }),
    ...(scale === 'none' ? { withoutScale: true } : {}),
    ...(handHeld ? { handHeld: true } : {}),
    ...(intoCup ? { intoCup: true } : {}),
    ...(item.fromTin ? { fromTin: true } : {}),
    ...ownBrewerFor(item.station.brewerId, bench),
    prepVersion: CARD_VERSION,
  };
}

/** A brewer of the bar's own goes with the brew: what it holds may be changed on the Bench later. */
function ownBrewerFor(brewerId: string, { brewers }: Bench): Pick<BrewStarted, 'ownBrewer'> {
  const own = brewers?.find(({ id }) => id === brewerId);
  return own ? { ownBrewer: own } : {};
}

/** The coffee's age, what the first grinder stands at for it, and the water: for the record. */
function groundFor({ cup, card }: Pick<AgendaItem, 'cup' | 'card'>, { coffees, grinders, water }: Bench) {
  const coffee = coffees?.find(({ name }) => name === cup.coffee);
  const [grinder] = grinders;
  const ground =
    grinder &&
    grindSetting(grinder, card.grindBand, grindOffsetFor(coffee, cup.recipeId, grinder.id, cup.sample));
  return {
    ...(coffee?.roastedOn === undefined ? {} : { roastedOn: coffee.roastedOn }),
    ...(ground?.ok ? { grinderId: grinder!.id, grindSetting: ground.setting } : {}),
    ...(water ? { water: water.name } : {}),
  };
}
