/**
 * Recognises a pour from a scale's readings: the first water, the flow, and the end at its target. It knows nothing of brews.
 */
import type { WeightPoint } from './trace';

export type PourWatch = {
  /** Readings of the last two seconds. */
  recent: readonly WeightPoint[];
  /** The reading at rest before the pour, grams; null before the first reading. */
  restG: number | null;
  /** When this pour's water was first seen; null while it rests. */
  begunMs: number | null;
  /** When water last ran. */
  runningMs: number | null;
};

export const restingWatch = (): PourWatch => ({ recent: [], restG: null, begunMs: null, runningMs: null });

const KEPT_MS = 2000;
/** Flow is the slope over this long. */
const SLOPE_MS = 700;
/** Water counts as running from this flow on, g/s, and a pour as begun when it has added this much, grams. */
const RUNS_G_PER_S = 0.8;
const BEGINS_G = 1.2;
/** A pour has ended when nothing has run for this long. */
const SETTLES_MS = 900;
/** If it stops further below the target than this, the hand has only paused, grams. */
export const PAUSED_G = 3;

/** Flow by the readings, g/s (least squares); 0 before there are enough. */
export function flowOf(recent: readonly WeightPoint[]): number {
  const last = recent.at(-1);
  if (!last) return 0;
  const used = recent.filter(({ atMs }) => atMs >= last.atMs - SLOPE_MS);
  if (used.length < 3) return 0;
  const meanMs = used.reduce((sum, { atMs }) => sum + atMs, 0) / used.length;
  const meanG = used.reduce((sum, { massG }) => sum + massG, 0) / used.length;
  const over = used.reduce((sum, { atMs, massG }) => sum + (atMs - meanMs) * (massG - meanG), 0);
  const under = used.reduce((sum, { atMs }) => sum + (atMs - meanMs) ** 2, 0);
  return under > 0 ? (over / under) * 1000 : 0;
}

export type PourChange =
  | { what: 'nothing' }
  /** Water began to run. */
  | { what: 'begun'; atMs: number }
  /** It has run and stopped at the target or past it; what the scale has settled to. */
  | { what: 'ended'; atMs: number; readingG: number };

/**
 * One more reading.
 * @param targetG where the pour that is asked for ends; null while none is
 * @param begun somebody has said already that the pour has begun
 */
export function watchPour(
  watch: PourWatch,
  reading: WeightPoint,
  targetG: number | null,
  begun: boolean,
): { watch: PourWatch; flowGPerS: number; seen: PourChange } {
  const recent = [...watch.recent.filter(({ atMs }) => atMs > reading.atMs - KEPT_MS), reading];
  const flowGPerS = flowOf(recent);
  const runs = flowGPerS > RUNS_G_PER_S;
  const restG = watch.restG ?? reading.massG;
  const nothing = { what: 'nothing' } as const;
  if (watch.begunMs === null) {
    // At rest the scale creeps and is tared; what it reads then is where the next pour starts from.
    if (!runs && !(begun && reading.massG > restG + BEGINS_G))
      return {
        watch: { recent, restG: reading.massG, begunMs: null, runningMs: null },
        flowGPerS,
        seen: nothing,
      };
    if (targetG === null || reading.massG < restG + BEGINS_G)
      return { watch: { ...watch, recent, restG }, flowGPerS, seen: nothing };
    const first = recent.find(({ massG }) => massG > restG + BEGINS_G / 3) ?? reading;
    return {
      watch: { recent, restG, begunMs: first.atMs, runningMs: reading.atMs },
      flowGPerS,
      seen: begun ? nothing : { what: 'begun', atMs: first.atMs },
    };
  }
  const runningMs = runs ? reading.atMs : watch.runningMs!;
  const settled = reading.atMs - runningMs >= SETTLES_MS;
  if (targetG === null || !settled || reading.massG < targetG - PAUSED_G)
    return { watch: { ...watch, recent, runningMs }, flowGPerS, seen: nothing };
  return {
    watch: { recent, restG: reading.massG, begunMs: null, runningMs: null },
    flowGPerS,
    seen: { what: 'ended', atMs: runningMs, readingG: reading.massG },
  };
}
