/**
 * For places about one recipe: the one that the address names, or a word that there is none.
 */
import type { ReactNode } from 'react';
import { useLocalSearchParams } from 'expo-router';
import type { Recipe } from '@even-kettle/core/recipe';
import { useBar } from '../../client/bar-context';
import { NoSuchRecipe } from './no-such-recipe';

export function OneRecipe({ children }: { children: (recipe: Recipe) => ReactNode }) {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { recipes, bar } = useBar();
  const recipe = recipes.find((each) => each.id === id);
  return recipe ? children(recipe) : <NoSuchRecipe id={id} loaded={bar !== null} />;
}
