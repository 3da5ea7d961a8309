import { ShowMe } from '../../../places/recipes/places';
import { OneRecipe } from '../../../places/recipes/one-recipe';

export default function Place() {
  return <OneRecipe>{(recipe) => <ShowMe recipe={recipe} />}</OneRecipe>;
}
