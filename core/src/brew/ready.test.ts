/** What stands ready ahead of a rush: brews use it up, tins grow stale, and undo gives it back. */
import { BENCH, T0, book, cup } from '../testing/bench';
import { CARD_VERSION } from '../recipe';
import { apply, EMPTY_BAR, hasTin, readyNow, tasksDone, type BarEvent, type BarState } from './index';

const HOUR = 3600_000;
const after = (events: readonly BarEvent[], from: BarState = EMPTY_BAR): BarState =>
  events.reduce((state, event) => {
    const applied = apply(state, event, book);
    if (!applied.ok) throw new Error(applied.refusal.reason);
    return applied.state;
  }, from);
const tins = (id: string, atMs: number, count: number): BarEvent => ({
  id,
  type: 'made-ready',
  atMs,
  thing: 'tins',
  coffee: 'Saltmarsh',
  doseG: 17.6,
  count,
});
const brewed = (n: number, atMs: number, fromTin: boolean): BarEvent[] => [
  { id: `t${n}`, type: 'order-taken', atMs, orderId: `o${n}`, cups: [cup(`c${n}`, 'cone-thirds', 250)] },
  {
    id: `s${n}`,
    type: 'brew-started',
    atMs: atMs + 1000,
    brewId: `c${n}.1`,
    orderId: `o${n}`,
    cupId: `c${n}`,
    stationId: BENCH.stations[n]!.id,
    stationName: BENCH.stations[n]!.name,
    brewerId: 'cone-m',
    altitudeM: 0,
    kettlePowerW: 1200,
    kettleFilledAtC: 90,
    prepVersion: CARD_VERSION,
    ...(fromTin ? { fromTin: true as const } : {}),
  },
];
const countOf = (state: BarState, atMs: number) =>
  readyNow(state, atMs).map(({ thing, count, stale }) => [thing, count, stale]);

test('a brew out of a tin needs no weighing, and takes one tin; undo puts it back', () => {
  const ready = after([tins('a', T0, 2)]);
  const started = after(brewed(0, T0 + 60_000, true), ready);
  const { steps, doseG } = started.brews['c0.1']!.planned;
  expect(steps.find(({ kind }) => kind === 'weigh')).toMatchObject({ name: 'Take the tin', durationS: 3 });
  expect(doseG).toBe(17.6);
  expect(countOf(started, T0 + HOUR)).toEqual([['tins', 1, 0]]);
  const undone = after([{ id: 'u', type: 'event-undone', atMs: T0 + 70_000, eventId: 's0' }], started);
  expect(countOf(undone, T0 + HOUR)).toEqual([['tins', 2, 0]]);
  // One that was weighed at its station leaves the tins alone.
  expect(countOf(after(brewed(1, T0 + 60_000, false), ready), T0 + HOUR)).toEqual([['tins', 2, 0]]);
});

test('tins are good for four hours; what is put back stands there no more', () => {
  const state = after([tins('a', T0, 2), tins('b', T0 + 3 * HOUR, 1)]);
  expect(hasTin(state, 'Saltmarsh', 17.6, T0 + 3 * HOUR)).toBe(true);
  expect(hasTin(state, 'Saltmarsh', 18, T0 + 3 * HOUR)).toBe(false);
  expect(countOf(state, T0 + 5 * HOUR)).toEqual([['tins', 1, 2]]);
  // A brew takes a good one, though older ones stand beside it.
  const brewing = after(brewed(0, T0 + 5 * HOUR, true), state);
  expect(countOf(brewing, T0 + 5 * HOUR + 2000)).toEqual([['tins', 0, 2]]);
  const emptied = after(
    [{ id: 'e', type: 'tins-emptied', atMs: T0 + 6 * HOUR, coffee: 'Saltmarsh', doseG: 17.6 }],
    brewing,
  );
  expect(countOf(emptied, T0 + 6 * HOUR)).toEqual([]);
});

test('filters are used up by the brews of their method, tin or not', () => {
  const folded: BarEvent = {
    id: 'f',
    type: 'made-ready',
    atMs: T0,
    thing: 'filters',
    method: 'cone',
    count: 3,
  };
  const state = after([folded, ...brewed(0, T0 + 60_000, false)]);
  expect(countOf(state, T0 + HOUR)).toEqual([['filters', 2, 0]]);
});

test('a line of a list is done once a day, by whom and when; undone it stands open again', () => {
  const done: BarEvent = {
    id: 'd',
    type: 'task-done',
    atMs: T0,
    list: 'opening',
    taskId: 'water',
    by: 'noor',
  };
  const state = after([done]);
  expect(tasksDone(state, 'opening', T0 - HOUR).get('water')).toMatchObject({ by: 'noor', atMs: T0 });
  expect(tasksDone(state, 'opening', T0 + HOUR).size + tasksDone(state, 'closing', 0).size).toBe(0);
  const open = after([{ id: 'u', type: 'event-undone', atMs: T0, eventId: 'd' }], state);
  expect(tasksDone(open, 'opening', 0).size).toBe(0);
});
