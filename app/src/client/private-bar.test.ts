/** A bar of a page's own: it obeys the bar's rules, is changed here alone, and lets nothing be stored. */
import type { BarEvent } from '@even-kettle/core/brew';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { TEST_BAR } from '../testing/bar';
import type { BarHere } from './bar-context';
import { NOTHING_LOADED } from './bar-view';
import { openPrivateBar } from './private-bar';

const real: string[] = [];
/** The page's real bar: whatever it is asked or told is noted, since nothing of it may be. */
const AROUND = {
  api: new Proxy({}, { get: (_of, name) => () => void real.push(String(name)) }),
  store: {
    view: () => ({ ...NOTHING_LOADED, recipes: [...SCHOOLS], book: bookOf(SCHOOLS) }),
    act: () => void real.push('act'),
    tookBar: () => void real.push('tookBar'),
  },
} as unknown as BarHere;
const taken = (id: string, recipeId = 'cone-thirds'): BarEvent => ({
  id,
  type: 'order-taken',
  atMs: 1_000_000,
  orderId: id,
  cups: [{ cupId: `${id}-1`, recipeId, recipeVersion: 2, coffee: 'Saltmarsh', roast: 'light', cupMl: 250 }],
});
const open = (clockMs: () => number = () => 0) =>
  openPrivateBar(AROUND, { bar: TEST_BAR, events: [taken('a')], startMs: 1_000_000 }, clockMs);

beforeEach(() => void (real.length = 0));

test('what happens there is planned at once; what breaks a rule does not happen', () => {
  const bar = open();
  expect(Object.keys(bar.store.view().plan!.starts).some((key) => key.startsWith('a-1.1/'))).toBe(true);
  expect([bar.store.act([taken('b')]), bar.store.act([taken('b')])]).toEqual([true, false]);
  expect(bar.store.act([taken('c', 'no-such-recipe')])).toBe(false);
  expect(Object.keys(bar.store.view().state.orders)).toEqual(['a', 'b']);
  expect(real).toEqual([]);
});

test('its settings are changed here alone, and nothing can be stored', async () => {
  const bar = open();
  const changed = await bar.api.changeBar({ hands: 2 }, TEST_BAR);
  bar.store.tookBar(changed);
  expect([changed.hands, bar.store.view().bar!.hands, TEST_BAR.hands]).toEqual([2, 2, 1]);
  await expect(bar.api.postEvents([taken('b')])).rejects.toThrow('Nothing is stored here.');
  await expect(bar.api.removePractice('t')).rejects.toThrow('Nothing is stored here.');
  await expect(
    bar.api.keepPractice({ kind: 'assignment', id: 'a', atMs: 0, person: 'imre', lesson: 'even-flow' }),
  ).rejects.toThrow('Nothing is stored here.');
  await expect(bar.api.runFeed(true)).rejects.toThrow('Nothing is stored here.');
  await expect(bar.api.orderKettle('k', { do: 'set', setC: 90 })).rejects.toThrow('Nothing is stored here.');
  expect(real).toEqual([]);
});

test('its clock runs at its own pace, stands still, and is set on but never back', () => {
  let realMs = 0;
  const bar = open(() => realMs);
  bar.setRate(4);
  realMs = 1000;
  expect(bar.clock.nowMs()).toBe(1_004_000);
  bar.setRate(0);
  realMs = 9000;
  expect([bar.rate(), bar.clock.nowMs()]).toEqual([0, 1_004_001]);
  bar.skipTo(1_100_000);
  bar.skipTo(1_000_000);
  expect(bar.clock.nowMs()).toBe(1_100_000);
});
