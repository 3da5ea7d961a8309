/**
 * What differs between two versions, each in a line: from what to what.
 */
import { View } from 'react-native';
import type { Change } from '@even-kettle/core/recipe';
import { useTheme } from '../../ui/use-theme';
import { Text } from '../../ui/text';

export function ChangeList({ changes }: { changes: readonly Change[] }) {
  const theme = useTheme();
  return changes.map(({ field, before, after }) => (
    <View key={field} style={{ borderLeftWidth: 3, borderColor: theme.rim, paddingLeft: 8 }}>
      <Text size="small" quiet>
        {fieldInWords(field)}
      </Text>
      <Text size="small">
        {before === undefined ? 'not set' : String(before)} →{' '}
        {after === undefined ? 'not set' : String(after)}
      </Text>
    </View>
  ));
}

const WORDS: Record<string, string> = {
  refDoseG: 'reference dose, g',
  waterC: 'water, °C',
  grindBand: 'grind band',
  bypassTimesDose: 'bypass, times the dose',
  endWindowS: 'end window, s',
  flowGPerS: 'flow, g/s',
  toShare: 'up to a share of the water',
  timesDose: 'times the dose',
  restParts: 'equal parts of the rest',
  atS: 'starts at, s',
  afterS: 'waits, s',
  untilS: 'lasts until, s',
};

/** `steps.bloom.pour.flowGPerS` as "bloom, pour, flow, g/s". */
const fieldInWords = (field: string): string =>
  field
    .split('.')
    .filter((part, index) => part !== 'steps' || field === 'steps' || index > 0)
    .map((part) => WORDS[part] ?? part)
    .join(', ');
