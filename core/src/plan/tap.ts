/**
 * What a tap on the hands card means, as events.
 */
import { kettleForStart, type BarEvent, type BrewStarted } from '../brew';
import type { AgendaItem } from './agenda';
import { kettleOf, type Bench } from './bench';

/** How the device names a new event. */
export type NewId = () => string;

/**
 * The events that one tap makes, in order; two where the tap also starts a waiting cup's brew. None while the step
 * ends by itself.
 * @param atMs bar time of the tap
 * @param readingG what the scale read, where a person gave it
 */
export function tapEvents(
  item: AgendaItem,
  bench: Bench,
  atMs: number,
  newId: NewId,
  readingG?: number,
): BarEvent[] {
  if (item.asks === 'runs') return [];
  const { brewId, step } = item;
  if (item.asks === 'cue')
    return [{ id: newId(), type: 'step-done', atMs, brewId, stepId: item.awaited!.id }];
  if (item.asks === 'start') return [{ id: newId(), type: 'step-begun', atMs, brewId, stepId: step.id }];
  if (step.kind === 'serve') return [{ id: newId(), type: 'brew-served', atMs, brewId }];
  const done: BarEvent = {
    id: newId(),
    type: 'step-done',
    atMs,
    brewId,
    stepId: step.id,
    ...(readingG === undefined ? {} : { readingG }),
  };
  if (item.brew) return [done];
  // The tap says that the first step is over; it began a step's length before, but not before it was asked for.
  const startedMs = Math.max(item.order.takenMs, atMs - step.durationS * 1000);
  return [startEvent(item, bench, startedMs, newId), done];
}

/** The event that starts brewing a waiting cup at its station. */
export function startEvent(
  item: Pick<AgendaItem, 'brewId' | 'order' | 'cup' | 'station'>,
  bench: Bench,
  atMs: number,
  newId: NewId,
): BrewStarted {
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
    ...kettleForStart(kettleOf(bench)),
  };
}
