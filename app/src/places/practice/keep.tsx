/**
 * Keeps what was practised where others see it. Nothing leaves the device by itself.
 */
import { useState } from 'react';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { WORDS } from './words';

type Props = {
  /** Null where nobody practises who could wish it. */
  onRecord: (() => Promise<void>) | null;
  /** Leaves a pour for others to follow. */
  onFollow?: (() => Promise<void>) | null;
};

export function Keep({ onRecord, onFollow = null }: Props) {
  const [said, setSaid] = useState<string | null>(null);
  const keep = (what: () => Promise<void>, done: string) => () =>
    void what().then(
      () => setSaid(done),
      () => setSaid(WORDS.couldNotKeep),
    );
  return (
    <Card>
      <Text size="small" quiet>
        {onRecord ? WORDS.onlyHere : WORDS.chooseWho}
      </Text>
      <Row style={{ flexWrap: 'wrap' }}>
        {onRecord ? (
          <Button label={WORDS.keepOnRecord} onPress={keep(onRecord, WORDS.keptOnRecord)} testID="keep-try" />
        ) : null}
        {onFollow ? (
          <Button label={WORDS.useAsTrainers} onPress={keep(onFollow, WORDS.othersFollow)} />
        ) : null}
      </Row>
      {said ? <Text role="status">{said}</Text> : null}
    </Card>
  );
}
