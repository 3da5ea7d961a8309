import { OneRecipe } from '../../../places/recipes/one-recipe';
import { EditRecipe } from '../../../places/recipes/editor';

export default function Place() {
  return <OneRecipe>{(recipe) => <EditRecipe recipe={recipe} />}</OneRecipe>;
}
