/**
 * A moment on a line: dragged, or moved by the arrow keys.
 */
import type { KeyboardEvent, PointerEvent } from 'react';
import { Text } from './text';
import { TOUCH } from './theme';
import { useTheme } from './use-theme';

type Props = { label: string; value: number; most: number; says: string; onChange: (value: number) => void };

const STEP = 5;

export function Slider({ label, value, most, says, onChange }: Props) {
  const theme = useTheme();
  const moveTo = ({ clientX, currentTarget, pointerId }: PointerEvent<HTMLElement>) => {
    if (!currentTarget.hasPointerCapture(pointerId)) return;
    const box = currentTarget.getBoundingClientRect();
    onChange(Math.round(most * Math.min(1, Math.max(0, (clientX - box.left) / box.width))));
  };
  const keyed = (event: KeyboardEvent) => {
    const by = { ArrowRight: STEP, ArrowLeft: -STEP, PageUp: 60, PageDown: -60 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    onChange(Math.min(most, Math.max(0, value + by)));
  };
  const share = most === 0 ? 0 : (100 * value) / most;
  return (
    <>
      <div
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={0}
        aria-valuemax={most}
        aria-valuenow={value}
        aria-valuetext={says}
        style={{ height: TOUCH, position: 'relative', touchAction: 'none', cursor: 'pointer' }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          moveTo(event);
        }}
        onPointerMove={moveTo}
        onKeyDown={keyed}
      >
        {[
          { widthPct: 100, color: theme.rim },
          { widthPct: share, color: theme.cool },
        ].map(({ widthPct, color }) => (
          <div
            key={color}
            style={{
              position: 'absolute',
              left: 0,
              width: `${widthPct}%`,
              top: TOUCH / 2 - 2,
              height: 4,
              borderRadius: 2,
              background: color,
            }}
          />
        ))}
        <div
          style={{
            position: 'absolute',
            left: `calc(${share}% - ${(22 * share) / 100}px)`,
            top: TOUCH / 2 - 11,
            width: 22,
            height: 22,
            borderRadius: 11,
            boxSizing: 'border-box',
            background: theme.surface,
            border: `3px solid ${theme.ink}`,
          }}
        />
      </div>
      <Text size="clock">{says}</Text>
    </>
  );
}
