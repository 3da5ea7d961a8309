/**
 * A recipe as a picture that another phone reads.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { setStringAsync } from 'expo-clipboard';
import Svg, { Path, Rect } from 'react-native-svg';
import { router } from 'expo-router';
import { create } from 'qrcode';
import { METHODS, type Recipe } from '@even-kettle/core/recipe';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Page, Row } from '../../ui/page';
import { Snack } from '../../ui/snack';
import { Heading, Text } from '../../ui/text';
import { PAPER } from '../../ui/theme';
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
        <QrPicture text={code} size={320} />
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

/** Dark on light in both looks: a camera wants it so. */
export function QrPicture({ text, size }: { text: string; size: number }) {
  const { modules } = create(text, { errorCorrectionLevel: 'L' });
  const margin = 3;
  const side = modules.size + 2 * margin;
  const dark = Array.from(modules.data, (on, index) =>
    on ? `M${(index % modules.size) + margin} ${Math.floor(index / modules.size) + margin}h1v1h-1z` : '',
  ).join('');
  return (
    <View role="img" aria-label={WORDS.recipeAsCode} testID="recipe-code">
      <Svg width={size} height={size} viewBox={`0 0 ${side} ${side}`}>
        <Rect width={side} height={side} fill={PAPER.bg} />
        <Path d={dark} fill={PAPER.ink} />
      </Svg>
    </View>
  );
}
