import { RecipesPlace } from '../../places/recipes/later';

export default function Recipes() {
  return <RecipesPlace chosenId={null} />;
}
