/**
 * Anything that is touched and is no button by its looks: a row that opens, a tile, a figure. Ripple, hover and keyboard
 * come from Paper.
 */
import type { KeyboardEvent, ReactNode, Ref } from 'react';
import type { PressableProps, View } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { useTheme } from './use-theme';

export type TouchProps = Omit<PressableProps, 'children' | 'disabled'> & {
  children?: ReactNode;
  disabled?: boolean;
  ref?: Ref<View>;
  /** The web's own: React Native's types know no keys. */
  onKeyDown?: (event: KeyboardEvent) => void;
};

export function Touch({ children, onPress, onPressIn, onPressOut, onLongPress, ...rest }: TouchProps) {
  const theme = useTheme();
  return (
    <TouchableRipple
      {...rest}
      onPress={onPress ?? undefined}
      onLongPress={onLongPress ?? undefined}
      onPressIn={onPressIn ?? undefined}
      onPressOut={onPressOut ?? undefined}
      rippleColor={theme.coolPale}
    >
      <>{children}</>
    </TouchableRipple>
  );
}
