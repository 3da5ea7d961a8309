/**
 * What the variants came to: a chart of waits, a table, and how each differs from the first.
 */
import { useWindowDimensions } from 'react-native';
import Svg, { Circle, G, Line, Text as SvgText } from 'react-native-svg';
import { scaleLinear } from 'd3-scale';
import {
  differenceOf,
  isSure,
  labFigures,
  meanWaitS,
  type LabFigures,
  type LabShift,
  type LabVariant,
} from '@even-kettle/core/practice';
import type { Bar } from '@even-kettle/core/contract';
import { brewerOf } from '@even-kettle/core/plan';
import { showClock } from '@even-kettle/core/units';
import { Card } from '../../ui/card';
import { ChartReader } from '../../ui/chart-reader';
import { Table } from '../../ui/table';
import { Subheading, Text } from '../../ui/text';
import { WIDE } from '../../ui/theme';
import { useTheme } from '../../ui/use-theme';
import { Level, useChartFont, useChartWidth } from '../../parts/chart-parts';
import { WORDS } from './words';

export type LabRow = { letter: string; variant: LabVariant; shifts: LabShift[]; figures: LabFigures };

export const rowsOf = (variants: readonly LabVariant[], shifts: Record<string, LabShift[]>): LabRow[] =>
  variants.flatMap((variant, n) => {
    const own = shifts[variant.id] ?? [];
    return own.length === 0
      ? []
      : [{ letter: String.fromCharCode(65 + n), variant, shifts: own, figures: labFigures(own) }];
  });

const clock = (s: number): string => showClock(Math.round(s));
const percent = (share: number): string => WORDS.percent(Math.round(share * 100));
const toolName = (tool: string, bar: Bar): string =>
  WORDS.toolNames[tool] ?? brewerOf(bar, tool)?.name ?? tool;

export function LabResults({ rows, bar }: { rows: readonly LabRow[]; bar: Bar }) {
  const [first, ...others] = rows;
  if (!first) return null;
  return (
    <>
      <Card>
        <Subheading>{WORDS.waits}</Subheading>
        <WaitsChart rows={rows} />
        {rows.map(({ letter, figures }) => (
          <Text key={letter} size="small">
            {WORDS.busy(letter, busyInWords(figures, bar))}
          </Text>
        ))}
        {others.map((row) => (
          <Text key={row.letter} testID="difference">
            {differenceInWords(row, first)}
          </Text>
        ))}
      </Card>
      <Card>
        <Subheading>{WORDS.inFigures}</Subheading>
        <Table
          label={WORDS.inFigures}
          rows={rows}
          columns={[
            { name: WORDS.variantShort, value: ({ letter, variant }) => `${letter} ${variant.name}` },
            {
              name: WORDS.cupsAnHour,
              value: ({ figures }) => figures.cupsAnHour,
              show: ({ figures }) => figures.cupsAnHour.toFixed(1),
              numeric: true,
            },
            {
              name: WORDS.median,
              value: ({ figures }) => figures.medianS,
              show: ({ figures }) => clock(figures.medianS),
              numeric: true,
            },
            {
              name: WORDS.nineOfTen,
              value: ({ figures }) => figures.p90S,
              show: ({ figures }) => clock(figures.p90S),
              numeric: true,
            },
            {
              name: WORDS.overTen,
              value: ({ figures }) => figures.lateShare,
              show: ({ figures }) => percent(figures.lateShare),
              numeric: true,
            },
          ]}
        />
      </Card>
    </>
  );
}

/** How busy the hands and each tool are, the busiest first. */
const busyInWords = ({ handsBusy, toolsBusy }: LabFigures, bar: Bar): string =>
  Object.entries({ hands: handsBusy, ...toolsBusy })
    .sort((a, b) => b[1] - a[1])
    .map(([tool, share]) => `${toolName(tool, bar)} ${percent(share)}`)
    .join(', ');

export function differenceInWords(row: LabRow, first: LabRow): string {
  const difference = differenceOf(row.shifts, first.shifts, meanWaitS);
  if (!difference) return WORDS.oneShiftSaysNothing(row.letter);
  const by = clock(Math.abs(difference.by));
  if (!isSure(difference))
    return WORDS.noSureDifference(row.letter, first.letter, by, clock(difference.give));
  return WORDS.differs(
    row.letter,
    first.letter,
    difference.by < 0,
    by,
    clock(difference.give),
    difference.shifts,
  );
}

const ROW_H = 34;
const PLOT = { left: 28, right: 16, top: 4, bottom: 24 };

/** From the median to nine of ten, a line for each variant; eight minutes is marked. */
function WaitsChart({ rows }: { rows: readonly LabRow[] }) {
  const theme = useTheme();
  const font = useChartFont();
  const page = useWindowDimensions().width;
  const whole = useChartWidth();
  // On a wide page it stands in one half.
  const width = page >= WIDE ? Math.min(whole, (page - 92) / 2 - 60) : whole;
  const height = PLOT.top + rows.length * ROW_H + PLOT.bottom;
  const mostMin = Math.max(10, ...rows.map(({ figures }) => figures.p90S / 60));
  const x = scaleLinear([0, mostMin], [PLOT.left, width - PLOT.right]);
  const yOf = (n: number) => PLOT.top + n * ROW_H + ROW_H / 2;
  const says = ({ letter, figures }: LabRow) =>
    WORDS.waitsOf(letter, clock(figures.medianS), clock(figures.p90S));
  return (
    <ChartReader
      label={rows.map(says).join(' ')}
      reads={WORDS.waits}
      readings={rows.map((row, n) => ({ x: x(row.figures.medianS / 60), y: yOf(n), says: says(row) }))}
    >
      <Svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden>
        <Line
          x1={x(8)}
          x2={x(8)}
          y1={PLOT.top}
          y2={height - PLOT.bottom}
          stroke={theme.ink2}
          strokeWidth={1}
          strokeDasharray="4 3"
        />
        {rows.map(({ letter, figures }, n) => (
          <G key={letter}>
            <SvgText x={8} y={yOf(n) + 5} {...font} fontSize={14} fill={theme.ink}>
              {letter}
            </SvgText>
            <Line
              x1={x(figures.medianS / 60)}
              x2={x(figures.p90S / 60)}
              y1={yOf(n)}
              y2={yOf(n)}
              stroke={theme.cool}
              strokeWidth={8}
            />
            <Circle cx={x(figures.medianS / 60)} cy={yOf(n)} r={7} fill={theme.ink} />
          </G>
        ))}
        <Level
          scale={x}
          ticks={x.ticks(6)}
          at={height - PLOT.bottom}
          show={(minute) => WORDS.minutes(minute)}
        />
      </Svg>
    </ChartReader>
  );
}
