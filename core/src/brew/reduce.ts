/**
 * The bar's rules: what an event does to the state, or why it cannot be. Server and app share this function, so an
 * event that the app has accepted is refused by the server only where another device was there first.
 */
import {
  RecipeError,
  brewCard,
  brewerById,
  type Ask,
  type BrewCard,
  type Place,
  type RecipeBook,
  type RecipeRef,
  tuned,
} from '../recipe';
import { accept, ownEntry, refuse, type Applied, type Refusal } from './applied';
import { nextBadge } from './badge';
import {
  MOST_CUPS_OF_A_BREW,
  areAlike,
  askOf,
  kettleOfStart,
  EVENT_KINDS,
  type BarEvent,
  type BarEventType,
  type CupAsk,
  type BrewEvent,
  type BrewGiven,
  type BrewStarted,
  type CupCancelled,
  type CupRemade,
  type EventOf,
  type HandsAway,
  type OrderTaken,
  type OrderUrged,
  type RoundBegun,
  type RoundRevealed,
  type RoundScored,
  type HouseEvent,
} from './events';
import { fold, foldOn, withBrew, withOrder, withStarted } from './fold';
import { reassignBrew } from './reassign';
import {
  EMPTY_BAR,
  brewAt,
  hostOf,
  latestBrew,
  nextBrewId,
  openOrders,
  type BarState,
  type CupState,
  type OrderState,
} from './state';
import { refusalOf } from './refusals';
import { roundsOf } from './round';
import { undo } from './undo';

/** Two devices' clocks may differ by this much before an event counts as out of time, milliseconds of bar time. */
const CLOCK_SLACK_MS = 5000;

type Rule<Event extends BarEvent> = (state: BarState, event: Event, book: RecipeBook) => Applied;

const keepHouseEvent: Rule<HouseEvent> = (state, event) =>
  accept({ ...state, houseEvents: [...(state.houseEvents ?? []), event] });

const RULES: { [Type in BarEventType]: Rule<EventOf<Type>> } = {
  'order-taken': takeOrder,
  'cup-cancelled': changeOrder,
  'cup-remade': changeOrder,
  'order-urged': urgeOrder,
  'hands-away': goAway,
  'brew-started': startBrew,
  'brew-given': reassignBrew,
  'step-begun': changeBrew,
  'step-done': changeBrew,
  'step-skipped': changeBrew,
  'step-corrected': changeBrew,
  'dose-corrected': changeBrew,
  'brew-moved': changeBrew,
  'brew-noted': changeBrew,
  'cup-tasted': changeBrew,
  'step-taken': changeBrew,
  'brew-served': changeBrew,
  'brew-abandoned': changeBrew,
  'coffee-weighed': keepHouseEvent,
  'papers-counted': keepHouseEvent,
  'cloth-boiled': keepHouseEvent,
  'cloth-replaced': keepHouseEvent,
  'change-tried': keepHouseEvent,
  'round-begun': takeRound,
  'round-scored': takeRound,
  'round-revealed': takeRound,
  'event-undone': (state, { eventId }) => undo(state, eventId),
};

/**
 * Applies one event. Never throws: an event that breaks a rule, or that is of a kind not known here, is refused, and
 * the state is then as it was.
 */
export function apply(state: BarState, event: BarEvent, book: RecipeBook): Applied {
  const rule = ownEntry<unknown>(RULES, event.type) as Rule<BarEvent> | undefined;
  if (rule) return rule(state, event, book);
  return refuse('unknown', 'type', `No rule for events of type “${String(event.type)}”.`);
}

export type Reduced = { state: BarState; refused: { event: BarEvent; refusal: Refusal }[] };

/** The state after a log, from the empty bar or from an earlier state. Refused events are skipped and listed. */
export function reduce(events: Iterable<BarEvent>, book: RecipeBook, from: BarState = EMPTY_BAR): Reduced {
  const reduced: Reduced = { state: from, refused: [] };
  for (const event of events) {
    const applied = apply(reduced.state, event, book);
    if (applied.ok) reduced.state = applied.state;
    else reduced.refused.push({ event, refusal: applied.refusal });
  }
  return reduced;
}

