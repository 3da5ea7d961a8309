/**
 * The pour line: cumulative water over the brew's time, with its steps below and the window of its end.
 */
import type { ReactNode } from 'react';
import { View, useWindowDimensions } from 'react-native';
import Svg, { G, Line, Path, Rect, Text as SvgText } from 'react-native-svg';
import { scaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import type { BrewCard, CardStep } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass, showTemperature, type Units } from '@even-kettle/core/units';
import { ChartReader } from '../../ui/chart-reader';
import { clockTicks } from '../../ui/clock-ticks';
import { useTheme } from '../../ui/use-theme';
import { FACE } from '../../ui/theme';
import { WORDS } from './words';

const PLOT = { left: 44, right: 12, top: 16, height: 150 };
const LANE = { height: 14, gap: 8 };
const AXIS = 22;
const LABEL_HEIGHT = 13;
/** A first tick nearer to the edge than this is written to its right, pixels. */
const LABEL_APART = 34;

type Point = { s: number; g: number };

type PourChartProps = {
  card: BrewCard;
  units: Units;
  width?: number;
  /** Drawn for paper. */
  still?: boolean;
};

export function PourChart({ card, units, width: given, still = false }: PourChartProps) {
  const Reader = still ? Drawn : ChartReader;
  const theme = useTheme();
  const page = useWindowDimensions().width;
  const width = given ?? Math.min(700, page >= 900 ? (page - 92) * 0.6 - 60 : page - 54);
  const shown = card.steps.filter((step) => step.phase === 'brew' || step.id === 'bypass');
  const pours = shown.filter((step) => step.targetG !== undefined);
  const fromS = Math.min(0, shown[0]!.startS);
  const toS = Math.max(card.brewWindowS.to, shown.at(-1)!.endS);
  const x = scaleLinear([fromS, toS], [PLOT.left, width - PLOT.right]);
  const plotHeight = pours.length > 0 ? PLOT.height : 26;
  const bottom = PLOT.top + plotHeight;
  const y = scaleLinear([0, Math.max(1, card.brewWaterG)], [bottom, PLOT.top + 6]);
  const points = pourLine(pours, toS);
  const xOf = (point: Point) => x(point.s);
  const laneY = bottom + LANE.gap;
  const height = laneY + LANE.height + AXIS;
  const ticks = clockTicks(x.domain(), Math.max(3, Math.floor(width / 80)));
  const font = { fontFamily: FACE.regular, fontSize: 11, fill: theme.ink2 };
  const labelled = spacedOut(pours, (step) => y(step.targetG!));

  return (
    <Reader
      label={inWordsOf(card, pours, units)}
      reads={WORDS.pourLine}
      readings={moments(shown, toS).map((s) => {
        const g = gramsAt(points, s);
        return {
          x: x(s),
          y: pours.length > 0 ? y(g) : null,
          says: readAt(s, g, shown, pours.length > 0, units),
        };
      })}
    >
      <Svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} aria-hidden>
        <Rect
          x={x(card.brewWindowS.from)}
          y={PLOT.top - 8}
          width={Math.max(2, x(card.brewWindowS.to) - x(card.brewWindowS.from))}
          height={plotHeight + 8}
          fill={theme.coolPale}
          opacity={0.7}
        />
        <SvgText x={x(card.brewWindowS.to) - 4} y={PLOT.top + 4} textAnchor="end" {...font}>
          {WORDS.end}
        </SvgText>
        {pours.length > 0 ? (
          <G>
            <Path
              d={area<Point>(xOf, bottom, (point) => y(point.g))(points) ?? ''}
              fill={theme.cool}
              opacity={theme.dark ? 0.25 : 0.16}
            />
            <Path
              d={line<Point>(xOf, (point) => y(point.g))(points) ?? ''}
              stroke={theme.cool}
              strokeWidth={2.5}
              fill="none"
              strokeLinejoin="round"
            />
            {pours.map((step) => {
              const at = y(step.targetG!);
              return (
                <G key={step.id}>
                  <Line
                    x1={PLOT.left}
                    x2={x(step.endS)}
                    y1={at}
                    y2={at}
                    stroke={theme.rim}
                    strokeWidth={1}
                    strokeDasharray="2 3"
                  />
                  {labelled.has(step.id) ? (
                    <SvgText x={PLOT.left - 6} y={at + 4} textAnchor="end" {...font} fill={theme.ink}>
                      {showMass(step.targetG!, units, 'water').figure}
                    </SvgText>
                  ) : null}
                </G>
              );
            })}
          </G>
        ) : (
          <SvgText x={PLOT.left} y={PLOT.top + 10} {...font}>
            {WORDS.waterWeighedBefore(inWords(showMass(card.brewWaterG, units, 'water')))}
          </SvgText>
        )}
        <SvgText x={PLOT.left + 6} y={PLOT.top + 4} {...font}>
          {temperatureWords(card, pours, units)}
        </SvgText>
        {shown.map((step) => (
          <StepMark key={step.id} step={step} x={x} y={laneY} ink={theme.ink} cool={theme.cool} />
        ))}
        <Line
          x1={PLOT.left}
          x2={width - PLOT.right}
          y1={bottom}
          y2={bottom}
          stroke={theme.rim}
          strokeWidth={1}
        />
        {ticks.map((tick, index) => (
          <SvgText
            key={tick}
            x={x(tick)}
            y={height - 6}
            textAnchor={index === 0 && x(tick) - PLOT.left < LABEL_APART / 2 ? 'start' : 'middle'}
            {...font}
          >
            {showClock(tick)}
          </SvgText>
        ))}
      </Svg>
    </Reader>
  );
}

