/**
 * The bar's rules: what an event does to the state, or why it cannot be. Server and app share this function, so an
 * event that the app has accepted is refused by the server only where another device was there first.
 */
import { RecipeError, brewCard, type RecipeBook } from '../recipe';
import {
  brewIdOf,
  type BarEvent,
  type BrewEvent,
  type BrewStarted,
  type OrderEvent,
  type OrderTaken,
} from './events';
import { nextBadge } from './badge';
import {
  EMPTY_BAR,
  brewAt,
  holdsStation,
  latestBrew,
  openOrders,
  startedFrom,
  type BarState,
  type BrewState,
  type CupState,
  type OrderState,
} from './state';
import { beginsByItself, timelineAt } from './timeline';

export type RefusalCode =
  | 'already-done'
  | 'already-exists'
  | 'cup-not-ready'
  | 'does-not-make-a-cup'
  | 'not-undoable'
  | 'out-of-time'
  | 'station-busy'
  | 'step-not-next'
  | 'unknown'
  | 'unknown-recipe';

/** Why an event was not accepted: the field at fault and, in words, what would be right. */
export type Refusal = { code: RefusalCode; field: string; reason: string };

export type Applied = { ok: true; state: BarState } | { ok: false; refusal: Refusal };

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
    const recipe = book(cup);
    if (!recipe)
      return refuse(
        'unknown-recipe',
        `cups.${index}.recipeId`,
        `There is no recipe ${cup.recipeId} version ${cup.recipeVersion}.`,
      );
    try {
      brewCard(recipe, { cupMl: cup.cupMl });
    } catch (error) {
      if (!(error instanceof RecipeError)) throw error;
      return refuse('does-not-make-a-cup', `cups.${index}.${error.field}`, error.message);
    }
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
  const order = own(state.orders, event.orderId);
  const cup = order?.cups.find(({ cupId }) => cupId === event.cupId);
  if (!order || !cup)
    return refuse(
      'unknown',
      order ? 'cupId' : 'orderId',
      `There is no such ${order ? 'cup in this order' : 'order'}.`,
    );
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
  const order = own(state.orders, event.orderId);
  const cup = order?.cups.find(({ cupId }) => cupId === event.cupId);
  if (!order || !cup)
    return refuse(
      'unknown',
      order ? 'cupId' : 'orderId',
      `There is no such ${order ? 'cup in this order' : 'order'}.`,
    );
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
  const recipe = book(cup);
  if (!recipe)
    return refuse(
      'unknown-recipe',
      'cupId',
      `There is no recipe ${cup.recipeId} version ${cup.recipeVersion}.`,
    );
  const { cupId, coffee, roast, cupMl, recipeId, recipeVersion } = cup;
  const card = brewCard(
    recipe,
    { cupMl },
    {
      altitudeM: event.altitudeM,
      roast,
      kettle: { powerW: event.kettlePowerW, filledAtC: event.kettleFilledAtC },
    },
  );
  const bare = { ...startedFrom(event), ask: { cupId, coffee, roast, cupMl, recipeId, recipeVersion }, card };
  return accept(withBrew(state, fold({ ...bare, events: [event] })));
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

/** A brew's state is what its own events make of it; nothing else is carried along. */
function fold(bare: Pick<BrewState, 'ask' | 'card' | 'events'> & ReturnType<typeof startedFrom>): BrewState {
  const { id, orderId, cupId, stationId, stationName, brewerId, startedMs, ask, card, events } = bare;
  const brew: BrewState = {
    id,
    orderId,
    cupId,
    stationId,
    stationName,
    brewerId,
    startedMs,
    ask,
    card,
    events,
    status: 'running',
    marks: {},
    lastMs: startedMs,
  };
  for (const event of events) {
    // Clocks of two devices may cross by a moment; the brew's own time does not run backwards.
    const atMs = Math.max(event.atMs, brew.lastMs);
    brew.lastMs = atMs;
    if (event.type === 'step-begun') {
      brew.marks[event.stepId] = { begunMs: atMs };
    } else if (event.type === 'step-done') {
      markDone(brew, event.stepId, atMs, event.readingG);
      if (card.steps.at(-1)?.id === event.stepId && !brew.abandoned) brew.status = 'cleaned';
    } else if (event.type === 'brew-served') {
      markDone(brew, card.steps.find((step) => step.kind === 'serve')!.id, atMs);
      brew.status = 'served';
      brew.servedMs = atMs;
      if (event.beverageG !== undefined) brew.beverageG = event.beverageG;
    } else if (event.type === 'brew-abandoned') {
      brew.status = 'abandoned';
      brew.abandoned = { atMs, reason: event.reason };
    }
  }
  return brew;
}

function markDone(brew: BrewState, stepId: string, doneMs: number, readingG?: number): void {
  brew.marks[stepId] = { ...brew.marks[stepId], doneMs, ...(readingG === undefined ? {} : { readingG }) };
}

