/**
 * How one recipe runs with one coffee: its brew times, their limits, and what a step of the grinder is worth.
 */
import type { ChangeTried } from '@even-kettle/core/brew';
import type { Learnt } from '@even-kettle/core/contract';
import { bandsPerStep, coarserWay, grindSlope, runChart, type GrindSlope } from '@even-kettle/core/learn';
import { grindOffsetFor } from '@even-kettle/core/plan';
import { grindSetting } from '@even-kettle/core/recipe';
import type { RunPoint } from '../store/records';
import { ofOneKind, tenth, versionsLike, type Sources } from './sources';

/** How many brews of a recipe its run shows. */
const RUN_BREWS = 200;

export type Run = { recipeId: string; coffee: string; points: RunPoint[]; chart: Learnt['chart'] };

/** The run with every time converted to the latest cup's size, so that a large cup does not look like drift. */
export async function runOf(recipeId: string, coffee: string, sources: Sources): Promise<Run> {
  const run = ofOneKind(
    await sources.records.run(recipeId, coffee, RUN_BREWS),
    (point) => point,
    (version) => versionsLike(recipeId, version, sources),
  );
  const sizeS = run.at(-1)?.plannedS ?? 0;
  const points = run.map((point) => ({ ...point, brewS: tenth(point.brewS + sizeS - point.plannedS) }));
  return { recipeId, coffee, points, chart: chartOf(points) };
}

/** What a step of the grinder is worth. Brews after a level shift are counted without the shift, and the expected time is on the new level. */
export function grindOf({ recipeId, coffee, points, chart }: Run, { bar, recipe }: Sources) {
  const [grinder] = bar().grinders;
  const band = recipe(recipeId)?.grindBand;
  const offset = grindOffsetFor(
    bar().coffees.find(({ name }) => name === coffee),
    recipeId,
    grinder?.id ?? '',
  );
  const zero = grinder && band !== undefined ? grindSetting(grinder, band) : null;
  if (!grinder || !zero?.ok) return null;
  const byS = chart?.shift?.byS ?? 0;
  const ground = points.flatMap(({ brewS, setting, grinderId }, index) =>
    setting === null || grinderId !== grinder.id
      ? []
      : [{ brewS: brewS - (index >= (chart?.shift?.fromIndex ?? Infinity) ? byS : 0), setting }],
  );
  const slope = grindSlope(
    ground,
    { setting: zero.setting, brewS: points.at(-1)?.plannedS ?? 180 },
    { way: coarserWay(grinder), bands: bandsPerStep(grinder) },
  );
  const at: GrindSlope['at'] = (setting) => {
    const expected = slope.at(setting);
    return { ...expected, brewS: expected.brewS + byS };
  };
  return { grinder, slope: { ...slope, at }, setting: tenth(zero.setting + offset) };
}

/**
 * Limits are for brews of one grind: from the latest brew back to where the setting was another. Indexes are those of
 * the whole run.
 */
function chartOf(points: RunPoint[]): Learnt['chart'] {
  const setting = points.at(-1)?.setting ?? null;
  const from = 1 + points.findLastIndex((point) => point.setting !== null && point.setting !== setting);
  const chart = runChart(points.slice(from).map(({ brewS, people }) => ({ value: brewS, by: people })));
  if (!chart) return null;
  const { shift } = chart;
  return {
    fromIndex: from + chart.fromIndex,
    centreS: tenth(chart.centre),
    lowS: tenth(chart.low),
    highS: tenth(chart.high),
    outside: [...Array<boolean>(from).fill(false), ...chart.outside],
    shift: shift && {
      fromIndex: from + shift.fromIndex,
      seenIndex: from + shift.seenIndex,
      byS: tenth(shift.by),
    },
  };
}

/** A change of the grind, with the first brew after it. */
export function triedWith(tried: ChangeTried, { points }: Run): Learnt['tried'][number] {
  const since = points.find(({ endedMs }) => endedMs > tried.atMs);
  return {
    atMs: tried.atMs,
    words: tried.words,
    expectS: tried.expectS ?? null,
    plusMinusS: tried.plusMinusS ?? null,
    result: since ? { brewId: since.brewId, brewS: since.brewS } : null,
  };
}
