/**
 * The bar's clock. All bar time is this server's. At rate 1 it is the system's time; with a higher rate it runs ahead of
 * it from where the clock was first set, which is stored, so that a restarted server goes on counting as if it had never
 * stopped. Where the system's clock is set, bar time follows without a leap; and it never goes back over what is stored.
 */
import type { DataSource, EntityManager } from 'typeorm';
import { readSetting, writeSetting } from './store/settings-table';
import { inTransaction } from './store/transaction';

export type BarClock = { rate: number; nowMs: () => number };

/** At real time `realMs` the bar's clock stood at `barMs`; since then it runs at `rate`. */
export type ClockBase = { realMs: number; barMs: number; rate: number };

/** What the clock goes by; tests turn these themselves. */
export type ClockSources = {
  /** The system's clock, which people and networks set. */
  realNow: () => number;
  /** A clock that nobody sets. */
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
/** An event later than this after the clock was written by a clock that was wrong, milliseconds. */
const PLAUSIBLE_MS = 2 * 86_400_000;
/** Less than this is no difference, milliseconds. */
const SAME_MS = 15;
/** Behind, the clock runs faster, the more the further behind it is: a difference is caught up in about so long, milliseconds. */
const CATCH_UP_MS = 30_000;
const LEAST_GAIN = 0.005;
/** Ahead, it runs slower: by a five-hundredth while seconds are counted, at half its speed while nobody does. */
const SLOWER = 0.998;
const SLOWER_IDLE = 0.5;

/** Bar time by a base. */
export const barTimeMs = (base: ClockBase, realMs: number): number =>
  Math.round(base.barMs + (realMs - base.realMs) * base.rate);

/** The base to go by at this rate: the stored one, or at another rate than it was stored for one from where it stands. */
async function baseFor(manager: EntityManager, rate: number, realMs: number): Promise<ClockBase> {
  if (rate === 1) return { realMs, barMs: realMs, rate };
  const stored = await readSetting<ClockBase>(manager, SETTING).catch(() => null);
  if (stored?.rate === rate) return stored;
  return { realMs, barMs: stored ? barTimeMs(stored, realMs) : realMs, rate };
}

/** Up to when an event of the log can be true, bar milliseconds. */
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
 * @param floorMs time of the latest event in the log that can be true
 */
export async function startClock(
  source: DataSource,
  rate: number,
  floorMs: number,
  { realNow, steadyNow, isIdle }: ClockSources = SYSTEM_CLOCK,
): Promise<BarClock> {
  const base = await baseFor(source.manager, rate, realNow());
  // Written at every rate, so that the next start at another one knows where this one stood.
  const stored = await readSetting<ClockBase>(source.manager, SETTING).catch(() => null);
  if (stored?.rate !== rate)
    // A disk that takes nothing is told by health; a clock is there without it.
    await inTransaction(source, (manager) => writeSetting(manager, SETTING, base)).catch(() => undefined);
  // Bar time that ran at a rate of its own is ahead of the system's: it goes on from where it stood, and is waited for.
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
      // Caught up is caught up, and no further.
      if (aheadMs < -SAME_MS) barMs = Math.min(barMs, rightMs);
      return Math.round(barMs);
    },
  };
}

/** How quickly the clock runs, times its rate, when it is so far ahead of where it should stand. */
export function speedFor(aheadMs: number, isIdle: () => boolean): number {
  if (aheadMs < -SAME_MS) return 1 + Math.max(LEAST_GAIN, -aheadMs / CATCH_UP_MS);
  if (aheadMs > SAME_MS) return isIdle() ? SLOWER_IDLE : SLOWER;
  return 1;
}
