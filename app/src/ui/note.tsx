/**
 * A line across the page that stays until it is no longer true, or is closed.
 */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Surface } from 'react-native-paper';
import { Text } from './text';
import { useTheme } from './use-theme';

export function Note({ children, action }: { children: string; action?: ReactNode }) {
  const theme = useTheme();
  return (
    <Surface
      mode="flat"
      elevation={0}
      style={{
        marginHorizontal: 12,
        marginTop: 4,
        paddingLeft: 14,
        borderLeftWidth: 6,
        borderColor: theme.ink,
        backgroundColor: theme.surface,
      }}
    >
      <View role="alert" style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Text style={{ flex: 1, paddingVertical: 8 }}>{children}</Text>
        {action}
      </View>
    </Surface>
  );
}
