/**
 * The events of the bar: everything that happens there. They are appended to one log and
 * never changed; the state of the bar is what `reduce` makes of them.
 */
import type { Brewer, MethodId, PlainFilter } from '../recipe';
import type { Kettle } from '../water';
import type { Note } from './notes';
import type { CupsMoved, OrderEvent, Trial } from './order-events';
import type { Pair } from './pair';
import type { Notch, Taste } from './taste';

/** What every event says. */
export type EventBase<Type extends string> = {
  /** Chosen by the device that made the event (UUIDv7), so that posting twice stores once. */
  id: string;
  type: Type;
  /** Bar time, milliseconds since 1970. */
  atMs: number;
  /** The person who did it, if the device knows: a person of the bench. */
  by?: string;
};

/** Brewing of a cup begins at a station: its first prep step starts now. */
export type BrewStarted = EventBase<'brew-started'> & {
  brewId: string;
  orderId: string;
  cupId: string;
  stationId: string;
  stationName: string;
  brewerId: string;
  altitudeM: number;
  /** The kettle of the bench that it pours out of. */
  kettleId?: string;
  kettlePowerW: number;
  kettleFilledAtC: number;
  kettleSizeMl?: number;
  kettleMaxFlowGPerS?: number;
  /** What a gram of coffee keeps, and how drawdown grows, where the log has taught it. */
  retentionGPerG?: number;
  drawdownExponent?: number;
  drawdownExponentSd?: number;
  /** What was changed of the recipe for this coffee: ratio, and degrees. */
  ratioBy?: number;
  waterByC?: number;
  /** It is brewed through another filter, to compare it. */
  filter?: PlainFilter;
  /** What was in the grinder and the kettle then, for the record. */
  roastedOn?: string;
  grinderId?: string;
  grindSetting?: number;
  water?: string;
  /** There is no scale under the brewer: its water is weighed beforehand, and pours end by clock and eye. */
  withoutScale?: true;
  /** The brewer is held in the hand, which keeps the hands through the drawdown. */
  handHeld?: true;
  /** The cup stands under the brewer in place of a server. */
  intoCup?: true;
  /** Its beans stand weighed in a tin. */
  fromTin?: true;
  /** What is true of a brewer of the bar's own. */
  ownBrewer?: Brewer;
  /**
   * The version of the rules that made its card (`CARD_VERSION`). It is called so since its first change was of how a station
   * is got ready. Logs of version 0.1 have none, which is the first.
   */
  prepVersion?: number;
};
/** Whose hands did it, on a bar with two pairs. */
type ByPair = { pair?: Pair };
/** A step begins, where that moment matters by itself: the first water starts the timer. */
export type StepBegun = EventBase<'step-begun'> &
  ByPair & {
    brewId: string;
    stepId: string;
    /** What the thermometer said of its water, degrees Celsius. */
    readC?: number;
  };
export type StepDone = EventBase<'step-done'> &
  ByPair & {
    brewId: string;
    stepId: string;
    readingG?: number;
    /** What the thermometer said, where the card asks for a temperature, degrees Celsius. */
    readC?: number;
    /** How many grams before the target the card said to stop, for a hand that is known to stop late. */
    leadG?: number;
    /**
     * The hands were busy when this step may have ended. This is the last time at which it was surely not over, bar
     * milliseconds; it ended between then and the tap.
     */
    notOverMs?: number;
  };
