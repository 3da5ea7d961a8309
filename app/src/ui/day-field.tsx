/**
 * A day, by the browser's own picker.
 */
import { createElement } from 'react';
import { View, type StyleProp, type ViewStyle } from 'react-native';
import { useTheme } from './use-theme';
import { nativeField } from './native-field';
import { Text } from './text';

type Props = {
  label: string;
  /** ISO, like 2026-11-20; empty for none. */
  value: string;
  onChange: (day: string) => void;
  style?: StyleProp<ViewStyle>;
};

export function DayField({ label, value, onChange, style }: Props) {
  const theme = useTheme();
  return (
    <View style={[{ gap: 3, minWidth: 0 }, style]}>
      <Text size="small" quiet numberOfLines={1} aria-hidden>
        {label}
      </Text>
      {createElement('input', {
        type: 'date',
        'aria-label': label,
        value,
        onChange: (event: { target: { value: string } }) => onChange(event.target.value),
        style: nativeField(theme),
      })}
    </View>
  );
}
