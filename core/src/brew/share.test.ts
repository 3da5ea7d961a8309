/** One brew for cups of two orders: they wait, brew and are out together, and each can still go its own way. */
import { BENCH, T0, book, cup, done, order, started } from '../testing/bench';
import { buildProblem, checkPlan, quoteOrder, solve, standingPlan } from '../plan';
import { dueMsOf } from '../plan/bar/turn';
import { guestsOf, reduce, type BarEvent, type BarState } from './index';
import { apply } from './reduce';

/** Two of them fit the cone. */
const small = (cupId: string) => cup(cupId, 'cone-thirds', 220);
const shared = (cupId: string) => ({ ...small(cupId), with: { orderId: 'A', cupId: 'a1' } });
const host = order('A', 0, small('a1'));
const guest = order('B', 20, shared('b1'));
const brewed = (upTo: BarEvent['type'] | 'cleaned'): BarEvent[] => {
  const at = (s: number) => ({ id: `x${s}`, atMs: T0 + s * 1000 });
  const steps = ['fill', 'set-filter', 'weigh', 'load', 'bloom', 'pour-2', 'pour-3', 'pour-4', 'drawdown'];
  const events: BarEvent[] = [
    started('a1', 'A', 'cone-1', 30),
    ...steps.map((stepId, n) => done('a1.1', stepId, 40 + 20 * n)),
    { ...at(400), type: 'brew-served', brewId: 'a1.1' },
    done('a1.1', 'clean', 430),
  ];
  return events.slice(0, upTo === 'brew-started' ? 1 : upTo === 'brew-served' ? -1 : undefined);
};
const statuses = (state: BarState) =>
  Object.values(state.orders).map(({ cups }) => cups.map(({ status, cups: many }) => [status, many ?? 1]));
const refusalOf = (state: BarState, event: BarEvent) => {
  const applied = apply(state, event, book);
  return applied.ok ? null : applied.refusal.reason;
};
const base = { id: 'y', atMs: T0 + 500_000 };

test('the brew that waits is as large as what shares it, and both cups go through it together', () => {
  const waiting = reduce([host, guest], book).state;
  expect(statuses(waiting)).toEqual([[['waiting', 2]], [['waiting', 1]]]);
  const brewing = reduce(brewed('brew-started'), book, waiting).state;
  expect(statuses(brewing).map((cups) => cups[0]![0])).toEqual(['brewing', 'brewing']);
  const single = reduce([host, ...brewed('brew-started')], book).state.brews['a1.1']!.card;
  expect(brewing.brews['a1.1']!.card.perCupG).toHaveLength(2);
  expect(brewing.brews['a1.1']!.card.doseG).toBeGreaterThan(1.8 * single.doseG);
  const served = reduce([host, guest, ...brewed('brew-served')], book);
  expect(served.refused).toEqual([]);
  expect(statuses(served.state).map((cups) => cups[0]![0])).toEqual(['served', 'served']);
});

test('what happens to an order leaves those alone that share nothing with it', () => {
  const other = order('C', 40, small('c1'));
  const left: BarEvent = { id: 'gone', type: 'guest-left', atMs: T0 + 50_000, orderId: 'C' };
  const before = reduce([host, guest, other, left, order('D', 60, small('d1'))], book).state;
  const after = reduce([started('d1', 'D', 'cone-2', 70), done('d1.1', 'fill', 80)], book, before).state;
  for (const id of ['A', 'B', 'C']) expect(after.orders[id]).toBe(before.orders[id]);
  expect(after.orders['D']!.cups[0]!.status).toBe('brewing');
});

test('it is planned as one brew of both orders, whose promises both count', () => {
  const { state } = reduce([host, guest], book);
  const { problem, unplannable } = buildProblem(state, BENCH, book, T0 / 1000 + 21);
  expect(unplannable).toEqual([]);
  expect(problem.brews.map(({ id, orders }) => [id, orders])).toEqual([['a1.1', ['A', 'B']]]);
  const plan = solve(problem);
  expect(checkPlan(problem, plan)).toEqual([]);
  expect(plan.finish['A']).toBe(plan.finish['B']);
  // And quoted so: with the brew that waits it is out with it, though the bar has one pair of hands.
  const standing = {
    state: reduce([host], book).state,
    bench: BENCH,
    book,
    nowS: T0 / 1000 + 21,
    plan: null,
  };
  const quote = quoteOrder(standing, standingPlan(standing), [shared('q1')]);
  expect(quote.ok && quote.readyS - plan.finish['A']!).toBeLessThan(15);
});

test.each<[what: string, events: BarEvent[], wrong: BarEvent, reason: RegExp]>([
  [
    'a cup that is not there',
    [host],
    order('B', 20, { ...small('b1'), with: { orderId: 'A', cupId: 'zz' } }),
    /no such cup/,
  ],
  [
    'one of another size',
    [host],
    order('B', 20, { ...shared('b1'), cupMl: 300 }),
    /one recipe, coffee and size/,
  ],
  [
    'one that is being brewed',
    [host, ...brewed('brew-started')],
    order('B', 60, shared('b1')),
    /does not wait any more/,
  ],
  ['a fifth cup', [order('A', 0, { ...small('a1'), cups: 4 })], guest, /at most 4 cups/],
  ['starting it by itself', [host, guest], started('b1', 'B', 'cone-2', 40), /poured out of another’s brew/],
  [
    'cancelling what it is poured out of',
    [host, guest],
    { ...base, type: 'cup-cancelled', orderId: 'A', cupId: 'a1' },
    /cancel that one first/,
  ],
  [
    'taking the first order back',
    [host, guest],
    { ...base, type: 'event-undone', eventId: host.id },
    /shares a brew/,
  ],
])('%s is refused, and says why', (_what, events, wrong, reason) => {
  expect(refusalOf(reduce(events, book).state, wrong)).toMatch(reason);
});

