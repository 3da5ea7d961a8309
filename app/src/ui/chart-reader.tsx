/**
 * Reads a chart under the finger, the pointer or the arrow keys: a line at the nearest reading, and what it says below. The
 * drawing itself is told by its label.
 */
import { useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { View } from 'react-native';
import { Text } from './text';
import { useTheme } from './use-theme';
import { WORDS } from './words';

/** A place where the chart can be read: pixels from the drawing's left and top edges, and the reading in words. */
export type Reading = { x: number; y: number | null; says: string };

type Props = {
  /** What the drawing shows, in words. */
  label: string;
  /** What is read: "Water over time". */
  reads: string;
  /** From left to right. */
  readings: readonly Reading[];
  children: ReactNode;
};

export function ChartReader({ label, reads, readings, children }: Props) {
  const theme = useTheme();
  const [at, setAt] = useState<number | null>(null);
  const index = at === null ? null : Math.min(at, readings.length - 1);
  const reading = index === null ? undefined : readings[index];
  return (
    <View>
      <View>
        <View role="img" aria-label={label}>
          {children}
        </View>
        {readings.length === 0 ? null : (
          <View
            role="slider"
            aria-label={reads}
            aria-valuemin={1}
            aria-valuemax={readings.length}
            aria-valuenow={(index ?? 0) + 1}
            aria-valuetext={(reading ?? readings[0]!).says}
            tabIndex={0}
            style={{ position: 'absolute', top: 0, right: 0, bottom: 0, left: 0 }}
            {...listeners(readings, index, setAt)}
          >
            {reading ? (
              <>
                <View
                  style={{
                    position: 'absolute',
                    left: reading.x - 0.5,
                    top: 0,
                    bottom: 0,
                    width: 1,
                    backgroundColor: theme.ink,
                  }}
                />
                {reading.y === null ? null : (
                  <View
                    style={{
                      position: 'absolute',
                      left: reading.x - 5,
                      top: reading.y - 5,
                      width: 10,
                      height: 10,
                      borderRadius: 5,
                      borderWidth: 2,
                      borderColor: theme.ink,
                      backgroundColor: theme.surface,
                    }}
                  />
                )}
              </>
            ) : null}
          </View>
        )}
      </View>
      {readings.length === 0 ? null : (
        <Text
          size="small"
          bold={reading !== undefined}
          quiet={reading === undefined}
          style={{ minHeight: 36 }}
        >
          {reading?.says ?? WORDS.readChartHint}
        </Text>
      )}
    </View>
  );
}

const BY_KEY: Record<string, (at: number, last: number) => number> = {
  ArrowRight: (at) => at + 1,
  ArrowUp: (at) => at + 1,
  ArrowLeft: (at) => at - 1,
  ArrowDown: (at) => at - 1,
  PageUp: (at) => at + 10,
  PageDown: (at) => at - 10,
  Home: () => 0,
  End: (_, last) => last,
};

/** The web's own: React Native's types know neither keys nor pointers. */
function listeners(
  readings: readonly Reading[],
  index: number | null,
  setAt: (at: number | null) => void,
): object {
  const last = readings.length - 1;
  return {
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === 'Escape') return setAt(null);
      const move = BY_KEY[event.key];
      if (!move) return;
      event.preventDefault();
      setAt(
        index === null ? (event.key === 'End' ? last : 0) : Math.max(0, Math.min(last, move(index, last))),
      );
    },
    onPointerDown: (event: PointerEvent<HTMLElement>) => setAt(nearest(readings, xOf(event))),
    onPointerMove: (event: PointerEvent<HTMLElement>) => setAt(nearest(readings, xOf(event))),
    onPointerLeave: ({ pointerType }: PointerEvent) => (pointerType === 'mouse' ? setAt(null) : undefined),
  };
}

const xOf = ({ clientX, currentTarget }: PointerEvent<HTMLElement>): number =>
  clientX - currentTarget.getBoundingClientRect().left;

/** The reading whose place is nearest to a finger. */
export function nearest(readings: readonly Reading[], x: number): number {
  let best = 0;
  for (let index = 1; index < readings.length; index += 1)
    if (Math.abs(readings[index]!.x - x) < Math.abs(readings[best]!.x - x)) best = index;
  return best;
}
