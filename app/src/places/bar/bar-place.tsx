/**
 * Bar: brewing now.
 */
import { useState } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { router } from 'expo-router';
import { useAgenda, useBar, useNow } from '../../bar/bar-context';
import { Card, Loading, Page, Tap } from '../../ui/parts';
import { Text } from '../../ui/text';
import { WIDE } from '../../ui/theme';
import { Unreachable } from '../unreachable';
import { OrderList } from '../orders/order-list';
import { HandsCard } from './hands-card';
import { Rail } from './rail';
import { Stations } from './stations';
import { UpNext } from './up-next';

const NEXT_SHOWN = 4;

export function BarPlace() {
  const { status, state, bar } = useBar();
  const nowMs = useNow();
  const items = useAgenda(nowMs);
  const [taken, setTaken] = useState<string | null>(null);
  const wide = useWindowDimensions().width >= WIDE;

  if (status === 'unreachable') return <Unreachable />;
  if (status === 'loading' || !bar) {
    return (
      <Page>
        <Loading what="the bar" height={330} />
        <Loading what="what comes next" height={150} />
      </Page>
    );
  }
  // What a person takes to hand goes before the plan's choice, until it is done.
  const current = items.find(({ key }) => key === taken) ?? items[0];
  const next = items.filter((item) => item !== current && item.asks !== 'runs').slice(0, NEXT_SHOWN);
  const hands = current ? <HandsCard key={current.brewId} item={current} nowMs={nowMs} /> : <NothingToDo />;
  const onTake = (brewId: string) => setTaken(items.find((item) => item.brewId === brewId)?.key ?? null);
  const follow =
    current !== items[0] ? (
      <Tap kind="plain" label="Back to the plan" onPress={() => setTaken(null)} />
    ) : null;
  const stations = (
    <Stations
      stations={bar.stations}
      state={state}
      nowMs={nowMs}
      atHand={current?.brewId ?? null}
      onTake={onTake}
    />
  );

  if (!wide) {
    return (
      <Page>
        {hands}
        {follow}
        <UpNext items={next} nowMs={nowMs} onTake={onTake} />
        {stations}
        <Rail nowMs={nowMs} items={items} minutes={10} />
      </Page>
    );
  }
  return (
    <Page wide>
      <View style={{ flexDirection: 'row', gap: 12, alignItems: 'flex-start' }}>
        <View style={{ flex: 5, gap: 12 }}>
          {hands}
          {follow}
          <UpNext items={next} nowMs={nowMs} onTake={onTake} />
        </View>
        <View style={{ flex: 6, gap: 12 }}>
          {stations}
          <OrderList compact />
        </View>
      </View>
      <Rail nowMs={nowMs} items={items} minutes={16} />
    </Page>
  );
}

function NothingToDo() {
  return (
    <Card style={{ alignItems: 'flex-start', padding: 20, gap: 12 }}>
      <Text size="verb">Nothing to do</Text>
      <Text quiet>No cup waits and no brew runs. Take an order, and this card says what to do first.</Text>
      <Tap kind="main" icon="plus" label="New order" onPress={() => router.push('/orders/new')} />
    </Card>
  );
}
