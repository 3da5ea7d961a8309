/**
 * Recipes: the list, and beside it or in its place the chosen one.
 */
import { View, useWindowDimensions } from 'react-native';
import { useBar } from '../../client/bar-context';
import { Page } from '../../ui/page';
import { WIDE } from '../../ui/theme';
import { NoSuchRecipe } from './no-such-recipe';
import { RecipeList } from './recipe-list';
import { RecipePage } from './recipe-page';

export function RecipesPlace({ chosenId }: { chosenId: string | null }) {
  const { recipes, bar } = useBar();
  const wide = useWindowDimensions().width >= WIDE;
  const chosen = recipes.find(({ id }) => id === chosenId);
  if (chosenId !== null && !chosen) return <NoSuchRecipe id={chosenId} loaded={bar !== null} />;
  const shown = chosen ?? (wide ? recipes[0] : undefined);
  if (!wide)
    return (
      <Page key={shown?.id ?? 'all'}>
        {shown ? (
          <RecipePage key={shown.id} recipe={shown} back />
        ) : (
          <RecipeList recipes={recipes} chosenId={null} />
        )}
      </Page>
    );
  return (
    <View style={{ flex: 1, flexDirection: 'row' }}>
      <View style={{ flex: 2, minWidth: 0 }}>
        <Page>
          <RecipeList recipes={recipes} chosenId={shown?.id ?? null} />
        </Page>
      </View>
      <View style={{ flex: 3, minWidth: 0 }}>
        <Page key={shown?.id}>{shown ? <RecipePage key={shown.id} recipe={shown} /> : null}</Page>
      </View>
    </View>
  );
}
