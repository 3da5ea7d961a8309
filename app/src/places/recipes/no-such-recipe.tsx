/**
 * An address that names no recipe.
 */
import { router } from 'expo-router';
import { Button } from '../../ui/button';
import { Notice } from '../../ui/notice';
import { Page } from '../../ui/page';

/** Recipes that ship are known at once; those of this bar come with it. */
export function NoSuchRecipe({ id, loaded }: { id: string; loaded: boolean }) {
  return (
    <Page>
      <Notice
        ruled
        title={loaded ? 'No such recipe' : 'Not here yet'}
        action={<Button label="All recipes" onPress={() => router.replace('/recipes')} />}
      >
        {loaded
          ? `There is no recipe called “${id.slice(0, 40)}” on this bar.`
          : `“${id.slice(0, 40)}” is not one of the recipes that ship; it may come when the bar is reached.`}
      </Notice>
    </Page>
  );
}
