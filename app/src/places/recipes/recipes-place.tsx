/**
 * Recipes: the list, and beside it or in its place the chosen one.
 */
import { View, useWindowDimensions } from 'react-native';
import { router } from 'expo-router';
import { useBar } from '../../bar/bar-context';
import { Notice, Page, Tap } from '../../ui/parts';
import { WIDE } from '../../ui/theme';
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

/** Recipes that ship are known at once; those of this bar come with it. */
export function NoSuchRecipe({ id, loaded }: { id: string; loaded: boolean }) {
  return (
    <Page>
      <Notice
        ruled
        title={loaded ? 'No such recipe' : 'Not here yet'}
        action={<Tap label="All recipes" onPress={() => router.replace('/recipes')} />}
      >
        {loaded
          ? `There is no recipe called “${id.slice(0, 40)}” on this bar.`
          : `“${id.slice(0, 40)}” is not one of the recipes that ship; it may come when the bar is reached.`}
      </Notice>
    </Page>
  );
}
