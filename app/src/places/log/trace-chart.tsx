/**
 * The weight of a brew over its plan's line; and other brews', each dashed in its own way and with its number at its end.
 * Where no scale stood, the readings that were told are points.
 */
import { View } from 'react-native';
import Svg, { Circle, G, Path, Rect, Text as Words } from 'react-native-svg';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import type { BrewRecord } from '@even-kettle/core/contract';
import type { WeightPoint } from '@even-kettle/core/pour';
import { inWords, showClock, showMass, type Units } from '@even-kettle/core/units';
import { ChartReader } from '../../ui/chart-reader';
import { Table, type Column } from '../../ui/table';
import { clockTicks } from '../../ui/clock-ticks';
import { useTheme } from '../../ui/use-theme';
import { Text } from '../../ui/text';
import { FACE } from '../../ui/theme';
import { Level, Upright, useChartWidth } from '../../parts/chart-parts';
import { WORDS } from './words';

type Point = { s: number; g: number };
export type Of = { record: BrewRecord; points: WeightPoint[] | null };
/** How an amount of water is said: in the bar's unit, or as a share of the brew's own. */
type Show = (amount: number) => string;

export const showGrams =
  (units: Units): Show =>
  (g) =>
    inWords(showMass(g, units, 'water'));
export const showShare: Show = (percent) => `${Math.round(percent)} %`;

/** The same brew with its own water as a hundred, so that large and small ones lie over each other. */
export function asShares({ record, points }: Of): Of {
  const percent = (g: number) => (100 * g) / record.brewWaterG;
  const orNull = (g: number | null) => (g === null ? null : percent(g));
  return {
    record: {
      ...record,
      brewWaterG: 100,
      steps: record.steps.map((step) => ({
        ...step,
        targetG: orNull(step.targetG),
        readingG: orNull(step.readingG),
      })),
    },
    points: points?.map((point) => ({ ...point, massG: percent(point.massG) })) ?? null,
  };
}

const HEIGHT = 210;
const PLOT = { left: 44, right: 12, top: 14, bottom: 26 };
/** The scale goes on after the drops stop; so long after the end mark is shown, seconds. */
const AFTER_S = 15;
/** How each of the others is dashed; as many can be laid over a brew. */
export const DASHES = ['9 4', '2 4', '12 4 2 4'] as const;

export function TraceChart({ record, points, others, show }: Of & { others: Of[]; show: Show }) {
  const theme = useTheme();
  const width = useChartWidth();
  const mine = weights({ record, points });
  const theirs = others.map(weights);
  const planned = plannedLine(record);
  const endS =
    Math.max(record.windowToS, record.realBrewS ?? 0, ...others.map((other) => other.record.realBrewS ?? 0)) +
    AFTER_S;
  const mostG = Math.max(record.brewWaterG, ...[mine, ...theirs].flat().map(({ g }) => g));
  const x = scaleLinear([Math.min(0, planned[0]?.s ?? 0), endS], [PLOT.left, width - PLOT.right]);
  const y = scaleLinear([0, mostG * 1.05], [HEIGHT - PLOT.bottom, PLOT.top]);
  const within = (of: Point[]) => of.filter(({ s }) => s >= x.domain()[0]! && s <= endS);
  const pathOf = (of: Point[]) =>
    line<Point>(
      ({ s }) => x(s),
      ({ g }) => y(g),
    )(within(of)) ?? '';
  const told = points === null;
  return (
    <View>
      <ChartReader
        label={inWordsOf(record, mine, told, others, show)}
        reads={WORDS.waterOverTime}
        readings={moments(x.domain()[0]!, endS).map((s) => {
          const g = gramsAt(mine, s);
          return { x: x(s), y: g === null ? null : y(g), says: readAt(s, record, mine, told, others, show) };
        })}
      >
        <Svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden>
          <Rect
            x={x(record.windowFromS)}
            y={PLOT.top - 8}
            width={Math.max(2, x(record.windowToS) - x(record.windowFromS))}
            height={HEIGHT - PLOT.bottom - PLOT.top + 8}
            fill={theme.coolPale}
            opacity={0.7}
          />
          <Upright
            scale={y}
            count={4}
            at={PLOT.left}
            to={width - PLOT.right}
            show={(g) => show(g).split(' ')[0]!}
          />
          <Level
            scale={x}
            ticks={clockTicks(x.domain(), Math.max(3, Math.floor(width / 90)))}
            at={HEIGHT - PLOT.bottom}
            show={showClock}
          />
          <Path d={pathOf(planned)} stroke={theme.ink2} strokeWidth={1.2} strokeDasharray="2 3" fill="none" />
          {theirs.map((of, n) => {
            const end = within(of).at(-1);
            return (
              <G key={DASHES[n]}>
                <Path
                  d={pathOf(of)}
                  stroke={theme.ink2}
                  strokeWidth={2}
                  strokeDasharray={DASHES[n]!}
                  fill="none"
                />
                {end ? (
                  <Words
                    x={Math.min(x(end.s) + 3, width - 9)}
                    y={y(end.g) + 16 + 13 * n}
                    fill={theme.ink}
                    fontSize={13}
                    fontFamily={FACE.bold}
                  >
                    {n + 1}
                  </Words>
                ) : null}
              </G>
            );
          })}
          <Path d={pathOf(mine)} stroke={theme.cool} strokeWidth={2.5} fill="none" strokeLinejoin="round" />
          {told
            ? readings(record).map(({ s, g }) => (
                <Circle key={s} cx={x(s)} cy={y(g)} r={3.5} fill={theme.cool} />
              ))
            : null}
          {record.realBrewS === null ? null : (
            <Path
              d={`M${x(record.realBrewS)} ${PLOT.top - 8}V${HEIGHT - PLOT.bottom}`}
              stroke={theme.cool}
              strokeWidth={1.5}
            />
          )}
        </Svg>
      </ChartReader>
      <Text size="small" quiet aria-hidden>
        {WORDS.curveLegend(told ? WORDS.asEntered : 'weighed', others.length > 0 ? WORDS.dashedOthers : '')}
      </Text>
    </View>
  );
}

