/**
 * Bar: brewing now.
 */
import { useState, type ReactNode } from 'react';
import { brewAt } from '@even-kettle/core/brew';
import { ScrollView, View, useWindowDimensions } from 'react-native';
import { router } from 'expo-router';
import { forHands, pairOf, type AgendaItem, type Hands } from '@even-kettle/core/plan';
import { agendaNow } from '../../client/agenda-now';
import { Deferred, useAtTurns, useBar, useHere } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { setDevice, useDevice } from '../../device/settings';
import { HandsChoice } from '../hands-choice';
import { useShortcuts } from '../../device/shortcuts';
import { Boundary } from '../../ui/boundary';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Loading } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { WIDE } from '../../ui/theme';
import { useStable } from '../../ui/use-stable';
import { Unplannable } from '../unplannable';
import { Unreachable } from '../unreachable';
import { OrderList } from '../../parts/orders/order-list';
import { AwayCard, CalledAway, SomebodyAway, WelcomeBack, awayNow } from '../../parts/hands/called-away';
import { Forgotten } from './forgotten';
import { HandsCard } from '../../parts/hands/hands-card';
import { PlainCard } from './plain-card';
import { KettleStrip } from './kettle-strip';
import { Rail } from '../../parts/hands/rail';
import { Stations } from './stations';
import { UpNext } from '../../parts/hands/up-next';
import { WORDS } from '../../parts/hands/words';

const NEXT_SHOWN = 4;
/** From this size on the whole bar is in sight at once. */
const ROOMY = 1180;
const ROOMY_HEIGHT = 740;

/** @param firstDay what stands there while the bar is set up */
// eslint-disable-next-line max-lines-per-function -- the arrangement of one screen, narrow and wide
export function BarPlace({ firstDay }: { firstDay: ReactNode }) {
  const { store, clock } = useHere();
  const act = useAct();
  const view = useBar();
  const { status, state, bar, plan } = view;
  const device = useDevice();
  const shared = (bar?.hands ?? 1) > 1;
  const hands = shared ? device.hands : 'all';
  const [taken, setTaken] = useState<string | null>(null);
  // The place is drawn when something else is asked for; what counts down has its own clock.
  const {
    key,
    brewId: atHand,
    first,
    isAsked,
    isOthers,
    away,
  } = useAtTurns((nowMs) => {
    const all = agendaNow(view, nowMs);
    const items = forHands(all, plan, hands);
    const current = itemAtHand(all, items, taken);
    return {
      key: current?.key ?? null,
      brewId: current?.brewId ?? null,
      first: items[0]?.key ?? null,
      isAsked: items.length > 0,
      isOthers: items.length === 0 && all.length > 0,
      away: awayNow(view, nowMs),
    };
  });
  const onTake = useStable((brewId: string) => {
    const item = agendaNow(view, clock.nowMs()).find((each) => each.brewId === brewId);
    setTaken(item?.key ?? null);
    // Taken over from the other pair, it is no longer asked of them.
    if (item?.brew && hands !== 'all' && pairOf(item, plan) !== hands)
      act([{ type: 'step-taken', brewId, stepId: item.step.id, pair: hands }]);
  });
  useShortcuts({
    u: store.undo,
    station: (number) => {
      const brew = bar?.stations[number - 1] && brewAt(state, bar.stations[number - 1]!.id);
      if (brew) onTake(brew.id);
    },
  });
  const { width, height } = useWindowDimensions();
  const isRoomy = width >= ROOMY && height >= ROOMY_HEIGHT;

  if (status === 'unreachable') return <Unreachable />;
  if (status === 'loading' || !bar) {
    return (
      <Page>
        <Loading what={WORDS.theBar} height={330} />
        <Loading what={WORDS.whatComesNext} height={150} />
      </Page>
    );
  }
  if (bar.setUp?.open && !isAsked) return firstDay;
  const card = away ? (
    <AwayCard away={away} />
  ) : key ? (
    <AtHand key={atHand} hands={hands} taken={taken} />
  ) : isOthers ? (
    <OthersHaveIt />
  ) : (
    <NothingToDo />
  );
  const back = away ? null : <WelcomeBack hands={hands} />;
  const follow =
    key !== first ? <Button kind="plain" label={WORDS.backToThePlan} onPress={() => setTaken(null)} /> : null;
  const upNext = (
    <UpNext
      hands={hands}
      atHand={key}
      most={width < WIDE ? NEXT_SHOWN - 1 : NEXT_SHOWN}
      keepsHeight={isRoomy}
      onTake={onTake}
    />
  );
  const pairs = shared ? (
    <Row style={{ flexWrap: 'wrap', justifyContent: 'space-between' }}>
      <HandsChoice name="Whose hands this device shows" />
      <SomebodyAway />
    </Row>
  ) : null;
  const stations = (columns: number) => (
    <Deferred>
      <Stations columns={columns} stations={bar.stations} atHand={atHand} onTake={onTake} />
    </Deferred>
  );
  const rail = (
    <Deferred>
      <Rail minutes={width >= WIDE ? 16 : 10} />
    </Deferred>
  );
  const orders = (
    <Deferred>
      <OrderList compact />
    </Deferred>
  );

  if (width < WIDE) {
    return (
      <Page>
        <Unplannable />
        {pairs}
        {back}
        {card}
        {follow}
        <Forgotten />
        {upNext}
        {stations(width < 600 ? 4 : 6)}
        <KettleStrip />
        {rail}
      </Page>
    );
  }
  if (!isRoomy) {
    return (
      <Page wide>
        <View style={{ flexDirection: 'row', gap: 12, alignItems: 'flex-start' }}>
          <View style={{ flex: 1, gap: 12 }}>
            <Unplannable />
            {pairs}
            {back}
            {card}
            {follow}
            <Forgotten />
            {upNext}
          </View>
          <View style={{ flex: 1, gap: 12 }}>
            {stations(3)}
            <KettleStrip />
            {orders}
          </View>
        </View>
        {rail}
      </Page>
    );
  }
  // Room for everything at once: only the orders scroll, so that the card and the rail stay where the eye looks for them.
  return (
    <View style={{ flex: 1, padding: 12, gap: 12, minHeight: 0 }}>
      <Unplannable />
      <View style={{ flex: 1, flexDirection: 'row', gap: 12, minHeight: 0 }}>
        <View style={{ flex: 9, gap: 12 }}>
          {back}
          {card}
          {follow}
          <Forgotten />
        </View>
        <View style={{ flex: 8, gap: 12 }}>
          {upNext}
          {stations(3)}
        </View>
        <View style={{ flex: 7, gap: 12 }}>
          {pairs}
          <ScrollView contentContainerStyle={{ paddingBottom: 8, gap: 12 }}>
            <KettleStrip />
            {orders}
          </ScrollView>
        </View>
      </View>
      {rail}
    </View>
  );
}

