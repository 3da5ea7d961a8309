/**
 * Brew times one after another, with the limits of their own history. What is odd is hollow and square, so that it is
 * told by shape; since when it runs elsewhere is a line.
 */
import Svg, { Circle, G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import type { Learnt } from '@even-kettle/core/contract';
import { showClock } from '@even-kettle/core/units';
import { ChartReader } from '../../ui/chart-reader';
import { Table, type Column } from '../../ui/table';
import { useTheme } from '../../ui/use-theme';
import { dayAndTime } from '../../words/hands-words';
import { Level, Upright, useChartFont, useChartWidth } from '../../parts/chart-parts';
import { WORDS } from './words';

const HEIGHT = 230;
const PLOT = { left: 44, right: 44, top: 16, bottom: 28 };
/** More than so many points on a phone are a line without dots. */
const DOTTED = 90;

type RunProps = Pick<Learnt, 'run' | 'chart'> & { nowMs: number };

export function RunChart({ run, chart, nowMs }: RunProps) {
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
  const [highLabel, centreLabel, lowLabel] = apart(
    [chart?.highS ?? 0, chart?.centreS ?? 0, chart?.lowS ?? 0].map((value) => y(value) + 4),
  );
  const limit = (value: number, name: string, dash: string, labelY: number) => (
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
      <SvgText x={width - PLOT.right + 8} y={labelY} {...font}>
        {showClock(value)}
      </SvgText>
    </G>
  );
  return (
    <ChartReader
      label={runWords({ run, chart })}
      reads={WORDS.brewTimeChart}
      readings={run.map((brew, index) => ({
        x: x(index + 1),
        y: y(brew.brewS),
        says: WORDS.brew(
          index + 1,
          showClock(brew.brewS),
          brew.setting === null ? '' : WORDS.grinderAt(brew.setting),
          dayAndTime(brew.endedMs, nowMs),
          odd(index) ? WORDS.outsideTheLimits : '',
        ),
      }))}
    >
      <Svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden>
        <Upright scale={y} count={4} at={PLOT.left} to={width - PLOT.right} show={showClock} />
        <Level
          scale={x}
          ticks={x.ticks(Math.min(8, run.length)).filter(Number.isInteger)}
          at={HEIGHT - PLOT.bottom}
          show={String}
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
              limit(chart.highS, 'high', '6 4', highLabel!),
              limit(chart.centreS, 'centre', '', centreLabel!),
              limit(chart.lowS, 'low', '6 4', lowLabel!),
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
              {WORDS.shifted}
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
    </ChartReader>
  );
}

/** Labels one under another, none nearer to the one above than its own height, pixels. */
const LABEL_HEIGHT = 13;
const apart = (places: number[]): number[] =>
  places.reduce<number[]>((set, at) => [...set, Math.max(at, (set.at(-1) ?? -Infinity) + LABEL_HEIGHT)], []);

/** The brews of a run as they are drawn. */
export function RunTable({ run, chart, nowMs }: RunProps) {
  const rows = run.map((brew, index) => ({ ...brew, brew: index + 1, odd: chart?.outside[index] ?? false }));
  const columns: Column<(typeof rows)[number]>[] = [
    { name: WORDS.brewLabel, value: ({ brew }) => brew, numeric: true },
    { name: WORDS.ended, value: ({ endedMs }) => endedMs, show: ({ endedMs }) => dayAndTime(endedMs, nowMs) },
    { name: WORDS.time, value: ({ brewS }) => brewS, show: ({ brewS }) => showClock(brewS), numeric: true },
    { name: WORDS.setting, value: ({ setting }) => setting, numeric: true },
    { name: WORDS.limits, value: ({ odd }) => (odd ? 'outside' : 'inside') },
  ];
  return <Table label={WORDS.brewsOfThisRun} columns={columns} rows={rows} />;
}

function runWords({ run, chart }: Pick<Learnt, 'run' | 'chart'>): string {
  const last = run.at(-1);
  return [
    WORDS.brewsTheLast(run.length, last ? showClock(last.brewS) : 'unknown'),
    chart ? WORDS.usualFromTo(showClock(chart.lowS), showClock(chart.highS)) : WORDS.noLimitsYet,
    chart?.shift ? WORDS.shiftedSince : null,
  ]
    .filter(Boolean)
    .join(', ');
}
