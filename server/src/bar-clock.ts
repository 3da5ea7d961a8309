/**
 * The bar's clock. All bar time is this server's. At rate 1 it is the system's time. At a higher rate it runs ahead from
 * where it was first set; that base is stored, so that a restarted server goes on counting as if it had never stopped.
 * When the system's clock is set, bar time follows gradually, and it never goes back to before the last stored event.
 */
import type { DataSource, EntityManager } from 'typeorm';
import { readSetting, writeSetting } from './store/settings-table';
import { inTransaction } from './store/transaction';

export type BarClock = { rate: number; nowMs: () => number };

/** At real time `realMs` the bar's clock showed `barMs`; since then it runs at `rate`. */
export type ClockBase = { realMs: number; barMs: number; rate: number };

/** The clocks that it reads; tests provide their own. */
export type ClockSources = {
  /** The system's clock, which people and networks set. */
  realNow: () => number;
  /** A monotonic clock. */
  steadyNow: () => number;
  /** Whether no cup waits and no brew runs, so that nobody counts seconds. */
  isIdle: () => boolean;
};

export const SYSTEM_CLOCK: ClockSources = {
  realNow: Date.now,
  steadyNow: () => performance.now(),
  isIdle: () => false,
};

const SETTING = 'clock';
/** An event this much later than the clock was written by a wrong clock, milliseconds. */
const PLAUSIBLE_MS = 2 * 86_400_000;
/** A smaller difference is ignored, milliseconds. */
const SAME_MS = 15;
/** When it is behind, the clock runs faster in proportion: it catches up in about this time, milliseconds. */
const CATCH_UP_MS = 30_000;
const LEAST_GAIN = 0.005;
/** When it is ahead it runs slower: by a five-hundredth while brews run, at half speed while none do. */
const SLOWER = 0.998;
const SLOWER_IDLE = 0.5;

/** Bar time, computed from a base. */
export const barTimeMs = (base: ClockBase, realMs: number): number =>
  Math.round(base.barMs + (realMs - base.realMs) * base.rate);

/** The base for this rate: the stored one, or, if the rate has changed, one that starts where the stored one is now. */
async function baseFor(manager: EntityManager, rate: number, realMs: number): Promise<ClockBase> {
  if (rate === 1) return { realMs, barMs: realMs, rate };
  const stored = await readSetting<ClockBase>(manager, SETTING).catch(() => null);
  if (stored?.rate === rate) return stored;
  return { realMs, barMs: stored ? barTimeMs(stored, realMs) : realMs, rate };
}

/** The latest possible time of an event, bar milliseconds. */
export async function plausibleUntilMs(
  manager: EntityManager,
  rate: number,
  { realNow }: ClockSources = SYSTEM_CLOCK,
): Promise<number> {
  const realMs = realNow();
  const base = await baseFor(manager, rate, realMs);
  return Math.max(realMs, barTimeMs(base, realMs)) + PLAUSIBLE_MS * Math.max(1, rate);
}

/**
 * @param floorMs time of the latest possible event in the log
 */
export async function startClock(
  source: DataSource,
  rate: number,
  floorMs: number,
  { realNow, steadyNow, isIdle }: ClockSources = SYSTEM_CLOCK,
): Promise<BarClock> {
  const base = await baseFor(source.manager, rate, realNow());
  // Stored at every rate, so that the next start at another rate knows where this one was.
  const stored = await readSetting<ClockBase>(source.manager, SETTING).catch(() => null);
  if (stored?.rate !== rate)
    // If the disk cannot be written, the health check reports it; the clock works without it.
    await inTransaction(source, (manager) => writeSetting(manager, SETTING, base)).catch(() => undefined);
  // Bar time that ran at a higher rate is ahead of the system's: the clock continues from there and waits for it.
  const stoodMs = stored && stored.rate !== 1 ? barTimeMs(stored, realNow()) : 0;
  let barMs = Math.max(floorMs, stoodMs, barTimeMs(base, realNow()));
  let readAtMs = steadyNow();
  return {
    rate,
    nowMs: () => {
      const steadyMs = steadyNow();
      const passedMs = Math.max(0, steadyMs - readAtMs);
      readAtMs = steadyMs;
      const rightMs = barTimeMs(base, realNow());
      const aheadMs = (barMs + passedMs * rate - rightMs) / rate;
      barMs += passedMs * rate * speedFor(aheadMs, isIdle);
      // Never faster than needed to catch up exactly.
      if (aheadMs < -SAME_MS) barMs = Math.min(barMs, rightMs);
      return Math.round(barMs);
    },
  };
}

/** How fast the clock runs, as a factor of its rate, when it is this far ahead of where it should be. */
export function speedFor(aheadMs: number, isIdle: () => boolean): number {
  if (aheadMs < -SAME_MS) return 1 + Math.max(LEAST_GAIN, -aheadMs / CATCH_UP_MS);
  if (aheadMs > SAME_MS) return isIdle() ? SLOWER_IDLE : SLOWER;
  return 1;
}
