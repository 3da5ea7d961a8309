/**
 * How events become a brew and an order. Nothing else is stored: a brew is the fold of its own events, and a cup's status
 * follows from its order's events and its latest brew. That makes undo exact.
 */
import type { BrewEvent, BrewStarted, StepCorrected, StepDone } from './events';
import { asksOf, hasLeft, hostsOf, sharersWith } from './order-fold';
import type { Pair } from './pair';
import { retargetedCard, type PourFacts } from './retarget';
import {
  hostOf,
  latestBrew,
  sharersOf,
  startedFrom,
  type BarState,
  type BrewState,
  type CupState,
  type OrderState,
  type StepMark,
} from './state';

/**
 * A brew as its own events make it; nothing else is carried along.
 * @param planned the card that it was started with
 * @param events the brew's own, beginning with its start
 */
export function fold({ ask, planned, events }: Pick<BrewState, 'ask' | 'planned' | 'events'>): BrewState {
  const started = startOf(events);
  const brew: BrewState = {
    ...startedFrom(started),
    ask,
    planned,
    card: planned,
    events,
    status: 'running',
    marks: {},
    lastMs: started.atMs,
  };
  for (const event of events) happen(brew, event);
  return brew;
}

/** The result of `fold` with one more event, without folding all of them again. */
export function foldOn(brew: BrewState, event: BrewEvent): BrewState {
  const next: BrewState = { ...brew, events: [...brew.events, event], marks: { ...brew.marks } };
  happen(next, event);
  return next;
}

function happen(brew: BrewState, event: BrewEvent): void {
  switch (event.type) {
    case 'step-begun':
      brew.marks[event.stepId] = {
        begunMs: inTime(brew, event.atMs),
        ...(event.readC === undefined ? {} : { readC: event.readC }),
      };
      return inHandsOf(brew, event.stepId, event.pair);
    case 'step-done':
      markDone(brew, event);
      inHandsOf(brew, event.stepId, event.pair);
      if (brew.planned.steps.at(-1)?.id === event.stepId && !brew.abandoned) brew.status = 'cleaned';
      return;
    case 'step-skipped':
      brew.skipped = [...(brew.skipped ?? []), event.stepId];
      inTime(brew, event.atMs);
      return retarget(brew);
    case 'step-corrected':
      return correct(brew, event);
    case 'dose-corrected':
      brew.doseG = event.doseG;
      return retarget(brew);
    case 'brew-moved':
      brew.stationId = event.stationId;
      brew.stationName = event.stationName;
      brew.brewerId = event.brewerId;
      return;
    case 'brew-given':
      brew.orderId = event.brewId === brew.id ? event.orderId : event.fromOrderId;
      brew.cupId = event.brewId === brew.id ? event.cupId : event.fromCupId;
      return;
    case 'cups-moved':
      brew.orderId = event.toOrderId;
      return;
    case 'brew-noted':
      brew.notes = [...(brew.notes ?? []), { note: event.note, atMs: event.atMs }];
      return;
    case 'cup-tasted':
      brew.taste = { ...event.taste, atMs: event.atMs };
      return;
    case 'step-taken':
      return inHandsOf(brew, event.stepId, event.pair);
    case 'brew-served':
      brew.servedMs = inTime(brew, event.atMs);
      inHandsOf(brew, serveStep(brew).id, event.pair);
      // A filter that was being taken off is off.
      for (const [id, mark] of Object.entries(brew.marks))
        if (mark.doneMs === undefined) brew.marks[id] = { ...mark, doneMs: brew.servedMs };
      brew.marks[serveStep(brew).id] = { doneMs: brew.servedMs };
      brew.status = 'served';
      if (event.beverageG !== undefined) brew.beverageG = event.beverageG;
      return;
    case 'brew-abandoned':
      brew.status = 'abandoned';
      brew.abandoned = { atMs: inTime(brew, event.atMs), reason: event.reason };
      return;
    case 'brew-started':
  }
}

function inHandsOf(brew: BrewState, stepId: string, pair: Pair | undefined): void {
  if (pair !== undefined) brew.takenBy = { ...brew.takenBy, [stepId]: pair };
}

/** The clocks of two devices may differ by a moment; a brew's own time never runs backwards. */
function inTime(brew: BrewState, atMs: number): number {
  brew.lastMs = Math.max(atMs, brew.lastMs);
  return brew.lastMs;
}

