/**
 * What is kept of a try, and what a person's tries show.
 */
import type { DrillId, Measure } from './drill';
import type { Sample } from './pour-run';

export type PourTry = {
  id: string;
  atMs: number;
  /** Whose: a person of the bench; null for nobody in particular. */
  person: string | null;
  drill: DrillId;
  /** The recipe and the cup that were poured, where it was a recipe's drill. */
  recipeId?: string;
  cupMl?: number;
  score: number;
  /** Poured on a scale, so that nothing of the bed is known. */
  onScale?: true;
  measures: Record<Measure, number | null>;
};

/** Tries that can be compared: of one drill, and of one cup by one recipe. */
export const drillKey = ({ drill, recipeId, cupMl }: Pick<PourTry, 'drill' | 'recipeId' | 'cupMl'>): string =>
  recipeId === undefined ? drill : `${drill}/${recipeId}/${cupMl ?? ''}`;

/** The trace of a try as whole numbers, so that it is short to keep: second x 10, gram x 10, g/s x 10, x and y x 100. */
export const packSamples = (samples: readonly Sample[]): number[] =>
  samples.flatMap(({ s, g, flowGPerS, at }) => [
    Math.round(s * 10),
    Math.round(g * 10),
    Math.round(flowGPerS * 10),
    at ? Math.round(at.x * 100) : AWAY,
    at ? Math.round(at.y * 100) : AWAY,
  ]);
/** In place of x and y where no water fell. */
const AWAY = 999;
const PACKED = 5;

export const unpackSamples = (packed: readonly number[]): Sample[] =>
  Array.from({ length: Math.floor(packed.length / PACKED) }, (_, n) => {
    const [s, g, flow, x, y] = packed.slice(n * PACKED, (n + 1) * PACKED) as [
      number,
      number,
      number,
      number,
      number,
    ];
    return { s: s / 10, g: g / 10, flowGPerS: flow / 10, at: x === AWAY ? null : { x: x / 100, y: y / 100 } };
  });
