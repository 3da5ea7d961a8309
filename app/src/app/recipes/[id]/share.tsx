import { ShareRecipe } from '../../../places/recipes/places';
import { OneRecipe } from '../../../places/recipes/one-recipe';

export default function Place() {
  return <OneRecipe>{(recipe) => <ShareRecipe recipe={recipe} />}</OneRecipe>;
}
