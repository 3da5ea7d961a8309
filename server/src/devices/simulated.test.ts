/** Stand-ins whose clock jumps: a machine that slept, or a clock that was set right after a year. */
import { USUAL_NATURE } from '@even-kettle/core/pour';
import { simulatedKettle } from './simulated-kettle';
import { simulatedScale } from './simulated-scale';

const DAY_MS = 86_400_000;
let nowMs = 1_000_000;
const time = { nowMs: () => nowMs, rate: 1 };
const jump = (ms: number) => {
  nowMs += ms;
  jest.advanceTimersByTime(300);
};
beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('after 400 days a kettle shows at once what it is at: as hot as it is set, or as the room', () => {
  const kettle = simulatedKettle(time, { powerW: 1200, roomC: 21 });
  const shown: { waterC: number; heating: boolean }[] = [];
  kettle.listen({ onReading: (reading) => shown.push(reading), onConnected: () => undefined });
  kettle.fill(600, 20);
  kettle.set(93);
  jump(400 * DAY_MS);
  expect(Math.abs(shown.at(-1)!.waterC - 93)).toBeLessThan(0.6);
  kettle.set(null);
  jump(400 * DAY_MS);
  expect(shown.at(-1)!.waterC).toBe(21);
  // A reading a tick, and none for each second between.
  expect(shown.length).toBeLessThan(10);
  kettle.close();
});

test('after 400 days a scale gives the readings of the last minutes, and goes on', () => {
  const scale = simulatedScale(time, () => 0.5);
  let readings = 0;
  scale.listen({ onReading: () => (readings += 1), onConnected: () => undefined });
  jump(400 * DAY_MS);
  expect(readings).toBeGreaterThan(0);
  expect(readings).toBeLessThanOrEqual(3000);
  const before = readings;
  jump(1000);
  expect(readings - before).toBeGreaterThanOrEqual(9);
  scale.close();
});

test('what a hand is asked to pour after time was skipped, it does not pour in what was skipped', () => {
  const scale = simulatedScale(time, () => 0.5);
  const shown: { atMs: number; massG: number }[] = [];
  scale.listen({ onReading: (reading) => shown.push(reading), onConnected: () => undefined });
  scale.load(400, USUAL_NATURE, 0);
  nowMs += 8000;
  const askedMs = nowMs;
  scale.ask({ targetG: 40, flowGPerS: 5 });
  jump(12_000);
  const heaviestG = (from: number, to: number) =>
    Math.max(...shown.filter(({ atMs }) => atMs > from && atMs <= to).map(({ massG }) => massG));
  expect(heaviestG(askedMs - 8000, askedMs)).toBeLessThan(1);
  expect(heaviestG(askedMs, nowMs)).toBeGreaterThan(35);
  scale.close();
});
