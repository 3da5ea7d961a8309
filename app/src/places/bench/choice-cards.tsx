/**
 * What is chosen with one tap: pairs of hands, when a cup is tasted, the theme of this device.
 */
import type { Bar } from '@even-kettle/core/contract';
import { useThemeChoice, type ThemeChoice } from '../../ui/use-theme';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Subheading, Text } from '../../ui/text';
import { Failure } from './list-card';
import { useChange } from './use-change';
import { WORDS } from './words';

/** How many pairs of hands the bar is planned for. */
export function HandsChoice({ bar }: { bar: Bar }) {
  const change = useChange();
  return (
    <Card>
      <Subheading>{WORDS.hands}</Subheading>
      <Choice
        name={WORDS.pairsOfHands}
        value={String(bar.hands)}
        onChange={(hands) => change.mutate({ hands: Number(hands) })}
        options={[
          { value: '1', label: WORDS.onePair },
          { value: '2', label: WORDS.twoPairs },
        ]}
      />
      <Failure error={change.error} />
    </Card>
  );
}

/** When a cup is asked after: it has to cool before it can be judged. */
export function TasteCard({ bar }: { bar: Bar }) {
  const change = useChange();
  return (
    <Card>
      <Subheading>{WORDS.tasting}</Subheading>
      <Text quiet size="small">
        {WORDS.aCupIsAskedAfterOnce}
      </Text>
      <Choice
        name={WORDS.minutesToCool}
        value={String(bar.tasteAfterMin)}
        onChange={(minutes) => change.mutate({ tasteAfterMin: Number(minutes) })}
        options={['5', '7', '10', '15'].map((value) => ({ value, label: WORDS.min(value) }))}
      />
      <Failure error={change.error} />
    </Card>
  );
}

export function LookCard() {
  const { choice, choose } = useThemeChoice();
  const options: { value: ThemeChoice; label: string }[] = [
    { value: 'auto', label: WORDS.asTheDevice },
    { value: 'day', label: WORDS.day },
    { value: 'evening', label: WORDS.evening },
    { value: 'sun', label: WORDS.strongSun },
  ];
  return (
    <Card>
      <Subheading>{WORDS.lookOfThisDevice}</Subheading>
      <Choice name={WORDS.look} value={choice} onChange={choose} options={options} />
    </Card>
  );
}
