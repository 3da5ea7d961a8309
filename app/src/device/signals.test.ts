/** What is called out, when, and how often; from real agendas. */
import { EMPTY_BAR, reduce, type BarEvent } from '@even-kettle/core/brew';
import { agenda, buildProblem, solve, type AgendaItem } from '@even-kettle/core/plan';
import { CARD_VERSION, SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { METRIC } from '@even-kettle/core/units';
import { TEST_BAR } from '../testing/bar';
import { TONES } from './tones';
import { readSettings, USUAL_SETTINGS } from './settings';
import { signalOf, toHear, type Signal } from './signals';
import { spokenCue } from './spoken';

const book = bookOf(SCHOOLS);
const T0 = Date.UTC(2026, 0, 5, 8);
const at = (seconds: number) => T0 + seconds * 1000;
const done = (stepId: string, seconds: number): BarEvent => ({
  id: stepId,
  type: 'step-done',
  atMs: at(seconds),
  brewId: 'a.1',
  stepId,
});
const blooming: BarEvent[] = [
  {
    id: 'o',
    type: 'order-taken',
    atMs: T0,
    orderId: 'A',
    cups: [
      { cupId: 'a', recipeId: 'cone-thirds', recipeVersion: 1, coffee: 'x', roast: 'medium', cupMl: 250 },
    ],
  },
  {
    id: 's',
    type: 'brew-started',
    atMs: T0,
    brewId: 'a.1',
    orderId: 'A',
    cupId: 'a',
    stationId: 'cone-1',
    stationName: 'Cone 1',
    brewerId: 'cone-m',
    altitudeM: 0,
    kettlePowerW: 1200,
    kettleFilledAtC: 90,
    prepVersion: CARD_VERSION,
  },
  done('fill', 12),
  done('set-filter', 24),
  done('weigh', 64),
  done('load', 94),
  { id: 'b', type: 'step-begun', atMs: at(100), brewId: 'a.1', stepId: 'bloom' },
  done('bloom', 107),
];
/** The second pour is due at 140 s. */
function itemsAt(seconds: number): AgendaItem[] {
  const { state } = reduce(blooming, book, EMPTY_BAR);
  const plan = solve(buildProblem(state, TEST_BAR, book, Math.ceil(at(seconds) / 1000)).problem);
  return agenda(state, TEST_BAR, book, plan, at(seconds));
}
const heardFrom = (seconds: number, untilS: number, earlyMs = 0) => {
  const heard = new Map<string, Signal>();
  const calls: [number, Signal][] = [];
  for (let s = seconds; s <= untilS; s += 0.25) {
    const call = toHear(itemsAt(s), at(s), earlyMs, heard);
    if (!call) continue;
    heard.set(call.key, call.signal);
    calls.push([s, call.signal]);
  }
  return calls;
};

test('a pour is called out three times: 5 s before, when it is due, and once what the recipe forgives is over', () => {
  const calls = heardFrom(118, 190);
  expect(calls.map(([, signal]) => signal)).toEqual(['ready', 'now', 'late']);
  const [ready, now, late] = calls.map(([s]) => s);
  expect(ready).toBeCloseTo(135, 0);
  expect(now).toBeCloseTo(140, 0);
  // Nothing tells that it was begun: it is late once its 18 s and what the recipe forgives are over.
  expect(late).toBeGreaterThanOrEqual(164);
  expect(late).toBeLessThanOrEqual(168);
});

test('hands that are known to come late are warned as much earlier', () => {
  expect(heardFrom(118, 141, 4000)[0]![0]).toBeCloseTo(131, 0);
});

test('what runs by itself, what has been begun, and what was due long ago are not called', () => {
  const [item] = itemsAt(138);
  expect(signalOf({ ...item!, asks: 'runs' }, at(140), 0)).toBeNull();
  expect(signalOf({ ...item!, begunMs: at(139) }, at(140), 0)).toBeNull();
  expect(signalOf(item!, at(300), 0)).toBeNull();
});

test('a spoken cue says the station and the reading in words, in the bar’s own unit', () => {
  const [item] = itemsAt(139);
  expect(spokenCue(item!, 'now', METRIC)).toBe('Now. Cone 1: Pour to 128 grams.');
  expect(spokenCue(item!, 'ready', { ...METRIC, mass: 'oz' })).toBe('Get ready. Cone 1: Pour to 4.5 ounces.');
});

test('no two tones sound alike, and none is long', () => {
  const alike = Object.values(TONES).map((notes) => notes.map(({ hz }) => hz).join(' '));
  expect(new Set(alike).size).toBe(Object.keys(TONES).length);
  for (const notes of Object.values(TONES))
    expect(Math.max(...notes.map(({ atS, forS }) => atS + forS))).toBeLessThan(0.6);
});

test('a device’s settings are read as far as they make sense', () => {
  expect(readSettings(null)).toEqual(USUAL_SETTINGS);
  expect(readSettings('not json')).toEqual(USUAL_SETTINGS);
  expect(
    readSettings('{"hands":3,"voice":"yes","late":false,"person":"imre","pouringHand":"third","old":1}'),
  ).toEqual({
    ...USUAL_SETTINGS,
    late: false,
    person: 'imre',
  });
});
