/**
 * How far the kettle is tilted, under the other thumb. A finger that lets go lets the kettle stand up; a mouse leaves it.
 */
import { useEffect, useRef, type PointerEvent, type RefObject } from 'react';
import { View } from 'react-native';
import { Text } from '../../ui/text';
import { RADIUS } from '../../ui/theme';
import { useTheme } from '../../ui/use-theme';
import { WORDS } from './words';

type Props = {
  width: number;
  height: number;
  /** Is given a way to show a tilt without a render. */
  show: RefObject<((tilt: number) => void) | null>;
  onTilt: (tilt: number) => void;
  /** Where the pouring finger tilts, this only shows how far. */
  isShown: boolean;
};

export function TiltBar({ width, height, show, onTilt, isShown }: Props) {
  const theme = useTheme();
  const fill = useRef<HTMLDivElement>(null);
  const slider = useRef<HTMLDivElement>(null);
  useEffect(() => {
    show.current = (tilt) => {
      if (fill.current) fill.current.style.transform = `scaleY(${tilt})`;
      slider.current?.setAttribute('aria-valuenow', String(Math.round(tilt * 100)));
    };
    return () => {
      show.current = null;
    };
  }, [show]);
  const turned = ({ clientY, currentTarget, pointerId }: PointerEvent<HTMLElement>) => {
    if (!isShown || !currentTarget.hasPointerCapture(pointerId)) return;
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
          opacity: isShown ? 1 : 0.6,
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
      </div>
      <Text size="small" quiet aria-hidden>
        {WORDS.tiltShort}
      </Text>
    </View>
  );
}
