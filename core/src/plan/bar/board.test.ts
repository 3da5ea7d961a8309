/** What guests see: badges and minutes, in turn; no name that was not given to be called, and nothing that is over. */
import { T0, book, cup, done, order, started } from '../../testing/bench';
import { EMPTY_BAR, apply, type BarEvent, type BarState } from '../../brew';
import { boardOf, followedOrder, type Outlook } from './board';

const MINUTE = 60_000;
const after = (events: readonly BarEvent[], from: BarState = EMPTY_BAR): BarState =>
  events.reduce((state, event) => {
    const applied = apply(state, event, book);
    if (!applied.ok) throw new Error(applied.refusal.reason);
    return applied.state;
  }, from);
const taken = (orderId: string, atS: number, more: object = {}): BarEvent => ({
  ...order(orderId, atS, cup(`${orderId}-1`)),
  name: `guest ${orderId}`,
  ...more,
});
/** The order's one cup, out ten minutes after it was taken. */
const out = (state: BarState, orderId: string): BarState => {
  const brewId = `${orderId}-1.1`;
  const begun = after([started(`${orderId}-1`, orderId, 'cone-1', 60)], state);
  const made = begun.brews[brewId]!.card.steps.filter(({ phase }) => phase === 'prep' || phase === 'brew');
  return after(
    [
      ...made.map(({ id }, n) => done(brewId, id, 100 + 10 * n)),
      { id: `served-${orderId}`, type: 'brew-served', atMs: T0 + 10 * MINUTE, brewId },
    ],
    begun,
  );
};
const outlook = (state: BarState, finish: Record<string, number> = {}): Outlook => ({
  state,
  bench: { name: 'Test bar', queues: [{ id: 'counter', name: 'Counter' }] },
  plan: { finish },
  rough: {},
});

test('what is to come stands soonest first, by whole minutes; a name only where it is to be called', () => {
  const state = after([taken('a', 0), taken('b', 1, { nameShown: true }), taken('c', 2)]);
  const finish = { a: (T0 + 301_000) / 1000, b: (T0 + 90_000) / 1000 };
  const { coming, ready } = boardOf(outlook(state, finish), T0);
  expect(ready).toEqual([]);
  expect(coming.map(({ badge, readyMs, name }) => [badge.letter, readyMs, name])).toEqual([
    ['B', T0 + 2 * MINUTE, 'guest b'],
    ['A', T0 + 6 * MINUTE, undefined],
    ['C', null, undefined],
  ]);
  // The name is called no longer.
  const renamed = after(
    [{ id: 'r', type: 'order-renamed', atMs: T0 + 3000, orderId: 'b', name: 'guest b' }],
    state,
  );
  expect(boardOf(outlook(renamed), T0).coming.map(({ name }) => name)).toEqual([
    undefined,
    undefined,
    undefined,
  ]);
});

test('a cup stands ready until it is fetched; an order whose guest has left is shown no more', () => {
  const state = out(after([taken('a', 0), taken('b', 1)]), 'a');
  const at = T0 + 11 * MINUTE;
  expect(boardOf(outlook(state), at)).toMatchObject({
    ready: [{ badge: { letter: 'A' }, cups: 1, ready: 1, readyMs: T0 + 10 * MINUTE, queueId: 'counter' }],
    coming: [{ badge: { letter: 'B' } }],
  });
  // Nobody says that it was fetched: it is surely gone after ten minutes, and its guest's page ends an hour later.
  expect(boardOf(outlook(state), T0 + 21 * MINUTE).ready).toEqual([]);
  expect(followedOrder(outlook(state), state.orders['a']!, T0 + 79 * MINUTE)).not.toBeNull();
  expect(followedOrder(outlook(state), state.orders['a']!, T0 + 81 * MINUTE)).toBeNull();
  const gone = after(
    [
      { id: 'f', type: 'cups-fetched', atMs: at, orderId: 'a', cupIds: ['a-1'] },
      { id: 'l', type: 'guest-left', atMs: at, orderId: 'b' },
    ],
    state,
  );
  expect(boardOf(outlook(gone), at)).toMatchObject({ ready: [], coming: [] });
  const followed = (minutes: number) =>
    followedOrder(outlook(gone), gone.orders['a']!, at + minutes * MINUTE);
  expect(followed(59)).toMatchObject({ cups: [{ coffee: 'Saltmarsh', status: 'fetched' }], readyMs: null });
  expect(followed(61)).toBeNull();
});
