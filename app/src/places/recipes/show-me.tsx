/**
 * Show me: the whole method as a silent run of the hands card, by a bar of its own, before the first real brew.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import type { Recipe } from '@even-kettle/core/recipe';
import { useBar } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Loading } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { OneRun } from '../../parts/one-run';
import { WORDS } from './words';

export function ShowMe({ recipe }: { recipe: Recipe }) {
  const { bar } = useBar();
  const [run, setRun] = useState(0);
  const back = () => router.replace({ pathname: '/recipes/[id]', params: { id: recipe.id } });
  return (
    <Page>
      <Row style={{ justifyContent: 'space-between' }}>
        <View style={{ flex: 1 }}>
          <Subheading>{WORDS.showMeFor(recipe.name)}</Subheading>
          <Text size="small" quiet>
            {WORDS.aSilentRun}
          </Text>
        </View>
        <Button kind="bare" icon="close" label="" says={WORDS.close} onPress={back} />
      </Row>
      {bar === null ? (
        <Loading what={WORDS.theRun} height={330} />
      ) : (
        <OneRun key={run} recipe={recipe} real={bar} onAgain={() => setRun(run + 1)} onBack={back} />
      )}
    </Page>
  );
}
