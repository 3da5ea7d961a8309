/**
 * The way out of a form: at once while nothing has been changed; else it asks first whether what was typed is thrown away.
 */
import { useState } from 'react';
import { Button } from './button';
import { Row } from './page';
import { Text } from './text';
import { WORDS } from './words';

type Props = { label: string; changed: boolean; onLeave: () => void; icon?: string };

export function LeaveTap({ label, changed, onLeave, icon }: Props) {
  const [asking, setAsking] = useState(false);
  if (!asking || !changed)
    return (
      <Button
        kind="bare"
        {...(icon ? { icon } : {})}
        label={label}
        onPress={() => (changed ? setAsking(true) : onLeave())}
      />
    );
  return (
    <Row style={{ flexWrap: 'wrap', gap: 6 }}>
      <Text role="alert">{WORDS.discardWhatYouChanged}</Text>
      <Button kind="ruled" label={WORDS.discard} onPress={onLeave} />
      <Button label={WORDS.keepEditing} onPress={() => setAsking(false)} />
    </Row>
  );
}
