/**
 * The events of the bar: everything that happens, in the words of those who do it. They are appended to one log and
 * never changed; the state of the bar is what `reduce` makes of them.
 */
import type { Addition, Ask, RecipeRef, RoastLevel } from '../recipe';
import type { Kettle } from '../water';

type Base<Type extends string> = {
  /** Chosen by the device that made the event (UUIDv7), so that posting twice stores once. */
  id: string;
  type: Type;
  /** Bar time, milliseconds since 1970. */
  atMs: number;
};

/** One cup of an order: what was asked for. */
export type CupAsk = RecipeRef & {
  cupId: string;
  coffee: string;
  roast: RoastLevel;
  cupMl: number;
  /** Ice or milk make the brew stronger; sugar is served beside. */
  addition?: Addition;
};

export type OrderTaken = Base<'order-taken'> & { orderId: string; name?: string; cups: CupAsk[] };
export type CupCancelled = Base<'cup-cancelled'> & { orderId: string; cupId: string };
/** A served cup goes back to the bar (dropped, wrong, not liked) and is brewed again. */
export type CupRemade = Base<'cup-remade'> & {
  orderId: string;
  cupId: string;
  brewId: string;
  reason: string;
};

/** Brewing of a cup begins at a station: its first prep step starts now. */
export type BrewStarted = Base<'brew-started'> & {
  brewId: string;
  orderId: string;
  cupId: string;
  stationId: string;
  stationName: string;
  brewerId: string;
  altitudeM: number;
  kettlePowerW: number;
  kettleFilledAtC: number;
  kettleSizeMl?: number;
  kettleMaxFlowGPerS?: number;
};
/** A step begins, where that moment matters by itself: the first water starts the timer. */
export type StepBegun = Base<'step-begun'> & { brewId: string; stepId: string };
export type StepDone = Base<'step-done'> & { brewId: string; stepId: string; readingG?: number };
/** The cup is handed over; this ends the brew's serving step. */
export type BrewServed = Base<'brew-served'> & { brewId: string; beverageG?: number };
/** The brew is given up; its cup waits to be brewed again. */
export type BrewAbandoned = Base<'brew-abandoned'> & { brewId: string; reason: string };

/** Takes an earlier event back, as if it had not been. */
export type EventUndone = Base<'event-undone'> & { eventId: string };

export type OrderEvent = OrderTaken | CupCancelled | CupRemade;
export type BrewEvent = BrewStarted | StepBegun | StepDone | BrewServed | BrewAbandoned;
export type BarEvent = OrderEvent | BrewEvent | EventUndone;
export type BarEventType = BarEvent['type'];

/** The nth brewing of a cup, counted from 1. Two devices that start the same brewing name it alike. */
export const brewIdOf = (cupId: string, attempt: number): string => `${cupId}.${attempt}`;

/** The kettle that a brew was started with. */
export const kettleOfStart = (event: BrewStarted): Kettle => ({
  powerW: event.kettlePowerW,
  filledAtC: event.kettleFilledAtC,
  ...(event.kettleSizeMl === undefined ? {} : { sizeMl: event.kettleSizeMl }),
  ...(event.kettleMaxFlowGPerS === undefined ? {} : { maxFlowGPerS: event.kettleMaxFlowGPerS }),
});

/** A kettle as a brew's start tells it. */
export const kettleForStart = (kettle: Kettle) => ({
  kettlePowerW: kettle.powerW,
  kettleFilledAtC: kettle.filledAtC,
  ...(kettle.sizeMl === undefined ? {} : { kettleSizeMl: kettle.sizeMl }),
  ...(kettle.maxFlowGPerS === undefined ? {} : { kettleMaxFlowGPerS: kettle.maxFlowGPerS }),
});

/** What a cup asks of its recipe. */
export const askOf = ({ cupMl, addition }: Pick<CupAsk, 'cupMl' | 'addition'>): Ask => ({
  cupMl,
  ...(addition ? { addition } : {}),
});
