/**
 * Scores of one drill, try after try.
 */
import Svg, { Circle, Path } from 'react-native-svg';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import type { PourTry } from '@even-kettle/core/practice';
import { Card } from '../../ui/card';
import { ChartReader } from '../../ui/chart-reader';
import { Subheading } from '../../ui/text';
import { useTheme } from '../../ui/use-theme';
import { Level, Upright, useChartWidth } from '../../parts/chart-parts';
import { WORDS } from './words';

const HEIGHT = 150;
const PLOT = { left: 36, right: 14, top: 10, bottom: 24 };

export function TriesChart({ tries }: { tries: readonly Pick<PourTry, 'id' | 'score'>[] }) {
  const theme = useTheme();
  const width = useChartWidth();
  if (tries.length < 2) return null;
  const x = scaleLinear([1, tries.length], [PLOT.left + 8, width - PLOT.right]);
  const y = scaleLinear([0, 100], [HEIGHT - PLOT.bottom, PLOT.top]);
  const scores = tries.map(({ score }) => score);
  return (
    <Card>
      <Subheading>{WORDS.tries}</Subheading>
      <ChartReader
        label={WORDS.triesChart(tries.length, Math.max(...scores))}
        reads={WORDS.triesRead}
        readings={scores.map((score, n) => ({ x: x(n + 1), y: y(score), says: WORDS.tryIs(n + 1, score) }))}
      >
        <Svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden>
          <Upright scale={y} count={4} at={PLOT.left} to={width - PLOT.right} show={String} />
          <Level
            scale={x}
            ticks={x.ticks(Math.min(8, tries.length)).filter(Number.isInteger)}
            at={HEIGHT - PLOT.bottom}
            show={String}
          />
          <Path
            d={
              line<number>(
                (_, n) => x(n + 1),
                (score) => y(score),
              )(scores) ?? ''
            }
            fill="none"
            stroke={theme.cool}
            strokeWidth={1.5}
          />
          {tries.map(({ id, score }, n) => (
            <Circle key={id} cx={x(n + 1)} cy={y(score)} r={3.5} fill={theme.ink} />
          ))}
        </Svg>
      </ChartReader>
    </Card>
  );
}
