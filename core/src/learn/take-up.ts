/**
 * Accepted advice: the value that is kept for a coffee with one recipe from then on.
 */
import type { RecipeChange } from '../plan';
import { round, type Grinder } from '../recipe';
import type { OneChange } from './advice';
import { coarserWay } from './grind-slope';

type KnownCoffee = { name: string; recipeChanges?: Record<string, RecipeChange> | undefined };

/** Whether the bar stores the change; if not, whoever brews next has to do it. */
export const isKept = ({ what }: OneChange): boolean => what !== 'by-hand';

/**
 * The coffees of the bench with the change kept for one of them with one recipe, on top of what was kept before; null
 * where the coffee or the grinder is not on the bench.
 */
export function coffeesWithChange<Coffee extends KnownCoffee>(
  coffees: readonly Coffee[],
  of: { coffee: string; recipeId: string },
  change: OneChange,
  grinder: Grinder | undefined,
): Coffee[] | null {
  const coffee = coffees.find(({ name }) => name === of.coffee);
  const kept = coffee && changedBy(coffee.recipeChanges?.[of.recipeId] ?? {}, change, grinder);
  if (!kept) return null;
  const recipeChanges = { ...coffee.recipeChanges, [of.recipeId]: kept };
  return coffees.map((each) => (each === coffee ? { ...each, recipeChanges } : each));
}

function changedBy(
  before: RecipeChange,
  change: OneChange,
  grinder: Grinder | undefined,
): RecipeChange | null {
  switch (change.what) {
    case 'temperature':
      return { ...before, waterByC: round((before.waterByC ?? 0) + change.byC, 1) };
    case 'ratio':
      return { ...before, ratioBy: round((before.ratioBy ?? 0) + change.by, 1) };
    case 'grind': {
      if (!grinder) return null;
      const steps = (before.grindBy?.[grinder.id] ?? 0) + change.stepsCoarser * coarserWay(grinder);
      return { ...before, grindBy: { ...before.grindBy, [grinder.id]: steps } };
    }
    case 'by-hand':
      return null;
  }
}
