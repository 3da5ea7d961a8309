/**
 * How many of something: a name, with a drawing or none, and a button on each side of the count.
 */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Button } from './button';
import { Row } from './page';
import { Text } from './text';
import { WORDS } from './words';

type Props = {
  name: string;
  detail?: string;
  count: number;
  onCount: (count: number) => void;
  most?: number;
  children?: ReactNode;
};

export function Counter({ name, detail = '', count, onCount, most = 8, children }: Props) {
  return (
    <Row style={{ minHeight: 56, gap: 10 }}>
      {children}
      <View style={{ flex: 1 }}>
        <Text bold={count > 0}>{name}</Text>
        {detail === '' ? null : (
          <Text size="small" quiet>
            {detail}
          </Text>
        )}
      </View>
      <Button
        label=""
        icon="minus"
        says={WORDS.oneLess(name)}
        disabled={count === 0}
        onPress={() => onCount(count - 1)}
      />
      <Text size="clock" aria-label={`${name}: ${count}`} style={{ minWidth: 28, textAlign: 'center' }}>
        {count}
      </Text>
      <Button
        label=""
        icon="plus"
        says={WORDS.oneMore(name)}
        disabled={count >= most}
        onPress={() => onCount(count + 1)}
      />
    </Row>
  );
}
