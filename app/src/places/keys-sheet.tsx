/**
 * The list of keys, over whatever place is open.
 */
import { SHORTCUTS } from '../device/shortcuts';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { Row } from '../ui/page';
import { Text } from '../ui/text';
import { WORDS } from './words';

export const KeysSheet = ({ onClose }: { onClose: () => void }) => (
  <Dialog title={WORDS.keys} onClose={onClose} actions={<Button label={WORDS.close} onPress={onClose} />}>
    {SHORTCUTS.map(({ keys, does }) => (
      <Row key={keys} style={{ minHeight: 34 }}>
        <Text bold style={{ width: 112 }}>
          {keys}
        </Text>
        <Text style={{ flex: 1 }}>{does}</Text>
      </Row>
    ))}
  </Dialog>
);
