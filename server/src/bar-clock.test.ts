import type { DataSource } from 'typeorm';
import { barTimeMs, plausibleUntilMs, startClock } from './bar-clock';
import { openDatabase } from './store/database';
import { readSettings } from './settings';

test('bar time runs at its rate from where it was set', () => {
  const base = { realMs: 1000, barMs: 50_000, rate: 60 };
  expect([barTimeMs(base, 1000), barTimeMs(base, 2000)]).toEqual([50_000, 110_000]);
});

describe('where the system’s clock is set, bar time follows without a leap and never goes back', () => {
  const MINUTE = 60_000;
  const T0 = Date.UTC(2026, 10, 27, 8);
  let source: DataSource;
  beforeEach(async () => (source = await openDatabase(':memory:')));
  afterEach(() => source.destroy());

  /** A machine whose clock the test sets. */
  async function start({ floorMs = 0, offMs = 0, idle = false, rate = 1 } = {}) {
    const machine = { steadyMs: 0, offMs, idle };
    const clock = await startClock(source, rate, floorMs, {
      realNow: () => T0 + machine.steadyMs + machine.offMs,
      steadyNow: () => machine.steadyMs,
      isIdle: () => machine.idle,
    });
    /** Lets so much time go by in steps, and gives how far bar time is ahead of the system's then. */
    const live = (ms: number): number => {
      let beforeMs = clock.nowMs();
      for (let passed = 0; passed < ms; passed += 250) {
        machine.steadyMs += 250;
        const nowMs = clock.nowMs();
        expect(nowMs).toBeGreaterThan(beforeMs);
        beforeMs = nowMs;
      }
      return clock.nowMs() - (T0 + machine.steadyMs + machine.offMs);
    };
    return { clock, machine, live };
  }

  test('a clock that was ten minutes slow at the start, and is put right, is caught up within minutes', async () => {
    const { machine, live } = await start({ offMs: -10 * MINUTE });
    expect(live(MINUTE)).toBe(0);
    machine.offMs = 0;
    expect(Math.abs(live(5 * MINUTE))).toBeLessThan(50);
  });

  test('a machine that was a day ahead when something was stored goes on from there, and is right again when nobody brews', async () => {
    const { clock, machine, live } = await start({ floorMs: T0 + 25 * 60 * MINUTE });
    expect(clock.nowMs()).toBe(T0 + 25 * 60 * MINUTE);
    // A drawdown of three minutes is out by less than half a second.
    const aheadMs = live(3 * MINUTE) - 25 * 60 * MINUTE;
    expect(aheadMs).toBeGreaterThan(-500);
    machine.idle = true;
    const before = live(250);
    expect(before - live(60 * MINUTE)).toBeGreaterThan(29 * MINUTE);
  });

  test('started anew with the system’s clock right, bar time is the system’s', async () => {
    await start({ offMs: -10 * MINUTE });
    const { clock } = await start();
    expect(clock.nowMs()).toBe(T0);
  });

  test('at a rate of its own it goes on from where it was set, however often it is started', async () => {
    const first = await start({ rate: 60 });
    first.live(MINUTE);
    const again = await start({ rate: 60, offMs: MINUTE });
    expect(again.clock.nowMs()).toBe(T0 + 60 * MINUTE);
  });

  test('an event of the year 2199 has no say in what time it is', async () => {
    const until = await plausibleUntilMs(source.manager, 1, {
      realNow: () => T0,
      steadyNow: () => 0,
      isIdle: () => true,
    });
    expect(until).toBeLessThan(T0 + 3 * 24 * 60 * MINUTE);
  });
});

test('settings that make no sense are refused by name', () => {
  expect(() => readSettings({ PORT: 'eighty' })).toThrow(
    'PORT must be a whole number from 0 to 65535, not “eighty”.',
  );
  expect(() => readSettings({ BAR_CLOCK_RATE: '0' })).toThrow(
    'BAR_CLOCK_RATE must be a number from 0.1 to 1000',
  );
  expect(readSettings({})).toMatchObject({ port: 4173, host: '127.0.0.1', clockRate: 1 });
});
