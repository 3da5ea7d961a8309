/**
 * Paper filters, which are used once and run out.
 */
import type { MethodId, Recipe } from './recipe';

/** Methods with a paper of their own, and what it is called. */
export const PAPER_METHODS = ['cone', 'flat', 'hourglass', 'air-press'] as const satisfies MethodId[];
export type PaperMethod = (typeof PAPER_METHODS)[number];
export const PAPERS: Record<PaperMethod, string> = {
  cone: 'Cone papers',
  flat: 'Flat-bottom papers',
  hourglass: 'Hourglass papers',
  'air-press': 'Paper discs',
};

/** Whether each brew of a recipe takes a paper: not where it says cloth or metal, or leaves the choice. */
export const takesPaper = ({ method, filter }: Pick<Recipe, 'method' | 'filter'>): boolean =>
  method in PAPERS && /paper/i.test(filter) && !/cloth|metal/i.test(filter);
