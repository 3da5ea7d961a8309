/**
 * The bar's clock. All bar time is this server's; at rate 1 it is wall-clock time, and with a higher rate it runs
 * ahead of it from where the clock was first set. Where it was set is stored, so that a restarted server goes on
 * counting as if it had never stopped.
 */
import type { EntityManager } from 'typeorm';
import { readSetting, writeSetting } from './store/settings-table';

export type BarClock = { rate: number; nowMs: () => number };

/** At real time `realMs` the bar's clock stood at `barMs`; since then it runs at `rate`. */
export type ClockBase = { realMs: number; barMs: number; rate: number };

const SETTING = 'clock';

/** Bar time by a base. Never behind the latest event of the log, whatever was done to the machine's clock. */
export const barTimeMs = (base: ClockBase, realMs: number, floorMs = 0): number =>
  Math.max(floorMs, Math.round(base.barMs + (realMs - base.realMs) * base.rate));

/**
 * Takes the stored clock up again. Where the rate was changed, bar time goes on from where it stands at the new rate;
 * where there is none stored, bar time is real time.
 * @param floorMs time of the latest event in the log
 */
export async function startClock(
  manager: EntityManager,
  rate: number,
  floorMs: number,
  realNow: () => number = Date.now,
): Promise<BarClock> {
  const stored = await readSetting<ClockBase>(manager, SETTING);
  const realMs = realNow();
  const standsMs = stored ? barTimeMs(stored, realMs, floorMs) : Math.max(realMs, floorMs);
  const keep = stored !== null && stored.rate === rate && standsMs === barTimeMs(stored, realMs);
  const base: ClockBase = keep ? stored : { realMs, barMs: standsMs, rate };
  if (!keep) await writeSetting(manager, SETTING, base);
  // Between readings time comes from the monotonic clock, so a changed wall clock does not move the bar's.
  const startedAt = performance.now();
  const offsetMs = barTimeMs(base, realMs, floorMs);
  return { rate, nowMs: () => Math.round(offsetMs + (performance.now() - startedAt) * rate) };
}