function takeOrder(state: BarState, event: OrderTaken, book: RecipeBook): Applied {
  if (Object.hasOwn(state.orders, event.orderId))
    return refuse('already-exists', 'orderId', 'There is an order with this id already.');
  const taken = new Set(Object.values(state.orders).flatMap((order) => order.cups.map((cup) => cup.cupId)));
  for (const [index, cup] of event.cups.entries()) {
    if (taken.has(cup.cupId))
      return refuse('already-exists', `cups.${index}.cupId`, 'There is a cup with this id already.');
    taken.add(cup.cupId);
    const made = makeCard(book, cup, askOf(cup));
    if (!made.ok) return refuse(made.code, `cups.${index}.${made.field}`, made.reason);
    const reason = cannotShare(state, cup);
    if (reason) return refuse('cup-not-ready', `cups.${index}.with`, reason);
  }
  const order: OrderState = {
    id: event.orderId,
    ...(event.name === undefined ? {} : { name: event.name }),
    badge: nextBadge(state.lastBadge, new Set(openOrders(state).map((open) => open.badge))),
    badgeBefore: state.lastBadge,
    takenMs: event.atMs,
    ...(event.promisedMs === undefined ? {} : { promisedMs: event.promisedMs }),
    ...(event.expectedMs === undefined ? {} : { expectedMs: event.expectedMs }),
    cups: event.cups.map((cup) => ({ ...cup, status: 'waiting', brewIds: [], attempts: [] })),
    events: [event],
  };
  return accept({ ...withOrder(state, order), lastBadge: order.badge });
}

/** Why a cup cannot share another cup's brew; null if it can, or if it has its own. */
function cannotShare(state: BarState, cup: CupAsk): string | null {
  if (!cup.with) return null;
  const host = hostOf(state, cup);
  if (!host || host.with) return 'There is no such cup with a brew of its own.';
  if (host.status !== 'waiting') return `That cup does not wait any more; it is ${host.status}.`;
  if (host.attempts.length > 0) return 'That cup has been brewed once already; it is brewed again by itself.';
  if (!areAlike(host, cup)) return 'Only cups of one recipe, coffee and size are poured out of one brew.';
  return (host.cups ?? 1) + (cup.cups ?? 1) > MOST_CUPS_OF_A_BREW
    ? `One brew is poured into at most ${MOST_CUPS_OF_A_BREW} cups.`
    : null;
}

function urgeOrder(state: BarState, event: OrderUrged): Applied {
  const order = ownEntry(state.orders, event.orderId);
  if (!order) return refuse('unknown', 'orderId', 'There is no such order.');
  return accept(withOrder(state, { ...order, events: [...order.events, event] }));
}

/** The longest break, milliseconds; a person who is away longer is taken off the bench. */
const LONGEST_BREAK_MS = 2 * 3600 * 1000;

function goAway(state: BarState, event: HandsAway): Applied {
  if (event.toMs <= event.fromMs || event.toMs - event.fromMs > LONGEST_BREAK_MS)
    return refuse('out-of-time', 'toMs', 'A break ends after it begins, and within two hours.');
  if (event.toMs <= event.atMs) return refuse('out-of-time', 'toMs', 'This break would be over already.');
  return accept({ ...state, away: [...(state.away ?? []), event] });
}

/** A round is begun once, scored while its coffees are hidden, and shown once. */
function takeRound(state: BarState, event: RoundBegun | RoundScored | RoundRevealed): Applied {
  const round = roundsOf(state).find(({ roundId }) => roundId === event.roundId);
  const houseEvents = [...(state.houseEvents ?? []), event];
  if (event.type === 'round-begun')
    return round
      ? refuse('already-exists', 'roundId', 'There is a round with this id already.')
      : accept({ ...state, houseEvents });
  if (!round) return refuse('unknown', 'roundId', 'There is no such sample round.');
  if (round.revealed)
    return refuse('already-done', 'roundId', 'The letters have been opened; nothing is scored any more.');
  if (event.type === 'round-scored' && !round.letters.some(({ letter }) => letter === event.letter))
    return refuse(
      'unknown',
      'letter',
      `This round has the letters ${round.letters.map(({ letter }) => letter).join(', ')}.`,
    );
  return accept({ ...state, houseEvents });
}

function changeOrder(state: BarState, event: CupCancelled | CupRemade): Applied {
  const found = findCup(state, event);
  if (!found.ok) return found;
  const { order, cup } = found;
  if (event.type === 'cup-cancelled' && cup.status !== 'waiting') {
    return refuse(
      'cup-not-ready',
      'cupId',
      `Only a cup that waits can be cancelled; this one is ${cup.status}. Give its brew up first.`,
    );
  }
  const shared = Object.values(state.orders).some(({ cups }) =>
    cups.some((each) => each.with?.cupId === cup.cupId && each.status === 'waiting'),
  );
  if (event.type === 'cup-cancelled' && shared)
    return refuse(
      'cup-not-ready',
      'cupId',
      'A cup of another order is to be poured out of its brew; cancel that one first.',
    );
  if (event.type === 'cup-remade') {
    if (cup.status !== 'served')
      return refuse('cup-not-ready', 'cupId', `Only a served cup can be remade; this one is ${cup.status}.`);
    if (latestBrew(state, cup)?.id !== event.brewId)
      return refuse('cup-not-ready', 'brewId', 'The cup has been brewed again since.');
  }
  return accept(withOrder(state, { ...order, events: [...order.events, event] }));
}

