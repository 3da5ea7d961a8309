/**
 * A brewer's drawing filled to its true level, the target as a line on the glass.
 */
import { View } from 'react-native';
import Svg, { ClipPath, Defs, G, Line, Path, Rect } from 'react-native-svg';
import { useId } from 'react';
import { METHODS, type MethodId } from '@even-kettle/core/recipe';
import { useTheme } from '../ui/use-theme';
import { DRAWINGS } from './drawings';

type Props = {
  method: MethodId;
  /** 0 empty to 1 at the rim. */
  level: number;
  /** Where the level should come to; null draws no line. */
  target: number | null;
  size?: number;
};

export function Vessel({ method, level, target, size = 72 }: Props) {
  const theme = useTheme();
  const id = useId();
  const drawing = DRAWINGS[method];
  const depth = drawing.bottomY - drawing.topY;
  const yAt = (share: number) => drawing.bottomY - Math.min(1, Math.max(0, share)) * depth;
  const levelY = yAt(level);
  const targetY = target === null ? null : yAt(target);
  const { midX } = drawing;
  return (
    <View role="img" aria-label={`${METHODS[method].name}, ${Math.round(Math.min(1, level) * 100)} % full`}>
      <Svg width={(size * 64) / 72} height={size} viewBox="0 0 64 72">
        <Defs>
          <ClipPath id={id}>
            <Path d={drawing.inside} />
          </ClipPath>
        </Defs>
        <G clipPath={`url(#${id})`}>
          <Rect x={0} y={levelY} width={64} height={72} fill={theme.cool} opacity={theme.dark ? 0.55 : 0.6} />
          {level > 0.01 ? (
            <Line x1={0} x2={64} y1={levelY} y2={levelY} stroke={theme.cool} strokeWidth={2} />
          ) : null}
        </G>
        {targetY !== null ? (
          <Line
            x1={midX - drawing.halfWidthAt(targetY) - 4}
            x2={midX + drawing.halfWidthAt(targetY) + 4}
            y1={targetY}
            y2={targetY}
            stroke={theme.ink}
            strokeWidth={1.6}
            strokeDasharray="3 2.5"
          />
        ) : null}
        <Path
          d={drawing.lines}
          stroke={theme.ink}
          strokeWidth={2}
          fill="none"
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      </Svg>
    </View>
  );
}
