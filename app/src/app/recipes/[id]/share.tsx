import { OneRecipe } from '../../../places/recipes/one-recipe';
import { ShareRecipe } from '../../../places/recipes/share';

export default function Place() {
  return <OneRecipe>{(recipe) => <ShareRecipe recipe={recipe} />}</OneRecipe>;
}
