/**
 * Changing a recipe, as data: what each act of the editor makes of a draft.
 */
import {
  withoutStep as withoutIts,
  type Amount,
  type Recipe,
  type RecipeStep,
  type StepKind,
  type StepLength,
} from '@even-kettle/core/recipe';
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
  | 's'
  | 'sPerDoseG'
  | 'untilS'
  | 'hotS'
  | 'sAtRef'
  | 'globe'
  | 'pour'
  | 'heating'
  | 'drawdown';
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

/** The recipe without a step, and what else was changed because it leant on it, in sentences. */
export function withoutStep(recipe: Recipe, index: number): { recipe: Recipe; mended: string[] } {
  const gone = recipe.steps[index]!;
  const mended: string[] = [];
  const left = withoutIts(recipe, gone.id);
  for (const [n, hold] of recipe.holds.entries()) {
    if (hold.from !== gone.id && hold.to !== gone.id) continue;
    const now = left.holds.find(
      ({ tool, from, to }) => tool === hold.tool && (from !== hold.from || to !== hold.to),
    );
    const nameOf = (id: string) => left.steps.find((step) => step.id === id)?.name ?? id;
    mended.push(
      now && left.holds.length > n
        ? WORDS.nowHeldFromTo(hold.tool, nameOf(now.from), nameOf(now.to))
        : WORDS.isHeldNoMore(hold.tool),
    );
  }
  const steps = [...left.steps];
  const change = (at: number, part: Partial<RecipeStep>) => (steps[at] = { ...steps[at]!, ...part });
  const after = (fits: (step: RecipeStep) => boolean) =>
    steps.findIndex((step, at) => at >= index && step.phase === 'brew' && fits(step));
  const nextPour = after(({ pour }) => pour !== undefined);
  const next = nextPour >= 0 ? nextPour : after(({ attended }) => attended);
  if (gone.anchor && next >= 0 && steps.every(({ anchor }) => !anchor)) {
    // Nothing can start at a reading of a timer that it starts itself.
    change(next, { anchor: 'start', start: { afterS: 0 } });
    for (let at = index; at < next; at += 1) {
      const { lasts } = steps[at]!;
      change(at, {
        start: { afterS: 0 },
        ...(typeof lasts === 'object' && 'untilS' in lasts ? { lasts: { s: lasts.untilS } } : {}),
      });
    }
    mended.push(WORDS.nowStartsTheTimer(steps[next]!.name));
  }
  const lastPour = steps.findLastIndex(({ pour }) => pour);
  const wasLast = gone.pour && recipe.steps.slice(index + 1).every(({ pour }) => !pour);
  const amount = steps[lastPour]?.pour?.amount;
  if (wasLast && amount && !('restParts' in amount && amount.restParts === 1)) {
    change(lastPour, { pour: { ...steps[lastPour]!.pour!, amount: { toShare: 1 } } });
    mended.push(WORDS.nowGoesToAll(steps[lastPour]!.name));
  }
  return { recipe: { ...left, steps }, mended };
}

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
