/**
 * What stands ready on the counter and is not fetched: whose it is, and for how long. One tap says that it is gone.
 */
import { View } from 'react-native';
import { badgeOf, queueOf, readyOrders, type OrderState } from '@even-kettle/core/brew';
import { showClock } from '@even-kettle/core/units';
import { useBar, useNow, useUnits } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { cupInWords } from '../../words/hands-words';
import { Badge } from '../../ui/badge';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Subheading, Text } from '../../ui/text';
import { Wishes } from '../wishes';
import { WORDS } from './words';

export function CounterList() {
  const { state, bar } = useBar();
  // With one queue nobody needs its name.
  const queueName = (order: OrderState) =>
    (bar?.queues?.length ?? 0) > 1
      ? bar?.queues?.find(({ id }) => id === queueOf(order).queueId)?.name
      : undefined;
  const act = useAct();
  const units = useUnits();
  const nowMs = useNow(1000, 700);
  const ready = readyOrders(state, nowMs);
  if (ready.length === 0) return null;
  return (
    <Card style={{ gap: 8 }}>
      <Subheading>{WORDS.readyNotFetched}</Subheading>
      <View role="list" aria-label={WORDS.readyNotFetched} style={{ gap: 8 }}>
        {ready.map(({ order, cups, sinceMs }) => (
          <View
            key={order.id}
            role="listitem"
            testID="ready"
            style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}
          >
            <Badge badge={order.badge} />
            <View style={{ flex: 1, minWidth: 0 }}>
              <Text bold numberOfLines={2}>
                {WORDS.readyFor(order.name ?? WORDS.order, showClock(Math.max(0, nowMs - sinceMs) / 1000))}
              </Text>
              {queueName(order) ? (
                <Text size="small" quiet>
                  {queueName(order)}
                </Text>
              ) : null}
              {cups.map((cup) => (
                <View key={cup.cupId}>
                  <Text size="small" quiet numberOfLines={1}>
                    {cupInWords(cup, units)}
                  </Text>
                  <Wishes cup={cup} />
                </View>
              ))}
            </View>
            <Button
              label={WORDS.fetched}
              says={WORDS.fetchedOrder(badgeOf(order.badge).letter)}
              onPress={() =>
                act(
                  [{ type: 'cups-fetched', orderId: order.id, cupIds: cups.map(({ cupId }) => cupId) }],
                  WORDS.fetched,
                )
              }
            />
          </View>
        ))}
      </View>
    </Card>
  );
}
