/**
 * Doing something once what it needs is there: at once where it is, else when it comes, and in any case after a while.
 */
import { useEffect, useRef, useState } from 'react';

/** Nobody waits longer for it than this, real milliseconds. */
const LONGEST_WAIT_MS = 3000;

/** Whether it is being waited for, and the way to ask for it. What is done is what `act` is by then. */
export function useOnceThere(there: boolean, act: () => void): [waiting: boolean, ask: () => void] {
  const [waiting, setWaiting] = useState(false);
  const latest = useRef(act);
  useEffect(() => {
    latest.current = act;
  });
  useEffect(() => {
    if (!waiting) return;
    const timer = setTimeout(
      () => {
        setWaiting(false);
        latest.current();
      },
      there ? 0 : LONGEST_WAIT_MS,
    );
    return () => clearTimeout(timer);
  }, [waiting, there]);
  return [waiting, () => (there ? act() : setWaiting(true))];
}
