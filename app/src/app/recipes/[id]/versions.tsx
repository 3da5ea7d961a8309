import { OneRecipe } from '../../../places/recipes/one-recipe';
import { RecipeVersions } from '../../../places/recipes/versions';

export default function Place() {
  return <OneRecipe>{(recipe) => <RecipeVersions recipe={recipe} />}</OneRecipe>;
}
