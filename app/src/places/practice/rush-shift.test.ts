/** A drill's shift, lived second by second on a real private bar: guests come, the colleague works, and taps are judged. */
import { EMPTY_BAR } from '@even-kettle/core/brew';
import { agenda, forHands, tapEvents, type AgendaItem } from '@even-kettle/core/plan';
import { rushHappenings, type RushLevel, type Surprise } from '@even-kettle/core/practice';
import { openPrivateBar } from '../../client/private-bar';
import { TEST_BAR, barHere, viewOf } from '../../testing/bar';
import { OWN, openRushShift } from './rush-shift';

/** Hands are what is scarce: three cones, three kettles. */
const BENCH = {
  ...TEST_BAR,
  stations: ['1', '2', '3'].map((n) => ({ id: `cone-${n}`, name: `Cone ${n}`, brewerId: 'cone-m' })),
  kettles: ['1', '2', '3'].map((n) => ({ id: `k${n}`, name: `Kettle ${n}`, powerW: 1200, sizeMl: 1200 })),
};
const START_MS = 1_000_000;
const MENU = [
  { recipeId: 'cone-thirds', recipeVersion: 2, coffee: 'Saltmarsh', roast: 'light' as const, cupMl: 250 },
];

type Doing = (item: AgendaItem, sees: boolean, nowMs: number) => boolean;
/** As the card asks: what is waited for when it is seen, what takes time when its time is over. */
const BY_THE_CARD: Doing = (item, sees, nowMs) =>
  item.asks === 'cue'
    ? sees
    : item.asks !== 'runs' &&
      nowMs >= Math.max(item.dueMs, item.fromMs) + (item.asks === 'start' ? 0 : item.step.durationS * 1000);

function lived(
  level: RushLevel,
  {
    hands = 1,
    surprises = [],
    doing = BY_THE_CARD,
  }: { hands?: 1 | 2; surprises?: Surprise[]; doing?: Doing } = {},
) {
  let realMs = 0;
  const settings = { ...BENCH, hands };
  const { here } = barHere({ view: viewOf({ bar: settings, state: EMPTY_BAR }) });
  const bar = openPrivateBar(here, { bar: settings, events: [], startMs: START_MS }, () => realMs);
  const { book } = bar.store.view();
  let ids = 0;
  const newId = () => `drill-${(ids += 1)}`;
  const happenings = rushHappenings({
    level,
    surprises,
    bench: settings,
    book,
    menu: MENU,
    startMs: START_MS,
    seed: 3,
    newId,
  });
  const shift = openRushShift({ bar, happenings, surprises, hands, seed: 3 });
  let isOver = false;
  for (let second = 0; second < 3600 && !isOver; second += 1) {
    realMs += 1000;
    isOver = shift.turn();
    const nowMs = bar.clock.nowMs();
    const { state, plan } = bar.store.view();
    const all = agenda(state, settings, book, plan, nowMs);
    const item = (hands === 1 ? all : forHands(all, plan, OWN))[0];
    const sees = shift.sights().some(({ key }) => key === item?.key);
    if (item && doing(item, sees, nowMs)) shift.bar.store.act(tapEvents(item, settings, nowMs, newId));
  }
  return { shift, isOver, state: bar.store.view().state, startMs: START_MS };
}
const served = ({ state }: ReturnType<typeof lived>) =>
  Object.values(state.orders)
    .flatMap(({ cups }) => cups)
    .filter(({ status }) => status === 'served').length;

test('who does what the card says when it says it gets every cup out, and is told of no fault', () => {
  const two = lived('two');
  expect([two.isOver, served(two)]).toEqual([true, 2]);
  expect(two.shift.counts()).toMatchObject({ wrongOrder: 0, tooEarly: 0 });
  expect(two.shift.counts().idleMs).toBeLessThan(20_000);
  // Every change of the bar can be looked at again, in order.
  const times = two.shift.moments().map(({ atMs }) => atMs);
  expect(times.length).toBeGreaterThan(20);
  expect(times).toEqual(times.toSorted((a, b) => a - b));
});

test('a colleague does the other pair’s steps by itself, and two pairs are sooner done than one', () => {
  const [alone, both] = [lived('six'), lived('six', { hands: 2 })];
  expect([served(alone), served(both)]).toEqual([6, 6]);
  const lastMs = ({ state }: ReturnType<typeof lived>) =>
    Math.max(...Object.values(state.brews).map(({ servedMs = 0 }) => servedMs));
  expect(lastMs(both)).toBeLessThan(lastMs(alone));
});

test('what is said before it can be seen, or done in no time, is counted as too early', () => {
  const hasty = lived('one', { doing: (item, _sees, nowMs) => item.asks !== 'runs' && item.dueMs <= nowMs });
  expect(hasty.shift.counts().tooEarly).toBeGreaterThan(3);
});

test('hands that do nothing while something is due are idle, and the drill waits for them', () => {
  let nothing = 0;
  const slow = lived('one', {
    doing: (item, sees, nowMs) => BY_THE_CARD(item, sees, nowMs) && (nothing += 1) % 20 === 0,
  });
  expect(slow.shift.counts().idleMs).toBeGreaterThan(60_000);
  expect(served(slow)).toBe(1);
});

test('a cup that is spilt is brewed again, and a kettle that runs dry takes the hands away', () => {
  const spilt = lived('two', { surprises: ['spilt', 'kettle'] });
  expect(spilt.isOver).toBe(true);
  expect(Object.values(spilt.state.brews)).toHaveLength(3);
  expect(spilt.shift.surprised()?.surprise).toBe('spilt');
  expect(spilt.state.away).toHaveLength(1);
});

test('a bed that stalls drains much longer than the same one that does not', () => {
  const lengthMs = (at: ReturnType<typeof lived>) => {
    const [brew] = Object.values(at.state.brews);
    return brew!.servedMs! - brew!.startedMs;
  };
  expect(lengthMs(lived('one', { surprises: ['stalled'] }))).toBeGreaterThan(lengthMs(lived('one')) + 25_000);
});
