/** Guests are forgotten an hour after their order was closed, alike on every copy; what was brewed stays. */
import { T0, book, cup } from '../testing/bench';
import {
  EMPTY_BAR,
  applyLogged,
  forgetGuests,
  reduce,
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
  const { orders } = after;
  expect(JSON.stringify([orders['a'], orders['b']])).not.toMatch(WORDS);
  expect(orders['b']!.cups).toMatchObject([{ cupId: 'a-1', cupMl: 300, status: 'cancelled' }]);
  expect([orders['d']!.name, orders['d']!.cups[0]!.allergy]).toEqual(['next', 'no nuts']);
});

test('what is forgotten is what a log without guests makes', () => {
  const forgotten = forgetGuests(live(LOG), T0 + 3 * HOUR);
  const { state, refused } = reduce(
    LOG.map((event) => withoutGuest(event)),
    book,
  );
  expect(refused).toEqual([]);
  expect(forgotten).toEqual(state);
  // Nothing is left to forget, and then nothing is made anew.
  expect(forgetGuests(forgotten, T0 + 9 * HOUR)).toBe(forgotten);
});

test('the guest of an order that is open stays, however long it takes', () => {
  const state = live([taken('a', T0, 'the pilot')]);
  expect(forgetGuests(state, T0 + 20 * HOUR)).toBe(state);
});