function markDone(brew: BrewState, { stepId, atMs, readingG, readC, leadG, notOverMs }: StepDone): void {
  const step = brew.card.steps.find(({ id }) => id === stepId);
  const mark: StepMark = { ...brew.marks[stepId], doneMs: inTime(brew, atMs) };
  // What the card asked for then; it may change when the dose is corrected.
  if (step?.targetG !== undefined && (readingG !== undefined || brew.card !== brew.planned))
    mark.targetG = step.targetG;
  if (readingG !== undefined) mark.readingG = readingG;
  if (leadG !== undefined) mark.leadG = leadG;
  if (readC !== undefined) mark.readC = readC;
  if (notOverMs !== undefined && notOverMs < mark.doneMs!) mark.notOverMs = notOverMs;
  brew.marks[stepId] = mark;
  if (mark.targetG !== undefined) retarget(brew);
}

function correct(brew: BrewState, { stepId, begunMs, doneMs, readingG }: StepCorrected): void {
  const mark: StepMark = { ...brew.marks[stepId] };
  if (begunMs !== undefined) mark.begunMs = begunMs;
  if (doneMs !== undefined) {
    // The person who corrects the step counts as the one who knows.
    delete mark.notOverMs;
    mark.doneMs = doneMs;
  }
  if (readingG !== undefined) {
    mark.readingG = readingG;
    mark.targetG ??= brew.card.steps.find(({ id }) => id === stepId)?.targetG ?? readingG;
  }
  brew.marks[stepId] = mark;
  if (doneMs !== undefined && stepId === serveStep(brew).id) brew.servedMs = doneMs;
  if (readingG !== undefined) retarget(brew);
}

function retarget(brew: BrewState): void {
  brew.card = retargetedCard(brew.planned, factsOf(brew));
}

/** What re-targeting needs to know of a brew. */
export const factsOf = ({
  marks,
  skipped,
  doseG,
}: Pick<BrewState, 'marks' | 'skipped' | 'doseG'>): PourFacts => ({
  marks,
  skipped: new Set(skipped),
  ...(doseG === undefined ? {} : { doseG }),
});

const serveStep = (brew: BrewState) => brew.planned.steps.find((step) => step.kind === 'serve')!;

const startOf = (events: readonly BrewEvent[]): BrewStarted => {
  const [first] = events;
  if (first?.type !== 'brew-started') throw new Error('A brew’s events begin with its start.');
  return first;
};

/** The state with a brew that has been started, its cup and order along with it. */
export function withStarted(state: BarState, brew: BrewState): BarState {
  return withBrew(
    withCup(state, brew, (cup) => ({
      ...cup,
      brewIds: [...cup.brewIds, brew.id],
      attempts: [...cup.attempts, brew.id],
    })),
    brew,
  );
}

/** The state without a brew, as if it had not been started. */
export function withoutStarted(state: BarState, brew: BrewState): BarState {
  const { [brew.id]: _gone, ...brews } = state.brews;
  return withCup({ ...state, brews }, brew, (cup) => ({
    ...cup,
    brewIds: cup.brewIds.filter((id) => id !== brew.id),
    attempts: cup.attempts.slice(0, -1),
  }));
}

/** The state with a brew as it now is; its order sees what has become of it. */
export function withBrew(state: BarState, brew: BrewState): BarState {
  const before = state.brews[brew.id];
  const next = { ...state, brews: { ...state.brews, [brew.id]: brew } };
  // A cup's status follows from its brew's, so most taps change nothing of an order.
  return before?.status === brew.status && before.orderId === brew.orderId
    ? next
    : withOrder(next, state.orders[brew.orderId]!);
}

/** The state with brews as they now are; their orders are the caller's to bring up to date. */
export const withBrews = (state: BarState, brews: readonly BrewState[]): BarState => ({
  ...state,
  brews: { ...state.brews, ...Object.fromEntries(brews.map((brew) => [brew.id, brew])) },
});

/** The state with one cup changed. */
export function withCup(
  state: BarState,
  { orderId, cupId }: { orderId: string; cupId: string },
  change: (cup: CupState) => CupState,
): BarState {
  const order = state.orders[orderId]!;
  return withOrder(state, {
    ...order,
    cups: order.cups.map((cup) => (cup.cupId === cupId ? change(cup) : cup)),
  });
}

/** The state with an order as it now is, each cup's status worked out anew, and those of cups that share its brews. */
export function withOrder(state: BarState, order: OrderState): BarState {
  return withSharers(
    withCups(state, order, (cup) => statusOf(state, order, cup)),
    order,
  );
}

/** The state without an order, as if it had not been taken; a brew that was shared with it becomes smaller. */
export function withoutOrder(state: BarState, orderId: string): BarState {
  const { [orderId]: gone, ...orders } = state.orders;
  return withSharers({ ...state, orders }, gone!);
}

