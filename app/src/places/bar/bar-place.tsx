/**
 * Bar: brewing now.
 */
import { useState } from 'react';
import { ScrollView, View, useWindowDimensions } from 'react-native';
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
/** From this size on the whole bar is in sight at once. */
const ROOMY = 1180;
const ROOMY_HEIGHT = 740;

export function BarPlace() {
  const { status, state, bar } = useBar();
  const nowMs = useNow();
  const items = useAgenda(nowMs);
  const [taken, setTaken] = useState<string | null>(null);
  const { width, height } = useWindowDimensions();

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
  const next = items
    .filter((item) => item !== current && item.asks !== 'runs')
    .slice(0, width < WIDE ? NEXT_SHOWN - 1 : NEXT_SHOWN);
  const hands = current ? <HandsCard key={current.brewId} item={current} nowMs={nowMs} /> : <NothingToDo />;
  const onTake = (brewId: string) => setTaken(items.find((item) => item.brewId === brewId)?.key ?? null);
  const follow =
    current !== items[0] ? (
      <Tap kind="plain" label="Back to the plan" onPress={() => setTaken(null)} />
    ) : null;
  const upNext = <UpNext items={next} nowMs={nowMs} onTake={onTake} />;
  const stations = (columns: number) => (
    <Stations
      columns={columns}
      stations={bar.stations}
      state={state}
      nowMs={nowMs}
      atHand={current?.brewId ?? null}
      onTake={onTake}
    />
  );
  const rail = <Rail nowMs={nowMs} items={items} minutes={width >= WIDE ? 16 : 10} />;

  if (width < WIDE) {
    return (
      <Page>
        {hands}
        {follow}
        {upNext}
        {stations(width < 600 ? 4 : 6)}
        {rail}
      </Page>
    );
  }
  if (width < ROOMY || height < ROOMY_HEIGHT) {
    return (
      <Page wide>
        <View style={{ flexDirection: 'row', gap: 12, alignItems: 'flex-start' }}>
          <View style={{ flex: 1, gap: 12 }}>
            {hands}
            {follow}
            {upNext}
          </View>
          <View style={{ flex: 1, gap: 12 }}>
            {stations(3)}
            <OrderList compact />
          </View>
        </View>
        {rail}
      </Page>
    );
  }
  // Room for everything at once: only the orders scroll, so that the card and the rail stay where the eye looks for them.
  return (
    <View style={{ flex: 1, padding: 12, gap: 12, minHeight: 0 }}>
      <View style={{ flex: 1, flexDirection: 'row', gap: 12, minHeight: 0 }}>
        <View style={{ flex: 9, gap: 12 }}>
          {hands}
          {follow}
        </View>
        <View style={{ flex: 8, gap: 12 }}>
          {upNext}
          {stations(3)}
        </View>
        <ScrollView style={{ flex: 7 }} contentContainerStyle={{ paddingBottom: 8 }}>
          <OrderList compact />
        </ScrollView>
      </View>
      {rail}
    </View>
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
