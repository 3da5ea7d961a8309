/**
 * What the Log's charts share: their width, axes and type.
 */
import { createContext, useContext } from 'react';
import { useWindowDimensions } from 'react-native';
import { G, Line, Text as SvgText } from 'react-native-svg';
import { useTheme } from '../ui/use-theme';
import { FACE, WIDE } from '../ui/theme';

/** What stands beside the page, where something does, pixels. */
export const BesidePage = createContext(0);

/** As wide as a card on this page. */
export function useChartWidth(): number {
  const page = useWindowDimensions().width - useContext(BesidePage);
  return Math.min(700, (page >= WIDE ? page - 92 : page) - 54);
}

export function useChartFont() {
  const theme = useTheme();
  return { fontFamily: FACE.regular, fontSize: 11, fill: theme.ink2 };
}

type AxisProps = {
  scale: { (value: number): number; ticks: (count: number) => number[] };
  count: number;
  /** The other axis's place, and where lines across the plot end. */
  at: number;
  to: number;
  show: (value: number) => string;
};

/** Labels left of the plot, each with a thin line across it. */
export function Upright({ scale, count, at, to, show }: AxisProps) {
  const theme = useTheme();
  const font = useChartFont();
  return (
    <G>
      {scale.ticks(count).map((value) => (
        <G key={value}>
          <Line x1={at} x2={to} y1={scale(value)} y2={scale(value)} stroke={theme.rim} strokeWidth={0.7} />
          <SvgText x={at - 6} y={scale(value) + 4} textAnchor="end" {...font}>
            {show(value)}
          </SvgText>
        </G>
      ))}
    </G>
  );
}

type LevelProps = Omit<AxisProps, 'to' | 'scale' | 'count'> & {
  scale: (value: number) => number;
  ticks: readonly number[];
};

/** Labels under the plot. */
export function Level({ scale, ticks, at, show }: LevelProps) {
  const theme = useTheme();
  const font = useChartFont();
  return (
    <G>
      {ticks.map((value) => (
        <G key={value}>
          <Line x1={scale(value)} x2={scale(value)} y1={at} y2={at + 4} stroke={theme.ink2} strokeWidth={1} />
          <SvgText x={scale(value)} y={at + 16} textAnchor="middle" {...font}>
            {show(value)}
          </SvgText>
        </G>
      ))}
    </G>
  );
}