/** What a person takes to hand goes before the plan's choice, until it is done. */
const itemAtHand = (
  all: readonly AgendaItem[],
  items: readonly AgendaItem[],
  taken: string | null,
): AgendaItem | undefined => all.find(({ key }) => key === taken) ?? items[0];

/** The hands card follows the clock by itself: the place around it stays. */
function AtHand({ hands, taken }: { hands: Hands; taken: string | null }) {
  const view = useBar();
  const item = useAtTurns((nowMs) => {
    const all = agendaNow(view, nowMs);
    return itemAtHand(all, forHands(all, view.plan, hands), taken);
  });
  const { bar } = view;
  if (!item || !bar) return null;
  return (
    <Boundary what={WORDS.theHandsCard} fallback={<PlainCard item={item} units={bar.units} />}>
      <HandsCard item={item} />
    </Boundary>
  );
}

/** This pair has nothing ahead, the other has. */
function OthersHaveIt() {
  return (
    <Card style={{ alignItems: 'flex-start', padding: 20, gap: 12 }}>
      <Text size="verb">{WORDS.nothingForTheseHands}</Text>
      <Text quiet>{WORDS.otherPairHasNext}</Text>
      <Row>
        <Button label={WORDS.showAllHands} onPress={() => setDevice({ hands: 'all' })} />
        <CalledAway />
      </Row>
    </Card>
  );
}

function NothingToDo() {
  const { bar } = useBar();
  const isBare = bar?.stations.length === 0 || bar?.coffees.length === 0;
  return (
    <Card style={{ alignItems: 'flex-start', padding: 20, gap: 12 }}>
      <Text size="verb">{WORDS.nothingToDo}</Text>
      <Text quiet>{isBare ? WORDS.nothingToBrewWith : WORDS.nothingToDoHint}</Text>
      <Row style={{ flexWrap: 'wrap' }}>
        {isBare ? (
          <Button kind="main" label={WORDS.firstDay} onPress={() => router.push('/first-day')} />
        ) : (
          <Button kind="main" icon="plus" label={WORDS.newOrder} onPress={() => router.push('/orders/new')} />
        )}
        <Button label={WORDS.today} says={WORDS.todayOpensTheBar} onPress={() => router.push('/log/today')} />
      </Row>
    </Card>
  );
}