/** A step is left out: a pulse that was forgotten, or a stir that nobody needs. The brew goes on with the next step. */
export type StepSkipped = EventBase<'step-skipped'> & { brewId: string; stepId: string };
/** Corrects the times of a step, or what the scale read; entered later, from the station. */
export type StepCorrected = EventBase<'step-corrected'> & {
  brewId: string;
  stepId: string;
  begunMs?: number;
  doneMs?: number;
  readingG?: number;
};
/** The dose that is really in the brewer; all targets are changed to match. */
export type DoseCorrected = EventBase<'dose-corrected'> & { brewId: string; doseG: number };
/** The brew is at another station than its start said. */
export type BrewMoved = EventBase<'brew-moved'> & {
  brewId: string;
  stationId: string;
  stationName: string;
  brewerId: string;
};
/** A brew goes to another cup than it was started for; a brew that was under way for that cup goes the other way. */
export type BrewGiven = EventBase<'brew-given'> & {
  brewId: string;
  fromOrderId: string;
  fromCupId: string;
  orderId: string;
  cupId: string;
  otherBrewId?: string;
};
/** Something that was seen during a brew, reported in one tap. */
export type BrewNoted = EventBase<'brew-noted'> & { brewId: string; note: Note };
/** What the cup tasted like once it had cooled; the latest entry counts. */
export type CupTasted = EventBase<'cup-tasted'> & { brewId: string; taste: Taste };
/** A pair of hands takes a step over from the other. */
export type StepTaken = EventBase<'step-taken'> & { brewId: string; stepId: string; pair: Pair };
/** The cup is handed over; this ends the brew's serving step. */
export type BrewServed = EventBase<'brew-served'> & ByPair & { brewId: string; beverageG?: number };
/** The brew is stopped; its cup waits to be brewed again. */
export type BrewAbandoned = EventBase<'brew-abandoned'> & { brewId: string; reason: string };

/** Takes an earlier event back, as if it had never happened. */
export type EventUndone = EventBase<'event-undone'> & { eventId: string };

/** One pair of hands is away for a while: a break. */
export type HandsAway = EventBase<'hands-away'> & { fromMs: number; toMs: number };

/** This much of a coffee is in stock now; brews use it up from there. */
export type CoffeeWeighed = EventBase<'coffee-weighed'> & { coffee: string; stockG: number };
/** This many papers of a method are in stock now; brews use them up from there. */
export type PapersCounted = EventBase<'papers-counted'> & { method: MethodId; sheets: number };
export type ClothBoiled = EventBase<'cloth-boiled'> & { clothId: string };
/** A new cloth takes the place of the old one. */
export type ClothReplaced = EventBase<'cloth-replaced'> & { clothId: string };
/** A change that a brew's record advised was accepted, with what is expected of it; the next brews show whether it helped. */
export type ChangeTried = EventBase<'change-tried'> & {
  coffee: string;
  recipeId: string;
  fromBrewId: string;
  /** In a line, as it was advised. */
  words: string;
  expectS?: number;
  plusMinusS?: number;
};
/** Several coffees by one recipe, or one coffee with something changed, each behind a letter. */
export type RoundBegun = EventBase<'round-begun'> & {
  roundId: string;
  recipeId: string;
  /** The order whose cups are tasted; older logs have none. */
  sampleOrderId?: string;
  cups: (Trial & { letter: string; coffee: string })[];
};
/** One taster's score of a letter, 1 to 10; the latest counts. */
export type RoundScored = EventBase<'round-scored'> & {
  roundId: string;
  letter: string;
  taster: string;
  score: number;
  /** Its body, as this taster found it. */
  body?: Notch;
  words?: string;
};
/** The coffees behind the letters are shown; no scores are taken after that. */
export type RoundRevealed = EventBase<'round-revealed'> & { roundId: string };
/** What is got ready ahead of a rush. */
export const READY_THINGS = ['tins', 'filters', 'kettles', 'servers'] as const;
export type ReadyThing = (typeof READY_THINGS)[number];
/** So many more were got ready: covered tins of a weighed dose, folded filters, filled kettles, warmed servers. Brews use them up. */
export type MadeReady = EventBase<'made-ready'> & {
  thing: ReadyThing;
  count: number;
  /** Of tins. */
  coffee?: string;
  doseG?: number;
  /** Of filters. */
  method?: MethodId;
};
/** What was left in stale tins has been put back, so that none of these stands ready. */
export type TinsEmptied = EventBase<'tins-emptied'> & { coffee: string; doseG: number };
/** The lists of a day. */
export const DAY_LISTS = ['opening', 'closing'] as const;
export type DayList = (typeof DAY_LISTS)[number];
/** A line of a list has been done. */
export type TaskDone = EventBase<'task-done'> & { list: DayList; taskId: string };
/** Whoever takes the bar over has read how it stands. */
export type ShiftHandedOver = EventBase<'shift-handed-over'>;
/** Events about the bar's things, besides orders and brews. */
export type HouseEvent =
  | CoffeeWeighed
  | PapersCounted
  | ClothBoiled
  | ClothReplaced
  | ChangeTried
  | RoundBegun
  | RoundScored
  | RoundRevealed
  | MadeReady
  | TinsEmptied
  | TaskDone
  | ShiftHandedOver;

