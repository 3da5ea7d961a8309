/** An order is never finished changing: what may change when, what it takes along, and what stands in the way. */
import { BENCH, T0, book, counter, cup, done, order, started } from '../testing/bench';
import { buildProblem, effectOf, standingPlan } from '../plan';
import { weightOf, dueMsOf } from '../plan/bar/turn';
import {
  EMPTY_BAR,
  apply,
  badgeOf,
  queueOf,
  readyOrders,
  reduce,
  type BarEvent,
  type BarState,
  type CupAsk,
} from './index';

const newId = counter('o');
const at = (s: number) => ({ id: newId(), atMs: T0 + s * 1000 });
const live = (...events: BarEvent[]): BarState => {
  const { state, refused } = reduce(events, book);
  expect(refused).toEqual([]);
  return state;
};
const refusal = (state: BarState, event: BarEvent) => {
  const applied = apply(state, event, book);
  return applied.ok ? null : applied.refusal.reason;
};
const changed = (ask: CupAsk, orderId = 'A'): BarEvent => ({
  ...at(60),
  type: 'cup-changed',
  orderId,
  cup: ask,
});
const moved = (cups: CupAsk[], toOrderId: string, orderId = 'A'): BarEvent => ({
  ...at(90),
  type: 'cups-moved',
  orderId,
  toOrderId,
  cups,
});
const steps = ['fill', 'set-filter', 'weigh', 'load', 'bloom', 'pour-2', 'pour-3', 'pour-4', 'drawdown'];
const brewed = (cupId: string, orderId: string, stationId: string): BarEvent[] => [
  started(cupId, orderId, stationId, 100),
  ...steps.map((stepId, n) => done(`${cupId}.1`, stepId, 110 + 20 * n)),
  { ...at(400), type: 'brew-served', brewId: `${cupId}.1` },
];

test('a cup that waits may become another; one that is being brewed changes only in how it is handed over', () => {
  const waits = live(order('A', 0, cup('a1')), changed(cup('a1', 'press-long', 300)));
  expect(waits.orders['A']!.cups).toMatchObject([{ recipeId: 'press-long', cupMl: 300, status: 'waiting' }]);
  const brewing = live(order('A', 0, cup('a1')), started('a1', 'A', 'cone-1', 30));
  expect(refusal(brewing, changed(cup('a1', 'press-long')))).toMatch(
    /^This cup is being brewed\. Stop its brew/,
  );
  const told = live(
    order('A', 0, cup('a1')),
    started('a1', 'A', 'cone-1', 30),
    changed({ ...cup('a1'), allergy: 'nuts', milk: 'oat', note: 'not too hot' }),
  );
  expect(told.orders['A']!.cups).toMatchObject([{ status: 'brewing', allergy: 'nuts', milk: 'oat' }]);
  // The brew knows only what it is brewed by.
  expect(told.brews['a1.1']!.ask).toEqual(cup('a1'));
  const served = live(order('A', 0, cup('a1')), ...brewed('a1', 'A', 'cone-1'));
  expect(refusal(served, changed({ ...cup('a1'), note: 'late' }))).toMatch(/it is served/);
  expect(refusal(waits, changed({ ...cup('a1'), cupMl: 9000 }))).toMatch(/^Cup must be from/);
});

test('a cup is added until the order is out, and no order grows beyond twelve', () => {
  const added = (cupId: string): BarEvent => ({
    ...at(50),
    type: 'cup-added',
    orderId: 'A',
    cup: cup(cupId),
  });
  const twelve = Array.from({ length: 11 }, (_, n) => added(`x${n}`));
  const full = live(order('A', 0, cup('a1')), ...twelve);
  expect(refusal(full, added('y'))).toBe('An order has at most 12 cups. Take a second order.');
  const out = live(order('A', 0, cup('a1')), ...brewed('a1', 'A', 'cone-1'));
  expect(refusal(out, added('b'))).toMatch(/^This order is out already/);
});

test('cups that are split off take their brews along, keep their waiting and their promise, and can come back', () => {
  const taken = {
    ...order('A', 0, cup('a1'), cup('a2', 'press-long')),
    promisedMs: T0 + 600_000,
    name: 'pier',
  };
  const state = live(taken, started('a1', 'A', 'cone-1', 30), moved([cup('a1')], 'N'));
  expect(state.orders['N']).toMatchObject({ takenMs: T0, promisedMs: T0 + 600_000, badge: 1 });
  expect(state.orders['A']!.cups.map(({ cupId }) => cupId)).toEqual(['a2']);
  expect(state.brews['a1.1']).toMatchObject({ orderId: 'N', cupId: 'a1' });
  // It goes on in its new order.
  const on = reduce([done('a1.1', 'fill', 120)], book, state);
  expect(on.refused).toEqual([]);
  const back = live(
    taken,
    started('a1', 'A', 'cone-1', 30),
    moved([cup('a1')], 'N'),
    moved([cup('a1')], 'A', 'N'),
  );
  expect(back.orders['A']!.cups.map(({ cupId, status }) => [cupId, status])).toEqual([
    ['a2', 'waiting'],
    ['a1', 'brewing'],
  ]);
  expect(back.orders['N']!.cups).toEqual([]);
});

