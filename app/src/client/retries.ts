/** Repeats what failed: soon at first, then every few seconds. */
const RETRY_MS = [300, 600, 1200, 2500, 5000];

export type Retries = {
  /** Tries again after a while; an urgent request replaces the one that waits. */
  later: (work: () => Promise<void>, urgent?: boolean) => void;
  /** It succeeded: the next failure is repeated soon. */
  worked: () => void;
  close: () => void;
};

export function openRetries(): Retries {
  let tries = 0;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let urgentWork: (() => Promise<void>) | null = null;
  let closed = false;
  return {
    later: (work, urgent = false) => {
      if (urgent) urgentWork = work;
      if (closed || timer) return;
      timer = setTimeout(
        () => {
          timer = null;
          const next = urgentWork ?? work;
          urgentWork = null;
          void next();
        },
        RETRY_MS[Math.min(tries, RETRY_MS.length - 1)],
      );
      tries += 1;
    },
    worked: () => {
      tries = 0;
    },
    close: () => {
      closed = true;
      if (timer) clearTimeout(timer);
    },
  };
}