/** The events that a brew is the fold of; cups that go to another order take their brews along. */
export type BrewEvent =
  | CupsMoved
  | BrewStarted
  | StepBegun
  | StepDone
  | StepSkipped
  | StepCorrected
  | DoseCorrected
  | BrewMoved
  | BrewGiven
  | BrewNoted
  | CupTasted
  | StepTaken
  | BrewServed
  | BrewAbandoned;
export type BarEvent = OrderEvent | BrewEvent | HouseEvent | HandsAway | EventUndone;
export type BarEventType = BarEvent['type'];

/** The events of one type. */
export type EventOf<Type extends BarEventType> = Extract<BarEvent, { type: Type }>;

export type EventKind = {
  /** The part of the state that it is about. */
  moves: 'orders' | 'brews' | 'hands' | 'house' | 'log';
  /** A remark: it does not change the course of a brew, and events before it can still be undone. */
  remark?: true;
  /** It happens at its own time, so it cannot be earlier than the brew's last event. */
  inTime?: true;
};

/** Every type of event there is. Its schema (`contract`) and its rule (`reduce`) are checked against this by the compiler. */
export const EVENT_KINDS: Record<BarEventType, EventKind> = {
  'order-taken': { moves: 'orders' },
  'order-urged': { moves: 'orders' },
  'order-queued': { moves: 'orders' },
  'order-renamed': { moves: 'orders', remark: true },
  'guest-left': { moves: 'orders' },
  'cup-added': { moves: 'orders' },
  'cup-changed': { moves: 'orders' },
  'cup-cancelled': { moves: 'orders' },
  'cup-remade': { moves: 'orders' },
  // For a brew it is a remark: it goes on as it was.
  'cups-moved': { moves: 'orders', remark: true },
  'cups-fetched': { moves: 'orders', remark: true },
  'hands-away': { moves: 'hands' },
  'brew-started': { moves: 'brews' },
  'step-begun': { moves: 'brews', inTime: true },
  'step-done': { moves: 'brews', inTime: true },
  'step-skipped': { moves: 'brews', inTime: true },
  'step-corrected': { moves: 'brews' },
  'dose-corrected': { moves: 'brews' },
  'brew-moved': { moves: 'brews' },
  'brew-given': { moves: 'brews' },
  'brew-noted': { moves: 'brews', remark: true },
  'cup-tasted': { moves: 'brews', remark: true },
  'step-taken': { moves: 'brews', remark: true },
  'brew-served': { moves: 'brews', inTime: true },
  'brew-abandoned': { moves: 'brews', inTime: true },
  'coffee-weighed': { moves: 'house' },
  'papers-counted': { moves: 'house' },
  'cloth-boiled': { moves: 'house' },
  'cloth-replaced': { moves: 'house' },
  'change-tried': { moves: 'house' },
  'round-begun': { moves: 'house' },
  'round-scored': { moves: 'house' },
  'round-revealed': { moves: 'house' },
  'made-ready': { moves: 'house' },
  'tins-emptied': { moves: 'house' },
  'task-done': { moves: 'house' },
  'shift-handed-over': { moves: 'house' },
  'event-undone': { moves: 'log' },
};

export const isRemark = ({ type }: Pick<BarEvent, 'type'>): boolean => EVENT_KINDS[type].remark === true;

/** Whether the bar has to be planned again after it. */
export const movesThePlan = ({ type }: Pick<BarEvent, 'type'>): boolean =>
  type === 'cups-moved' || (!isRemark({ type }) && EVENT_KINDS[type].moves !== 'house');

/** The nth brew of a cup, counted from 1. Two devices that start the same brew give it the same id. */
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
