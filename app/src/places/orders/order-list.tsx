/**
 * Orders with their cups: what each waits for, when it is expected, and what can be done about it.
 */
import { memo, useState } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import {
  brewAt,
  nextBrewId,
  latestBrew,
  type BarEvent,
  type CupState,
  type OrderState,
} from '@even-kettle/core/brew';
import { cardFor, startEvent } from '@even-kettle/core/plan';
import { METHODS } from '@even-kettle/core/recipe';
import { newId, useBar, useHere, useNow, useUnits } from '../../bar/bar-context';
import { cupInWords } from '../../bar/words';
import { Badge } from '../../ui/badge';
import { useLook } from '../../ui/look';
import { Card, Notice, Row, Tap } from '../../ui/parts';
import { Subheading, Text } from '../../ui/text';

/** How many closed orders stay in sight. */
const CLOSED_SHOWN = 4;

export const OrderList = memo(function OrderList({ compact }: { compact?: boolean }) {
  const { state } = useBar();
  const orders = Object.values(state.orders).sort((a, b) => a.takenMs - b.takenMs);
  const isOpen = (order: OrderState) =>
    order.cups.some(({ status }) => status === 'waiting' || status === 'brewing');
  const open = orders.filter(isOpen);
  const closed = orders
    .filter((order) => !isOpen(order))
    .toReversed()
    .slice(0, CLOSED_SHOWN);
  return (
    <View style={{ gap: 10 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Subheading>
          {open.length === 0
            ? 'No open orders'
            : `${open.length} open ${open.length === 1 ? 'order' : 'orders'}`}
        </Subheading>
        <Tap
          kind="main"
          icon="plus"
          label="New order"
          onPress={() => router.push('/orders/new')}
          testID="new-order"
        />
      </Row>
      {open.length === 0 && !compact ? (
        <Notice title="All cups are out">Take the next order, and the bar says when it will be ready.</Notice>
      ) : null}
      {open.map((order) => (
        <OrderCard key={order.id} order={order} compact={compact ?? false} />
      ))}
      {closed.length > 0 && !compact ? (
        <>
          <Subheading style={{ marginTop: 8 }}>Out in the last hour</Subheading>
          {closed.map((order) => (
            <OrderCard key={order.id} order={order} compact={false} />
          ))}
        </>
      ) : null}
    </View>
  );
});

function OrderCard({ order, compact }: { order: OrderState; compact: boolean }) {
  const look = useLook();
  // Minutes are all it says; the cards take turns.
  const nowMs = useNow(5000, 300 + (order.badge % 12) * 390);
  const { plan } = useBar();
  const finishS = plan?.finish[order.id];
  const open = order.cups.some(({ status }) => status === 'waiting' || status === 'brewing');
  return (
    <Card style={{ padding: 12, gap: 4 }}>
      <Row>
        <Badge badge={order.badge} />
        <Text bold numberOfLines={1} style={{ flex: 1 }}>
          {order.name ?? 'Order'}
        </Text>
        <Text size="small" quiet>
          {open && finishS !== undefined
            ? `${compact ? '' : `out about ${clockTime(finishS * 1000)} · `}in ${minutes(finishS * 1000 - nowMs)}`
            : `taken ${clockTime(order.takenMs)}`}
        </Text>
      </Row>
      {order.cups.map((cup) => (
        <View key={cup.cupId} style={{ borderTopWidth: 1, borderColor: look.rim, paddingTop: 2 }}>
          <Cup order={order} cup={cup} compact={compact} />
        </View>
      ))}
    </Card>
  );
}

function Cup({ order, cup, compact }: { order: OrderState; cup: CupState; compact: boolean }) {
  const units = useUnits();
  const { state, book } = useBar();
  const recipe = book(cup);
  const brew = latestBrew(state, cup);
  const where =
    cup.status === 'brewing' && brew ? `at ${brew.stationName.replaceAll(' ', '\u00a0')}` : cup.status;
  return (
    <View
      style={{
        minHeight: 44,
        flexDirection: 'row',
        alignItems: 'center',
        columnGap: 10,
      }}
    >
      <View style={{ flex: 1, minWidth: 0, paddingVertical: 6 }}>
        <Text numberOfLines={1}>{cupInWords(cup, units)}</Text>
        <Text size="small" quiet numberOfLines={2}>
          {where} · {recipe ? `${METHODS[recipe.method].name}, ${lowerFirst(recipe.name)}` : cup.recipeId}
        </Text>
      </View>
      {compact ? null : <CupActions order={order} cup={cup} />}
    </View>
  );
}

/** Start, cancel, give up, remake: whichever makes sense for the cup as it stands. What loses something is asked twice. */
function CupActions({ order, cup }: { order: OrderState; cup: CupState }) {
  const { store, clock } = useHere();
  const { state, bar, book } = useBar();
  const [sure, setSure] = useState(false);
  if (!bar) return null;
  const act = (label: string, ...events: BarEvent[]) => {
    setSure(false);
    store.act(events, label);
  };
  const base = () => ({ id: newId(), atMs: clock.nowMs() });
  const brew = latestBrew(state, cup);

  if (cup.status === 'waiting') {
    const found = cardFor(bar, cup, book);
    const station = found.ok ? found.stations.find(({ id }) => !brewAt(state, id)) : undefined;
    const start = () => {
      const item = {
        brewId: nextBrewId(cup),
        order,
        cup,
        station: { ...station!, free: true },
      };
      act(`Start ${station!.name}`, startEvent(item, bar, clock.nowMs(), newId));
    };
    return (
      <Row style={{ gap: 6 }}>
        {sure ? (
          <Tap
            kind="ruled"
            label="Cancel this cup"
            onPress={() =>
              act('Cancel cup', { ...base(), type: 'cup-cancelled', orderId: order.id, cupId: cup.cupId })
            }
          />
        ) : (
          <>
            <Tap label="Cancel" kind="bare" says={`Cancel ${cup.coffee}`} onPress={() => setSure(true)} />
            <Tap label="Start" says={`Start ${cup.coffee} now`} disabled={!station} onPress={start} />
          </>
        )}
      </Row>
    );
  }
  if (cup.status === 'brewing' && brew) {
    return sure ? (
      <Row style={{ gap: 6 }}>
        <Tap kind="bare" label="Keep" onPress={() => setSure(false)} />
        <Tap
          kind="ruled"
          label="Give up, brew again"
          onPress={() =>
            act('Give up', {
              ...base(),
              type: 'brew-abandoned',
              brewId: brew.id,
              reason: 'given up from Orders',
            })
          }
        />
      </Row>
    ) : (
      <Tap
        kind="bare"
        label="Give up"
        says={`Give up the brew of ${cup.coffee}`}
        onPress={() => setSure(true)}
      />
    );
  }
  if (cup.status === 'served' && brew) {
    return (
      <Tap
        label="Remake"
        says={`Remake ${cup.coffee}`}
        onPress={() =>
          act('Remake', {
            ...base(),
            type: 'cup-remade',
            orderId: order.id,
            cupId: cup.cupId,
            brewId: brew.id,
            reason: 'sent back',
          })
        }
      />
    );
  }
  return null;
}

const clockTime = (atMs: number): string =>
  new Date(atMs).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' });
const minutes = (ms: number): string => `${Math.max(0, Math.ceil(ms / 60_000))} min`;
const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
