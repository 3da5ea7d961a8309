/** Quotes of orders that could be taken: better and better, the same as asked at once, and refused in words. */
import { apply, reduce } from '../../brew';
import { BENCH, T0, book, cup, order } from '../../testing/bench';
import {
  chainOf,
  quoteOrder,
  urgeOrder,
  standingPlan,
  startQuoting,
  startStanding,
  urgePast,
  wavesOf,
  whatHelps,
  type Quote,
  type Urging,
} from '../index';

const { state } = reduce([order('A', 0, cup('a1'), cup('a2'))], book);
const standing = { state, bench: BENCH, book, nowS: T0 / 1000 + 10, plan: null };
const cups = [cup('x'), cup('y'), cup('z', 'press-short', 240)];
const readyS = (quote: Quote) => (quote.ok ? quote.readyS - standing.nowS : NaN);

test('a quote that is worked at in turns is what as many moves at once give, and gets no worse by more of them', () => {
  const base = standingPlan(standing, 120);
  const quoting = startQuoting(standing, base, cups);
  for (let turn = 0; turn < 3; turn += 1) quoting.improve(40);
  const quote = quoting.answer().quote(base);
  expect(quote).toEqual(quoteOrder(standing, base, cups, 120));
  const costS = quoting.answer().plan!.cost;
  quoting.improve(600);
  expect(quoting.answer().plan!.cost).toBeLessThanOrEqual(costS);
  // Asked again, it sets out from what was found, and not from the beginning.
  const again = startQuoting(standing, quoting.answer().plan, cups);
  expect(readyS(again.answer().quote(base))).toBeLessThanOrEqual(readyS(quote));

  const without = startStanding(standing);
  without.improve(120);
  expect(without.answer()).toEqual(base);
});

test('what no brewer here can make is refused with what would fit, however long it is worked at', () => {
  const large = startQuoting(standing, null, [cup('x', 'cone-thirds', 900)]);
  large.improve(40);
  expect(large.answer()).toMatchObject({ plan: null });
  const quote = large.answer().quote(null);
  expect(quote.ok ? '' : quote.reason).toMatch(/\S/);
  const unknown = startQuoting(standing, null, [cup('x', 'nothing')])
    .answer()
    .quote(null);
  expect(unknown).toMatchObject({ ok: false, reason: expect.stringContaining('nothing') });
});

/** Three orders that wait on a bar with two cones and a press. */
const three = {
  ...standing,
  state: reduce(
    [
      order('A', 0, cup('a1'), cup('a2')),
      order('B', 5, cup('b1', 'press-short', 240)),
      order('C', 10, cup('c1'), cup('c2')),
    ],
    book,
  ).state,
};
const base = standingPlan(three, 240)!;
/** Of the two orders of two cones, the one that is out first and the one that waits for it. */
const [first, last] = ['A', 'C'].sort((a, b) => base.finish[a]! - base.finish[b]!) as [string, string];

/** The bar once an order has been urged as a question said. */
const urged = (orderId: string, { weight, wantedS }: Urging) => {
  const applied = apply(
    three.state,
    { id: 'u', type: 'order-urged', atMs: three.nowS * 1000, orderId, weight, wantedMs: wantedS * 1000 },
    book,
  );
  if (!applied.ok) throw new Error(applied.refusal.reason);
  const planning = startStanding({ ...three, state: applied.state }, base);
  planning.improve(240);
  return planning.answer()!;
};

test('what is said of an order that is pulled past another, or put off, is what comes of it', () => {
  const sooner = urgePast(three, base, last, first, 'before');
  expect(sooner).toMatchObject({ kept: true, weight: expect.any(Number) });
  expect(sooner.wantedS).toBeLessThan(base.finish[first]!);
  const pulled = urged(last, sooner);
  expect(pulled.finish[last]!).toBeLessThanOrEqual(pulled.finish[first]!);
  // Its price is named: who waits for it, and by how much, as the plans differ.
  const paid = sooner.shifts.find(({ orderId }) => orderId === first)!;
  expect(paid.byS).toBeGreaterThan(0);
  for (const { orderId, byS } of sooner.shifts)
    expect(pulled.finish[orderId]! - base.finish[orderId]!).toBe(byS);
  expect(sooner.shifts.map(({ byS }) => byS)).toEqual(
    sooner.shifts.map(({ byS }) => byS).sort((a, b) => b - a),
  );

  const later = urgePast(three, base, first, last, 'after');
  expect(later.kept).toBe(true);
  expect(later.weight).toBeLessThan(1);
  const put = urged(first, later);
  expect(put.finish[first]!).toBeGreaterThanOrEqual(put.finish[last]!);
});

test('a rush goes before all that waits; of an order that is not there nothing is kept', () => {
  const rushed = urgeOrder(three, base, last);
  expect(rushed).toMatchObject({ kept: true, weight: 64, wantedS: three.nowS });
  const plan = urged(last, rushed);
  expect(plan.finish[last]!).toBeLessThan(base.finish[last]!);
  const gone = urgePast({ ...three, state: standing.state }, base, 'C', 'A', 'before');
  expect(gone).toMatchObject({ kept: false, shifts: [] });
});

test('what would help an order is tried: with it on the bench the order is out sooner, the most helpful first', () => {
  const helps = whatHelps(three, base, last);
  expect(helps.length).toBeGreaterThan(0);
  expect(helps.map(({ gainS }) => gainS)).toEqual(helps.map(({ gainS }) => gainS).sort((a, b) => b - a));
  expect(helps.every(({ gainS }) => gainS >= 10)).toBe(true);
  // A second pair of hands on the very bench.
  const hands = helps.find(({ what }) => what === 'hands')!;
  const two = standingPlan({ ...three, bench: { ...BENCH, hands: 2 }, plan: base }, 240)!;
  expect(base.finish[last]! - two.finish[last]!).toBeGreaterThanOrEqual(hands.gainS / 2);
  // Only what its cups could be brewed by here, and never what they are brewed by.
  for (const help of helps)
    if (help.what === 'method')
      expect([help.method, help.cupId]).toEqual(['press', expect.stringMatching(/^[ac]/)]);
  expect(whatHelps(three, base, 'nobody')).toEqual([]);
});

test('why a brew waits is followed to what is under way, round no circle', () => {
  const brews = ['a1.1', 'a2.1', 'b1.1', 'c1.1', 'c2.1'];
  const chains = brews.map((brewId) => chainOf(base, brewId));
  expect(chains.some((chain) => chain.length > 0)).toBe(true);
  for (const [index, chain] of chains.entries()) {
    if (chain.length > 0) expect(chain[0]!.brewId).toBe(brews[index]);
    expect(new Set(chain.map(({ brewId }) => brewId)).size).toBe(chain.length);
    // What it waits for is over before what waits for that.
    for (const { until } of chain) expect(until).toBeGreaterThanOrEqual(three.nowS);
  }
  expect(chainOf(base, 'nothing.1')).toEqual([]);
});

test('cups that come out within two minutes are one wave, in the order in which they come out', () => {
  expect(wavesOf([])).toEqual([]);
  expect(wavesOf([300, 100, 220])).toEqual([[1, 2], [0]]);
  // Counted from the first of a wave, so that no wave grows without end.
  expect(wavesOf([0, 100, 200, 300])).toEqual([
    [0, 1],
    [2, 3],
  ]);
  expect(wavesOf([500, 500])).toEqual([[0, 1]]);
});
