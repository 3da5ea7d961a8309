/**
 * A word about something that has just been done, which goes by itself: copied, saved.
 */
import { Portal, Snackbar } from 'react-native-paper';
import { useTheme } from './use-theme';
import { RADIUS } from './theme';

/** How long it stays, milliseconds. */
const STAYS_MS = 4000;

type Props = { text: string | null; onGone: () => void };

export function Snack({ text, onGone }: Props) {
  const theme = useTheme();
  return (
    <Portal>
      <Snackbar
        visible={text !== null}
        onDismiss={onGone}
        duration={STAYS_MS}
        role="status"
        style={{ borderRadius: RADIUS, backgroundColor: theme.ink, marginBottom: 72 }}
        theme={{ colors: { inverseOnSurface: theme.surface } }}
      >
        {text ?? ''}
      </Snackbar>
    </Portal>
  );
}
