/**
 * The bar's rules: what an event does to the state, or why it cannot be. Server and app share this function, so an
 * event that the app has accepted is refused by the server only where another device was there first.
 */
import { brewerById, tuned, type RecipeBook } from '../recipe';
import { accept, ownEntry, refuse, type Applied, type Refusal } from './applied';
import {
  kettleOfStart,
  EVENT_KINDS,
  type BarEvent,
  type BarEventType,
  type BrewEvent,
  type BrewGiven,
  type BrewStarted,
  type EventOf,
  type HandsAway,
  type RoundBegun,
  type RoundRevealed,
  type RoundScored,
  type HouseEvent,
} from './events';
import { fold, foldOn, withBrew, withStarted } from './fold';
import { makeCard } from './make-card';
import { askOf, withoutService, type CupsMoved } from './order-events';
import {
  addCup,
  cancelCup,
  changeCup,
  fetchCups,
  findCup,
  guestLeaves,
  moveCups,
  renameOrder,
  queueOrder,
  remakeCup,
  takeOrder,
  urgeOrder,
} from './orders';
import { reassignBrew } from './reassign';
import { EMPTY_BAR, brewAt, nextBrewId, type BarState } from './state';
import { refusalOf } from './refusals';
import { isOut, roundsOf, sampleBefore } from './round';
import { recalled, settle } from './settled';
import { undo } from './undo';

/** Two devices' clocks may differ by this much before an event counts as out of time, milliseconds of bar time. */
const CLOCK_SLACK_MS = 5000;

type Rule<Event extends BarEvent> = (state: BarState, event: Event, book: RecipeBook) => Applied;

const keepHouseEvent: Rule<HouseEvent> = (state, event) =>
  accept({ ...state, houseEvents: [...(state.houseEvents ?? []), event] });

const RULES: { [Type in BarEventType]: Rule<EventOf<Type>> } = {
  'order-taken': takeOrder,
  'order-urged': urgeOrder,
  'order-renamed': renameOrder,
  'order-queued': queueOrder,
  'guest-left': guestLeaves,
  'cup-added': addCup,
  'cup-changed': changeCup,
  'cup-cancelled': cancelCup,
  'cup-remade': remakeCup,
  'cups-moved': moveCups,
  'cups-fetched': fetchCups,
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
  'made-ready': keepHouseEvent,
  'tins-emptied': keepHouseEvent,
  'task-done': keepHouseEvent,
  'shift-handed-over': keepHouseEvent,
  'event-undone': (state, { eventId }) => undo(state, eventId),
};

/**
 * Applies one event. Never throws: an event that breaks a rule, or that is of a kind not known here, is refused, and
 * the state is then as it was.
 */
export function apply(state: BarState, event: BarEvent, book: RecipeBook): Applied {
  const rule = ownEntry<unknown>(RULES, event.type) as Rule<BarEvent> | undefined;
  if (rule) return rule(recalled(state, event), event, book);
  return refuse('unknown', 'type', `No rule for events of type “${String(event.type)}”.`);
}

/**
 * Applies an event of the log, on the server and on every copy. With each new order, those that were closed long ago are
 * set aside and their guests forgotten, so that all copies that have heard the same log do the same.
 */
export function applyLogged(state: BarState, event: BarEvent, book: RecipeBook): Applied {
  const applied = apply(state, event, book);
  if (!applied.ok || event.type !== 'order-taken') return applied;
  return accept(settle(applied.state, event.atMs));
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
  if (event.type === 'round-scored' && !isOut(state, round, event.letter))
    return refuse(
      'cup-not-ready',
      'letter',
      `${event.letter} is not out yet; it is scored once it is there.`,
    );
  return accept({ ...state, houseEvents });
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
  const first = sampleBefore(order, cup);
  if (first)
    return refuse(
      'cup-not-ready',
      'cupId',
      `Samples are brewed in the order of their letters. Begin ${first.sample!.letter} first.`,
    );
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
  const brewer = event.ownBrewer ?? brewerById(event.brewerId);
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
    ...(event.intoCup ? { intoCup: true } : {}),
    ...(event.fromTin ? { fromTin: true } : {}),
    ...(cup.gassy ? { gassy: true } : {}),
    // Brews of version 0.1 do not say it.
    cardVersion: event.prepVersion ?? 1,
  });
  if (!made.ok) return refuse(made.code, 'cupId', made.reason);
  const { status: _status, brewIds: _brewIds, attempts: _tried, ...whole } = cup;
  const ask = withoutService(whole);
  return accept(withStarted(state, fold({ ask, planned: made.card, events: [event] })));
}

function changeBrew(
  state: BarState,
  event: Exclude<BrewEvent, BrewStarted | BrewGiven | CupsMoved>,
): Applied {
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
