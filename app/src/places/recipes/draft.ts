/**
 * Changing a recipe, as data: what each act of the editor makes of a draft.
 */
import type { Amount, Recipe, RecipeStep, StepKind, StepLength } from '@even-kettle/core/recipe';
import { WORDS } from './words';

export type AmountKind = 'timesDose' | 'toShare' | 'restParts' | 'g';

const FIRST_AMOUNT: Record<AmountKind, Amount> = {
  timesDose: { timesDose: 2 },
  toShare: { toShare: 1 },
  restParts: { restParts: 1 },
  g: { g: 50 },
};

export const amountKind = (amount: Amount): AmountKind => Object.keys(amount)[0] as AmountKind;
export const amountValue = (amount: Amount): number => Object.values(amount)[0] as number;
export const amountOf = (kind: AmountKind, value?: number): Amount =>
  value === undefined ? FIRST_AMOUNT[kind] : ({ [kind]: value } as Amount);

export type LengthKind =
  's' | 'sPerDoseG' | 'untilS' | 'hotS' | 'sAtRef' | 'globe' | 'pour' | 'heating' | 'drawdown';
const FIRST_LENGTH: Record<LengthKind, StepLength> = {
  s: { s: 5 },
  sPerDoseG: { sPerDoseG: 1 },
  untilS: { untilS: 60 },
  hotS: { hotS: 120, coldS: 300 },
  sAtRef: { sAtRef: 180 },
  globe: { globe: 'both' },
  pour: 'pour',
  heating: 'heating',
  drawdown: 'drawdown',
};
export const lengthKind = (lasts: StepLength): LengthKind =>
  typeof lasts === 'string' ? lasts : (Object.keys(lasts)[0] as LengthKind);
export const lengthOf = (kind: LengthKind): StepLength => FIRST_LENGTH[kind];

/** A step of another kind keeps what still makes sense; a pour gets an amount, and anything else loses it. */
export function ofKind(step: RecipeStep, kind: StepKind): RecipeStep {
  const { pour, ...rest } = step;
  if (kind === 'pour')
    return {
      ...rest,
      kind,
      pour: pour ?? { amount: { g: 50 }, flowGPerS: 5 },
      lasts: 'pour',
      end: { by: 'weight' },
    };
  if (kind === 'drawdown')
    return { ...rest, kind, attended: false, lasts: 'drawdown', end: { by: 'cue', cue: WORDS.dropsOnly } };
  return { ...rest, kind, ...(pour ? { lasts: { s: 5 }, end: { by: 'clock' as const } } : {}) };
}

/** A new short step of the hands after another. */
export function withStepAfter(recipe: Recipe, index: number): Recipe {
  const before = recipe.steps[index];
  const step: RecipeStep = {
    id: freeId(recipe, 'step'),
    kind: 'stir',
    name: WORDS.newStep,
    phase: before?.phase ?? 'brew',
    attended: true,
    start: { afterS: 0 },
    lasts: { s: 5 },
    end: { by: 'clock' },
  };
  return { ...recipe, steps: recipe.steps.toSpliced(index + 1, 0, step) };
}

export const withoutStep = (recipe: Recipe, index: number): Recipe => ({
  ...recipe,
  steps: recipe.steps.toSpliced(index, 1),
});

export function withStepMoved(recipe: Recipe, from: number, to: number): Recipe {
  if (to < 0 || to >= recipe.steps.length || from === to) return recipe;
  const steps = [...recipe.steps];
  steps.splice(to, 0, ...steps.splice(from, 1));
  return { ...recipe, steps };
}

export const withStep = (recipe: Recipe, index: number, step: RecipeStep): Recipe => ({
  ...recipe,
  steps: recipe.steps.with(index, step),
});

function freeId(recipe: Recipe, word: string): string {
  const taken = new Set(recipe.steps.map(({ id }) => id));
  let count = 1;
  while (taken.has(`${word}-${count}`)) count += 1;
  return `${word}-${count}`;
}

/** A name as an id: lower-case words with dashes. */
export const idFor = (method: string, name: string): string =>
  `${method}-${name}`
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 48);
