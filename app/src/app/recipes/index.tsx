import { RecipesPlace } from '../../places/recipes/places';

export default function Recipes() {
  return <RecipesPlace chosenId={null} />;
}
