import { RecipeVersions } from '../../../places/recipes/places';
import { OneRecipe } from '../../../places/recipes/one-recipe';

export default function Place() {
  return <OneRecipe>{(recipe) => <RecipeVersions recipe={recipe} />}</OneRecipe>;
}
