/**
 * Orders with their cups: what each waits for, when it is expected, and what can be done about it.
 */
import { memo, useState, type CSSProperties, type ReactNode } from 'react';
import { DndContext, PointerSensor, closestCenter, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { View } from 'react-native';
import { router } from 'expo-router';
import { badgeOf, isOpen, queueOf, remadeOf, urgedOf, type OrderState } from '@even-kettle/core/brew';
import { overdueBrews, overdueFor } from '@even-kettle/core/plan';
import { showClock } from '@even-kettle/core/units';
import { useBar, useNow } from '../../client/bar-context';
import { clockTime } from '../../words/hands-words';
import { Badge } from '../../ui/badge';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Notice } from '../../ui/notice';
import { Row } from '../../ui/page';
import { Grip } from '../../ui/grip';
import { Subheading, Text } from '../../ui/text';
import { CounterList } from './counter-list';
import { Cup } from './order-cup';
import { promiseInWords } from './queue-choice';
import { Shifts, overdueInWords } from './quote-line';
import { useUrging, type Urge } from './use-urging';
import { WhyThen } from './why-late';
import { WORDS } from './words';

/** Orders of every queue. */
const ALL = '';

/** How many closed orders stay in sight. */
const CLOSED_SHOWN = 4;

export const OrderList = memo(function OrderList({ compact }: { compact?: boolean }) {
  const { state, plan, rough, bar } = useBar();
  const queues = bar?.queues ?? [];
  const [only, setOnly] = useState(ALL);
  const orders = Object.values(state.orders).filter(
    (order) => compact || only === ALL || (queueOf(order).queueId ?? queues[0]?.id) === only,
  );
  // As planned, soonest out first; what is not planned yet last, as it was taken.
  const outS = (order: OrderState) => plan?.finish[order.id] ?? rough[order.id] ?? Infinity;
  const open = orders
    .filter(isOpen)
    .sort((a, b) => (outS(a) === outS(b) ? a.takenMs - b.takenMs : outS(a) - outS(b)));
  const closed = orders
    .filter((order) => !isOpen(order) && order.cups.length > 0)
    .sort((a, b) => b.takenMs - a.takenMs)
    .slice(0, CLOSED_SHOWN);
  return (
    <View style={{ gap: 10 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Subheading>{open.length === 0 ? WORDS.noOpenOrders : WORDS.openOrders(open.length)}</Subheading>
        <Button
          kind="main"
          icon="plus"
          label={WORDS.newOrder}
          onPress={() => router.push('/orders/new')}
          testID="new-order"
        />
      </Row>
      {queues.length > 1 && !compact ? (
        <Choice
          name={WORDS.queue}
          value={only}
          onChange={setOnly}
          options={[
            { value: ALL, label: WORDS.allQueues },
            ...queues.map(({ id, name }) => ({ value: id, label: name })),
          ]}
        />
      ) : null}
      <CounterList />
      {open.length === 0 && !compact ? (
        <Notice title={WORDS.allCupsAreOut}>{WORDS.emptyOrdersHint}</Notice>
      ) : null}
      {compact ? (
        open.map((order) => <OrderCard key={order.id} order={order} compact />)
      ) : (
        <InTurn orders={open} />
      )}
      {closed.length > 0 && !compact ? (
        <>
          <Subheading style={{ marginTop: 8 }}>{WORDS.outLastHour}</Subheading>
          {closed.map((order) => (
            <OrderCard key={order.id} order={order} compact={false} />
          ))}
        </>
      ) : null}
    </View>
  );
});

/** The open orders in the turn in which they will be out; dragged, or moved with the arrow keys, the plan follows. */
function InTurn({ orders }: { orders: OrderState[] }) {
  const urge = useUrging();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const move = (from: number, to: number) => {
    const [order, other] = [orders[from], orders[to]];
    if (order && other && from !== to) urge.past(order, other, to < from ? 'before' : 'after');
  };
  const placeOf = (id: unknown) => orders.findIndex((order) => order.id === id);
  const ids = orders.map(({ id }) => id);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => over && move(placeOf(active.id), placeOf(over.id))}
      accessibility={{
        screenReaderInstructions: {
          draggable: WORDS.arrowsMoveOrder,
        },
      }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {orders.map((order, index) => (
          <Draggable key={order.id} order={order} urge={urge} onMove={(by) => move(index, index + by)} />
        ))}
      </SortableContext>
    </DndContext>
  );
}

function Draggable({ order, urge, onMove }: { order: OrderState; urge: Urge; onMove: (by: 1 | -1) => void }) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: order.id,
  });
  const style: CSSProperties = {
    transform: CSS.Translate.toString(transform) ?? '',
    transition: transition ?? '',
    position: 'relative',
    zIndex: isDragging ? 1 : 0,
    opacity: isDragging ? 0.85 : 1,
  };
  const grip = (
    <Grip
      says={`Move order ${badgeOf(order.badge).letter}`}
      drag={{ attributes, listeners }}
      onMove={onMove}
    />
  );
  return (
    <div ref={setNodeRef} style={style} data-testid="open-order">
      <OrderCard order={order} compact={false} grip={grip} urge={urge} />
    </div>
  );
}

