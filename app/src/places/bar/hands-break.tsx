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
import { WORDS } from './words';

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
    act([{ type: 'hands-away', fromMs: atMs, toMs: atMs + minutes * 60_000 }], WORDS.breakIt);
  };
  if (away)
    return (
      <Row>
        <Text style={{ flex: 1 }}>{WORDS.onePairOfHandsIsAway(clockTime(away.toMs))}</Text>
        <Button
          label={WORDS.backNow}
          onPress={() => act([{ type: 'event-undone', eventId: away.id }], WORDS.back)}
        />
      </Row>
    );
  if (!asking)
    return (
      <Button
        kind="bare"
        label={WORDS.breakIt}
        says={WORDS.aPairOfHandsTakesA}
        onPress={() => setAsking(true)}
      />
    );
  return (
    <Row style={{ gap: 6, flexWrap: 'wrap' }}>
      <Text>{WORDS.awayFor}</Text>
      {BREAKS_MIN.map((minutes) => (
        <Button key={minutes} label={WORDS.min(minutes)} onPress={() => leave(minutes)} />
      ))}
      <Button kind="bare" icon="close" label="" says={WORDS.noBreak} onPress={() => setAsking(false)} />
    </Row>
  );
}
