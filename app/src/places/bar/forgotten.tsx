/**
 * A brew that nobody has touched long past its time is asked after: once, quietly, and on every device until one answers.
 */
import { router } from 'expo-router';
import { forgottenMs } from '@even-kettle/core/brew';
import { useBar, useNow } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { WORDS } from '../../parts/hands/words';

/** It is looked this often, milliseconds: nothing here is in a hurry. */
const LOOK_MS = 10_000;

export function Forgotten() {
  const { state } = useBar();
  const nowMs = useNow(LOOK_MS, 700);
  const act = useAct();
  const found = Object.values(state.brews)
    .map((brew) => ({ brew, pastMs: forgottenMs(brew, nowMs) }))
    .find(({ pastMs }) => pastMs !== null);
  if (!found) return null;
  const { brew, pastMs } = found;
  return (
    <Card style={{ gap: 8 }}>
      <Text role="status" testID="forgotten">
        {WORDS.nothingWasSaidOf(brew.stationName, Math.floor(pastMs! / 60_000))}
      </Text>
      <Row style={{ flexWrap: 'wrap' }}>
        <Button
          label={WORDS.itStillBrews}
          onPress={() =>
            act([{ type: 'brew-noted', brewId: brew.id, note: 'still-brewing' }], WORDS.itStillBrews)
          }
        />
        <Button
          label={WORDS.openIt}
          says={`${WORDS.openIt}: ${brew.stationName}`}
          onPress={() => router.push({ pathname: '/station/[id]', params: { id: brew.stationId } })}
        />
        <Button
          kind="ruled"
          label={WORDS.stopIt}
          onPress={() =>
            act([{ type: 'brew-abandoned', brewId: brew.id, reason: WORDS.nobodyTouchedIt }], WORDS.stopIt)
          }
        />
      </Row>
    </Card>
  );
}
