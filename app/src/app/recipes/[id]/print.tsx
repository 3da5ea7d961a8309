import { OneRecipe } from '../../../places/recipes/one-recipe';
import { PrintRecipe } from '../../../places/recipes/print';

export default function Place() {
  return <OneRecipe>{(recipe) => <PrintRecipe recipe={recipe} />}</OneRecipe>;
}
