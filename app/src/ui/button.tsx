/**
 * A button of ink on enamel. The flame is not for buttons like these: it is the hands card's alone.
 */
import { StyleSheet, type StyleProp, type ViewStyle } from 'react-native';
import { Button as PaperButton, IconButton } from 'react-native-paper';
import { Icon } from './icons';
import { FACE, RADIUS, TOUCH, type Theme } from './theme';
import { useTheme } from './use-theme';

/** `main` is the one that a page is for; `chosen` stays pressed; `ruled` cannot be taken back; `bare` has no rim. */
export type ButtonKind = 'plain' | 'main' | 'chosen' | 'ruled' | 'bare';

type Props = {
  /** Left out, the icon stands alone, and `says` is its name. */
  label: string;
  onPress: () => void;
  /** While the finger is down, for what goes on as long as it is. */
  onPressIn?: () => void;
  onPressOut?: () => void;
  /** What a screen reader says, where the label alone would not do. */
  says?: string;
  kind?: ButtonKind;
  icon?: string;
  disabled?: boolean;
  testID?: string;
  style?: StyleProp<ViewStyle>;
};

export function Button({ label, says, kind = 'plain', icon, disabled = false, style, ...rest }: Props) {
  const theme = useTheme();
  const { button, ink } = looksOf(kind, theme);
  const drawn = ({ size, color }: { size: number; color: string }) => (
    <Icon name={icon ?? ''} size={size} color={color} />
  );
  if (label === '' && icon)
    return (
      <IconButton
        {...rest}
        icon={drawn}
        size={20}
        iconColor={ink}
        disabled={disabled}
        accessibilityLabel={says ?? label}
        style={[{ width: TOUCH + 2, height: TOUCH + 2, borderRadius: RADIUS, margin: 0 }, button, style]}
      />
    );
  const { height, minHeight } = StyleSheet.flatten(style) ?? {};
  const leastH = typeof minHeight === 'number' ? Math.max(TOUCH, minHeight - 2) : TOUCH;
  return (
    <PaperButton
      {...rest}
      mode={kind === 'main' ? 'contained' : 'outlined'}
      compact
      icon={icon ? drawn : undefined}
      disabled={disabled}
      buttonColor={disabled ? undefined : (button.backgroundColor as string)}
      textColor={disabled ? undefined : ink}
      accessibilityLabel={says ?? label}
      style={[{ borderRadius: RADIUS, minWidth: TOUCH }, button, disabled && { opacity: 0.6 }, style]}
      contentStyle={{ minHeight: leastH, ...(typeof height === 'number' ? { height: height - 2 } : {}) }}
      labelStyle={{
        fontFamily: kind === 'main' ? FACE.bold : FACE.regular,
        fontSize: theme.isAcross ? 18 : 15,
        lineHeight: theme.isAcross ? 25 : 21,
        letterSpacing: 0,
        marginHorizontal: kind === 'bare' ? 8 : 12,
        marginVertical: 6,
      }}
    >
      {label}
    </PaperButton>
  );
}

/** The rim and ground of a kind of button, and the colour of what stands on it. */
function looksOf(kind: ButtonKind, theme: Theme): { button: ViewStyle; ink: string } {
  const ink = kind === 'main' ? theme.surface : theme.ink;
  const rim: Record<ButtonKind, ViewStyle> = {
    plain: { borderWidth: 1, borderColor: theme.rim, backgroundColor: 'transparent' },
    main: { borderWidth: 1, borderColor: theme.ink, backgroundColor: theme.ink },
    chosen: { borderWidth: 1, borderColor: theme.ink, backgroundColor: theme.coolPale },
    ruled: { borderWidth: 1, borderColor: theme.ink2, borderStyle: 'dashed', backgroundColor: 'transparent' },
    bare: { borderWidth: 0, backgroundColor: 'transparent' },
  };
  return { button: rim[kind], ink };
}
