/**
 * Strength against extraction: where a cup stands, and where most are called balanced.
 */
import Svg, { Path, Rect, Text as SvgText } from 'react-native-svg';
import { scaleLinear } from 'd3-scale';
import { BALANCED, tasteOfPoint } from '@even-kettle/core/learn';
import { ChartReader } from '../../ui/chart-reader';
import { Table, type Column } from '../../ui/table';
import { useTheme } from '../../ui/use-theme';
import { Level, Upright, useChartFont, useChartWidth } from '../../parts/chart-parts';
import { WORDS } from './words';

const HEIGHT = 220;
const PLOT = { left: 44, right: 14, top: 12, bottom: 28 };

type StrengthPoint = { tdsPct: number; yieldPct: number; name: string };

const inWords = ({ name, tdsPct, yieldPct }: StrengthPoint): string =>
  WORDS.strengthExtracted(name, tdsPct, yieldPct, tasteOfPoint(tdsPct, yieldPct));

export function StrengthChart({ points }: { points: StrengthPoint[] }) {
  const theme = useTheme();
  const font = useChartFont();
  const width = useChartWidth();
  const yields = points.map(({ yieldPct }) => yieldPct);
  const strengths = points.map(({ tdsPct }) => tdsPct);
  const x = scaleLinear(
    [Math.min(14, ...yields) - 1, Math.max(26, ...yields) + 1],
    [PLOT.left, width - PLOT.right],
  );
  const y = scaleLinear(
    [Math.min(0.9, ...strengths) - 0.05, Math.max(1.8, ...strengths) + 0.05],
    [HEIGHT - PLOT.bottom, PLOT.top],
  );
  const { tdsPct, yieldPct } = BALANCED;
  return (
    <ChartReader
      label={points.map(inWords).join('; ')}
      reads={WORDS.strengthAndExtraction}
      readings={points.map((point) => ({ x: x(point.yieldPct), y: y(point.tdsPct), says: inWords(point) }))}
    >
      <Svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden>
        <Rect
          x={x(yieldPct.from)}
          y={y(tdsPct.to)}
          width={x(yieldPct.to) - x(yieldPct.from)}
          height={y(tdsPct.from) - y(tdsPct.to)}
          fill={theme.coolPale}
        />
        <Upright
          scale={y}
          count={5}
          at={PLOT.left}
          to={width - PLOT.right}
          show={(value) => value.toFixed(1)}
        />
        <Level scale={x} ticks={x.ticks(6)} at={HEIGHT - PLOT.bottom} show={(value) => `${value} %`} />
        <SvgText x={x(yieldPct.from) + 5} y={y(tdsPct.to) + 14} {...font}>
          {WORDS.balanced}
        </SvgText>
        <SvgText x={PLOT.left + 5} y={PLOT.top + 10} {...font}>
          {WORDS.strongSour}
        </SvgText>
        <SvgText x={width - PLOT.right - 4} y={HEIGHT - PLOT.bottom - 6} textAnchor="end" {...font}>
          {WORDS.thinBitter}
        </SvgText>
        {points.map((point) => (
          <Path
            key={point.name}
            d={`M${x(point.yieldPct)} ${y(point.tdsPct) - 7}l7 7l-7 7l-7 -7z`}
            fill={theme.cool}
            stroke={theme.surface}
            strokeWidth={1.5}
          />
        ))}
      </Svg>
    </ChartReader>
  );
}

/** The cups as they are drawn. */
export function StrengthTable({ points }: { points: StrengthPoint[] }) {
  const columns: Column<StrengthPoint>[] = [
    { name: WORDS.cup, value: ({ name }) => name },
    { name: WORDS.tds, value: ({ tdsPct }) => tdsPct, numeric: true },
    { name: WORDS.extracted, value: ({ yieldPct }) => yieldPct, numeric: true },
    { name: WORDS.tastes, value: ({ tdsPct, yieldPct }) => tasteOfPoint(tdsPct, yieldPct) },
  ];
  return <Table label={WORDS.strengthAndExtraction} columns={columns} rows={points} />;
}
