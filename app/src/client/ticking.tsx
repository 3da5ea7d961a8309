/**
 * A text that turns with the clock: written straight into the element, so that a dozen clocks that turn in one moment
 * cost nothing to draw. What is drawn around it is React's.
 */
import { useCallback, useEffect, useRef, type ComponentProps } from 'react';
import type { Text as NativeText } from 'react-native';
import { onTick, useHere } from './bar-context';
import { Text } from '../ui/text';

type Props = Omit<ComponentProps<typeof Text>, 'children'> & {
  /** What it reads at a moment of bar time, milliseconds. */
  reads: (nowMs: number) => string;
  /** How often it turns, milliseconds of real time. */
  everyMs?: number;
};

export function Ticking({ reads, everyMs = 1000, ...rest }: Props) {
  const { clock } = useHere();
  const element = useRef<NativeText>(null);
  const latest = useRef(reads);
  const write = useCallback((nowMs: number) => {
    const text = (element.current as unknown as HTMLElement | null)?.firstChild;
    const now = latest.current(nowMs);
    if (text && text.nodeValue !== now) text.nodeValue = now;
  }, []);
  useEffect(() => {
    latest.current = reads;
    write(clock.nowMs());
  });
  useEffect(() => onTick(clock, everyMs, 0, write), [clock, everyMs, write]);
  return (
    <Text ref={element} {...rest}>
      {reads(clock.nowMs())}
    </Text>
  );
}
