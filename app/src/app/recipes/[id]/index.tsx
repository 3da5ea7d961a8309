import { useLocalSearchParams } from 'expo-router';
import { RecipesPlace } from '../../../places/recipes/later';

export default function ChosenRecipe() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <RecipesPlace chosenId={id} />;
}
