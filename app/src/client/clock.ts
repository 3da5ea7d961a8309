/**
 * Bar time on this device: the server's clock, read over the network and carried on by the device's monotonic clock,
 * so that neither a wrong wall clock nor a slow network moves a countdown.
 */

export type ClockReading = { barMs: number; rate: number };
export type DeviceClock = {
  /** Bar time now, milliseconds; 0 before the first measure. Never runs backwards. */
  nowMs: () => number;
  rate: () => number;
  /** Measures the offset anew from several round trips and keeps the one that can be trusted most. */
  measure: () => Promise<void>;
  /** Goes on from bar time as it was known on an earlier page, by the device's wall clock, until it can be measured. */
  carryOn: (from: ClockReading & { wallMs: number }) => void;
  /** How far the offset may be off, real milliseconds: half of the best round trip. */
  uncertaintyMs: () => number;
  /** Calls whenever a measure sets bar time by more than a real second; returns a function that ends it. */
  onSet: (call: () => void) => () => void;
};

const ROUND_TRIPS = 5;
/** A clock that is set by more than this was far off, real seconds: a machine slept, or the server's time was set. */
const FAR_S = 1;

/**
 * @param read asks the server for its clock
 * @param monotonicMs the device's monotonic clock, real milliseconds
 * @param wallMs the device's wall clock, real milliseconds
 */
export function deviceClock(
  read: () => Promise<ClockReading>,
  monotonicMs: () => number,
  wallMs: () => number = Date.now,
): DeviceClock {
  let base: { atMs: number; barMs: number; rate: number; uncertaintyMs: number } | null = null;
  let shownMs = 0;
  const calls = new Set<() => void>();
  const nowMs = () => {
    if (base) shownMs = Math.max(shownMs, Math.round(base.barMs + (monotonicMs() - base.atMs) * base.rate));
    return shownMs;
  };
  const set = (next: NonNullable<typeof base>) => {
    const wasMs = nowMs();
    // A bar that was set back (its data made anew) is believed; a small step back waits until time has caught up.
    if (shownMs - next.barMs > 60_000 * next.rate) shownMs = 0;
    base = next;
    if (Math.abs(nowMs() - wasMs) > FAR_S * 1000 * next.rate) for (const call of calls) call();
  };
  /** Whether a reading says something else than an earlier one would by now. */
  const isFar = (reading: NonNullable<typeof base>, earlier: NonNullable<typeof base>) =>
    Math.abs(earlier.barMs + (reading.atMs - earlier.atMs) * earlier.rate - reading.barMs) >
    FAR_S * 1000 * reading.rate;

  return {
    nowMs,
    rate: () => base?.rate ?? 1,
    carryOn: ({ barMs, rate, wallMs: keptAtMs }) => {
      if (base) return;
      const sinceMs = Math.max(0, wallMs() - keptAtMs);
      base = { atMs: monotonicMs(), barMs: barMs + sinceMs * rate, rate, uncertaintyMs: Infinity };
    },
    uncertaintyMs: () => base?.uncertaintyMs ?? Infinity,
    onSet: (call) => {
      calls.add(call);
      return () => void calls.delete(call);
    },
    measure: async () => {
      let best: typeof base = null;
      for (let trip = 0; trip < ROUND_TRIPS; trip += 1) {
        const sentMs = monotonicMs();
        const { barMs, rate } = await read();
        const gotMs = monotonicMs();
        const halfMs = (gotMs - sentMs) / 2;
        // The server answered somewhere within the round trip; its middle is off by half of it at most.
        const reading = { atMs: sentMs + halfMs, barMs, rate, uncertaintyMs: halfMs };
        // Where the server's clock was set between two of them, only the later ones count.
        if (!best || halfMs < best.uncertaintyMs || isFar(reading, best)) best = reading;
        // Far off, the first answer is far better than what is shown; the next ones make it exact.
        if (base && isFar(best, base)) set(best);
      }
      if (best) set(best);
    },
  };
}
