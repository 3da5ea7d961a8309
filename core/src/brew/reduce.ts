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
} from '../recipe';
import { accept, own, refuse, type Applied, type Refusal } from './applied';
import { nextBadge } from './badge';
import {
  askOf,
  brewIdOf,
  kettleOfStart,
  type BarEvent,
  type BrewEvent,
  type BrewStarted,
  type OrderEvent,
  type OrderTaken,
} from './events';
import { fold, withBrew, withOrder } from './fold';
import {
  EMPTY_BAR,
  brewAt,
  holdsStation,
  openOrders,
  startedFrom,
  type BarState,
  type BrewState,
  type CupState,
  type OrderState,
} from './state';
import { beginsByItself } from './timeline';
import { undo } from './undo';

/** Two devices' clocks may differ by this much before an event counts as out of time, milliseconds of bar time. */
const CLOCK_SLACK_MS = 5000;

/**
 * Applies one event. Never throws: an event that breaks a rule, or that is of a kind not known here, is refused, and
 * the state is then as it was.
 */
export function apply(state: BarState, event: BarEvent, book: RecipeBook): Applied {
  switch (event.type) {
    case 'order-taken':
      return takeOrder(state, event, book);
    case 'cup-cancelled':
    case 'cup-remade':
      return changeOrder(state, event);
    case 'brew-started':
      return startBrew(state, event, book);
    case 'step-begun':
    case 'step-done':
    case 'brew-served':
    case 'brew-abandoned':
      return changeBrew(state, event);
    case 'event-undone':
      return undo(state, event.eventId);
    default:
      return refuse(
        'unknown',
        'type',
        `No rule for events of type “${String((event as { type: unknown }).type)}”.`,
      );
  }
}

export type Reduced = { state: BarState; refused: { event: BarEvent; refusal: Refusal }[] };

/** The state that a log gives, from the empty bar or from a state before it. Refused events are passed over and listed. */
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
  }
  const order: OrderState = {
    id: event.orderId,
    ...(event.name === undefined ? {} : { name: event.name }),
    badge: nextBadge(state.lastBadge, new Set(openOrders(state).map((open) => open.badge))),
    badgeBefore: state.lastBadge,
    takenMs: event.atMs,
    cups: event.cups.map((cup) => ({ ...cup, status: 'waiting', brewIds: [] })),
    events: [event],
  };
  return accept({ ...state, orders: { ...state.orders, [order.id]: order }, lastBadge: order.badge });
}

function changeOrder(state: BarState, event: Exclude<OrderEvent, OrderTaken>): Applied {
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
  if (event.type === 'cup-remade') {
    if (cup.status !== 'served')
      return refuse('cup-not-ready', 'cupId', `Only a served cup can be remade; this one is ${cup.status}.`);
    if (cup.brewIds.at(-1) !== event.brewId)
      return refuse('cup-not-ready', 'brewId', 'The cup has been brewed again since.');
  }
  return accept(withOrder(state, { ...order, events: [...order.events, event] }));
}

function startBrew(state: BarState, event: BrewStarted, book: RecipeBook): Applied {
  const found = findCup(state, event);
  if (!found.ok) return found;
  const { order, cup } = found;
  if (own(state.brews, event.brewId))
    return refuse('already-done', 'brewId', 'This brew has been started already.');
  if (cup.status !== 'waiting')
    return refuse('cup-not-ready', 'cupId', `The cup does not wait for a brew; it is ${cup.status}.`);
  const rightId = brewIdOf(cup.cupId, cup.brewIds.length + 1);
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
  const made = makeCard(book, cup, askOf(cup), {
    altitudeM: event.altitudeM,
    roast: cup.roast,
    kettle: kettleOfStart(event),
    setBy: 'bar',
    ...(brewer ? { brewer } : {}),
  });
  if (!made.ok) return refuse(made.code, 'cupId', made.reason);
  const { status: _status, brewIds: _brewIds, ...ask } = cup;
  return accept(withBrew(state, fold({ ...startedFrom(event), ask, card: made.card, events: [event] })));
}

function changeBrew(state: BarState, event: Exclude<BrewEvent, BrewStarted>): Applied {
  const brew = own(state.brews, event.brewId);
  if (!brew) return refuse('unknown', 'brewId', 'There is no such brew on the bar now.');
  if (event.atMs < brew.lastMs - CLOCK_SLACK_MS) {
    return refuse('out-of-time', 'atMs', 'This is earlier than what was last recorded of the brew.');
  }
  const refusal = event.type === 'brew-abandoned' ? cannotAbandon(brew) : cannotTake(brew, event);
  if (refusal) return { ok: false, refusal };
  return accept(withBrew(state, fold({ ...brew, events: [...brew.events, event] })));
}

function cannotAbandon(brew: BrewState): Refusal | null {
  if (brew.status === 'running') return null;
  return {
    code: 'already-done',
    field: 'brewId',
    reason: `The brew is ${brew.status} already, so it cannot be given up.`,
  };
}

function cannotTake(
  brew: BrewState,
  event: Exclude<BrewEvent, BrewStarted | { type: 'brew-abandoned' }>,
): Refusal | null {
  const steps = brew.card.steps;
  const serving = event.type === 'brew-served';
  const index = steps.findIndex((step) => (serving ? step.kind === 'serve' : step.id === event.stepId));
  const step = steps[index];
  const field = serving ? 'brewId' : 'stepId';
  if (!step)
    return {
      code: 'unknown',
      field,
      reason: `This recipe has no such step; it has ${steps.map(({ id }) => id).join(', ')}.`,
    };
  if (step.kind === 'serve' && !serving)
    return { code: 'step-not-next', field, reason: 'Handing over is told with brew-served.' };
  if (brew.abandoned && (step.kind !== 'clean' || !holdsStation(brew)))
    return { code: 'already-done', field: 'brewId', reason: 'The brew has been given up.' };

  const mark = brew.marks[step.id];
  const laterMarked = steps.slice(index + 1).some((later) => brew.marks[later.id] !== undefined);
  if (mark?.doneMs !== undefined || laterMarked || (event.type === 'step-begun' && mark)) {
    return { code: 'already-done', field, reason: `“${step.name}” has been done already.` };
  }
  if (event.type === 'step-begun' && beginsByItself(step)) {
    return { code: 'step-not-next', field, reason: `“${step.name}” begins by itself.` };
  }
  if (brew.abandoned) return null;
  const missing = steps
    .slice(0, index)
    .find((earlier) => !beginsByItself(earlier) && brew.marks[earlier.id]?.doneMs === undefined);
  if (missing) return { code: 'step-not-next', field, reason: `“${missing.name}” comes first.` };
  return null;
}

type FoundCup = { ok: true; order: OrderState; cup: CupState } | Extract<Applied, { ok: false }>;

function findCup(state: BarState, { orderId, cupId }: { orderId: string; cupId: string }): FoundCup {
  const order = own(state.orders, orderId);
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

/** The card of a cup, or why there is none; a log that was written by other rules must not stop the bar. */
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