test('a guest who leaves makes the brew smaller again, and taking the order back is as if it had not been', () => {
  const alone = reduce([host], book).state;
  const both = reduce([guest], book, alone).state;
  const left = reduce([{ ...base, type: 'cup-cancelled', orderId: 'B', cupId: 'b1' }], book, both).state;
  expect(statuses(left)).toEqual([[['waiting', 1]], [['cancelled', 1]]]);
  const undone = reduce([{ ...base, type: 'event-undone', eventId: guest.id }], book, both).state;
  expect(undone).toEqual(alone);
});

test('a brew given up waits again for both; a cup sent back is brewed by itself', () => {
  const given = reduce(
    [
      host,
      guest,
      ...brewed('brew-started'),
      { ...base, type: 'brew-abandoned', brewId: 'a1.1', reason: 'torn filter' },
    ],
    book,
  ).state;
  expect(statuses(given)).toEqual([[['waiting', 2]], [['waiting', 1]]]);
  const served = reduce([host, guest, ...brewed('cleaned')], book).state;
  const sent: BarEvent = {
    ...base,
    type: 'cup-remade',
    orderId: 'B',
    cupId: 'b1',
    brewId: 'a1.1',
    reason: 'dropped',
  };
  const back = reduce([sent], book, served);
  expect(back.refused).toEqual([]);
  expect(statuses(back.state).map((cups) => cups[0]![0])).toEqual(['served', 'waiting']);
  const again = reduce([started('b1', 'B', 'cone-2', 600)], book, back.state);
  expect(again.refused).toEqual([]);
  expect(again.state.brews['b1.1']!.card.perCupG).toHaveLength(1);
});

test('at the hand-over each guest is named with the grams of each cup, which are all that there is, after a pour too much as well', () => {
  const named = { ...host, name: 'window' };
  const upTo = (reading: number) => [
    named,
    guest,
    ...brewed('brew-started'),
    ...['fill', 'set-filter', 'weigh', 'load', 'bloom', 'pour-2', 'pour-3'].map((stepId, n) =>
      done('a1.1', stepId, 40 + 20 * n),
    ),
    done('a1.1', 'pour-4', 200, reading),
  ];
  const { brewWaterG } = reduce([named, guest, ...brewed('brew-started')], book).state.brews['a1.1']!.card;
  for (const overG of [0, 40]) {
    const { state, refused } = reduce(upTo(brewWaterG + overG), book);
    expect(refused).toEqual([]);
    const brew = state.brews['a1.1']!;
    const guests = guestsOf(state, brew);
    expect(guests.map(({ badge, name, gramsPerCup }) => [badge, name, gramsPerCup.length])).toEqual([
      [0, 'window', 1],
      [1, undefined, 1],
    ]);
    const grams = guests.flatMap(({ gramsPerCup }) => gramsPerCup);
    expect(grams.reduce((sum, g) => sum + g, 0)).toBe(brew.card.beverageG);
  }
});

test('a cup that was sent back is timed from then, not from what was promised of the first', () => {
  const promised = { ...host, promisedMs: T0 + 400_000, expectedMs: T0 + 380_000 };
  const remade: BarEvent = {
    id: 'remade',
    type: 'cup-remade',
    atMs: T0 + 900_000,
    orderId: 'A',
    cupId: 'a1',
    brewId: 'a1.1',
    reason: 'too bitter',
  };
  const before = reduce([promised, ...brewed('cleaned')], book);
  expect(dueMsOf(before.state.orders['A']!)).toBe(T0 + 380_000);
  const { state, refused } = reduce([promised, ...brewed('cleaned'), remade], book);
  expect(refused).toEqual([]);
  expect(dueMsOf(state.orders['A']!)).toBe(T0 + 900_000 + 600_000);
  const { problem } = buildProblem(state, BENCH, book, T0 / 1000 + 905);
  expect(problem.orders[0]).toMatchObject({ placedAt: T0 / 1000 + 900, dueAt: T0 / 1000 + 1500 });
});

test('a cup that was handed to the wrong guest goes to the right one afterwards: that one is served, the other waits again', () => {
  const other = order('B', 20, cup('b1'));
  const given: BarEvent = {
    id: 'given',
    type: 'brew-given',
    atMs: T0 + 460_000,
    brewId: 'a1.1',
    fromOrderId: 'A',
    fromCupId: 'a1',
    orderId: 'B',
    cupId: 'b1',
  };
  const out = reduce([host, other, ...brewed('cleaned')], book).state;
  const { state, refused } = reduce([given], book, out);
  expect(refused).toEqual([]);
  expect(statuses(state).map((cups) => cups[0]![0])).toEqual(['waiting', 'served']);
  expect(state.brews['a1.1']).toMatchObject({ orderId: 'B', cupId: 'b1', status: 'cleaned' });
  // It is planned again for the one who has not had it, and can be taken back.
  const { problem } = buildProblem(state, BENCH, book, T0 / 1000 + 461);
  expect(problem.brews.map(({ id, orders }) => [id, orders])).toEqual([['a1.2', ['A']]]);
  expect(
    reduce([{ id: 'undo', type: 'event-undone', atMs: T0 + 462_000, eventId: 'given' }], book, state).state,
  ).toEqual(out);
});
