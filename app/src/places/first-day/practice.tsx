/**
 * A practice brew with water only: the real hands card over a bar of the page's own, at its own pace.
 */
import { useState } from 'react';
import { brewerOf } from '@even-kettle/core/plan';
import { METHODS } from '@even-kettle/core/recipe';
import type { Bar } from '@even-kettle/core/contract';
import { useBar } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Text } from '../../ui/text';
import { OneRun } from '../../parts/one-run';
import { WORDS } from './words';

export function Practice({ bar, onDone }: { bar: Bar; onDone: () => void }) {
  const { recipes } = useBar();
  const here = recipes.filter(({ method }) =>
    bar.stations.some(({ brewerId }) => brewerOf(bar, brewerId)?.method === method),
  );
  const [recipeId, setRecipeId] = useState(here[0]?.id ?? '');
  const [run, setRun] = useState<number | null>(null);
  const recipe = here.find(({ id }) => id === recipeId) ?? here[0];
  if (!recipe) return <Text>{WORDS.practiceNeedsABrewer}</Text>;
  if (run === null)
    return (
      <>
        <Text quiet>{WORDS.practiceIntro}</Text>
        <Select
          label={WORDS.practiceWith}
          value={recipe.id}
          onChange={setRecipeId}
          options={here.map(({ id, name, method }) => ({
            value: id,
            label: `${METHODS[method].name}: ${name}`,
          }))}
        />
        <Row>
          <Button kind="main" label={WORDS.beginPractice} onPress={() => setRun(0)} testID="begin-practice" />
        </Row>
      </>
    );
  const water = { id: 'water', name: WORDS.waterOnly, roast: 'medium' as const, notes: '', decaf: false };
  return (
    <>
      <Text bold>{WORDS.practiceBrew}</Text>
      <Text size="small" quiet>
        {WORDS.practiceHint}
      </Text>
      <OneRun
        key={run}
        recipe={recipe}
        real={{ ...bar, coffees: [water] }}
        byHand
        onAgain={() => setRun(run + 1)}
        onBack={() => {
          setRun(null);
          onDone();
        }}
      />
    </>
  );
}
