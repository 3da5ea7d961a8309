/**
 * One variant of the bar: its hands, its tools and its habits.
 */
import { HABITS, type LabVariant } from '@even-kettle/core/practice';
import { brewerOf, type Bench } from '@even-kettle/core/plan';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Field } from '../../ui/field';
import { Counter } from '../../ui/counter';
import { NumberField } from '../../ui/number-field';
import { Row } from '../../ui/page';
import { Switch } from '../../ui/switch';
import { Subheading, Text } from '../../ui/text';
import { WORDS } from './words';

type Props = {
  bar: Bench;
  variant: LabVariant;
  /** A, B, C ... */
  letter: string;
  fault: string | null;
  onChange: (variant: LabVariant) => void;
  onRemove: (() => void) | null;
  onKeep: () => void;
};

const TOOLS = ['kettles', 'grinders', 'burners'] as const;

export function VariantCard({ bar, variant, letter, fault, onChange, onRemove, onKeep }: Props) {
  const set = (change: Partial<LabVariant>) => onChange({ ...variant, ...change });
  return (
    <Card style={{ gap: 10 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Subheading>{WORDS.variant(letter)}</Subheading>
        <Row style={{ gap: 6 }}>
          <Button label={WORDS.keepVariant} says={WORDS.keepVariantOf(letter)} onPress={onKeep} />
          {onRemove ? (
            <Button label={WORDS.remove} says={WORDS.removeVariant(letter)} kind="bare" onPress={onRemove} />
          ) : null}
        </Row>
      </Row>
      <Field
        label={WORDS.name}
        says={WORDS.nameOf(letter)}
        value={variant.name}
        maxLength={60}
        fault={variant.name.trim() === ''}
        onChangeText={(name) => set({ name })}
      />
      <Text size="small" quiet aria-hidden>
        {WORDS.pairsOfHands}
      </Text>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-end' }}>
        <Choice
          name={WORDS.handsOf(letter)}
          value={String(variant.hands)}
          onChange={(hands) => set({ hands: Number(hands) })}
          options={['1', '2', '3', '4'].map((value) => ({ value, label: value }))}
        />
        <NumberField
          label={WORDS.paceBy}
          value={Math.round(variant.paceBy * 100)}
          fault={!(variant.paceBy >= 0.5 && variant.paceBy <= 2)}
          onChange={(percent) => set({ paceBy: percent / 100 })}
        />
      </Row>
      {Object.entries(variant.stations).map(([brewerId, count]) => (
        <Counter
          key={brewerId}
          name={brewerOf(bar, brewerId)?.name ?? brewerId}
          count={count}
          most={8}
          onCount={(now) => set({ stations: { ...variant.stations, [brewerId]: now } })}
        />
      ))}
      {TOOLS.map((tool) => (
        <Counter
          key={tool}
          name={WORDS.tools[tool]}
          count={variant[tool]}
          most={tool === 'kettles' ? 12 : 6}
          onCount={(now) => set({ [tool]: now })}
        />
      ))}
      {HABITS.map((habit) => (
        <Switch
          key={habit}
          label={WORDS.habits[habit]}
          on={variant[habit]}
          onChange={(on) => set({ [habit]: on })}
        />
      ))}
      {fault ? <Text role="alert">{fault}</Text> : null}
    </Card>
  );
}
