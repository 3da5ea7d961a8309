/** What guests see: badges and minutes, in turn; no name that was not given to be called, and nothing that is over. */
import { BENCH, T0, book, cup } from '../../testing/bench';
import { apply, reduce, type BarEvent, type BarState } from '../../brew';
import { CARD_VERSION } from '../../recipe';
import { boardOf, followedOrder, type Outlook } from './board';

const MINUTE = 60_000;
const order = (orderId: string, atMs: number, more: object = {}): BarEvent => ({
  id: `taken-${orderId}`,
  type: 'order-taken',
  atMs,
  orderId,
  name: `guest ${orderId}`,
  cups: [cup(`${orderId}-1`, 'cone-thirds', 250)],
  ...more,
});
const servedOut = (orderId: string, atMs: number, station = 0): BarEvent[] => [
  {
    id: `start-${orderId}`,
    type: 'brew-started',
    atMs: atMs - 300_000,
    brewId: `${orderId}-1.1`,
    orderId,
    cupId: `${orderId}-1`,
    stationId: BENCH.stations[station]!.id,
    stationName: BENCH.stations[station]!.name,
    brewerId: 'cone-m',
    altitudeM: 0,
    kettlePowerW: 1200,
    kettleFilledAtC: 90,
    prepVersion: CARD_VERSION,
  },
  { id: `served-${orderId}`, type: 'brew-served', atMs, brewId: `${orderId}-1.1` },
];
const served = (state: BarState, orderId: string, atMs: number): BarState => {
  const [start, out] = servedOut(orderId, atMs) as [BarEvent, BarEvent];
  const started = apply(state, start, book);
  if (!started.ok) throw new Error(started.refusal.reason);
  const { steps } = started.state.brews[`${orderId}-1.1`]!.card;
  let now = started.state;
  for (const { id, phase } of steps.filter(({ phase }) => phase === 'prep' || phase === 'brew')) {
    const done = {
      id: `${orderId}-${id}`,
      type: 'step-done',
      atMs: atMs - 1000,
      brewId: `${orderId}-1.1`,
      stepId: id,
    } as BarEvent;
    const applied = apply(now, done, book);
    if (applied.ok) now = applied.state;
    else if (phase === 'prep') throw new Error(applied.refusal.reason);
  }
  const applied = apply(now, out, book);
  if (!applied.ok) throw new Error(applied.refusal.reason);
  return applied.state;
};
const outlook = (state: BarState, finish: Record<string, number> = {}): Outlook => ({
  state,
  bench: { name: 'Test bar', queues: [{ id: 'counter', name: 'Counter', promise: 'soon' }] as never },
  plan: { finish } as never,
  rough: {},
});

test('what is to come stands soonest first, by whole minutes; a name only where it is to be called', () => {
  const { state } = reduce(
    [order('a', T0), order('b', T0 + 1000, { nameShown: true }), order('c', T0 + 2000)],
    book,
  );
  const { coming, ready } = boardOf(
    outlook(state, { a: (T0 + 301_000) / 1000, b: (T0 + 90_000) / 1000 }),
    T0,
  );
  expect(ready).toEqual([]);
  expect(coming.map(({ badge, readyMs, name }) => [badge.letter, readyMs, name])).toEqual([
    ['B', Math.ceil((T0 + 90_000) / MINUTE) * MINUTE, 'guest b'],
    ['A', Math.ceil((T0 + 301_000) / MINUTE) * MINUTE, undefined],
    ['C', null, undefined],
  ]);
  // The name is called no longer.
  const renamed = apply(
    state,
    { id: 'r', type: 'order-renamed', atMs: T0 + 3000, orderId: 'b', name: 'guest b' },
    book,
  );
  expect(
    renamed.ok && boardOf(outlook(renamed.state), T0).coming.some(({ name }) => name !== undefined),
  ).toBe(false);
});

test('a cup stands ready until it is fetched; an order whose guest has left is shown no more', () => {
  const { state } = reduce([order('a', T0), order('b', T0 + 1000)], book);
  const out = served(state, 'a', T0 + 10 * MINUTE);
  const at = T0 + 11 * MINUTE;
  expect(boardOf(outlook(out), at)).toMatchObject({
    ready: [{ badge: { letter: 'A' }, cups: 1, ready: 1, readyMs: T0 + 10 * MINUTE, queueId: 'counter' }],
    coming: [{ badge: { letter: 'B' } }],
  });
  const after = [
    { id: 'f', type: 'cups-fetched', atMs: at, orderId: 'a', cupIds: ['a-1'] },
    { id: 'l', type: 'guest-left', atMs: at, orderId: 'b' },
  ] as BarEvent[];
  const gone = after.reduce((now, event) => {
    const applied = apply(now, event, book);
    if (!applied.ok) throw new Error(applied.refusal.reason);
    return applied.state;
  }, out);
  expect(boardOf(outlook(gone), at)).toMatchObject({ ready: [], coming: [] });
  // The guest's own page says that it was fetched, for an hour.
  const a = gone.orders['a']!;
  expect(followedOrder(outlook(gone), a, at + 59 * MINUTE)).toMatchObject({
    cups: [{ status: 'fetched' }],
    readyMs: null,
  });
  expect(followedOrder(outlook(gone), a, at + 61 * MINUTE)).toBeNull();
});
