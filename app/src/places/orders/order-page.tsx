/**
 * One order and everything that can change of it until it is served. Each change says what it does to the times before it
 * is made.
 */
import { useState } from 'react';
import { router, useLocalSearchParams } from 'expo-router';
import { badgeOf, isOpen, shownNameOf, type OrderState } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { useBar, useUnits } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { cupInWords } from '../../words/hands-words';
import { Badge } from '../../ui/badge';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Field } from '../../ui/field';
import { Loading, Notice } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Switch } from '../../ui/switch';
import { Heading, Text } from '../../ui/text';
import { GuestLink } from './guest-link';
import { Undo } from '../../parts/undo';
import { Wishes } from '../../parts/wishes';
import { AddCup, ChangeCup, GuestLeft, Join, OtherQueue, Split } from './order-changes';
import { Proposal } from '../../parts/orders/proposal';
import { useCounter } from './use-counter';
import { WORDS } from '../../parts/orders/words';

export function OrderPage() {
  const { id = '' } = useLocalSearchParams<{ id?: string }>();
  const { bar, state } = useBar();
  if (!bar)
    return (
      <Page>
        <Loading what={WORDS.theOrders} height={300} />
      </Page>
    );
  const order = Object.hasOwn(state.orders, id) ? state.orders[id] : undefined;
  if (!order || order.cups.length === 0)
    return (
      <Page>
        <Notice
          title={WORDS.noSuchOrder}
          action={<Button label={WORDS.orders} onPress={() => router.replace('/orders')} />}
        >
          {WORDS.noSuchOrderHint}
        </Notice>
      </Page>
    );
  return <OneOrder key={order.id} order={order} bar={bar} />;
}

/** What is being changed, one thing at a time. */
type Changing =
  | { what: 'cup' | 'cancel'; cupId: string }
  | { what: 'add' | 'split' | 'join' | 'queue' | 'left' }
  | null;

function OneOrder({ order, bar }: { order: OrderState; bar: Bar }) {
  const units = useUnits();
  const counter = useCounter(bar);
  const [changing, setChanging] = useState<Changing>(null);
  const done = () => setChanging(null);
  const { letter } = badgeOf(order.badge);
  const open = isOpen(order);
  const cups = order.cups.filter(({ status }) => status !== 'cancelled');
  const button = (what: 'add' | 'split' | 'join' | 'queue' | 'left', label: string) => (
    <Button label={label} onPress={() => setChanging({ what })} disabled={changing !== null} />
  );
  return (
    <Page>
      <Row style={{ justifyContent: 'space-between' }}>
        <Row style={{ flex: 1 }}>
          <Badge badge={order.badge} />
          <Heading>{order.name ?? WORDS.orderLetter(letter)}</Heading>
        </Row>
        <Undo />
        <Button
          kind="bare"
          icon="close"
          label=""
          says={WORDS.close}
          onPress={() => router.replace('/orders')}
        />
      </Row>
      <Rename order={order} />
      <FromTill order={order} />
      {order.cups.map((cup, index) => (
        <Card key={cup.cupId} style={{ gap: 8 }}>
          {changing?.what === 'cup' && changing.cupId === cup.cupId ? null : (
            <Text bold>{WORDS.cup(index + 1)}</Text>
          )}
          <Text>{cupInWords(cup, units)}</Text>
          <Wishes cup={cup} />
          <Text size="small" quiet>
            {cup.status}
          </Text>
          {changing?.what === 'cup' && changing.cupId === cup.cupId ? (
            <ChangeCup order={order} cup={cup} number={index + 1} counter={counter} onClose={done} />
          ) : changing?.what === 'cancel' && changing.cupId === cup.cupId ? (
            <Proposal
              events={[{ type: 'cup-cancelled', orderId: order.id, cupId: cup.cupId }]}
              label={WORDS.cancelCup}
              save={WORDS.cancelThisCup}
              onDone={done}
              onCancel={done}
            />
          ) : cup.status === 'waiting' || cup.status === 'brewing' ? (
            <Row>
              <Button
                label={WORDS.change}
                says={WORDS.changeCup(index + 1)}
                disabled={changing !== null}
                onPress={() => setChanging({ what: 'cup', cupId: cup.cupId })}
              />
              {cup.status === 'waiting' ? (
                <Button
                  label={WORDS.cancelThisCup}
                  says={WORDS.cancelCupNumber(index + 1)}
                  disabled={changing !== null}
                  onPress={() => setChanging({ what: 'cancel', cupId: cup.cupId })}
                />
              ) : null}
            </Row>
          ) : null}
        </Card>
      ))}
      {changing?.what === 'add' ? <AddCup order={order} counter={counter} onClose={done} /> : null}
      {changing?.what === 'split' ? <Split order={order} onClose={done} /> : null}
      {changing?.what === 'join' ? <Join order={order} onClose={done} /> : null}
      {changing?.what === 'queue' ? <OtherQueue order={order} bar={bar} onClose={done} /> : null}
      {changing?.what === 'left' ? <GuestLeft order={order} onClose={done} /> : null}
      {open && changing === null ? (
        <Row style={{ flexWrap: 'wrap' }}>
          {button('add', WORDS.addACup)}
          {cups.length > 1 ? button('split', WORDS.split) : null}
          {button('join', WORDS.joinWithAnother)}
          {(bar.queues?.length ?? 0) > 1 ? button('queue', WORDS.anotherQueue) : null}
          {button('left', WORDS.guestHasLeft)}
        </Row>
      ) : null}
      <GuestLink orderId={order.id} badge={order.badge} />
    </Page>
  );
}

function FromTill({ order: { events } }: { order: OrderState }) {
  const [first] = events;
  if (first?.type !== 'order-taken' || first.till === undefined) return null;
  return <Text quiet>{WORDS.fromTill(first.till)}</Text>;
}

function Rename({ order }: { order: OrderState }) {
  const act = useAct();
  const [name, setName] = useState(order.name ?? '');
  const trimmed = name.trim();
  const isShown = shownNameOf(order) !== undefined;
  const say = (called: string, shown: boolean) =>
    act(
      [
        {
          type: 'order-renamed',
          orderId: order.id,
          ...(called ? { name: called } : {}),
          ...(called && shown ? { nameShown: true as const } : {}),
        },
      ],
      WORDS.renamed,
    );
  return (
    <>
      <Row style={{ alignItems: 'flex-end' }}>
        <Field label={WORDS.forWhom} value={name} maxLength={40} onChangeText={setName} style={{ flex: 1 }} />
        <Button
          label={WORDS.save}
          says={WORDS.saveTheName}
          disabled={trimmed === (order.name ?? '')}
          onPress={() => say(trimmed, isShown)}
        />
      </Row>
      {order.name === undefined ? null : (
        <Switch label={WORDS.nameOnBoard} on={isShown} onChange={(shown) => say(order.name ?? '', shown)} />
      )}
    </>
  );
}
