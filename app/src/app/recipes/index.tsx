import { RecipesPlace } from '../../places/recipes/recipes-place';

export default function Recipes() {
  return <RecipesPlace chosenId={null} />;
}