test.each<[string, (state: BarState) => BarEvent, RegExp]>([
  ['all of an order', () => moved([cup('a1'), cup('a2')], 'N'), /takes some of the cups/],
  [
    'a cup that was changed meanwhile',
    () => moved([{ ...cup('a1'), cupMl: 200 }], 'N'),
    /has been changed since/,
  ],
  ['a cup of another order', () => moved([cup('b1')], 'N'), /no such cup/],
  ['a cup twice', () => moved([cup('a1'), cup('a1')], 'N'), /no such cup/],
  ['cups into their own order', () => moved([cup('a1')], 'A'), /in this order already/],
])('%s does not go', (_what, event, reason) => {
  const state = live(order('A', 0, cup('a1'), cup('a2')), order('B', 10, cup('b1')));
  expect(refusal(state, event(state))).toMatch(reason);
});

test('a guest who left is brewed nothing more, and an order that was renamed or left is so again after undo', () => {
  const left: BarEvent = { ...at(60), type: 'guest-left', orderId: 'A' };
  const state = live(order('A', 0, cup('a1'), cup('a2')), started('a1', 'A', 'cone-1', 30), left);
  const statuses = (of: BarState) => of.orders['A']!.cups.map(({ status }) => status);
  expect(statuses(state)).toEqual(['brewing', 'cancelled']);
  const stopped = reduce(
    [{ ...at(70), type: 'brew-abandoned', brewId: 'a1.1', reason: 'left' }],
    book,
    state,
  );
  expect(statuses(stopped.state)).toEqual(['cancelled', 'cancelled']);
  expect(refusal(state, { ...at(80), type: 'cup-added', orderId: 'A', cup: cup('a3') })).toMatch(/has left/);
  const undone = reduce([{ ...at(90), type: 'event-undone', eventId: left.id }], book, state).state;
  expect(statuses(undone)).toEqual(['brewing', 'waiting']);
});

test('what is out stands on the counter until it is fetched, one order’s cups together', () => {
  const state = live(
    order('A', 0, cup('a1'), cup('a2')),
    ...brewed('a1', 'A', 'cone-1'),
    ...brewed('a2', 'A', 'cone-2'),
  );
  const ready = (of: BarState, s: number) =>
    readyOrders(of, T0 + s * 1000).map(({ order: each, cups, sinceMs }) => [
      each.id,
      cups.length,
      sinceMs - T0,
    ]);
  expect(ready(state, 500)).toEqual([['A', 2, 400_000]]);
  const fetched: BarEvent = { ...at(520), type: 'cups-fetched', orderId: 'A', cupIds: ['a1'] };
  expect(ready(reduce([fetched], book, state).state, 530)).toEqual([['A', 1, 400_000]]);
  expect(refusal(reduce([fetched], book, state).state, { ...fetched, id: newId() })).toMatch(
    /fetched already/,
  );
  // Nobody said anything: it is surely gone.
  expect(ready(state, 1100)).toEqual([]);
});

test('a queue says when its orders are due, how much they count, and which ring their badges have', () => {
  const boat: BarEvent = {
    ...order('A', 0, cup('a1')),
    queueId: 'boat',
    pickUpMs: T0 + 3_600_000,
    stroke: 'double',
    share: 2,
  };
  const state = live(boat, order('B', 10, cup('b1')));
  const [first, second] = [state.orders['A']!, state.orders['B']!];
  expect([badgeOf(first.badge).stroke, weightOf(first), dueMsOf(first) - T0]).toEqual([
    'double',
    2,
    3_600_000,
  ]);
  expect([weightOf(second), queueOf(second)]).toEqual([1, {}]);
  const { problem } = buildProblem(state, BENCH, book, T0 / 1000 + 20);
  // It is not begun before it can be out two minutes before its time.
  const [step] = problem.brews.find(({ id }) => id === 'a1.1')!.steps;
  expect(step!.lag.min).toBeGreaterThan(2800);
  expect(problem.orders.map(({ weight }) => weight)).toEqual([2.02, 1]);
  const tables: BarEvent = { ...at(30), type: 'order-queued', orderId: 'A', queueId: 'tables', withinS: 600 };
  const after = reduce([tables], book, state).state.orders['A']!;
  expect([weightOf(after), dueMsOf(after) - T0]).toEqual([1, 600_000]);
});

test('what a change does to the times is answered by planning with it; what cannot be says why', () => {
  const state = live(order('A', 0, cup('a1')), order('B', 10, cup('b1')));
  const standing = { state, bench: BENCH, book, nowS: T0 / 1000 + 20, plan: null };
  const base = standingPlan(standing);
  const slower = effectOf(standing, base, [changed(cup('b1', 'cone-steady', 300), 'B')]);
  expect(slower).toMatchObject({ ok: true, changed: [{ orderId: 'B' }] });
  const gone = effectOf(standing, base, [{ ...at(30), type: 'guest-left', orderId: 'A' }]);
  expect(gone).toMatchObject({ ok: true, changed: [{ orderId: 'A', afterS: null }] });
  const running = reduce([started('a1', 'A', 'cone-1', 15)], book, state).state;
  const stopped = effectOf({ ...standing, state: running }, standingPlan({ ...standing, state: running }), [
    { ...at(40), type: 'brew-abandoned', brewId: 'a1.1', reason: 'spilt' },
  ]);
  expect(stopped).toMatchObject({
    ok: true,
    changed: [{ orderId: 'A', afterS: expect.any(Number) as number }],
  });
  const impossible = effectOf(standing, base, [changed(cup('b1', 'siphon-late', 350), 'B')]);
  expect(impossible).toEqual({ ok: false, reason: expect.stringMatching(/siphon/) as string });
  expect(effectOf({ ...standing, state: EMPTY_BAR }, null, [changed(cup('b1'), 'B')])).toMatchObject({
    ok: false,
  });
});
