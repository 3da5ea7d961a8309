/**
 * A field to search in, with a way to clear it.
 */
import { Searchbar } from 'react-native-paper';
import type { StyleProp, ViewStyle } from 'react-native';
import { FACE, RADIUS } from './theme';
import { useTheme } from './use-theme';

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
    <Searchbar
      placeholder="Search"
      accessibilityLabel={says}
      searchAccessibilityLabel={says}
      clearAccessibilityLabel="Clear the search"
      value={value}
      onChangeText={onChangeText}
      // The sign tells what the field is; the field itself is what is touched.
      icon="search"
      clearIcon="close"
      elevation={0}
      style={[
        {
          height: 56,
          borderRadius: RADIUS,
          borderWidth: 1,
          borderColor: theme.rim,
          backgroundColor: theme.surface,
        },
        style,
      ]}
      inputStyle={{ fontFamily: FACE.regular, fontSize: 15, minHeight: 54, paddingLeft: 0 }}
    />
  );
}
