/**
 * A large order whose cups do not come out together: it can be taken in waves, each with a promise of its own.
 */
import { View } from 'react-native';
import { clockTime } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Text } from '../../ui/text';
import { WORDS } from '../../parts/orders/words';

type Props = {
  waves: number[][];
  outS: readonly number[];
  inWaves: boolean;
  onChange: (inWaves: boolean) => void;
};

export function Waves({ waves, outS, inWaves, onChange }: Props) {
  return (
    <View style={{ gap: 4 }} testID="waves">
      <Text>{WORDS.inWaves(waves.length)}</Text>
      {waves.map((indexes) => (
        <Text key={indexes[0]} size="small" bold={inWaves}>
          {WORDS.waveOf(indexes.length, clockTime(Math.max(...indexes.map((index) => outS[index]!)) * 1000))}
        </Text>
      ))}
      <Button
        label={inWaves ? WORDS.asOneOrder : WORDS.takeInWaves}
        kind={inWaves ? 'chosen' : 'plain'}
        onPress={() => onChange(!inWaves)}
        style={{ alignSelf: 'flex-start' }}
      />
    </View>
  );
}
