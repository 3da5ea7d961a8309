/**
 * What whoever opens, takes over or closes the bar has to know of the log: what is expected, what drifts, what was changed,
 * how much water has gone through the kettles.
 */
import type { Today } from '@even-kettle/core/contract';
import { WEEKS_BACK, descaleAfterL, expectedRush, litresThrough, weekBefore } from '@even-kettle/core/learn';
import type { SettingsChange } from '../bar/settings';
import { runOf } from './run';
import { houseEventsOf, isSold, type Sources } from './sources';

const DRIFT_BACK_MS = 2 * 86_400_000;
/** So many coffees with a recipe are looked at for drift, those that were brewed the most. */
const MOST_RUNS = 8;

export async function todayOf(
  span: { fromMs: number; toMs: number },
  changes: readonly SettingsChange[],
  sources: Sources,
): Promise<Today> {
  const { records, bar, state, nowMs } = sources;
  const weeks = await Promise.all(
    Array.from({ length: WEEKS_BACK }, (_, week) => {
      const { fromMs, toMs } = weekBefore(week + 1, span);
      return records.between(fromMs, toMs).then((brews) => brews.filter(isSold));
    }),
  );
  const descaled = houseEventsOf(state(), 'task-done').findLast(({ taskId }) => taskId === 'descale');
  const used = await records.usedSince(descaled?.atMs ?? 0);
  const { kettles, water } = bar();
  const afterL = descaleAfterL(kettles.length, water.hardnessPpm);
  return {
    rush: expectedRush(weeks),
    drifts: await driftsOf(sources),
    changes: changes.filter(({ atMs }) => atMs >= nowMs() - DRIFT_BACK_MS).map((change) => ({ ...change })),
    kettles: {
      litres: Math.round(litresThrough(used)),
      descaleAfterL: Number.isFinite(afterL) ? afterL : null,
      descaledMs: descaled?.atMs ?? null,
    },
  };
}

async function driftsOf(sources: Sources): Promise<Today['drifts']> {
  const { records, nowMs } = sources;
  const counts = new Map<string, { recipeId: string; coffee: string; brews: number }>();
  for (const { recipeId, coffee } of await records.between(nowMs() - DRIFT_BACK_MS, nowMs() + 1)) {
    const key = `${recipeId} ${coffee}`;
    counts.set(key, { recipeId, coffee, brews: (counts.get(key)?.brews ?? 0) + 1 });
  }
  const usual = [...counts.values()].sort((a, b) => b.brews - a.brews).slice(0, MOST_RUNS);
  const drifts: Today['drifts'] = [];
  for (const { recipeId, coffee } of usual) {
    const { chart, points } = await runOf(recipeId, coffee, sources);
    if (!chart?.shift) continue;
    drifts.push({
      recipeId,
      coffee,
      byS: chart.shift.byS,
      sinceMs: points[chart.shift.fromIndex]?.endedMs ?? null,
    });
  }
  return drifts;
}
