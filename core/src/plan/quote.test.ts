/** Quotes of orders that could be taken: better and better, the same as asked at once, and refused in words. */
import { reduce } from '../brew';
import { BENCH, T0, book, cup, order } from '../testing/bench';
import { quoteOrder, standingPlan, startQuoting, startStanding, type Quote } from './index';

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
