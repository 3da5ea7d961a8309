/**
 * What differs between two versions, each in a line: from what to what.
 */
import { View } from 'react-native';
import type { Change } from '@even-kettle/core/recipe';
import { useTheme } from '../../ui/use-theme';
import { Text } from '../../ui/text';
import { WORDS } from './words';

export function ChangeList({ changes }: { changes: readonly Change[] }) {
  const theme = useTheme();
  return changes.map(({ field, before, after }) => (
    <View key={field} style={{ borderLeftWidth: 3, borderColor: theme.rim, paddingLeft: 8 }}>
      <Text size="small" quiet>
        {fieldInWords(field)}
      </Text>
      <Text size="small">
        {before === undefined ? WORDS.notSet : String(before)} →{' '}
        {after === undefined ? WORDS.notSet : String(after)}
      </Text>
    </View>
  ));
}

const FIELD_WORDS: Record<string, string> = {
  refDoseG: WORDS.referenceDoseG,
  waterC: WORDS.waterC,
  grindBand: WORDS.grindBand,
  bypassTimesDose: WORDS.bypassTimesTheDose,
  endWindowS: WORDS.endWindowS,
  flowGPerS: WORDS.flowGS,
  toShare: WORDS.upToShare,
  timesDose: WORDS.timesTheDose,
  restParts: WORDS.equalParts,
  atS: WORDS.startsAtS,
  afterS: WORDS.waitsS,
  untilS: WORDS.lastsUntilS,
};

/** `steps.bloom.pour.flowGPerS` as "bloom, pour, flow, g/s". */
const fieldInWords = (field: string): string =>
  field
    .split('.')
    .filter((part, index) => part !== 'steps' || field === 'steps' || index > 0)
    .map((part) => FIELD_WORDS[part] ?? part)
    .join(', ');
