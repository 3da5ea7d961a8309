/**
 * Simulates in a worker: a shift of the rush lab, or a drill's orders as hands that are never late would work them off.
 */
import type { OrderTaken } from '@even-kettle/core/brew';
import { exactWaits, liveLabShift, type LabShift, type LabVariant } from '@even-kettle/core/practice';
import type { Bench } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf, type Recipe } from '@even-kettle/core/recipe';

type At = { bench: Bench; saved: readonly Recipe[] };
export type LabJob = At & { variant: LabVariant; seed: number };
export type ExactJob = At & { orders: readonly OrderTaken[] };
export type LabAnswer =
  | { variantId: string; shift: LabShift }
  | { waitsS: Record<string, number> }
  | { failed: string };

self.onmessage = ({ data }: MessageEvent<LabJob | ExactJob>) => {
  const say = (answer: LabAnswer) => self.postMessage(answer);
  const book = bookOf([...SCHOOLS, ...data.saved]);
  const answer: Promise<LabAnswer> =
    'orders' in data
      ? exactWaits(data.bench, data.orders, book).then((waitsS) => ({ waitsS }))
      : liveLabShift(data.bench, data.variant, book, data.seed).then((shift) => ({
          variantId: data.variant.id,
          shift,
        }));
  answer.then(say, (error: unknown) => say({ failed: String(error) }));
};
