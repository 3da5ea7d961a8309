/**
 * A recipe as a picture that another phone reads.
 */
import { useState } from 'react';
import { setStringAsync } from 'expo-clipboard';
import { router } from 'expo-router';
import { METHODS, type Recipe } from '@even-kettle/core/recipe';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Page, Row } from '../../ui/page';
import { QrPicture } from '../../ui/qr-picture';
import { Snack } from '../../ui/snack';
import { Heading, Text } from '../../ui/text';
import { recipeCode } from './code';
import { WORDS } from './words';

const NO_CLIPBOARD = WORDS.copyingNotAllowed;

export function ShareRecipe({ recipe }: { recipe: Recipe }) {
  const [told, setTold] = useState<string | null>(null);
  const code = recipeCode(recipe, window.location.origin);
  return (
    <Page>
      <Row style={{ justifyContent: 'space-between' }}>
        <Heading style={{ flex: 1 }}>{recipe.name}</Heading>
        <Button
          kind="bare"
          label={WORDS.back}
          onPress={() => router.replace({ pathname: '/recipes/[id]', params: { id: recipe.id } })}
        />
      </Row>
      <Card style={{ alignItems: 'center', gap: 12 }}>
        <QrPicture text={code} size={320} says={WORDS.recipeAsCode} testID="recipe-code" />
        <Text bold>{WORDS.versionForName(METHODS[recipe.method].name, recipe.version)}</Text>
        <Text size="small" quiet style={{ textAlign: 'center' }}>
          {WORDS.pictureHint}
        </Text>
      </Card>
      <Button
        label={WORDS.copyAsText}
        says={WORDS.copyCode}
        onPress={() =>
          void setStringAsync(code).then(
            (done) => setTold(done ? WORDS.theCodeIsCopied : NO_CLIPBOARD),
            () => setTold(NO_CLIPBOARD),
          )
        }
      />
      <Snack text={told} onGone={() => setTold(null)} />
    </Page>
  );
}
