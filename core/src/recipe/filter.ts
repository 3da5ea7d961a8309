/**
 * Kinds of filters, and a recipe as it is brewed through another one.
 */
import { SCHOOLS } from './methods';
import type { MethodId, Recipe } from './recipe';

export const PLAIN_FILTERS = ['paper', 'thick-paper', 'cloth', 'metal'] as const;
export type PlainFilter = (typeof PLAIN_FILTERS)[number];

const WORDS: Record<PlainFilter, RegExp> = {
  paper: /paper/,
  'thick-paper': /thick paper/,
  cloth: /cloth/,
  metal: /metal/,
};
const NAMES: Record<PlainFilter, string> = {
  paper: 'paper',
  'thick-paper': 'thick paper',
  cloth: 'cloth',
  metal: 'metal',
};

export const isFilter = (filter: string, kind: PlainFilter): boolean => WORDS[kind].test(filter);

/** What a recipe's filter is called by its kind alone, where its school says it otherwise. */
export const filterNameOf = (filter: string, kind: PlainFilter): string =>
  isFilter(filter, kind) ? filter : NAMES[kind];

/** The schools of a method that brew through such a filter. */
export const schoolsWith = (method: MethodId, kind: PlainFilter): Recipe[] =>
  SCHOOLS.filter((school) => school.method === method && isFilter(school.filter, kind));

/**
 * The recipe brewed alike through another filter: what is prepared, taken off and cleaned is that filter's, and so is what the bed
 * keeps; pours, grind and water are the recipe's own.
 */
export function withFilter(recipe: Recipe, kind: PlainFilter): Recipe {
  if (isFilter(recipe.filter, kind)) return recipe;
  const [school] = schoolsWith(recipe.method, kind);
  if (!school) return { ...recipe, filter: NAMES[kind] };
  const { retentionGPerG } = school;
  const kept = retentionGPerG === undefined ? {} : { retentionGPerG };
  const filter = filterNameOf(school.filter, kind);
  const { retentionGPerG: _own, ...rest } = recipe;
  const steps = [
    ...school.steps.filter(({ phase }) => phase === 'prep'),
    ...recipe.steps.filter(({ phase, kind: what }) => phase === 'brew' || what === 'bypass'),
    ...school.steps.filter(
      ({ phase, kind: what }) => what !== 'bypass' && (phase === 'finish' || phase === 'clean'),
    ),
  ];
  // A tool may be held from or to a step of its own that another's preparation has not: then the steps stay, or two brews could share a brewer.
  const isHeld = ({ from, to }: Recipe['holds'][number]) =>
    [from, to].every((end) => steps.some(({ id }) => id === end));
  if (!recipe.holds.every(isHeld)) return { ...rest, ...kept, filter };
  return {
    ...rest,
    ...kept,
    filter,
    steps,
    holds: recipe.holds,
  };
}
