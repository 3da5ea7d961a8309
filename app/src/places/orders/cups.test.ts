/** Cups as they are asked for: what one brew may be poured for, and what a change leaves as it was. */
import type { CupAsk } from '@even-kettle/core/brew';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { METRIC } from '@even-kettle/core/units';
import { TEST_BAR } from '../../testing/bar';
import { mergedCups } from './as-one';
import { additionsOf, asChanged, draftOf, readDraft, recipesOn, type Counter } from './cup-draft';
import { readPickUp } from './queue-choice';

const book = bookOf(SCHOOLS);
const counter: Counter = {
  bar: TEST_BAR,
  menu: recipesOn(TEST_BAR, [...SCHOOLS]),
  book,
  units: METRIC,
  nowMs: 0,
};
const VERSION = SCHOOLS.find(({ id }) => id === 'cone-thirds')!.version;
const cup = (cupId: string, part: Partial<CupAsk> = {}): CupAsk => ({
  cupId,
  recipeId: 'cone-thirds',
  recipeVersion: VERSION,
  coffee: 'Saltmarsh',
  roast: 'light',
  cupMl: 220,
  ...part,
});

test.each<[string, Partial<CupAsk>]>([
  ['an allergy', { allergy: 'nuts' }],
  ['a wish', { note: 'not too hot' }],
  ['another milk', { addition: 'milk', milk: 'oat' }],
  ['to go', { toGo: true }],
])('cups that are alike are one brew; one with %s keeps a line of its own', (_what, part) => {
  expect(mergedCups([cup('a'), cup('b')], TEST_BAR, book)).toMatchObject([{ cupId: 'a', cups: 2 }]);
  expect(mergedCups([cup('a'), cup('b', part)], TEST_BAR, book)).toBeNull();
  // Among three the two that are alike are one brew still.
  const merged = mergedCups([cup('a'), cup('b', part), cup('c')], TEST_BAR, book);
  expect(merged).toMatchObject([
    { cupId: 'a', cups: 2 },
    { cupId: 'b', ...part },
  ]);
});

test('of several additions ice makes the brew, else milk; the rest is put in or beside', () => {
  expect(additionsOf([])).toEqual({});
  expect(additionsOf(['sugar'])).toEqual({ addition: 'sugar' });
  expect(additionsOf(['sugar', 'milk'])).toEqual({ addition: 'milk', besides: ['sugar'] });
  expect(additionsOf(['milk', 'sugar', 'ice'])).toEqual({ addition: 'ice', besides: ['milk', 'sugar'] });
});

test('a cup that is opened and saved again is the same cup, whatever has become of its recipe and its coffee since', () => {
  const ask = cup('a', {
    recipeVersion: 1,
    gassy: true,
    addition: 'ice',
    besides: ['milk'],
    milk: 'oat',
    allergy: 'nuts',
    toGo: true,
  });
  const draft = draftOf(ask, counter)!;
  const typed = readDraft(draft, counter);
  expect(typed.ok && asChanged(ask, typed.cup)).toEqual(ask);
  // Another coffee is as fresh as it is; another recipe is its latest version.
  const other = readDraft({ ...draft, coffeeId: 'slack', recipeId: 'press-long', sizeText: '240' }, counter);
  const changed = other.ok ? asChanged(ask, other.cup) : null;
  expect(changed).toMatchObject({
    coffee: 'Slack Tide decaf',
    roast: 'medium',
    recipeId: 'press-long',
    decaf: true,
  });
  expect(changed).not.toHaveProperty('gassy');
  expect(draftOf(cup('a', { coffee: 'long gone' }), counter)).toBeNull();
});

test('a cup that shares a brew goes on sharing it while only its handing over changes', () => {
  const ask = cup('a', { with: { orderId: 'A', cupId: 'a1' } });
  const draft = draftOf(ask, counter)!;
  const wish = readDraft({ ...draft, note: 'lid' }, counter);
  expect(wish.ok && asChanged(ask, wish.cup)).toEqual({ ...ask, note: 'lid' });
  const larger = readDraft({ ...draft, sizeText: '250' }, counter);
  expect(larger.ok && asChanged(ask, larger.cup)).not.toHaveProperty('with');
});

test('a time of the day is the next one that the clock shows', () => {
  const at = (hours: number, minutes: number, day = 5) => new Date(2026, 0, day, hours, minutes).getTime();
  expect(readPickUp('14:20', at(13, 0))).toBe(at(14, 20));
  expect(readPickUp('1420', at(13, 0))).toBe(at(14, 20));
  expect(readPickUp('9:05', at(13, 0))).toBe(at(9, 5, 6));
  for (const wrong of ['', '25:00', '14:60', 'soon']) expect(readPickUp(wrong, at(13, 0))).toBeNull();
});
