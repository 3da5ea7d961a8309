/**
 * The brewers as line drawings of one hand: a 2-unit pen on a 64 x 72 sheet, filled to the true level, the target as a
 * line on the glass.
 */
import { View } from 'react-native';
import Svg, { ClipPath, Defs, G, Line, Path, Rect } from 'react-native-svg';
import { useId } from 'react';
import type { MethodId } from '@even-kettle/core/recipe';
import { useLook } from '../ui/look';

type Drawing = {
  /** The inside that fills, and from which height to which (y grows downwards). */
  inside: string;
  topY: number;
  bottomY: number;
  /** Rims, walls, feet and handles. */
  lines: string;
  /** What the vessel narrows to, so that a level line is as wide as the glass there. */
  halfWidthAt: (y: number) => number;
};

const CONE: Drawing = {
  inside: 'M12 14 L52 14 L36 42 L28 42 Z',
  topY: 14,
  bottomY: 42,
  lines:
    'M9 14 H55 M12 14 L28 42 H36 L52 14 M28 42 V46 H36 V42 M20 46 H44 M24 50 L20 66 H44 L40 50 M52 17 Q60 18 57 25 Q55 29 49 27',
  halfWidthAt: (y) => 20 - ((y - 14) / 28) * 16,
};

const PRESS: Drawing = {
  inside: 'M16 18 H46 V64 H16 Z',
  topY: 18,
  bottomY: 64,
  lines:
    'M16 16 V64 Q16 66 18 66 H44 Q46 66 46 64 V16 M12 16 H50 M16 16 L12 12 M31 16 V5 M27 5 H35 M46 26 H54 Q57 26 57 29 V49 Q57 52 54 52 H46',
  halfWidthAt: () => 15,
};

/** Methods whose own drawing comes with their recipes share the nearest one until then. */
const DRAWINGS: Partial<Record<MethodId, Drawing>> = { cone: CONE, flat: CONE, press: PRESS };

type Props = {
  method: MethodId;
  /** 0 empty to 1 at the rim. */
  level: number;
  /** Where the level should come to; null draws no line. */
  target: number | null;
  size?: number;
};

export function Vessel({ method, level, target, size = 72 }: Props) {
  const look = useLook();
  const id = useId();
  const drawing = DRAWINGS[method] ?? CONE;
  const depth = drawing.bottomY - drawing.topY;
  const yAt = (share: number) => drawing.bottomY - Math.min(1, Math.max(0, share)) * depth;
  const levelY = yAt(level);
  const targetY = target === null ? null : yAt(target);
  const midX = method === 'press' ? 31 : 32;
  return (
    <View role="img" aria-label={`${method}, ${Math.round(Math.min(1, level) * 100)} % full`}>
      <Svg width={(size * 64) / 72} height={size} viewBox="0 0 64 72">
        <Defs>
          <ClipPath id={id}>
            <Path d={drawing.inside} />
          </ClipPath>
        </Defs>
        <G clipPath={`url(#${id})`}>
          <Rect x={0} y={levelY} width={64} height={72} fill={look.cool} opacity={look.dark ? 0.55 : 0.6} />
          {level > 0.01 ? (
            <Line x1={0} x2={64} y1={levelY} y2={levelY} stroke={look.cool} strokeWidth={2} />
          ) : null}
        </G>
        {targetY !== null ? (
          <Line
            x1={midX - drawing.halfWidthAt(targetY) - 4}
            x2={midX + drawing.halfWidthAt(targetY) + 4}
            y1={targetY}
            y2={targetY}
            stroke={look.ink}
            strokeWidth={1.6}
            strokeDasharray="3 2.5"
          />
        ) : null}
        <Path
          d={drawing.lines}
          stroke={look.ink}
          strokeWidth={2}
          fill="none"
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      </Svg>
    </View>
  );
}
