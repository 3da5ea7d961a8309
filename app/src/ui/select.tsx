/**
 * One of many, where a row of buttons would be too long: the browser's own list, which every thumb and reader knows.
 */
import { createElement } from 'react';
import { View, type StyleProp, type ViewStyle } from 'react-native';
import { useTheme } from './use-theme';
import { nativeField } from './native-field';
import { Text } from './text';

type Props<Value extends string> = {
  label: string;
  says?: string;
  value: Value;
  options: readonly { value: Value; label: string }[];
  onChange: (value: Value) => void;
  testID?: string;
  style?: StyleProp<ViewStyle>;
};

export function Select<Value extends string>({
  label,
  says,
  value,
  options,
  onChange,
  testID,
  style,
}: Props<Value>) {
  const theme = useTheme();
  return (
    <View style={[{ gap: 3, minWidth: 0 }, style]}>
      <Text size="small" quiet numberOfLines={1} aria-hidden>
        {label}
      </Text>
      {createElement(
        'select',
        {
          'aria-label': says ?? label,
          'data-testid': testID,
          value,
          onChange: (event: { target: { value: string } }) => onChange(event.target.value as Value),
          style: nativeField(theme),
        },
        options.map((option) =>
          createElement('option', { key: option.value, value: option.value }, option.label),
        ),
      )}
    </View>
  );
}
