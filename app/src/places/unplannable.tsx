/**
 * Cups that cannot be brewed as the bench stands: they stand above everything, with the reason and the ways out.
 */
import { router } from 'expo-router';
import { badgeOf } from '@even-kettle/core/brew';
import { useBar, useUnits } from '../client/bar-context';
import { useAct } from '../device/use-act';
import { cupInWords } from '../words/hands-words';
import { Badge } from '../ui/badge';
import { Button } from '../ui/button';
import { Card } from '../ui/card';
import { Row } from '../ui/page';
import { Text } from '../ui/text';
import { WORDS } from './words';

export function Unplannable() {
  const { state, unplannable } = useBar();
  const act = useAct();
  const units = useUnits();
  const cups = unplannable.flatMap(({ cupId, reason }) =>
    Object.values(state.orders).flatMap((order) =>
      order.cups
        .filter((cup) => cup.cupId === cupId && cup.status === 'waiting')
        .map((cup) => ({ order, cup, reason })),
    ),
  );
  if (cups.length === 0) return null;
  return (
    <Card ruled style={{ gap: 10 }}>
      {cups.map(({ order, cup, reason }) => (
        <Row key={cup.cupId} style={{ flexWrap: 'wrap' }}>
          <Badge badge={order.badge} size={28} />
          <Text style={{ flex: 1, minWidth: 200 }}>
            <Text bold>{WORDS.cannotBeBrewed(cupInWords(cup, units))}</Text> {reason}
          </Text>
          <Button
            kind="ruled"
            label={WORDS.cancelThisCup}
            says={WORDS.cancelCupOf(badgeOf(order.badge).letter, cup.coffee)}
            onPress={() =>
              act(
                [
                  {
                    type: 'cup-cancelled',
                    orderId: order.id,
                    cupId: cup.cupId,
                  },
                ],
                WORDS.cupCancelled,
              )
            }
          />
        </Row>
      ))}
      <Button label={WORDS.openTheBench} kind="plain" onPress={() => router.navigate('/bench')} />
    </Card>
  );
}
