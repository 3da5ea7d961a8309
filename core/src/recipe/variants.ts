/**
 * A recipe as it is brewed under circumstances that its author did not have: a very fresh coffee, a cup that nobody
 * warms. Recipes are never changed; each variant is made once.
 */
import { clockStartS, startMoved, type BedPreparation, type Recipe, type RecipeStep } from './recipe';
import { round } from './round';

/** The step that warms the cup with what is left in the kettle. */
export const WARM_CUP = 'warm-cup';

export type Circumstances = {
  /** Roasted less than four days ago, so that it still holds much gas. */
  gassy?: boolean;
  /** Nobody warms the cup: it is served cold, or no hand is free for it. */
  coldCup?: boolean;
  /** The cup stands under the brewer in place of a server. */
  intoCup?: boolean;
  /** The beans stand weighed in a tin. */
  fromTin?: boolean;
};

/** The recipe itself where the circumstances are the usual ones. */
export function underCircumstances(
  recipe: Recipe,
  { gassy = false, coldCup = false, intoCup = false, fromTin = false }: Circumstances,
): Recipe {
  const losesCup = (coldCup || intoCup) && recipe.steps.some(({ id }) => id === WARM_CUP);
  const opensSlowly = gassy && bloomOf(recipe) !== undefined;
  if (!losesCup && !opensSlowly && !intoCup && !fromTin) return recipe;
  const key = `${losesCup} ${opensSlowly} ${intoCup} ${fromTin}`;
  const known = made.get(recipe) ?? new Map<string, Recipe>();
  made.set(recipe, known);
  const before = known.get(key);
  if (before) return before;
  const weighed = fromTin ? takenFromTin(recipe) : recipe;
  const unwarmed = losesCup ? withoutStep(weighed, WARM_CUP) : weighed;
  const served = intoCup ? straightIntoCup(unwarmed) : unwarmed;
  const variant = opensSlowly ? openedSlowly(served) : served;
  known.set(key, variant);
  return variant;
}
const made = new WeakMap<Recipe, Map<string, Recipe>>();

/** What is done in place of weighing where the beans stand weighed in a tin. */
const TAKE_THE_TIN = 'Take the tin';
export const isFromTin = ({ name }: Pick<RecipeStep, 'name'>): boolean => name === TAKE_THE_TIN;
/** How long it takes to empty a tin into the grinder, seconds. */
const TIN_S = 3;

const takenFromTin = (recipe: Recipe): Recipe => ({
  ...recipe,
  steps: recipe.steps.map((step) =>
    step.kind === 'weigh' ? { ...step, name: TAKE_THE_TIN, lasts: { s: TIN_S } } : step,
  ),
});

/** Nothing is poured out of a server: the cup is warmed by the rinse, and handed over as it stands. */
const straightIntoCup = (recipe: Recipe): Recipe => ({
  ...recipe,
  steps: recipe.steps.map((step) =>
    step.kind === 'serve'
      ? { ...step, name: 'Swirl the cup, hand over' }
      : step.kind === 'load'
        ? { ...step, hint: `The cup stands under the brewer, warm from the rinse. ${step.hint ?? ''}`.trim() }
        : step,
  ),
});

/** A recipe without one of its steps; what was held from or to it is held from the next, or to the one before. */
export function withoutStep(recipe: Recipe, stepId: string): Recipe {
  const { steps } = recipe;
  const at = steps.findIndex(({ id }) => id === stepId);
  const instead = (id: string, neighbour: RecipeStep | undefined) => (id === stepId ? neighbour?.id : id);
  return {
    ...recipe,
    steps: steps.filter(({ id }) => id !== stepId),
    holds: recipe.holds.flatMap((hold) => {
      const from = instead(hold.from, steps[at + 1]);
      const to = instead(hold.to, steps[at - 1]);
      // A tool that was held by that step alone is held by none.
      return from === undefined || to === undefined || (hold.from === stepId && hold.to === stepId)
        ? []
        : [{ ...hold, from, to }];
    }),
  };
}

/** So much longer a gassy coffee blooms, seconds, and so much slower its first water goes on. */
export const GASSY_BLOOM_S = 10;
const GASSY_FLOW_SHARE = 0.75;
const DEEPER: Partial<Record<BedPreparation, BedPreparation>> = {
  level: 'shallow well',
  'shallow well': 'deep well',
};

/** The pour that begins the timer in a method where water passes the bed. */
const bloomOf = ({ steps }: Recipe): RecipeStep | undefined =>
  steps.some(({ kind }) => kind === 'drawdown')
    ? steps.find(({ pour, anchor }) => pour && anchor === 'start')
    : undefined;

/** Deeper well, slower first water, and a longer bloom where there is one: all that comes after it moves. */
function openedSlowly(recipe: Recipe): Recipe {
  const bloom = bloomOf(recipe)!;
  const blooms = recipe.steps.filter(({ pour }) => pour).length > 1;
  const longerS = blooms ? GASSY_BLOOM_S : 0;
  const flowIn = (flowGPerS: number) => round(flowGPerS * GASSY_FLOW_SHARE, 1);
  return {
    ...recipe,
    bed: DEEPER[recipe.bed] ?? recipe.bed,
    endWindowS: { from: recipe.endWindowS.from + longerS, to: recipe.endWindowS.to + longerS },
    steps: recipe.steps.map((step) => {
      if (step === bloom) {
        const { opening, flowGPerS } = step.pour!;
        const slower = opening
          ? { opening: { ...opening, flowGPerS: flowIn(opening.flowGPerS) } }
          : { flowGPerS: flowIn(flowGPerS) };
        return { ...step, pour: { ...step.pour!, ...slower } };
      }
      const until = typeof step.lasts === 'object' && 'untilS' in step.lasts ? step.lasts.untilS : null;
      return clockStartS(step.start) === null && until === null
        ? step
        : {
            ...step,
            start: startMoved(step.start, longerS),
            ...(until === null ? {} : { lasts: { untilS: until + longerS } }),
          };
    }),
  };
}

/** Why the card is not the recipe's own, in a sentence; null where it is. */
export const gassyNote = (recipe: Recipe): string | null =>
  bloomOf(recipe)
    ? `Roasted less than four days ago, this coffee holds much gas: a deeper well and a slower first pour${
        recipe.steps.filter(({ pour }) => pour).length > 1 ? `, and ${GASSY_BLOOM_S} s more of bloom,` : ''
      } let it out.`
    : null;
