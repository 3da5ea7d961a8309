/**
 * Paper filters, which are used once and run out.
 */
import { METHODS } from './methods';
import { METHOD_IDS, type MethodId, type Recipe } from './recipe';

/** Methods with a paper of their own. */
export const PAPER_METHODS: readonly MethodId[] = METHOD_IDS.filter((id) => METHODS[id].papers !== null);

/** Whether each brew of a recipe takes a paper: not where it says cloth or metal, or leaves the choice. */
export const takesPaper = ({ method, filter }: Pick<Recipe, 'method' | 'filter'>): boolean =>
  METHODS[method].papers !== null && /paper/i.test(filter) && !/cloth|metal/i.test(filter);
