/**
 * A field to search in, with a way to clear it. Paper's own search bar has a button of 40 px that does nothing, under the
 * name of the field.
 */
import { View, type StyleProp, type ViewStyle } from 'react-native';
import { TextInput } from 'react-native-paper';
import { Button } from './button';
import { Icon } from './icons';
import { FACE, RADIUS } from './theme';
import { useTheme } from './use-theme';
import { WORDS } from './words';

type Props = {
  /** What is searched, for a screen reader: "Search the log". */
  says: string;
  value: string;
  onChangeText: (text: string) => void;
  style?: StyleProp<ViewStyle>;
};

export function Search({ says, value, onChangeText, style }: Props) {
  const theme = useTheme();
  return (
    <View
      style={[
        {
          flexDirection: 'row',
          alignItems: 'center',
          height: 56,
          paddingLeft: 12,
          borderRadius: RADIUS,
          borderWidth: 1,
          borderColor: theme.rim,
          backgroundColor: theme.surface,
        },
        style,
      ]}
    >
      <Icon name="search" size={20} color={theme.ink2} />
      <TextInput
        dense
        mode="flat"
        inputMode="search"
        placeholder={WORDS.search}
        accessibilityLabel={says}
        value={value}
        onChangeText={onChangeText}
        underlineStyle={{ height: 0 }}
        style={{ flex: 1, minWidth: 0, height: 54, backgroundColor: 'transparent' }}
        contentStyle={{ fontFamily: FACE.regular, fontSize: 15, paddingHorizontal: 8 }}
      />
      {value === '' ? null : (
        <Button
          icon="close"
          label=""
          kind="bare"
          says={WORDS.clearTheSearch}
          onPress={() => onChangeText('')}
        />
      )}
    </View>
  );
}
