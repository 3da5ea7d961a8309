/**
 * The events of orders: what was asked for, and how it changed until it was served.
 */
import type { Addition, Ask, PlainFilter, RecipeRef, RoastLevel } from '../recipe';
import type { RingStroke } from './badge';
import type { EventBase } from './events';

/** Which milk goes in. Any of them may be an allergen. */
export const MILKS = ['dairy', 'oat', 'soy', 'almond'] as const;
export type Milk = (typeof MILKS)[number];

/** What matters when a cup is handed over, and changes nothing of its brew. */
export type CupService = {
  /** What goes in or beside it besides the `addition`. */
  besides?: Addition[];
  milk?: Milk;
  /** Taken along, so that it is not served here. */
  toGo?: true;
  /** What this guest must not have, in words. */
  allergy?: string;
  /** A wish, in words. */
  note?: string;
  decaf?: true;
};

/**
 * What is changed for one cup, to compare it with others: steps of the first grinder, degrees, ratio, the filter; or which
 * recipe it is, where recipes are compared.
 */
export type Trial = {
  grindBy?: number;
  waterByC?: number;
  ratioBy?: number;
  filter?: PlainFilter;
  recipeId?: string;
};

/** Whether a trial shows on the card of whoever brews it, so that the card must not say its letter. */
export const isPlainToSee = ({ filter, recipeId }: Trial): boolean =>
  filter !== undefined || recipeId !== undefined;

/** A cup that is tasted behind a letter, and is sold to nobody. */
export type Sample = Trial & { roundId: string; letter: string };

/** One cup of an order: what was asked for. */
export type CupAsk = RecipeRef &
  CupService & {
    cupId: string;
    coffee: string;
    roast: RoastLevel;
    cupMl: number;
    /** Ice or milk make the brew stronger; sugar is served beside. */
    addition?: Addition;
    /** The coffee was roasted less than four days before it was ordered, so that it still holds much gas. */
    gassy?: true;
    /** How many cups of that size are poured out of the one brew; 1 if left out. */
    cups?: number;
    /** It is one of a round that is tasted behind letters. */
    sample?: Sample;
    /** A waiting cup of another order: this cup is poured out of its brew. */
    with?: { orderId: string; cupId: string };
  };

/** The most cups that one brew is poured into. */
export const MOST_CUPS_OF_A_BREW = 4;
/** The most cups that one order holds. */
export const MOST_CUPS_OF_AN_ORDER = 12;

/** Whether two cups can be poured out of one brew: of one recipe, coffee and size, with the same in them. */
export const areAlike = (a: CupAsk, b: CupAsk): boolean =>
  a.recipeId === b.recipeId &&
  a.recipeVersion === b.recipeVersion &&
  a.coffee === b.coffee &&
  a.cupMl === b.cupMl &&
  a.addition === b.addition &&
  a.sample?.roundId === b.sample?.roundId &&
  a.sample?.letter === b.sample?.letter;

/** Whether two cups are brewed in the very same way, apart from what is done as they are handed over. */
export const brewAlike = (a: CupAsk, b: CupAsk): boolean =>
  areAlike(a, b) &&
  a.roast === b.roast &&
  a.gassy === b.gassy &&
  (a.cups ?? 1) === (b.cups ?? 1) &&
  a.with?.cupId === b.with?.cupId;

/** Whether two cups are handed over in the same way: what one guest must not have is no other's. */
export const servedAlike = (a: CupAsk, b: CupAsk): boolean =>
  a.milk === b.milk &&
  a.toGo === b.toGo &&
  a.allergy === b.allergy &&
  a.note === b.note &&
  a.decaf === b.decaf &&
  (a.besides ?? []).join() === (b.besides ?? []).join();

/** A cup without what is done as it is handed over: what its brew is made by. */
export function withoutService(cup: CupAsk): CupAsk {
  const { besides: _b, milk: _m, toGo: _t, allergy: _a, note: _n, decaf: _d, ...ask } = cup;
  return ask;
}

/** What a cup asks of its recipe. */
export const askOf = ({ cupMl, addition, cups = 1 }: Pick<CupAsk, 'cupMl' | 'addition' | 'cups'>): Ask => ({
  ...(cups > 1 ? { cups, eachMl: cupMl } : { cupMl }),
  ...(addition ? { addition } : {}),
});

/** The queue that an order stands in, with what that queue promises. The bar's one queue where it is left out. */
export type InQueue = {
  queueId?: string;
  /** Out within so many seconds of being taken. */
  withinS?: number;
  /** Wanted at this time and not much before it, bar milliseconds. */
  pickUpMs?: number;
  /** How much its waiting counts beside other queues'. */
  share?: number;
  /** Its badges have this ring. */
  stroke?: RingStroke;
};

export type OrderTaken = EventBase<'order-taken'> &
  InQueue & {
    orderId: string;
    name?: string;
    /** The guest gave the name to be called by it, so that the board may show it. */
    nameShown?: true;
    /** The till that posted it. */
    till?: string;
    cups: CupAsk[];
    /** The promised time, bar milliseconds; left out if nothing was promised. */
    promisedMs?: number;
    /** When the plan had the order out when it was taken. The planner aims at this time, not at the promise with its margin. */
    expectedMs?: number;
  };
/** An order goes before or after others: its waiting counts `weight` times, and it is wanted by a time. */
export type OrderUrged = EventBase<'order-urged'> & { orderId: string; weight: number; wantedMs?: number };
/** An order stands in another queue from now on. */
export type OrderQueued = EventBase<'order-queued'> & Omit<InQueue, 'stroke'> & { orderId: string };
/** Without a name it has none any more. */
export type OrderRenamed = EventBase<'order-renamed'> & { orderId: string; name?: string; nameShown?: true };
/** The guest has left: what waits is not brewed, and nothing of it is brewed again. */
export type GuestLeft = EventBase<'guest-left'> & { orderId: string };
export type CupAdded = EventBase<'cup-added'> & { orderId: string; cup: CupAsk };
/** The guest wants something else: the whole of what the cup is now. What is being brewed or served changes only in how it is handed over. */
export type CupChanged = EventBase<'cup-changed'> & { orderId: string; cup: CupAsk };
export type CupCancelled = EventBase<'cup-cancelled'> & { orderId: string; cupId: string };
/** A served cup goes back to the bar (dropped, wrong, not liked) and is brewed again. */
export type CupRemade = EventBase<'cup-remade'> & {
  orderId: string;
  cupId: string;
  brewId: string;
  reason: string;
};
/** Cups go over to another order: to one that is there, or to a new one that is split off. */
export type CupsMoved = EventBase<'cups-moved'> & {
  orderId: string;
  toOrderId: string;
  /** The cups as they are when they go. */
  cups: CupAsk[];
  /** Of an order that is split off. */
  name?: string;
};
/** Cups that stood ready have been fetched. */
export type CupsFetched = EventBase<'cups-fetched'> & { orderId: string; cupIds: string[] };

export type OrderEvent =
  | OrderTaken
  | OrderUrged
  | OrderQueued
  | OrderRenamed
  | GuestLeft
  | CupAdded
  | CupChanged
  | CupCancelled
  | CupRemade
  | CupsMoved
  | CupsFetched;
