/** Guests are forgotten an hour after their order was closed, alike on every copy; what was brewed stays. */
import { T0, book, cup } from '../testing/bench';
import { settle } from './settled';
import {
  EMPTY_BAR,
  applyLogged,
  reduce,
  shownState,
  withoutGuest,
  type BarEvent,
  type BarState,
} from './index';

const HOUR = 3600_000;
const taken = (orderId: string, atMs: number, name?: string): BarEvent => ({
  id: `taken-${orderId}`,
  type: 'order-taken',
  atMs,
  orderId,
  ...(name === undefined ? {} : { name }),
  cups: [
    { ...cup(`${orderId}-1`, 'cone-thirds', 250), allergy: 'no nuts' },
    cup(`${orderId}-2`, 'cone-thirds', 250),
  ],
});
const LOG: BarEvent[] = [
  taken('a', T0, 'the pilot'),
  { id: 'r', type: 'order-renamed', atMs: T0 + 1000, orderId: 'a', name: 'the pilot’s mate' },
  {
    id: 'ch',
    type: 'cup-changed',
    atMs: T0 + 2000,
    orderId: 'a',
    cup: { ...cup('a-1', 'cone-thirds', 300), allergy: 'nuts', note: 'clear' },
  },
  {
    id: 'm',
    type: 'cups-moved',
    atMs: T0 + 3000,
    orderId: 'a',
    toOrderId: 'b',
    name: 'window',
    cups: [{ ...cup('a-1', 'cone-thirds', 300), allergy: 'nuts', note: 'clear' }],
  },
  { id: 'l1', type: 'guest-left', atMs: T0 + 4000, orderId: 'a' },
  { id: 'l2', type: 'guest-left', atMs: T0 + 5000, orderId: 'b' },
];
const WORDS = /pilot|window|nuts|clear/;
const live = (events: readonly BarEvent[], from: BarState = EMPTY_BAR): BarState =>
  events.reduce((state, event) => {
    const applied = applyLogged(state, event, book);
    if (!applied.ok) throw new Error(applied.refusal.reason);
    return applied.state;
  }, from);

test('within the hour a cup may come back, so that its guest is known; after it only the cups are', () => {
  const before = live(LOG);
  expect(JSON.stringify(before)).toMatch(WORDS);
  expect(JSON.stringify(live([taken('c', T0 + HOUR)], before))).toMatch(/pilot/);
  const after = live([taken('d', T0 + 2 * HOUR, 'next')], before);
  const { orders, settled } = after;
  expect(JSON.stringify(settled)).not.toMatch(WORDS);
  const [, b] = settled!.flatMap((each) => each.orders);
  expect(b!.cups).toMatchObject([{ cupId: 'a-1', cupMl: 300, status: 'cancelled' }]);
  expect([orders['d']!.name, orders['d']!.cups[0]!.allergy]).toEqual(['next', 'no nuts']);
});

test('what is forgotten is what a log without guests makes, also where it is named again', () => {
  const forgotten = settle(live(LOG), T0 + 3 * HOUR);
  const { state, refused } = reduce(
    LOG.map((event) => withoutGuest(event)),
    book,
  );
  expect(refused).toEqual([]);
  expect(forgotten.orders).toEqual({});
  // Nothing is left to set aside, and then nothing is made anew.
  expect(settle(forgotten, T0 + 9 * HOUR)).toBe(forgotten);
  const undone = (from: BarState) =>
    live([{ id: 'u', type: 'event-undone', atMs: T0 + 4 * HOUR, eventId: 'l2' }], from);
  const back = undone(forgotten);
  expect(Object.keys(back.orders)).toEqual(['b']);
  expect(back.orders['b']).toEqual(undone(state).orders['b']);
});

test('the guest of an order that is open stays, however long it takes, and so does who shares its brew', () => {
  const state = live([taken('a', T0, 'the pilot')]);
  expect(settle(state, T0 + 20 * HOUR)).toBe(state);
  const host = { orderId: 'a', cupId: 'a-2' };
  const sharer: BarEvent = {
    id: 'taken-s',
    type: 'order-taken',
    atMs: T0 + 1000,
    orderId: 's',
    name: 'window',
    cups: [{ ...cup('s-1', 'cone-thirds', 250), with: host }],
  };
  const shared = live([sharer, { id: 'left-s', type: 'guest-left', atMs: T0 + 2000, orderId: 's' }], state);
  const waits = settle(shared, T0 + 20 * HOUR);
  expect([Object.keys(waits.orders), waits.settled]).toEqual([['a', 's'], undefined]);
  expect([waits.orders['a']!.name, waits.orders['s']!.name]).toEqual(['the pilot', undefined]);
  expect(settle(waits, T0 + 21 * HOUR)).toBe(waits);
  const both = live([{ id: 'left-a', type: 'guest-left', atMs: T0 + 3000, orderId: 'a' }], shared);
  const { orders, settled } = settle(both, T0 + 3 * HOUR);
  expect([orders, settled!.map((each) => each.orders.map(({ id }) => id))]).toEqual([{}, [['a', 's']]]);
});

test('a bar that closes more than sixty orders an hour shows the latest of them, a page as the server does', () => {
  const closed = Array.from({ length: 90 }, (_, n): BarEvent[] => [
    taken(`o${n}`, T0 + n * 10_000, 'the pilot'),
    { id: `left-${n}`, type: 'guest-left', atMs: T0 + n * 10_000 + 5000, orderId: `o${n}` },
  ]).flat();
  const before = live(closed);
  const next = [taken('next', T0 + 900_000)];
  const after = live(next, before);
  const shown = Array.from({ length: 60 }, (_, n) => `o${n + 30}`);
  expect(Object.keys(after.orders)).toEqual([...shown, 'next']);
  expect(JSON.stringify(after.settled)).not.toMatch(WORDS);
  // A page that was opened before knows no more than that, and sets the same aside.
  expect(live(next, shownState(before, T0)).orders).toEqual(after.orders);
  const undone: BarEvent = { id: 'u', type: 'event-undone', atMs: T0 + 901_000, eventId: 'left-3' };
  expect(live([undone], after).orders['o3']!.cups.map(({ status }) => status)).toEqual([
    'waiting',
    'waiting',
  ]);
});
