/**
 * A small whole number with a button on each side.
 */
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { WORDS } from './words';

type Props = { name: string; value: number; least?: number; most: number; onChange: (value: number) => void };

export const Stepper = ({ name, value, least = 0, most, onChange }: Props) => (
  <Row style={{ gap: 6 }}>
    <Text style={{ flex: 1, minWidth: 0 }}>{name}</Text>
    <Button
      label=""
      icon="minus"
      says={WORDS.fewer(name)}
      disabled={value <= least}
      onPress={() => onChange(value - 1)}
    />
    <Text bold style={{ minWidth: 26, textAlign: 'center' }} aria-label={`${name}: ${value}`}>
      {value}
    </Text>
    <Button
      label=""
      icon="plus"
      says={WORDS.more(name)}
      disabled={value >= most}
      onPress={() => onChange(value + 1)}
    />
  </Row>
);
