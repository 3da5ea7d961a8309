/**
 * A break: one pair of hands is away for some minutes, and the plan knows.
 */
import { useState } from 'react';
import { useBar, useHere, useNow } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { clockTime } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';

const BREAKS_MIN = [5, 10, 15];

export function HandsBreak() {
  const { clock } = useHere();
  const act = useAct();
  const { state } = useBar();
  const nowMs = useNow(5000, 900);
  const [asking, setAsking] = useState(false);
  const away = state.away?.find(({ fromMs, toMs }) => fromMs <= nowMs && nowMs < toMs);
  const leave = (minutes: number) => {
    const atMs = clock.nowMs();
    setAsking(false);
    act([{ type: 'hands-away', fromMs: atMs, toMs: atMs + minutes * 60_000 }], 'Break');
  };
  if (away)
    return (
      <Row>
        <Text style={{ flex: 1 }}>One pair of hands is away until {clockTime(away.toMs)}.</Text>
        <Button label="Back now" onPress={() => act([{ type: 'event-undone', eventId: away.id }], 'Back')} />
      </Row>
    );
  if (!asking)
    return (
      <Button
        kind="bare"
        label="Break"
        says="A pair of hands takes a break"
        onPress={() => setAsking(true)}
      />
    );
  return (
    <Row style={{ gap: 6, flexWrap: 'wrap' }}>
      <Text>Away for</Text>
      {BREAKS_MIN.map((minutes) => (
        <Button key={minutes} label={`${minutes} min`} onPress={() => leave(minutes)} />
      ))}
      <Button kind="bare" icon="close" label="" says="No break" onPress={() => setAsking(false)} />
    </Row>
  );
}
