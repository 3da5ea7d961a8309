/**
 * What can be practised here: the exercises, and every recipe with pours in the cups that a brewer of its method takes.
 */
import { exercise, recipeDrill, type Drill, type DrillId } from '@even-kettle/core/practice';
import {
  BREWERS,
  DEFAULT_PLACE,
  METHODS,
  brewCard,
  fitsBrewer,
  type BrewCard,
  type Recipe,
} from '@even-kettle/core/recipe';

const SIZES_ML = [150, 200, 250, 300, 350, 500, 600];

/** The card of a cup in the first brewer that takes it; null where none does. */
function cardOf(recipe: Recipe, cupMl: number, altitudeM: number): BrewCard | null {
  for (const brewer of BREWERS.filter(({ method }) => method === recipe.method))
    try {
      const card = brewCard(recipe, { cupMl }, { ...DEFAULT_PLACE, altitudeM, brewer });
      if (fitsBrewer(brewer, card)) return card;
    } catch {
      // No cup of this size: another may do.
    }
  return null;
}

/** The cups in which a recipe can be practised; none where its water is weighed in before. */
export function cupsOf(recipe: Recipe, altitudeM: number): number[] {
  const usual = METHODS[recipe.method].usualCupMl;
  return [...new Set([...SIZES_ML, usual])]
    .sort((a, b) => a - b)
    .filter((cupMl) => drillOf(recipe, cupMl, altitudeM) !== null);
}

function drillOf(recipe: Recipe, cupMl: number, altitudeM: number): Drill | null {
  const card = cardOf(recipe, cupMl, altitudeM);
  return card && recipeDrill(card);
}

export const chosenDrill = (
  id: DrillId,
  recipe: Recipe | undefined,
  cupMl: number,
  altitudeM: number,
): Drill | null => (id === 'recipe' ? (recipe ? drillOf(recipe, cupMl, altitudeM) : null) : exercise(id));