/** It is read in steps of so long, seconds. */
const STEP_S = 5;
const moments = (fromS: number, toS: number): number[] =>
  Array.from(
    { length: Math.max(1, Math.floor((toS - fromS) / STEP_S) + 1) },
    (_, n) => Math.ceil(fromS / STEP_S) * STEP_S + n * STEP_S,
  ).filter((s) => s <= toS);

/** Grams on a line at a moment; null before it begins and after it ends. */
function gramsAt(of: readonly Point[], s: number): number | null {
  const next = of.findIndex((point) => point.s >= s);
  if (next < 0) return null;
  const to = of[next]!;
  const from = of[next - 1];
  if (!from) return to.s === s ? to.g : null;
  return from.g + ((to.g - from.g) * (s - from.s)) / Math.max(1e-9, to.s - from.s);
}

const readAt = (
  s: number,
  record: BrewRecord,
  mine: readonly Point[],
  told: boolean,
  others: readonly Of[],
  show: Show,
): string => {
  const shown = (of: readonly Point[]) => {
    const g = gramsAt(of, s);
    return g === null ? null : show(g);
  };
  const parts: [string, string | null][] = [
    ['planned', shown(plannedLine(record))],
    [told ? 'entered' : 'weighed', shown(mine)],
    ...others.map((other, n): [string, string | null] => [`${n + 1}:`, shown(weights(other))]),
  ];
  return `${showClock(s)}: ${
    parts
      .filter(([, words]) => words !== null)
      .map(([name, words]) => `${name} ${words}`)
      .join(', ') || WORDS.noWaterYet
  }`;
};

/** What is drawn, as a table: the planned water and the real, every few seconds. */
export function TraceTable({ record, points, show }: Of & { show: Show }) {
  const mine = weights({ record, points });
  const planned = plannedLine(record);
  const endS = Math.max(record.windowToS, record.realBrewS ?? 0) + AFTER_S;
  const rows = moments(Math.min(0, planned[0]?.s ?? 0), endS).map((s) => ({
    s,
    plannedG: gramsAt(planned, s),
    realG: gramsAt(mine, s),
  }));
  const mass = (g: number | null) => (g === null ? '' : show(g));
  const columns: Column<(typeof rows)[number]>[] = [
    { name: WORDS.time, value: ({ s }) => s, show: ({ s }) => showClock(s), numeric: true },
    {
      name: WORDS.plannedLabel,
      value: ({ plannedG }) => plannedG,
      show: ({ plannedG }) => mass(plannedG),
      numeric: true,
    },
    {
      name: points === null ? WORDS.entered : WORDS.weighedLabel,
      value: ({ realG }) => realG,
      show: ({ realG }) => mass(realG),
      numeric: true,
    },
  ];
  return <Table label={WORDS.waterOverTime} columns={columns} rows={rows} />;
}

/** Cumulative water by the card: flat between pours, rising through each. */
function plannedLine({ steps, plannedBrewS }: BrewRecord): Point[] {
  const pours = steps.filter((step) => step.phase === 'brew' && step.targetG !== null);
  let before = 0;
  const line = pours.flatMap(({ plannedStartS, plannedS, targetG }): Point[] => {
    const rise = [
      { s: plannedStartS, g: before },
      { s: plannedStartS + plannedS, g: targetG! },
    ];
    before = targetG!;
    return rise;
  });
  return line.length === 0 ? [] : [...line, { s: plannedBrewS, g: before }];
}

/** The readings that were told, in seconds from the timer's zero. */
const readings = ({ steps }: BrewRecord): Point[] =>
  steps.flatMap(({ realEndS, readingG }) =>
    realEndS === null || readingG === null ? [] : [{ s: realEndS, g: readingG }],
  );

/** As weighed, in seconds from the timer's zero; or as it was told. */
function weights({ record, points }: Of): Point[] {
  if (points)
    return points.map(({ atMs, massG }) => ({ s: (atMs - record.zeroMs!) / 1000, g: Math.max(0, massG) }));
  const told = readings(record);
  const last = told.at(-1);
  // Nothing more was poured until the end mark.
  return last && record.realBrewS !== null && record.realBrewS > last.s
    ? [...told, { s: record.realBrewS, g: last.g }]
    : told;
}

function inWordsOf(record: BrewRecord, mine: Point[], told: boolean, others: Of[], show: Show): string {
  const most = mine.reduce((top, { g }) => Math.max(top, g), 0);
  return [
    WORDS.plannedCurve(show(record.brewWaterG), showClock(record.plannedBrewS)),
    `${told ? 'entered' : 'weighed'} ${show(most)}`,
    record.realBrewS === null ? WORDS.noEndMark : WORDS.endedAt(showClock(record.realBrewS)),
    ...others.map(({ record: { realBrewS } }, n) =>
      realBrewS === null ? null : WORDS.endedAtForN(n + 1, showClock(realBrewS)),
    ),
  ]
    .filter(Boolean)
    .join(', ');
}
