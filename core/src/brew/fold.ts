/**
 * How events become a brew and an order. Nothing is carried along beside them: a brew is what its own events make of
 * it, and a cup's status follows from its order's events and its latest brew. That is what makes undo exact.
 */
import {
  latestBrew,
  type startedFrom,
  type BarState,
  type BrewState,
  type CupState,
  type OrderState,
} from './state';

/** A brew's state is what its own events make of it; nothing else is carried along. */
export function fold(
  bare: Pick<BrewState, 'ask' | 'card' | 'events'> & ReturnType<typeof startedFrom>,
): BrewState {
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

/** The state with a brew as it now is, its cup and order along with it. */
export function withBrew(state: BarState, brew: BrewState): BarState {
  const order = state.orders[brew.orderId]!;
  const cups = order.cups.map((cup) =>
    cup.cupId === brew.cupId && !cup.brewIds.includes(brew.id)
      ? { ...cup, brewIds: [...cup.brewIds, brew.id] }
      : cup,
  );
  return withOrder({ ...state, brews: { ...state.brews, [brew.id]: brew } }, { ...order, cups });
}

/** The state with an order as it now is, each cup's status worked out anew. */
export function withOrder(state: BarState, order: OrderState): BarState {
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
