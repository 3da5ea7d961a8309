/** The board as its own stream brings it: it needs nothing else of the bar, so that a device for guests holds nothing else. */
import { useEffect, useState } from 'react';
import { addressWith } from '@even-kettle/core/contract/addresses';
import type { Board } from '@even-kettle/core/plan';

export type BoardView = {
  board: Board | null;
  /** Bar time of the latest news, milliseconds; null before the first. */
  heardMs: number | null;
  /** Since then nothing has been heard for too long. */
  isAway: boolean;
};

/** The server beats every 4 s. */
const SILENCE_MS = 10_000;
const LOOK_MS = 1000;
const AGAIN_MS = 3000;

/** @param shutOut is called where the server does not take this device for one that may see the board */
export function useBoard(shutOut: () => void): BoardView {
  const [view, setView] = useState<BoardView>({ board: null, heardMs: null, isAway: false });
  useEffect(() => {
    let lastRealMs = performance.now();
    let stream: EventSource | null = null;
    let again: ReturnType<typeof setTimeout> | undefined;
    const hear = (change: Partial<BoardView>) => {
      lastRealMs = performance.now();
      setView((now) => ({ ...now, ...change, isAway: false }));
    };
    const open = () => {
      lastRealMs = performance.now();
      stream?.close();
      stream = new EventSource(addressWith('liveBoard'));
      stream.addEventListener('board', ({ data }: MessageEvent<string>) =>
        hear({ board: JSON.parse(data) as Board }),
      );
      stream.addEventListener('beat', ({ data }: MessageEvent<string>) =>
        hear({ heardMs: (JSON.parse(data) as { barMs: number }).barMs }),
      );
      // It was taken off, or has another role.
      stream.addEventListener('me', shutOut);
      stream.onerror = () => {
        if (stream?.readyState !== EventSource.CLOSED) return;
        // Refused, or given up by the browser: which of them an ordinary request says.
        void fetch(addressWith('getBoard')).then(
          ({ status }) => (status === 401 || status === 403 ? shutOut() : undefined),
          () => undefined,
        );
        clearTimeout(again);
        again = setTimeout(open, AGAIN_MS);
      };
    };
    open();
    const looking = setInterval(() => {
      const silentMs = performance.now() - lastRealMs;
      if (silentMs < SILENCE_MS) return;
      setView((now) => (now.isAway ? now : { ...now, isAway: true }));
      if (silentMs > 2 * SILENCE_MS) open();
    }, LOOK_MS);
    return () => {
      clearInterval(looking);
      clearTimeout(again);
      stream?.close();
    };
  }, [shutOut]);
  return view;
}
