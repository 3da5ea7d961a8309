/** The rush drill: guests of a level come in their time, surprises happen to somebody, and what was late is found. */
import { SCHOOLS, bookOf } from '../recipe';
import { apply, EMPTY_BAR, reduce, type BarEvent, type BarState } from '../brew';
import { agenda } from '../plan';
import { lanternPier, shiftUpTo } from '../demo';
import { BENCH, T0, counter, cup, done, order, begun, started } from '../testing/bench';
import { exactWaits } from './lab-shift';
import {
  RUSH_LEVELS,
  SURPRISES,
  cueComesMs,
  idleFromMs,
  latePoursOf,
  reviewRush,
  rushHappenings,
  surpriseNow,
} from './rush-drill';

const book = bookOf(SCHOOLS);
const menu = [cup('x'), cup('x', 'press-long', 240), cup('x', 'siphon-late', 350)].map(
  ({ cupId: _id, ...rest }) => rest,
);
const setUp = (
  level: (typeof RUSH_LEVELS)[number],
  surprises: readonly (typeof SURPRISES)[number][] = [],
  seed = 5,
) => rushHappenings({ level, surprises, bench: BENCH, book, menu, startMs: T0, seed, newId: counter() });
const ordersOf = (happenings: ReturnType<typeof setUp>) =>
  happenings.flatMap((each) => ('order' in each ? [each] : []));

test('each level brings its cups within its time, the first at once, and only what the bench can brew', () => {
  for (const [level, cups, withinS] of [
    ['three', 3, 440],
    ['six', 6, 500],
    ['boat', 9, 260],
  ] as const)
    for (const seed of [1, 2, 3]) {
      const orders = ordersOf(setUp(level, [], seed));
      expect(orders.flatMap(({ order: { cups: each } }) => each)).toHaveLength(cups);
      expect([orders[0]!.atS, orders.at(-1)!.atS < withinS]).toEqual([1, true]);
      // There is no siphon on this bench.
      expect(
        orders.every(({ order: { cups: each } }) => each.every(({ recipeId }) => recipeId !== 'siphon-late')),
      ).toBe(true);
    }
  expect(setUp('six', [], 4)).toEqual(setUp('six', [], 4));
  const two = ordersOf(setUp('six', ['two-guests']));
  expect(two.at(-1)!.atS).toBe(two.at(-2)!.atS);
});

/** A shift in the middle: two weeks are left out. */
const middle: BarState = shiftUpTo(T0, counter(), { ...lanternPier(T0) }).state;

test('surprises happen to somebody whom they can happen to, and the bar takes them', () => {
  for (const surprise of ['kettle', 'spilt', 'change-of-mind'] as const) {
    const events = surpriseNow(surprise, middle, T0, counter('s'));
    if (surprise !== 'change-of-mind') expect(events).toHaveLength(1);
    for (const event of events) expect(apply(middle, event, book).ok).toBe(true);
    expect(surpriseNow(surprise, EMPTY_BAR, T0, counter('s'))).toHaveLength(surprise === 'kettle' ? 1 : 0);
  }
});

const brewing = (more: BarEvent[] = []) =>
  reduce(
    [
      order('A', 0, cup('a1')),
      started('a1', 'A', 'cone-1', 10),
      ...['fill', 'set-filter', 'weigh', 'load'].map((step, n) => done('a1.1', step, 20 + 20 * n)),
      begun('a1.1', 'bloom', 110),
      done('a1.1', 'bloom', 118, 42),
      ...more,
    ],
    book,
  );

test('a pour that comes late is found by the brew’s own rhythm, with how long the bed stood bare for it', () => {
  const onTime = brewing([done('a1.1', 'pour-2', 168, 129)]);
  expect(onTime.refused).toEqual([]);
  expect(latePoursOf(onTime.state.brews['a1.1']!, T0 + 170_000)).toEqual([]);
  const late = brewing([done('a1.1', 'pour-2', 168, 129), done('a1.1', 'pour-3', 290, 214)]);
  const [pour] = latePoursOf(late.state.brews['a1.1']!, T0 + 300_000);
  expect(pour!.step).toMatch(/Second/);
  expect(pour!.lateS).toBeGreaterThan(60);
  expect(pour!.bareS).toBeGreaterThan(20);
});

test('a bed that stalls comes much later than one that does not, and hands are idle only once something could have been done', () => {
  const { state } = brewing([
    done('a1.1', 'pour-2', 168, 129),
    done('a1.1', 'pour-3', 198, 214),
    done('a1.1', 'pour-4', 228, 285),
  ]);
  const nowMs = T0 + 240_000;
  const item = agenda(state, BENCH, book, null, nowMs).find(({ asks }) => asks === 'cue')!;
  const usual = cueComesMs(item, nowMs, { stalled: null, siphon: null }, 1)!;
  const stalled = cueComesMs(item, nowMs, { stalled: 'a1.1', siphon: null }, 1)!;
  expect(stalled - usual).toBeGreaterThan(20_000);
  expect(idleFromMs(item, stalled, 3000)).toBe(stalled + 3000);
  expect(idleFromMs(item, null, 3000)).toBe(Infinity);
});

test('the review holds the waits against hands that are never late, and proposes what to do next', async () => {
  const orders = [order('A', 0, cup('a1')), order('B', 60, cup('b1'))];
  const exactS = await exactWaits(BENCH, orders, book);
  expect(Object.keys(exactS)).toEqual(['A', 'B']);
  expect(exactS['A']!).toBeGreaterThan(200);
  const served = shiftUpTo(T0, counter(), lanternPier(T0)).state;
  const all = Object.fromEntries(Object.values(served.orders).map(({ id }) => [id, 300]));
  const clean = { idleMs: 4200, wrongOrder: 0, tooEarly: 0 };
  const review = reviewRush({ level: 'three', surprises: ['spilt'] }, served, all, clean, T0);
  expect(review.idleS).toBe(4);
  // Some of its orders still wait: it is not mastered, and the next is easier.
  expect([review.isMastered, review.next]).toEqual([false, { level: 'three', surprises: [] }]);
  const empty = reviewRush({ level: 'three', surprises: ['spilt'] }, EMPTY_BAR, {}, clean, T0);
  expect(empty.next).toEqual({ level: 'six', surprises: ['spilt'] });
  expect(
    reviewRush({ level: 'three', surprises: [] }, EMPTY_BAR, {}, { ...clean, tooEarly: 9 }, T0).isMastered,
  ).toBe(false);
});
