/**
 * What changed between two versions of a recipe, field by field.
 */
import type { Recipe } from './recipe';

export type Change = {
  /** A path with steps by their id: `steps.bloom.pour.flowGPerS`. */
  field: string;
  /** Left out where the one or the other does not have it. */
  before?: string | number | boolean;
  after?: string | number | boolean;
};

type Leaves = Map<string, string | number | boolean>;

/** Changes from one version to another, in the order in which they stand; the version number itself is not one. */
export function changesBetween(before: Recipe, after: Recipe): Change[] {
  const [old, young] = [leavesOf(before), leavesOf(after)];
  const changes: Change[] = [];
  for (const field of new Set([...old.keys(), ...young.keys()])) {
    const [was, is] = [old.get(field), young.get(field)];
    if (was !== is)
      changes.push({
        field,
        ...(was === undefined ? {} : { before: was }),
        ...(is === undefined ? {} : { after: is }),
      });
  }
  return changes;
}

function leavesOf({ version: _version, steps, ...rest }: Recipe): Leaves {
  const leaves: Leaves = new Map();
  collect(leaves, '', rest);
  leaves.set('steps', steps.map(({ id }) => id).join(', '));
  for (const { id, ...step } of steps) collect(leaves, `steps.${id}`, step);
  return leaves;
}

function collect(leaves: Leaves, path: string, value: unknown): void {
  if (value === undefined) return;
  if (value === null || typeof value !== 'object') {
    leaves.set(path, value === null ? 'none' : (value as string | number | boolean));
    return;
  }
  for (const [key, child] of Object.entries(value)) collect(leaves, path ? `${path}.${key}` : key, child);
}
