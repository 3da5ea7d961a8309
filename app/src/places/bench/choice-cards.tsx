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

/** How many pairs of hands the bar is planned for. */
export function HandsChoice({ bar }: { bar: Bar }) {
  const change = useChange();
  return (
    <Card>
      <Subheading>Hands</Subheading>
      <Choice
        name="Pairs of hands"
        value={String(bar.hands)}
        onChange={(hands) => change.mutate({ hands: Number(hands) })}
        options={[
          { value: '1', label: 'One pair' },
          { value: '2', label: 'Two pairs' },
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
      <Subheading>Tasting</Subheading>
      <Text quiet size="small">
        A cup is asked after once it has cooled for so long.
      </Text>
      <Choice
        name="Minutes to cool"
        value={String(bar.tasteAfterMin)}
        onChange={(minutes) => change.mutate({ tasteAfterMin: Number(minutes) })}
        options={['5', '7', '10', '15'].map((value) => ({ value, label: `${value} min` }))}
      />
      <Failure error={change.error} />
    </Card>
  );
}

export function LookCard() {
  const { choice, choose } = useThemeChoice();
  const options: { value: ThemeChoice; label: string }[] = [
    { value: 'auto', label: 'As the device' },
    { value: 'day', label: 'Day' },
    { value: 'evening', label: 'Evening' },
    { value: 'sun', label: 'Strong sun' },
  ];
  return (
    <Card>
      <Subheading>Look of this device</Subheading>
      <Choice name="Look" value={choice} onChange={choose} options={options} />
    </Card>
  );
}