/** Only the latest thing said of a brew or an order can be taken back, and only while nothing else stands on it. */
function undo(state: BarState, eventId: string): Applied {
  const brew = Object.values(state.brews).find(({ events }) => events.some(({ id }) => id === eventId));
  if (brew) return undoInBrew(state, brew, eventId);
  const order = Object.values(state.orders).find(({ events }) => events.some(({ id }) => id === eventId));
  if (order) return undoInOrder(state, order, eventId);
  return refuse('not-undoable', 'eventId', 'There is nothing on the bar now that this event did.');
}

function undoInBrew(state: BarState, brew: BrewState, eventId: string): Applied {
  const last = brew.events.at(-1)!;
  if (last.id !== eventId)
    return refuse('not-undoable', 'eventId', 'Something was done to this brew since; undo that first.');
  const order = state.orders[brew.orderId]!;
  const cup = order.cups.find(({ cupId }) => cupId === brew.cupId)!;
  const sentBack = order.events.some((event) => event.type === 'cup-remade' && event.brewId === brew.id);
  // Cleaning is the station's affair; what was done for the cup stands once the cup has gone its own way.
  const newerBrew = cup.brewIds.at(-1) !== brew.id;
  const goneOn =
    (last.type === 'brew-served' && (newerBrew || sentBack)) ||
    (last.type === 'brew-abandoned' && (newerBrew || cup.status === 'cancelled'));
  if (goneOn) {
    return refuse('not-undoable', 'eventId', 'The cup has been sent back, cancelled or brewed again since.');
  }
  if (last.type === 'brew-started') {
    const { [brew.id]: _gone, ...brews } = state.brews;
    return accept(
      withOrder(
        { ...state, brews },
        {
          ...order,
          cups: order.cups.map((each) => ({ ...each, brewIds: each.brewIds.filter((id) => id !== brew.id) })),
        },
      ),
    );
  }
  const before = fold({ ...brew, events: brew.events.slice(0, -1) });
  const holder = brewAt(state, brew.stationId);
  if (holdsStation(before) && holder && holder.id !== brew.id) {
    return refuse('not-undoable', 'eventId', `${brew.stationName} has been taken by another brew since.`);
  }
  return accept(withBrew(state, before));
}

function undoInOrder(state: BarState, order: OrderState, eventId: string): Applied {
  const last = order.events.at(-1)!;
  if (last.id !== eventId)
    return refuse('not-undoable', 'eventId', 'Something was done to this order since; undo that first.');
  if (last.type === 'order-taken') {
    if (order.cups.some((cup) => cup.brewIds.length > 0))
      return refuse('not-undoable', 'eventId', 'A cup of this order is being brewed; undo that first.');
    const { [order.id]: _gone, ...orders } = state.orders;
    const lastBadge = state.lastBadge === order.badge ? order.badgeBefore : state.lastBadge;
    return accept({ ...state, orders, lastBadge });
  }
  if (
    last.type === 'cup-remade' &&
    order.cups.find(({ cupId }) => cupId === last.cupId)?.brewIds.at(-1) !== last.brewId
  ) {
    return refuse('not-undoable', 'eventId', 'The cup is being brewed again already; undo that first.');
  }
  return accept(withOrder(state, { ...order, events: order.events.slice(0, -1) }));
}

function withBrew(state: BarState, brew: BrewState): BarState {
  const order = state.orders[brew.orderId]!;
  const cups = order.cups.map((cup) =>
    cup.cupId === brew.cupId && !cup.brewIds.includes(brew.id)
      ? { ...cup, brewIds: [...cup.brewIds, brew.id] }
      : cup,
  );
  return withOrder({ ...state, brews: { ...state.brews, [brew.id]: brew } }, { ...order, cups });
}

function withOrder(state: BarState, order: OrderState): BarState {
  const cups = order.cups.map((cup) => ({ ...cup, status: cupStatus(state, order, cup) }));
  return { ...state, orders: { ...state.orders, [order.id]: { ...order, cups } } };
}

function cupStatus(state: BarState, order: OrderState, cup: CupState): CupState['status'] {
  const cancelled = order.events.some((event) => event.type === 'cup-cancelled' && event.cupId === cup.cupId);
  if (cancelled) return 'cancelled';
  const brew = latestBrew(state, cup);
  if (!brew || brew.status === 'abandoned') return 'waiting';
  if (brew.status === 'running') return 'brewing';
  const sentBack = order.events.some((event) => event.type === 'cup-remade' && event.brewId === brew.id);
  return sentBack ? 'waiting' : 'served';
}

const own = <Item>(record: Record<string, Item>, key: string): Item | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined;
const accept = (state: BarState): Applied => ({ ok: true, state });
const refuse = (code: RefusalCode, field: string, reason: string): Applied => ({
  ok: false,
  refusal: { code, field, reason },
});

/** When the brew came to its end mark, and how long it took from the anchor; null before that. Milliseconds. */
export function brewTimeMs(brew: BrewState): number | null {
  const times = timelineAt(brew, brew.lastMs);
  const anchor = times.find(({ step }) => step.anchor !== undefined);
  const end = times.findLast(({ step }) => step.phase === 'brew');
  if (!anchor || anchor.status !== 'done' || !end || end.status !== 'done') return null;
  return end.endMs - (anchor.step.anchor === 'start' ? anchor.startMs : anchor.endMs);
}
