/**
 * What whoever opens, takes over or closes the bar has to know of the log: what is expected, what drifts, what was changed,
 * how much water has gone through the kettles.
 */
import { SETTING_LABELS, type Today } from '@even-kettle/core/contract';
import { WEEKS_BACK, descaleAfterL, expectedRush, weekBefore } from '@even-kettle/core/learn';
import type { SettingsChange } from '../bar/settings';
import { runOf } from './run';
import { houseEventsOf, isSold, type Sources } from './sources';

const HALF_DAY_MS = 43_200_000;
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
    Array.from({ length: WEEKS_BACK }, async (_, week) => {
      const { fromMs, toMs } = weekBefore(week + 1, span);
      // Open on that day, it had no guests in these hours; else nothing is known of them.
      const ofDay = await records.between(fromMs - HALF_DAY_MS, toMs + HALF_DAY_MS);
      return ofDay.length === 0
        ? null
        : ofDay.filter((brew) => isSold(brew) && brew.endedMs >= fromMs && brew.endedMs < toMs);
    }),
  );
  const descaled = houseEventsOf(state(), 'task-done').findLast(({ taskId }) => taskId === 'descale');
  const { kettles, water } = bar();
  const afterL = descaleAfterL(kettles.length, water.hardnessPpm);
  return {
    rush: expectedRush(weeks),
    drifts: await driftsOf(sources),
    changes: changes
      .filter(({ atMs }) => atMs >= nowMs() - DRIFT_BACK_MS)
      .map(({ atMs, settings }) => ({
        atMs,
        settings: settings.map((name) => SETTING_LABELS[name] ?? name),
      })),
    kettles: {
      litres: Math.round((await records.filledSince(descaled?.atMs ?? 0)) / 1000),
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
