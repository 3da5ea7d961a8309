/**
 * Brew times one after another, with the limits of their own history. What is odd is hollow and square, so that it is
 * told by shape; since when it runs elsewhere is a line.
 */
import { View } from 'react-native';
import Svg, { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import type { Learnt } from '@even-kettle/core/contract';
import { showClock } from '@even-kettle/core/units';
import { useTheme } from '../../ui/use-theme';
import { Level, Upright, useChartFont, useChartWidth } from './chart-parts';

const HEIGHT = 230;
const PLOT = { left: 44, right: 44, top: 16, bottom: 28 };
/** More than so many points on a phone are a line without dots. */
const DOTTED = 90;

export function RunChart({ run, chart }: Pick<Learnt, 'run' | 'chart'>) {
  const theme = useTheme();
  const font = useChartFont();
  const width = useChartWidth();
  const times = run.map(({ brewS }) => brewS);
  const low = Math.min(...times, chart?.lowS ?? Infinity);
  const high = Math.max(...times, chart?.highS ?? -Infinity);
  const room = Math.max(4, (high - low) * 0.08);
  const x = scaleLinear([1, Math.max(2, run.length)], [PLOT.left + 6, width - PLOT.right]);
  const y = scaleLinear([Math.max(0, low - room), high + room], [HEIGHT - PLOT.bottom, PLOT.top]);
  const odd = (index: number) => chart?.outside[index] ?? false;
  const limitsFrom = chart ? x(chart.fromIndex + 1) : 0;
  const shiftX = chart?.shift ? x(chart.shift.fromIndex + 0.5) : null;
  const limit = (value: number, name: string, dash: string) => (
    <G key={name}>
      <Line
        x1={limitsFrom}
        x2={width - PLOT.right + 4}
        y1={y(value)}
        y2={y(value)}
        stroke={theme.ink2}
        strokeWidth={1.2}
        strokeDasharray={dash}
      />
      <SvgText x={width - PLOT.right + 8} y={y(value) + 4} {...font}>
        {showClock(value)}
      </SvgText>
    </G>
  );
  return (
    <View role="img" aria-label={runWords({ run, chart })}>
      <Svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden>
        <Upright scale={y} count={4} at={PLOT.left} to={width - PLOT.right} show={showClock} />
        <Level
          scale={x}
          count={Math.min(8, run.length)}
          at={HEIGHT - PLOT.bottom}
          show={(n) => (Number.isInteger(n) ? String(n) : '')}
        />
        {chart ? (
          <Rect
            x={limitsFrom}
            y={y(chart.highS)}
            width={Math.max(0, width - PLOT.right - limitsFrom)}
            height={Math.max(0, y(chart.lowS) - y(chart.highS))}
            fill={theme.coolPale}
            opacity={0.5}
          />
        ) : null}
        {chart
          ? [
              limit(chart.highS, 'high', '6 4'),
              limit(chart.centreS, 'centre', ''),
              limit(chart.lowS, 'low', '6 4'),
            ]
          : null}
        {shiftX === null ? null : (
          <G>
            <Line
              x1={shiftX}
              x2={shiftX}
              y1={PLOT.top - 6}
              y2={HEIGHT - PLOT.bottom}
              stroke={theme.ink}
              strokeWidth={2}
            />
            <SvgText x={shiftX - 5} y={PLOT.top + 2} textAnchor="end" {...font} fill={theme.ink}>
              shifted
            </SvgText>
          </G>
        )}
        <Path
          d={
            line<number>(
              (_, index) => x(index + 1),
              (s) => y(s),
            )(times) ?? ''
          }
          stroke={theme.cool}
          strokeWidth={1.2}
          fill="none"
        />
        {run.map(({ brewId, brewS }, index) =>
          odd(index) ? (
            <Rect
              key={brewId}
              x={x(index + 1) - 5}
              y={y(brewS) - 5}
              width={10}
              height={10}
              fill={theme.surface}
              stroke={theme.ink}
              strokeWidth={2}
            />
          ) : run.length <= DOTTED ? (
            <Circle key={brewId} cx={x(index + 1)} cy={y(brewS)} r={3} fill={theme.cool} />
          ) : null,
        )}
      </Svg>
    </View>
  );
}

function runWords({ run, chart }: Pick<Learnt, 'run' | 'chart'>): string {
  const last = run.at(-1);
  return [
    `${run.length} brews, the last ${last ? showClock(last.brewS) : 'unknown'}`,
    chart ? `usual from ${showClock(chart.lowS)} to ${showClock(chart.highS)}` : 'no limits yet',
    chart?.shift ? 'shifted since' : null,
  ]
    .filter(Boolean)
    .join(', ');
}
