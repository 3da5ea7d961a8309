/**
 * An address that names no recipe.
 */
import { router } from 'expo-router';
import { Button } from '../../ui/button';
import { Notice } from '../../ui/notice';
import { Page } from '../../ui/page';
import { WORDS } from './words';

/** Recipes that ship are known at once; those of this bar come with it. */
export function NoSuchRecipe({ id, loaded }: { id: string; loaded: boolean }) {
  return (
    <Page>
      <Notice
        ruled
        title={loaded ? WORDS.noSuchRecipe : WORDS.notHereYet}
        action={<Button label={WORDS.allRecipes} onPress={() => router.replace('/recipes')} />}
      >
        {loaded ? WORDS.noRecipeCalled(id.slice(0, 40)) : WORDS.notShippedRecipe(id.slice(0, 40))}
      </Notice>
    </Page>
  );
}
