/**
 * Simulates shifts of the rush lab in a worker: one at a time, each answered as it is done.
 */
import { liveLabShift, type LabShift, type LabVariant } from '@even-kettle/core/practice';
import type { Bench } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf, type Recipe } from '@even-kettle/core/recipe';

export type LabJob = { bench: Bench; saved: readonly Recipe[]; variant: LabVariant; seed: number };
export type LabAnswer = { variantId: string; shift: LabShift } | { variantId: string; failed: string };

self.onmessage = ({ data: { bench, saved, variant, seed } }: MessageEvent<LabJob>) => {
  const say = (answer: LabAnswer) => self.postMessage(answer);
  liveLabShift(bench, variant, bookOf([...SCHOOLS, ...saved]), seed).then(
    (shift) => say({ variantId: variant.id, shift }),
    (error: unknown) => say({ variantId: variant.id, failed: String(error) }),
  );
};
