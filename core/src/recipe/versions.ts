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

/**
 * Whether two versions of a recipe are brewed alike: the same pours, water, grind and times. Preparation, words, and a path
 * that one of them does not tell do not count, since the bed and the grinder teach the same by both.
 */
export function areBrewedAlike(one: Recipe, other: Recipe): boolean {
  const [a, b] = [one, other].map(brewedBy);
  if (JSON.stringify(a!.figures) !== JSON.stringify(b!.figures)) return false;
  return a!.paths.every(
    (path, n) => !path || !b!.paths[n] || JSON.stringify(path) === JSON.stringify(b!.paths[n]),
  );
}

function brewedBy({ steps, ...recipe }: Recipe) {
  // Warming the cup while the bed drains does nothing to the bed.
  const brewed = steps.filter(({ phase, kind }) => phase === 'brew' && kind !== 'warm');
  const {
    method,
    ratio,
    bypassTimesDose,
    iceTimesDose,
    refDoseG,
    grindBand,
    waterC,
    waterIs,
    filter,
    endWindowS,
  } = recipe;
  return {
    figures: [
      [method, ratio, bypassTimesDose, iceTimesDose ?? null, refDoseG, grindBand, waterC, waterIs, filter],
      [endWindowS.from, endWindowS.to],
      ...brewed.map(({ kind, start, lasts, end, stirs, pour }) => [
        kind,
        start,
        lasts,
        end.by,
        stirs ?? null,
        pour ? [pour.amount, pour.flowGPerS, pour.opening ?? null, pour.waterC ?? null] : null,
      ]),
    ],
    paths: brewed.map(({ pour }) => pour?.paths ?? null),
  };
}
