/**
 * Gives a brew to another cup: another guest got it, or two brews of one coffee change places. It can be reported while
 * the brew runs, or after somebody has seen who got the cup.
 */
import { accept, ownEntry, refuse, type Applied } from './applied';
import type { BrewGiven } from './events';
import { fold, withCup } from './fold';
import type { BarState, BrewState, CupState } from './state';

export type CupPlace = { orderId: string; cupId: string };

/** The brew goes to its new cup, and the brew that was under way for that cup to the old one. */
export function reassignBrew(state: BarState, event: BrewGiven): Applied {
  const brew = ownEntry(state.brews, event.brewId);
  const to = cupAt(state, event);
  if (!brew) return refuse('unknown', 'brewId', 'There is no such brew on the bar now.');
  if (!to) return refuse('unknown', 'cupId', 'There is no such cup.');
  if (brew.orderId !== event.fromOrderId || brew.cupId !== event.fromCupId || to.cupId === brew.cupId)
    return refuse('cup-not-ready', 'cupId', 'The brew is for another cup by now.');
  const from = cupAt(state, { orderId: event.fromOrderId, cupId: event.fromCupId });
  if (from?.status === 'cancelled')
    return refuse('cup-not-ready', 'brewId', 'Its cup has been cancelled since.');
  if (from?.brewIds.at(-1) !== brew.id)
    return refuse(
      'cup-not-ready',
      'brewId',
      'The cup has been brewed again since; only its latest brew goes elsewhere.',
    );
  if (brew.status === 'abandoned')
    return refuse('cup-not-ready', 'brewId', 'A brew that was given up goes to no cup.');
  const other = event.otherBrewId === undefined ? undefined : ownEntry(state.brews, event.otherBrewId);
  if (to.status === 'brewing' ? to.brewIds.at(-1) !== other?.id : other)
    return refuse('cup-not-ready', 'otherBrewId', 'Another brew is under way for that cup by now.');
  if (to.with || isShared(state, to.cupId) || isShared(state, event.fromCupId))
    return refuse('cup-not-ready', 'cupId', 'A brew that two orders share stays with them.');
  if (to.status !== 'waiting' && to.status !== 'brewing')
    return refuse('cup-not-ready', 'cupId', `That cup is ${to.status}; it takes no brew.`);
  const brews = [brew, ...(other ? [other] : [])].map((each) =>
    fold({ ...each, events: [...each.events, event] }),
  );
  const place = { orderId: event.fromOrderId, cupId: event.fromCupId };
  return accept(exchangeCups(state, brews, { ...event, from: place, to: event }, false));
}

/**
 * The state with brews as they now are, their cups' lists of brews exchanged.
 * @param takenBack the exchange is the undoing of an earlier one
 */
export function exchangeCups(
  state: BarState,
  brews: readonly BrewState[],
  { brewId, otherBrewId, from, to }: { brewId: string; otherBrewId?: string; from: CupPlace; to: CupPlace },
  takenBack: boolean,
): BarState {
  const placed = Object.fromEntries(brews.map((brew) => [brew.id, brew]));
  const next = { ...state, brews: { ...state.brews, ...placed } };
  const swap = (gone: string | undefined, come: string | undefined) => (cup: CupState) => ({
    ...cup,
    brewIds: [...cup.brewIds.filter((id) => id !== gone), ...(come === undefined ? [] : [come])],
    attempts: takenBack
      ? cup.attempts.slice(0, gone === undefined ? undefined : -1)
      : come === undefined
        ? cup.attempts
        : [...cup.attempts, come],
  });
  return withCup(withCup(next, from, swap(brewId, otherBrewId)), to, swap(otherBrewId, brewId));
}

const cupAt = (state: BarState, { orderId, cupId }: CupPlace) =>
  ownEntry(state.orders, orderId)?.cups.find((cup) => cup.cupId === cupId);

const isShared = (state: BarState, cupId: string): boolean =>
  Object.values(state.orders).some(({ cups }) =>
    cups.some((cup) => cup.with?.cupId === cupId && cup.status !== 'cancelled'),
  );
