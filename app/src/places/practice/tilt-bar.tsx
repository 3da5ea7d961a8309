/**
 * How far the kettle is tilted, under the other thumb. The dashed mark is
 * where water begins to run: lower as the kettle empties. A finger that lets go lets the kettle stand up; a mouse leaves it.
 */
import { useImperativeHandle, useRef, type PointerEvent, type Ref } from 'react';
import { View } from 'react-native';
import { Text } from '../../ui/text';
import { RADIUS } from '../../ui/theme';
import { useTheme } from '../../ui/use-theme';
import { WORDS } from './words';

/** Shows a tilt, and the tilt from which water runs, without a render. */
export type ShowTilt = (tilt: number, lip: number) => void;

type Props = {
  width: number;
  height: number;
  onTilt: (tilt: number) => void;
  /** Where the pouring finger tilts, this only shows how far. */
  isTouched: boolean;
  ref: Ref<ShowTilt>;
};

export function TiltBar({ width, height, onTilt, isTouched, ref }: Props) {
  const theme = useTheme();
  const fill = useRef<HTMLDivElement>(null);
  const mark = useRef<HTMLDivElement>(null);
  const slider = useRef<HTMLDivElement>(null);
  useImperativeHandle(
    ref,
    (): ShowTilt => (tilt, lip) => {
      if (mark.current) mark.current.style.top = `${(100 * lip).toFixed(1)}%`;
      if (fill.current) fill.current.style.transform = `scaleY(${tilt})`;
      slider.current?.setAttribute('aria-valuenow', String(Math.round(tilt * 100)));
    },
    [],
  );
  const turned = ({ clientY, currentTarget, pointerId }: PointerEvent<HTMLElement>) => {
    if (!isTouched || !currentTarget.hasPointerCapture(pointerId)) return;
    const box = currentTarget.getBoundingClientRect();
    onTilt((clientY - box.top) / box.height);
  };
  return (
    <View style={{ gap: 4, alignItems: 'center', width }}>
      <div
        ref={slider}
        role="slider"
        tabIndex={0}
        aria-label={WORDS.tilt}
        aria-orientation="vertical"
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={0}
        data-testid="tilt"
        style={{
          touchAction: 'none',
          width,
          height: height - 24,
          borderRadius: RADIUS,
          border: `2px solid ${theme.rim}`,
          background: theme.surface,
          overflow: 'hidden',
          position: 'relative',
          opacity: isTouched ? 1 : 0.6,
        }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          turned(event);
        }}
        onPointerMove={turned}
        onPointerUp={({ pointerType }) => {
          if (pointerType !== 'mouse') onTilt(0);
        }}
        onPointerCancel={() => onTilt(0)}
      >
        <div
          ref={fill}
          style={{
            position: 'absolute',
            inset: 0,
            background: theme.cool,
            transform: 'scaleY(0)',
            transformOrigin: 'top',
          }}
        />
        <div
          ref={mark}
          style={{ position: 'absolute', left: 0, right: 0, top: 0, borderTop: `3px dashed ${theme.ink}` }}
        />
      </div>
      <Text size="small" quiet aria-hidden>
        {WORDS.tiltShort}
      </Text>
    </View>
  );
}
