/**
 * The bed from above with where the water goes: while it is poured a mark goes along the path at the pour's own pace; at
 * rest, arrows show the way.
 */
import { useEffect, useId, useRef } from 'react';
import { View } from 'react-native';
import Svg, { Circle, Path } from 'react-native-svg';
import {
  KEPT_RADIUS,
  outlineOf,
  spoutOf,
  type BedPoint,
  type Hand,
  type PathPart,
  type TimedPart,
} from '@even-kettle/core/pour';
import { useHere } from '../client/bar-context';
import { useReducedMotion } from '../ui/use-reduced-motion';
import { useTheme } from '../ui/use-theme';
import { pathInWords } from '../words/path-words';

/** The drawing's own measure: the wall is a circle of this radius round the middle. */
const BOX = 100;
const WALL = 46;
const DOT = 11;

type Props = {
  /** The parts of the pour with their seconds, or one part to show at rest. */
  parts: readonly (PathPart | TimedPart)[];
  hand: Hand;
  size?: number;
  /** When the pour began, bar milliseconds; left out, the drawing stands still. */
  begunMs?: number | null;
};

export function BedFromAbove({ parts, hand, size = 84, begunMs = null }: Props) {
  const theme = useTheme();
  const still = useReducedMotion();
  const { clock } = useHere();
  const timed = parts.filter((part): part is TimedPart => 'fromS' in part);
  const forS = begunMs === null ? 0 : (clock.nowMs() - begunMs) / 1000;
  const part = timed.find(({ toS }) => forS < toS) ?? timed.at(-1) ?? parts[0];
  if (!part) return null;
  const { line, dabs, washes } = outlineOf(part, hand);
  const moves = begunMs !== null && !still && timed.length > 0;
  return (
    <View role="img" aria-label={pathInWords(part)} style={{ width: size, height: size }} testID="path">
      <Svg width={size} height={size} viewBox={`0 0 ${BOX} ${BOX}`}>
        <Circle
          cx={BOX / 2}
          cy={BOX / 2}
          r={WALL}
          fill={theme.coolPale}
          stroke={washes ? theme.cool : theme.ink}
          strokeWidth={washes ? 6 : 2}
        />
        {part.wall === 'kept' ? (
          <Circle
            cx={BOX / 2}
            cy={BOX / 2}
            r={WALL * KEPT_RADIUS + 2}
            fill="none"
            stroke={theme.ink2}
            strokeWidth={1}
            strokeDasharray="3 3"
          />
        ) : null}
        {line.length > 0 ? (
          <Path d={lineTo(line)} fill="none" stroke={theme.ink} strokeWidth={3} strokeLinecap="round" />
        ) : null}
        {dabs.map((dab, index) => (
          <Circle key={index} cx={across(dab)} cy={down(dab)} r={6} fill={theme.ink} />
        ))}
        {moves
          ? null
          : arrowsOn(line).map((arrow) => (
              <Path key={arrow} d={arrow} fill={theme.ink} stroke={theme.ink} strokeWidth={1} />
            ))}
      </Svg>
      {moves ? <Spout timed={timed} hand={hand} size={size} begunMs={begunMs} /> : null}
    </View>
  );
}

/** The mark is moved by the compositor: nothing is drawn again for it. */
function Spout({
  timed,
  hand,
  size,
  begunMs,
}: {
  timed: readonly TimedPart[];
  hand: Hand;
  size: number;
  begunMs: number;
}) {
  const theme = useTheme();
  const { clock } = useHere();
  const mark = useRef<View>(null);
  const id = useId();
  useEffect(() => {
    let frame = 0;
    const move = () => {
      const at = spoutOf(timed, (clock.nowMs() - begunMs) / 1000, hand) ?? { x: 0, y: 0 };
      const element = mark.current as unknown as HTMLElement | null;
      const scale = size / BOX;
      if (element)
        element.style.transform = `translate(${across(at) * scale - DOT}px, ${down(at) * scale - DOT}px)`;
      frame = requestAnimationFrame(move);
    };
    frame = requestAnimationFrame(move);
    return () => cancelAnimationFrame(frame);
  }, [timed, hand, size, begunMs, clock]);
  return (
    <View
      ref={mark}
      key={id}
      aria-hidden
      testID="spout"
      style={{
        position: 'absolute',
        left: 0,
        top: 0,
        width: DOT * 2,
        height: DOT * 2,
        borderRadius: DOT,
        borderWidth: 3,
        borderColor: theme.surface,
        backgroundColor: theme.flame,
      }}
    />
  );
}

const across = ({ x }: BedPoint): number => BOX / 2 + x * WALL;
/** Away from the person is up. */
const down = ({ y }: BedPoint): number => BOX / 2 - y * WALL;

const lineTo = (line: readonly BedPoint[]): string =>
  line
    .map((point, n) => `${n === 0 ? 'M' : 'L'}${across(point).toFixed(1)} ${down(point).toFixed(1)}`)
    .join('');

/** Two heads along the line, on its way. */
function arrowsOn(line: readonly BedPoint[]): string[] {
  return [0.55, 0.98].flatMap((share) => {
    const n = Math.floor((line.length - 1) * share);
    const [from, to] = [line[n - 2], line[n]];
    if (!from || !to) return [];
    const angle = Math.atan2(down(to) - down(from), across(to) - across(from));
    const corner = (turn: number, reach: number) =>
      `${(across(to) + reach * Math.cos(angle + turn)).toFixed(1)} ${(down(to) + reach * Math.sin(angle + turn)).toFixed(1)}`;
    return [`M${corner(0, 8)}L${corner(2.3, 8)}L${corner(-2.3, 8)}Z`];
  });
}
