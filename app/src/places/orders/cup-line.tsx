/**
 * A cup off the menu in a line: what it is, its size by a tap, and the way to change anything else.
 */
import { View } from 'react-native';
import { inWords, showVolume } from '@even-kettle/core/units';
import { METHODS } from '@even-kettle/core/recipe';
import { cupInWords } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { Wishes } from '../../parts/wishes';
import { type Counter, type Draft, type DraftRead } from '../../parts/orders/cup-draft';
import { sizeText } from '../../words/size-text';
import { WORDS } from '../../parts/orders/words';

type Props = {
  number: number;
  draft: Draft;
  read: DraftRead;
  sizesMl: number[];
  counter: Counter;
  onChange: (key: string, part: Partial<Draft>) => void;
  onOpen: () => void;
  onRemove: (key: string) => void;
};

export function CupLine({ number, draft, read, sizesMl, counter, onChange, onOpen, onRemove }: Props) {
  const { bar, menu, units } = counter;
  const recipe = menu.find(({ id }) => id === draft.recipeId);
  const offered = bar.menu?.find(
    ({ coffeeId, recipeId }) => coffeeId === draft.coffeeId && recipeId === draft.recipeId,
  );
  return (
    <Card style={{ paddingVertical: 8, gap: 6 }} ruled={!read.ok}>
      <Row>
        <View style={{ flex: 1, minWidth: 0 }} testID="cup-line">
          <Text bold numberOfLines={1}>
            {read.ok ? cupInWords(read.cup, units) : WORDS.cup(number)}
          </Text>
          <Text size="small" quiet numberOfLines={1}>
            {recipe ? METHODS[recipe.method].name : ''}
          </Text>
          {read.ok ? (
            <Wishes cup={read.cup} />
          ) : (
            <Text role="alert" bold>
              {read.reason}
            </Text>
          )}
        </View>
        <Button label={WORDS.change} says={WORDS.changeCup(number)} kind="bare" onPress={onOpen} />
        <Button
          kind="bare"
          icon="close"
          label=""
          says={WORDS.removeCup(number)}
          onPress={() => onRemove(draft.key)}
        />
      </Row>
      <Row style={{ gap: 6, flexWrap: 'wrap' }}>
        {(offered?.sizesMl ?? sizesMl).map((ml) => {
          const text = sizeText(ml, units);
          return (
            <Button
              key={ml}
              label={text}
              says={WORDS.forCup(inWords(showVolume(ml, units)), number)}
              kind={text === draft.sizeText ? 'chosen' : 'plain'}
              onPress={() => onChange(draft.key, { sizeText: text })}
            />
          );
        })}
      </Row>
    </Card>
  );
}
