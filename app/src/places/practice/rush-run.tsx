/**
 * The drill while it runs: the real hands card, what can be seen on the bar, and what comes next.
 */
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { forHands } from '@even-kettle/core/plan';
import { BarContext, onTick, useAgenda, useBar, useNow } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Note } from '../../ui/note';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { HandsCard } from '../../parts/hands/hands-card';
import { UpNext } from '../../parts/hands/up-next';
import { clockOf } from './instruction';
import { OWN, type RushShift } from './rush-shift';
import { WORDS } from './words';

type Props = { shift: RushShift; hands: number; onEnd: () => void };

const TURN_MS = 200;
const AHEAD = 4;
/** How long a surprise stays announced, milliseconds of the drill. */
const ANNOUNCED_MS = 20_000;

export function RushRun(props: Props) {
  return (
    <BarContext.Provider value={props.shift.bar}>
      <Run {...props} />
    </BarContext.Provider>
  );
}

function Run({ shift, hands, onEnd }: Props) {
  const { state, plan } = useBar();
  const nowMs = useNow();
  const [taken, setTaken] = useState<string | null>(null);
  const all = useAgenda(nowMs);
  const own = hands === 1 ? all : forHands(all, plan, OWN);
  const item = own.find(({ brewId }) => brewId === taken) ?? own[0];
  useEffect(() => {
    // To end it sets its clock, which is another turn.
    let isOver = false;
    return onTick(shift.bar.clock, TURN_MS, 0, () => {
      if (isOver || !shift.turn()) return;
      isOver = true;
      onEnd();
    });
  }, [shift, onEnd]);
  const cups = Object.values(state.orders).flatMap((order) => order.cups);
  const out = cups.filter(({ status }) => status === 'served').length;
  const surprised = shift.surprised();
  const sights = shift.sights();
  return (
    <View style={{ gap: 10 }} testID="rush-run">
      <Row style={{ justifyContent: 'space-between' }}>
        <Text size="clock" testID="rush-clock">
          {WORDS.rushAt(clockOf((nowMs - shift.startMs) / 1000), out, cups.length)}
        </Text>
        <Button label={WORDS.endDrill} onPress={onEnd} />
      </Row>
      {surprised && nowMs - surprised.atMs < ANNOUNCED_MS ? (
        <Note>{WORDS.surprised[surprised.surprise]}</Note>
      ) : null}
      {item ? (
        <HandsCard item={item} />
      ) : (
        <Card>
          <Text size="verb">{WORDS.handsFree}</Text>
        </Card>
      )}
      {sights.length > 0 ? (
        <View testID="sights">
          <Card>
            <Subheading>{WORDS.whatYouSee}</Subheading>
            {sights.map(({ key, station, awaited }) => (
              <Text key={key} bold>
                {WORDS.sight(station.name, awaited!.cue ?? awaited!.name)}
              </Text>
            ))}
          </Card>
        </View>
      ) : null}
      <UpNext hands={hands === 1 ? 'all' : OWN} atHand={item?.key ?? null} most={AHEAD} onTake={setTaken} />
    </View>
  );
}
