/** The time of a simulated bar: it stands until somebody lets it pass. */
export function simulatedClock(fromMs: number): {
  nowMs: () => number;
  passUntil: (atMs: number) => Promise<void>;
} {
  let nowMs = fromMs;
  return {
    nowMs: () => nowMs,
    passUntil: (atMs) => {
      nowMs = Math.max(nowMs + 1, Math.ceil(atMs));
      return Promise.resolve();
    },
  };
}
