/** Cups as they are asked for: what one brew may be poured for, and what a change leaves as it was. */
import type { CupAsk } from '@even-kettle/core/brew';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { METRIC } from '@even-kettle/core/units';
import { OUNCES, TEST_BAR } from '../../testing/bar';
import { serviceInWords, unknownInWords } from '../../words/service-words';
import { mergedCups } from '../../places/orders/as-one';
import {
  additionsOf,
  asChanged,
  byMethod,
  draftOf,
  firstDraft,
  otherWays,
  readDraft,
  recipesOn,
  sizesFor,
  withRecipe,
  type Counter,
  type Draft,
} from './cup-draft';
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

const draft = (part: Partial<Draft> = {}): Draft => ({
  ...firstDraft(counter),
  coffeeId: 'saltmarsh',
  recipeId: 'cone-thirds',
  ...part,
});

test('up to three sizes are offered that this bench can make, the commonest among them, in the bar’s own unit', () => {
  expect(sizesFor(draft(), counter)).toEqual([200, 250, 300]);
  const pressed = sizesFor(draft({ recipeId: 'press-long' }), counter);
  for (const ml of pressed)
    expect(readDraft(draft({ recipeId: 'press-long', sizeText: String(ml) }), counter)).toMatchObject({
      ok: true,
    });
  const here = { ...counter, units: OUNCES };
  expect(firstDraft(here).sizeText).toBe('8.5');
  expect(sizesFor(draft({ sizeText: '8.5' }), here)).toEqual([200, 250, 300]);
});

test('by another recipe a cup keeps its size where the bench can make it, else it gets the nearest that it can', () => {
  const kept = withRecipe(draft({ sizeText: '250' }), 'sock-fours', counter);
  expect(kept).toMatchObject({ recipeId: 'sock-fours', sizeText: '250' });
  const large = draft({ sizeText: '480' });
  const small = withRecipe(large, 'press-long', counter);
  const offered = sizesFor({ ...large, recipeId: 'press-long' }, counter);
  expect(small).toMatchObject({ recipeId: 'press-long', sizeText: String(Math.max(...offered)) });
  expect(readDraft(small, counter).ok).toBe(true);
  // What is no number is nobody's wish: the commonest size that can be made.
  const typed = withRecipe(draft({ sizeText: 'large' }), 'cone-thirds', counter);
  expect(typed.sizeText).toBe('250');
});

test('an order is asked for by each method in turn; a method that cannot make the cup is left out', () => {
  const two = [draft({ sizeText: '250' }), draft({ recipeId: 'press-long', sizeText: '250' })];
  const asks = byMethod(two, 0, counter);
  expect(asks.map(({ name }) => name)).toEqual(['cone', 'sock', 'siphon', 'press']);
  for (const { name, cups } of asks) {
    expect(cups.map(({ cupId }) => cupId)).toEqual(two.map(({ key }) => key));
    expect(SCHOOLS.find(({ id }) => id === cups[0]!.recipeId)!.method).toBe(name);
    expect(cups[1]!.recipeId).toBe('press-long');
  }
  // The cup's own recipe stands for its own method, and not the first of the menu.
  expect(asks[0]!.cups[0]!.recipeId).toBe('cone-thirds');
  const big = byMethod([draft({ sizeText: '450' })], 0, counter).map(({ name }) => name);
  expect(big).not.toContain('press');
  expect(byMethod([draft({ sizeText: '' })], 0, counter)).toEqual([]);
});

test('what may bring cups closer together is every other method for each kind of cup, and each kind once', () => {
  const cone = draft({ sizeText: '250' });
  const ways = otherWays(
    [cone, { ...cone, key: 'b' }, draft({ recipeId: 'press-long', sizeText: '250' })],
    counter,
  );
  // Three other methods for the two cones alike, by the first of them, and three for the press.
  expect(ways).toHaveLength(6);
  expect(new Set(ways.map(({ name }) => name)).size).toBe(6);
  expect(ways.every(({ cups, what }) => cups.length === 3 && /^Cup [13] by \w/.test(what))).toBe(true);
});

test('of six drafts only the one that is typed is worked out again', () => {
  const six = Array.from({ length: 6 }, () => draft());
  const before = six.map((each) => [readDraft(each, counter), sizesFor(each, counter)] as const);
  const typed = six.map((each, index) => (index === 2 ? { ...each, sizeText: '200' } : each));
  const same = typed.map(
    (each, index) =>
      readDraft(each, counter) === before[index]![0] && sizesFor(each, counter) === before[index]![1],
  );
  expect(same).toEqual([true, true, false, true, true, true]);
  // At another counter, a coffee an hour older or another menu, nothing of it holds.
  expect(readDraft(six[0]!, { ...counter })).not.toBe(before[0]![0]);
  expect(readDraft(six[0]!, { ...counter })).toEqual(before[0]![0]);
});

test('a time of the day is the next one that the clock shows', () => {
  const at = (hours: number, minutes: number, day = 5) => new Date(2026, 0, day, hours, minutes).getTime();
  expect(readPickUp('14:20', at(13, 0))).toBe(at(14, 20));
  expect(readPickUp('1420', at(13, 0))).toBe(at(14, 20));
  expect(readPickUp('9:05', at(13, 0))).toBe(at(9, 5, 6));
  for (const wrong of ['', '25:00', '14:60', 'soon']) expect(readPickUp(wrong, at(13, 0))).toBeNull();
});

test('what a newer server says of a cup is shown as text, and that there is more', () => {
  const cup = {
    cupId: 'c',
    recipeId: 'r',
    recipeVersion: 1,
    coffee: 'Fog',
    roast: 'light',
    cupMl: 250,
  } as const;
  expect(
    unknownInWords({ ...cup, allergy: 'nuts', status: 'waiting', brewIds: [], attempts: [] }),
  ).toBeNull();
  expect(unknownInWords({ ...cup, straw: 'paper', lid: true })).toBe(
    'straw: paper · and more: update this device',
  );
  expect(unknownInWords(cup, { id: 'o', name: 'pilot', table: 'seven' })).toBe(
    'table: seven · and more: update this device',
  );
  expect(serviceInWords({ ...cup, besides: ['syrup' as never], toGo: true })).toBe('Syrup · to go');
});
