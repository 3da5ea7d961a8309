/**
 * A field to type in: its name above, Paper's input below. Paper's own floating label is left out, since it is tied to
 * nothing for a screen reader and grows past a narrow field.
 */
import { View, type StyleProp, type ViewStyle } from 'react-native';
import { TextInput } from 'react-native-paper';
import { useTheme } from './use-theme';
import { Text } from './text';
import { FACE, RADIUS } from './theme';

type Props = {
  label: string;
  /** What a screen reader says; with the unit, where the label leaves it out. */
  says?: string;
  value: string;
  onChangeText: (text: string) => void;
  onFocus?: () => void;
  onBlur?: () => void;
  fault?: boolean;
  /** `figure` for a number that is read across the counter. */
  size?: 'body' | 'figure';
  inputMode?: 'text' | 'numeric' | 'decimal';
  maxLength?: number;
  autoFocus?: boolean;
  multiline?: boolean;
  testID?: string;
  style?: StyleProp<ViewStyle>;
};

export function Field({ label, says, fault, size = 'body', style, ...input }: Props) {
  const theme = useTheme();
  return (
    <View style={[{ gap: 3, minWidth: 0 }, style]}>
      <Text size="small" quiet numberOfLines={1} aria-hidden>
        {label}
      </Text>
      <TextInput
        {...input}
        mode="outlined"
        accessibilityLabel={says ?? label}
        error={fault ?? false}
        outlineStyle={{ borderRadius: RADIUS }}
        style={{ backgroundColor: theme.surface, minWidth: 0, width: '100%' }}
        contentStyle={{
          minWidth: 0,
          paddingHorizontal: 10,
          ...(size === 'figure' ? { fontSize: 20, fontFamily: FACE.bold } : {}),
        }}
      />
    </View>
  );
}
