/**
 * One device's copy of the bar: what the server's log is known to hold, with this device's own taps on top until they
 * are known to be stored.
 *
 * The rule where two devices disagree: the server's log decides, in the order in which it stored the events. A tap that
 * no longer fits what was stored before it is refused; its device takes it back and says what was there first. So every
 * copy that has heard the whole log is the same, whatever was lost, doubled or late on the way.
 */
import type { RecipeBook } from '../recipe';
import type { Refusal } from './applied';
import { EVENT_KINDS, type BarEvent } from './events';
import { apply, applyLogged, reduce } from './reduce';
import { EMPTY_BAR, type BarState } from './state';

export type Replica = {
  /** The state that the log made up to `seq`. */
  confirmed: BarState;
  seq: number;
  /** Own events that the log has not brought back yet, oldest first. */
  pending: readonly BarEvent[];
  /** Those of them that the server has acknowledged, with a place in the log by which each is in it. */
  stored: ReadonlyMap<string, number>;
};

export const freshReplica = (pending: readonly BarEvent[] = []): Replica => ({
  confirmed: EMPTY_BAR,
  seq: 0,
  pending,
  stored: new Map(),
});

/** What the person sees: the log with the own taps on top. One that no longer fits is passed over until the server has spoken. */
export const optimisticState = ({ confirmed, pending }: Replica, book: RecipeBook): BarState =>
  reduce(pending, book, confirmed).state;

export type Tapped = { ok: true; replica: Replica; state: BarState } | { ok: false; refusal: Refusal };

/** Takes own events, all or none, as the bar's rules allow on top of what is seen. */
export function applyLocally(
  replica: Replica,
  state: BarState,
  events: readonly BarEvent[],
  book: RecipeBook,
): Tapped {
  let next = state;
  for (const event of events) {
    const applied = apply(next, event, book);
    if (!applied.ok) return applied;
    next = applied.state;
  }
  return { ok: true, replica: { ...replica, pending: [...replica.pending, ...events] }, state: next };
}

/** Own events that still have to be posted, oldest first. */
export const unsent = ({ pending, stored }: Replica): BarEvent[] =>
  pending.filter(({ id }) => !stored.has(id));

/**
 * The server has acknowledged these: the log holds them by this place. Where it has been heard so far they are in what
 * is confirmed (a device that loaded the bar anew before the answer came), else the log will bring them.
 */
export function confirm(replica: Replica, ids: readonly string[], seq: number): Replica {
  const stored = new Map(replica.stored);
  for (const id of ids) stored.set(id, seq);
  return settle({ ...replica, stored });
}

/** Events that the log is known to have brought are no longer pending. */
const settle = (replica: Replica): Replica =>
  drop(
    replica,
    [...replica.stored].filter(([, seq]) => seq <= replica.seq).map(([id]) => id),
  );

/** These are gone: refused by the server, or known to be in what is confirmed. */
export function drop(replica: Replica, ids: readonly string[]): Replica {
  if (ids.length === 0) return replica;
  const gone = new Set(ids);
  return {
    ...replica,
    pending: replica.pending.filter(({ id }) => !gone.has(id)),
    stored: new Map([...replica.stored].filter(([id]) => !gone.has(id))),
  };
}

/** The bar was loaded anew as it stood at a place in the log. */
export const rebase = (replica: Replica, { state, seq }: { state: BarState; seq: number }): Replica =>
  settle({ ...replica, confirmed: state, seq });

/**
 * An event of the log has come.
 * @returns the replica with it; the same one where it had come before; null where events before it are missing, or where a
 *   newer server sends a kind of event that is not known here, so that the bar has to be loaded anew
 */
export function receiveLogged(
  replica: Replica,
  { seq, event }: { seq: number; event: BarEvent },
  book: RecipeBook,
): Replica | null {
  if (seq <= replica.seq) return replica;
  if (seq > replica.seq + 1) return null;
  if (!Object.hasOwn(EVENT_KINDS, event.type)) return null;
  const applied = applyLogged(replica.confirmed, event, book);
  return settle({
    ...drop(replica, [event.id]),
    confirmed: applied.ok ? applied.state : replica.confirmed,
    seq,
  });
}