/** On paper nothing is touched. */
const Drawn = ({ label, children }: { label: string; children: ReactNode }) => (
  <View role="img" aria-label={label}>
    {children}
  </View>
);

/** It is read in steps of so long, and wherever a step of the brew begins or ends, seconds. */
const STEP_S = 5;
function moments(shown: readonly CardStep[], toS: number): number[] {
  const fromS = Math.min(0, shown[0]!.startS);
  const even = Array.from({ length: Math.floor((toS - fromS) / STEP_S) + 1 }, (_, n) => fromS + n * STEP_S);
  const all = new Set([...even, ...shown.flatMap(({ startS, endS }) => [startS, endS])].map(Math.round));
  return [...all].filter((s) => s <= toS).sort((a, b) => a - b);
}

function gramsAt(points: readonly Point[], s: number): number {
  const next = points.findIndex((point) => point.s >= s);
  if (next < 0) return points.at(-1)!.g;
  const [from, to] = [points[next - 1] ?? points[next]!, points[next]!];
  return to.s === from.s ? to.g : from.g + ((to.g - from.g) * (s - from.s)) / (to.s - from.s);
}

function readAt(s: number, g: number, shown: readonly CardStep[], pours: boolean, units: Units): string {
  const step = shown.findLast(({ startS, endS }) => startS <= s && s < endS) ?? shown.at(-1)!;
  return [`${showClock(s)}:`, pours ? `${inWords(showMass(g, units, 'water'))},` : '', step.name]
    .filter(Boolean)
    .join(' ');
}

/** Attended steps are solid and full, passive ones thin: the same signs as on the rail. */
function StepMark({
  step,
  x,
  y,
  ink,
  cool,
}: {
  step: CardStep;
  x: (s: number) => number;
  y: number;
  ink: string;
  cool: string;
}) {
  const left = x(step.startS);
  const width = Math.max(2, x(step.endS) - left - 1);
  return step.attended ? (
    <Rect x={left} y={y} width={width} height={LANE.height} rx={2} fill={ink} />
  ) : (
    <Rect x={left} y={y + LANE.height / 2 - 2} width={width} height={4} rx={2} fill={cool} />
  );
}

/** Targets whose labels stand clear of each other, the last always among them. */
function spacedOut(pours: readonly CardStep[], yOf: (step: CardStep) => number): ReadonlySet<string> {
  const labelled = new Set<string>();
  let lastY = -Infinity;
  for (const step of pours.toReversed()) {
    if (yOf(step) - lastY < LABEL_HEIGHT) continue;
    lastY = yOf(step);
    labelled.add(step.id);
  }
  return labelled;
}

/** Corners of the cumulative line: flat between pours, straight within each part of one. */
function pourLine(pours: readonly CardStep[], toS: number): Point[] {
  const points: Point[] = [{ s: pours[0]?.startS ?? 0, g: 0 }];
  for (const step of pours) {
    const beforeG = step.targetG! - step.pourG!;
    points.push({ s: step.startS, g: beforeG });
    if (step.opening) points.push({ s: step.opening.untilS, g: step.opening.targetG });
    points.push({ s: step.endS, g: step.targetG! });
  }
  points.push({ s: toS, g: pours.at(-1)?.targetG ?? 0 });
  return points;
}

function temperatureWords(card: BrewCard, pours: readonly CardStep[], units: Units): string {
  if (card.waterIs !== 'in the kettle') return '';
  const own = pours.find((step) => step.waterC !== undefined);
  const main = inWords(showTemperature(card.waterC, units, !Number.isInteger(card.waterC)));
  return own ? WORDS.then(inWords(showTemperature(own.waterC!, units)), main) : main;
}

const inWordsOf = (card: BrewCard, pours: readonly CardStep[], units: Units): string =>
  pours.length === 0
    ? WORDS.stepsEndingAt(showClock(card.brewTimeS))
    : WORDS.pourLineEndsAt(
        pours
          .map((step) => WORDS.to(showClock(step.startS), inWords(showMass(step.targetG!, units, 'water'))))
          .join(', '),
        showClock(card.brewTimeS),
      );
