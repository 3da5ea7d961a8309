/**
 * A sheet of enamel with a thin rim, on which things that belong together stand.
 */
import type { ReactNode } from 'react';
import { View, type StyleProp, type ViewStyle } from 'react-native';
import { Surface } from 'react-native-paper';
import { RADIUS } from './theme';
import { useTheme } from './use-theme';

type Props = {
  children: ReactNode;
  style?: StyleProp<ViewStyle>;
  /** With the sign of errors and of what cannot be taken back. */
  ruled?: boolean;
};

export function Card({ children, style, ruled }: Props) {
  const theme = useTheme();
  return (
    <Surface
      mode="flat"
      elevation={0}
      style={[
        {
          backgroundColor: theme.surface,
          borderColor: theme.rim,
          borderWidth: theme.rimWidth,
          borderRadius: RADIUS,
          padding: 14,
          gap: 8,
          overflow: 'hidden',
        },
        style,
      ]}
    >
      {ruled ? <RuledEdge /> : null}
      {children}
    </Surface>
  );
}

/** A hatched edge in ink, never a second hot colour. */
function RuledEdge() {
  const theme = useTheme();
  const hatch = {
    backgroundImage: `repeating-linear-gradient(135deg,${theme.ink} 0 3px,transparent 3px 7px)`,
  };
  return (
    <View
      aria-hidden
      style={[{ position: 'absolute', left: 0, top: 0, bottom: 0, width: 7 }, hatch as ViewStyle]}
    />
  );
}