function startBrew(state: BarState, event: BrewStarted, book: RecipeBook): Applied {
  const found = findCup(state, event);
  if (!found.ok) return found;
  const { order, cup } = found;
  if (ownEntry(state.brews, event.brewId))
    return refuse('already-done', 'brewId', 'This brew has been started already.');
  if (cup.with)
    return refuse('cup-not-ready', 'cupId', 'This cup is poured out of another’s brew; start that one.');
  if (cup.status !== 'waiting')
    return refuse('cup-not-ready', 'cupId', `The cup does not wait for a brew; it is ${cup.status}.`);
  const rightId = nextBrewId(cup);
  if (event.brewId !== rightId)
    return refuse('cup-not-ready', 'brewId', `The cup’s next brew is ${rightId}.`);
  if (event.atMs < order.takenMs - CLOCK_SLACK_MS)
    return refuse('out-of-time', 'atMs', 'A brew cannot start before its order was taken.');
  const holder = brewAt(state, event.stationId);
  if (holder)
    return refuse(
      'station-busy',
      'stationId',
      `${event.stationName} is still held by another brew, until it is cleaned.`,
    );
  const brewer = brewerById(event.brewerId);
  const forCoffee: RecipeBook = (ref) => {
    const recipe = book(ref);
    return recipe && tuned(recipe, event);
  };
  const made = makeCard(forCoffee, cup, askOf(cup), {
    altitudeM: event.altitudeM,
    roast: cup.roast,
    kettle: kettleOfStart(event),
    setBy: 'bar',
    ...(brewer ? { brewer } : {}),
    ...(event.retentionGPerG === undefined ? {} : { retentionGPerG: event.retentionGPerG }),
    ...(event.drawdownExponent === undefined ? {} : { drawdownExponent: event.drawdownExponent }),
    ...(event.drawdownExponentSd === undefined ? {} : { drawdownExponentSd: event.drawdownExponentSd }),
    ...(event.withoutScale ? { withoutScale: true } : {}),
    ...(event.handHeld ? { handHeld: true } : {}),
    ...(event.prepVersion === undefined ? { beansFirst: true } : {}),
  });
  if (!made.ok) return refuse(made.code, 'cupId', made.reason);
  const { status: _status, brewIds: _brewIds, attempts: _tried, ...ask } = cup;
  return accept(withStarted(state, fold({ ask, planned: made.card, events: [event] })));
}

function changeBrew(state: BarState, event: Exclude<BrewEvent, BrewStarted | BrewGiven>): Applied {
  const brew = ownEntry(state.brews, event.brewId);
  // A cup may be tasted long after its brew has left this state. Only the whole log knows whether the brew existed.
  if (!brew && event.type === 'cup-tasted') return accept(state);
  if (!brew) return refuse('unknown', 'brewId', 'There is no such brew on the bar now.');
  if (EVENT_KINDS[event.type].inTime && event.atMs < brew.lastMs - CLOCK_SLACK_MS) {
    return refuse('out-of-time', 'atMs', 'This is earlier than what was last recorded of the brew.');
  }
  const refusal = refusalOf(state, brew, event);
  if (refusal) return { ok: false, refusal };
  return accept(withBrew(state, foldOn(brew, event)));
}

type FoundCup = { ok: true; order: OrderState; cup: CupState } | Extract<Applied, { ok: false }>;

function findCup(state: BarState, { orderId, cupId }: { orderId: string; cupId: string }): FoundCup {
  const order = ownEntry(state.orders, orderId);
  const cup = order?.cups.find((each) => each.cupId === cupId);
  if (order && cup) return { ok: true, order, cup };
  const refusal: Refusal = order
    ? { code: 'unknown', field: 'cupId', reason: 'There is no such cup in this order.' }
    : { code: 'unknown', field: 'orderId', reason: 'There is no such order.' };
  return { ok: false, refusal };
}

type MadeCard =
  | { ok: true; card: BrewCard }
  | { ok: false; code: 'unknown-recipe' | 'does-not-make-a-cup'; field: string; reason: string };

/** The card of a cup, or the reason why there is none; a log of older rules must not stop the bar. */
function makeCard(book: RecipeBook, ref: RecipeRef, ask: Ask, place?: Place): MadeCard {
  const recipe = book(ref);
  if (!recipe) {
    return {
      ok: false,
      code: 'unknown-recipe',
      field: 'recipeId',
      reason: `There is no recipe ${ref.recipeId} version ${ref.recipeVersion}.`,
    };
  }
  try {
    return { ok: true, card: brewCard(recipe, ask, place) };
  } catch (error) {
    if (!(error instanceof RecipeError || error instanceof RangeError)) throw error;
    return {
      ok: false,
      code: 'does-not-make-a-cup',
      field: error instanceof RecipeError ? error.field : 'altitudeM',
      reason: error.message,
    };
  }
}
