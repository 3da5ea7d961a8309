import { useLocalSearchParams } from 'expo-router';
import { RecipesPlace } from '../../../places/recipes/places';

export default function ChosenRecipe() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <RecipesPlace chosenId={id} />;
}
