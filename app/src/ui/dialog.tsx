/**
 * A sheet over the page that wants an answer, or to be read, before anything else.
 */
import { useRef, type ReactNode } from 'react';
import { View } from 'react-native';
import { Dialog as PaperDialog, Portal } from 'react-native-paper';
import { useKeptFocus } from './keep-focus';
import { Heading } from './text';
import { RADIUS } from './theme';
import { useTheme } from './use-theme';

type Props = { title: string; onClose: () => void; children: ReactNode; actions: ReactNode };

export function Dialog({ title, onClose, children, actions }: Props) {
  const theme = useTheme();
  return (
    <Portal>
      <PaperDialog
        visible
        onDismiss={onClose}
        style={{
          width: '92%',
          maxWidth: 480,
          alignSelf: 'center',
          marginHorizontal: 0,
          borderRadius: RADIUS,
          borderWidth: Math.max(1, theme.rimWidth),
          borderColor: theme.ink2,
          backgroundColor: theme.surface,
        }}
      >
        <Sheet title={title} onClose={onClose} actions={actions}>
          {children}
        </Sheet>
      </PaperDialog>
    </Portal>
  );
}

function Sheet({ title, onClose, children, actions }: Props) {
  const box = useRef<View>(null);
  useKeptFocus(box, onClose);
  return (
    <View
      ref={box}
      role="dialog"
      aria-modal
      aria-label={title}
      tabIndex={-1}
      style={{ padding: 20, gap: 10 }}
    >
      <Heading>{title}</Heading>
      {children}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10, marginTop: 8 }}>{actions}</View>
    </View>
  );
}