/**
 * Cups that share a brew with an order have its status, and the size of a waiting brew follows the cups that share it.
 * Only orders that share with this one are looked at.
 */
function withSharers(state: BarState, order: OrderState): BarState {
  const hosts = hostsOf(order);
  const sharers = sharersWith(state, order);
  if (hosts.length === 0 && sharers.length === 0) return state;
  let next = state;
  const related = new Set([order.id, ...hosts, ...sharers.map(({ id }) => id)]);
  const here = [...related].filter((id) => Object.hasOwn(state.orders, id));
  for (const id of here) {
    const each = next.orders[id]!;
    if (hostsOf(each).length > 0) next = withCups(next, each, (cup) => statusOf(next, each, cup));
  }
  for (const id of here) {
    const each = next.orders[id]!;
    next = withCups(next, each, (cup) => {
      if (cup.status !== 'waiting') return asStarted(next, cup);
      const cups =
        (asksOf(each).find(({ cupId }) => cupId === cup.cupId)?.cups ?? 1) + waitingSharersOf(next, cup);
      return cups > 1 ? { cups } : { cups: undefined };
    });
  }
  return next;
}

/** A cup that is being brewed is for as many as its brew was started for. */
function asStarted(state: BarState, cup: CupState): Partial<CupState> {
  const brew = state.brews[cup.brewIds.at(-1) ?? ''];
  return brew?.ask.cupId === cup.cupId ? { cups: brew.ask.cups } : {};
}

/** How many cups wait to be poured out of a cup's brew besides its own. */
const waitingSharersOf = (state: BarState, cup: CupState): number =>
  sharersOf(state, cup)
    .filter(({ status }) => status === 'waiting')
    .reduce((sum, each) => sum + (each.cups ?? 1), 0);

function withCups(
  state: BarState,
  order: OrderState,
  change: (cup: CupState) => Partial<CupState>,
): BarState {
  const cups = order.cups.map((cup) => {
    const changed: CupState = { ...cup, ...change(cup) };
    const { status, cups: count, with: shared } = cup;
    if (changed.status === status && changed.cups === count && changed.with === shared) return cup;
    // Missing values are left out of the object, so that equal states give equal text.
    if (changed.cups === undefined) delete changed.cups;
    if (changed.with === undefined) delete changed.with;
    return changed;
  });
  // Most of what happens to a brew changes nothing of its order.
  if (state.orders[order.id] === order && cups.every((cup, n) => cup === order.cups[n])) return state;
  return { ...state, orders: { ...state.orders, [order.id]: { ...order, cups } } };
}

function statusOf(state: BarState, order: OrderState, cup: CupState): Partial<CupState> {
  const asked = asksOf(order).find(({ cupId }) => cupId === cup.cupId)?.with;
  const remade = order.events.some((event) => event.type === 'cup-remade' && event.cupId === cup.cupId);
  // From here on a cup that was sent back has a brew of its own; so has one that was brewed by itself since its host’s guest left.
  if (!asked || remade || cup.brewIds.length > 0)
    return { status: cupStatus(state, order, cup), with: undefined };
  const host = hostOf(state, { with: asked });
  // When a closed order is forgotten, the brews that it shared stay as they were.
  if (!host) return { with: asked };
  // Its guest has left, and the brew was given up.
  if (host.status === 'cancelled') return { status: cupStatus(state, order, cup), with: undefined };
  const brew = latestBrew(state, host);
  const status =
    !brew || brew.status === 'abandoned' ? 'waiting' : brew.status === 'running' ? 'brewing' : 'served';
  return { status: orCancelled(order, cup, status), with: asked };
}

/** A cup that was cancelled, or that waits and its guest has left. */
const orCancelled = (order: OrderState, { cupId }: CupState, status: CupState['status']) =>
  order.events.some((event) => event.type === 'cup-cancelled' && event.cupId === cupId) ||
  (status === 'waiting' && hasLeft(order))
    ? 'cancelled'
    : status;

function cupStatus(state: BarState, order: OrderState, cup: CupState): CupState['status'] {
  const latest = cup.brewIds.at(-1);
  const brew = latest === undefined ? undefined : state.brews[latest];
  if (!brew || brew.status === 'abandoned') return orCancelled(order, cup, 'waiting');
  if (brew.status === 'running') return orCancelled(order, cup, 'brewing');
  // It may have been sent back before it came into this order.
  const others = Object.values(state.orders).filter(({ id }) => id !== order.id);
  const sentBack = [order, ...others].some(({ events }) =>
    events.some((event) => event.type === 'cup-remade' && event.brewId === brew.id),
  );
  return orCancelled(order, cup, sentBack ? 'waiting' : 'served');
}
