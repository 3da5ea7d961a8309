/**
 * When guests come within the hour: twelve bars of five minutes, drawn with the finger or set by the arrow keys.
 */
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { View } from 'react-native';
import { Text } from '../../ui/text';
import { RADIUS } from '../../ui/theme';
import { useTheme } from '../../ui/use-theme';
import { WORDS } from './words';

const HEIGHT = 88;
const MOST = 6;
const STEP = 0.5;

export function CurveField({
  curve,
  onChange,
}: {
  curve: readonly number[];
  onChange: (curve: number[]) => void;
}) {
  const theme = useTheme();
  const frame = useRef<HTMLDivElement>(null);
  const set = (slot: number, weight: number) =>
    onChange(curve.map((each, n) => (n === slot ? Math.min(MOST, Math.max(0, weight)) : each)));
  const drawn = ({ clientX, clientY, currentTarget, pointerId }: PointerEvent<HTMLElement>) => {
    if (!currentTarget.hasPointerCapture(pointerId)) return;
    const box = currentTarget.getBoundingClientRect();
    const slot = Math.min(
      curve.length - 1,
      Math.max(0, Math.floor(((clientX - box.left) / box.width) * curve.length)),
    );
    set(slot, Math.round(((box.bottom - clientY) / box.height) * MOST * 2) / 2);
  };
  const keyed = (slot: number) => (event: KeyboardEvent) => {
    const by = { ArrowUp: STEP, ArrowDown: -STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    set(slot, curve[slot]! + by);
  };
  return (
    <View style={{ gap: 4 }}>
      <Text size="small" quiet aria-hidden>
        {WORDS.whenTheyCome}
      </Text>
      <div
        ref={frame}
        role="group"
        aria-label={WORDS.whenTheyCome}
        data-testid="curve"
        style={{
          display: 'flex',
          alignItems: 'flex-end',
          gap: 3,
          height: HEIGHT,
          padding: 4,
          touchAction: 'none',
          border: `1px solid ${theme.rim}`,
          borderRadius: RADIUS,
        }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drawn(event);
        }}
        onPointerMove={drawn}
      >
        {curve.map((weight, slot) => (
          <div
            key={slot}
            role="slider"
            tabIndex={0}
            aria-label={WORDS.fromMinute(slot * 5, slot * 5 + 5)}
            aria-valuemin={0}
            aria-valuemax={MOST}
            aria-valuenow={weight}
            onKeyDown={keyed(slot)}
            style={{
              flex: 1,
              height: `${Math.max(3, (100 * weight) / MOST)}%`,
              background: weight > 0 ? theme.cool : theme.rim,
              borderRadius: 2,
            }}
          />
        ))}
      </div>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between' }} aria-hidden>
        {[0, 15, 30, 45, 60].map((minute) => (
          <Text key={minute} size="small" quiet>
            {minute}
          </Text>
        ))}
      </View>
    </View>
  );
}
