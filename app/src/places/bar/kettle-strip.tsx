/**
 * The kettles that can be heard: what each is at, and when it will be hot enough.
 */
import { View } from 'react-native';
import { inWords, showClock, showMass, showTemperature } from '@even-kettle/core/units';
import { heatingTimeS } from '@even-kettle/core/water';
import { useBar, useKettles, useUnits } from '../../client/bar-context';
import { useTheme } from '../../ui/use-theme';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { RADIUS } from '../../ui/theme';
import { WORDS } from '../../parts/hands/words';

export function KettleStrip() {
  const theme = useTheme();
  const units = useUnits();
  const { bar } = useBar();
  const kettles = useKettles();
  if (!bar || kettles.length === 0) return null;
  return (
    <View
      role="list"
      aria-label={WORDS.kettles}
      style={{
        borderWidth: 1,
        borderColor: theme.rim,
        borderRadius: RADIUS,
        backgroundColor: theme.surface,
        paddingHorizontal: 12,
        paddingVertical: 6,
      }}
    >
      {kettles.map(({ kettleId, waterC, setC, heating, levelG, connected }) => {
        const kettle = bar.kettles.find(({ id }) => id === kettleId);
        const leftS =
          heating && setC !== null && levelG !== null && kettle
            ? heatingTimeS(levelG, setC, { powerW: kettle.powerW, filledAtC: waterC })
            : null;
        const set = setC === null ? '' : WORDS.of(inWords(showTemperature(setC, units)));
        const state = !connected
          ? WORDS.notHeard
          : levelG !== null && levelG < 20
            ? 'empty'
            : leftS !== null
              ? WORDS.hotIn(showClock(Math.ceil(leftS)))
              : setC !== null
                ? 'ready'
                : WORDS.offItsBase;
        return (
          <Row key={kettleId} style={{ minHeight: 30, justifyContent: 'space-between' }}>
            <View role="listitem" style={{ flexDirection: 'row', gap: 8, flex: 1 }}>
              <Text size="small" bold>
                {kettle?.name ?? kettleId}
              </Text>
              <Text size="small">
                {connected ? `${inWords(showTemperature(waterC, units))}${set}` : ''}
                {connected && levelG !== null ? `, ${inWords(showMass(levelG, units, 'water'))}` : ''}
              </Text>
            </View>
            <Text size="small" quiet>
              {state}
            </Text>
          </Row>
        );
      })}
    </View>
  );
}
