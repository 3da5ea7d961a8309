/**
 * The list of keys, over whatever place is open.
 */
import { useEffect, useRef } from 'react';
import { Pressable, View } from 'react-native';
import { SHORTCUTS } from '../device/shortcuts';
import { useTheme } from '../ui/use-theme';
import { Row, Tap } from '../ui/parts';
import { Heading, Text } from '../ui/text';
import { RADIUS } from '../ui/theme';

export function KeysSheet({ onClose }: { onClose: () => void }) {
  const theme = useTheme();
  const close = useRef<View>(null);
  useEffect(() => close.current?.focus(), []);
  return (
    <View
      role="dialog"
      aria-modal
      aria-label="Keys"
      style={{
        position: 'absolute',
        inset: 0,
        zIndex: 10,
        alignItems: 'center',
        justifyContent: 'center',
        padding: 20,
      }}
    >
      <Pressable
        aria-hidden
        tabIndex={-1}
        onPress={onClose}
        style={{ position: 'absolute', inset: 0, backgroundColor: theme.bg, opacity: 0.8 }}
      />
      <View
        style={{
          width: '100%',
          maxWidth: 480,
          backgroundColor: theme.surface,
          borderWidth: 1,
          borderColor: theme.ink2,
          borderRadius: RADIUS,
          padding: 20,
          gap: 6,
        }}
      >
        <Heading>Keys</Heading>
        {SHORTCUTS.map(({ keys, does }) => (
          <Row key={keys} style={{ minHeight: 34 }}>
            <Text bold style={{ width: 112 }}>
              {keys}
            </Text>
            <Text style={{ flex: 1 }}>{does}</Text>
          </Row>
        ))}
        <View ref={close} tabIndex={-1} style={{ alignSelf: 'flex-start', marginTop: 8 }}>
          <Tap label="Close" onPress={onClose} />
        </View>
      </View>
    </View>
  );
}