type OrderCardProps = { order: OrderState; compact: boolean; grip?: ReactNode; urge?: Urge };

function OrderCard({ order, compact, grip, urge }: OrderCardProps) {
  const theme = useTheme();
  const [asking, setAsking] = useState(false);
  // Minutes are all it says; the cards take turns.
  const nowMs = useNow(5000, 300 + (order.badge % 12) * 390);
  const { state, bar, book, plan, rough } = useBar();
  const overdue = bar ? overdueFor(order, { state, bench: bar, book }, overdueBrews(state, nowMs)) : null;
  const finishS = plan?.finish[order.id] ?? rough[order.id];
  const open = isOpen(order);
  const urged = urge?.urged?.orderId === order.id ? urge.urged : null;
  return (
    <Card style={{ padding: 12, gap: 4 }}>
      <Row>
        <Badge badge={order.badge} />
        <Text bold numberOfLines={1} style={{ flex: 1 }}>
          {order.name ?? WORDS.order}
        </Text>
        <View style={{ alignItems: 'flex-end' }}>
          <Text size={compact || !open ? 'small' : 'body'} quiet={compact || !open} bold={!compact && open}>
            {overdue
              ? overdueInWords(overdue)
              : open && finishS !== undefined
                ? WORDS.inIt(minutes(finishS * 1000 - nowMs))
                : WORDS.taken(clockTime(order.takenMs))}
          </Text>
          {open && !overdue && finishS !== undefined && !compact ? (
            <Text size="small" quiet>
              {WORDS.outAbout(clockTime(finishS * 1000))}
            </Text>
          ) : null}
        </View>
        {grip}
      </Row>
      <InQueueLine order={order} />
      {open && finishS !== undefined ? <Promised order={order} finishS={finishS} compact={compact} /> : null}
      {order.cups.map((cup) => (
        <View key={cup.cupId} style={{ borderTopWidth: 1, borderColor: theme.rim, paddingTop: 2 }}>
          <Cup order={order} cup={cup} compact={compact} />
        </View>
      ))}
      {urge && open ? (
        <Row style={{ gap: 6, flexWrap: 'wrap', borderTopWidth: 1, borderColor: theme.rim, paddingTop: 6 }}>
          {(urgedOf(order)?.weight ?? 1) > 1 ? (
            <Button
              label={WORDS.noRush}
              says={WORDS.noRushForOrder(badgeOf(order.badge).letter)}
              onPress={() => urge.calm(order)}
            />
          ) : (
            <Button
              label={WORDS.rush}
              says={WORDS.rushOrder(badgeOf(order.badge).letter)}
              onPress={() => urge.rush(order)}
            />
          )}
          <Button
            kind={asking ? 'chosen' : 'plain'}
            label={WORDS.whyThisTime}
            says={WORDS.whyOrderThisTime(badgeOf(order.badge).letter)}
            onPress={() => setAsking(!asking)}
          />
          <Button
            label={WORDS.change}
            says={WORDS.changeOrder(badgeOf(order.badge).letter)}
            onPress={() => router.push({ pathname: '/orders/[id]', params: { id: order.id } })}
          />
        </Row>
      ) : null}
      {urged ? (
        <View role="status" style={{ gap: 4, paddingVertical: 4 }}>
          <Text bold>{urged.words}</Text>
          <Shifts shifts={urged.shifts} otherwise={WORDS.othersStay} />
        </View>
      ) : null}
      {asking && open ? <WhyThen order={order} /> : null}
    </Card>
  );
}

/** Which queue it stands in, and what that promises. */
function InQueueLine({ order }: { order: OrderState }) {
  const { bar } = useBar();
  const { queueId, pickUpMs } = queueOf(order);
  const queue = bar?.queues?.find(({ id }) => id === queueId);
  if (!queue || (bar?.queues?.length ?? 0) < 2) return null;
  return (
    <Text size="small" quiet>
      {pickUpMs === undefined
        ? WORDS.queueAndPromise(queue.name, promiseInWords(queue))
        : WORDS.queueAndTime(queue.name, clockTime(pickUpMs))}
    </Text>
  );
}

/** A promise is still kept when it is missed by no more than this, seconds. */
const KEPT_S = 20;

/** What was promised, against what is expected; that it cannot be kept any more is said as soon as the plan knows. */
function Promised({ order, finishS, compact }: { order: OrderState; finishS: number; compact: boolean }) {
  const remade = remadeOf(order);
  if (remade)
    return (
      <Text size="small" quiet={!compact}>
        {WORDS.sentBackAt(clockTime(remade.atMs))}
      </Text>
    );
  if (order.promisedMs === undefined) return null;
  const overS = finishS - order.promisedMs / 1000;
  if (overS > KEPT_S)
    return (
      <Text bold size={compact ? 'small' : 'body'}>
        {WORDS.afterItsPromiseOf(showClock(overS), clockTime(order.promisedMs))}
      </Text>
    );
  return compact ? null : (
    <Text size="small" quiet>
      {WORDS.promised(clockTime(order.promisedMs))}
    </Text>
  );
}

const minutes = (ms: number): string => WORDS.min(Math.max(0, Math.ceil(ms / 60_000)));
