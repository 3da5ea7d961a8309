/**
 * One station: what its brew has been through, and everything that can be put right about it.
 */
import { View } from 'react-native';
import { router, useLocalSearchParams } from 'expo-router';
import {
  NOTES,
  anchorMs,
  brewAt,
  levelOf,
  noteWords,
  notesFor,
  timelineAt,
  type BrewState,
} from '@even-kettle/core/brew';
import { brewerOf } from '@even-kettle/core/plan';
import { METHODS } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass } from '@even-kettle/core/units';
import { useBar, useNow, useScale, useUnits } from '../../client/bar-context';
import { cupInWords } from '../../words/hands-words';
import { Wishes } from '../../parts/wishes';
import { Badge } from '../../ui/badge';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Loading, Notice } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Heading, Subheading, Text } from '../../ui/text';
import { Vessel } from '../../vessels/vessel';
import { Unreachable } from '../unreachable';
import { BrewActions } from './brew-actions';
import { BrewSteps } from './brew-steps';
import { Notes } from '../../parts/hands/said';
import { ScaleCard } from './scale-card';
import { WORDS } from '../../parts/hands/words';

export function StationPage() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { bar, state, status } = useBar();
  const station = bar?.stations.find((each) => each.id === id);
  const back = <Button icon="back" label={WORDS.bar} kind="bare" onPress={() => router.navigate('/')} />;
  if (status === 'unreachable') return <Unreachable />;
  if (!bar)
    return (
      <Page>
        <Loading what={WORDS.theStation} height={320} />
      </Page>
    );
  if (!station)
    return (
      <Page>
        {back}
        <Notice title={WORDS.noSuchStation}>{WORDS.noSuchStationHint}</Notice>
      </Page>
    );
  const brew = brewAt(state, station.id);
  return (
    <Page>
      <Row style={{ justifyContent: 'space-between' }}>
        <Heading>{station.name}</Heading>
        {back}
      </Row>
      {brew ? (
        <>
          <Summary brew={brew} />
          <BrewSteps key={brew.id} brew={brew} />
          <Seen brew={brew} />
          <BrewActions key={`${brew.id} acts`} brew={brew} />
        </>
      ) : (
        <Notice title={WORDS.free}>
          {WORDS.plannedOnBar(brewerOf(bar ?? {}, station.brewerId)?.name ?? '')}
        </Notice>
      )}
      <ScaleCard station={station} />
    </Page>
  );
}

/** What can be seen to be wrong just now, said in one tap. */
function Seen({ brew }: { brew: BrewState }) {
  const nowMs = useNow(1000);
  const times = timelineAt(brew, nowMs);
  const current = times.find(({ status }) => status === 'running' || status === 'waiting');
  const now = current ? notesFor(brew.card.method, current.step) : [];
  // Every note that this brew can want keeps its place: what moves when a step ends is tapped amiss.
  const notes = NOTES.filter((note) =>
    brew.card.steps.some((step) => notesFor(brew.card.method, step).includes(note)),
  );
  const noted = brew.notes?.at(-1);
  if (brew.status !== 'running' && !noted) return null;
  return (
    <Card>
      <Subheading>{WORDS.seen}</Subheading>
      {brew.status === 'running' ? <Notes brew={brew} notes={notes} fits={now} all /> : null}
      {noted && noted.note !== 'still-brewing' ? (
        <Text>{noteWords(noted.note, brew.card.method).now}</Text>
      ) : null}
    </Card>
  );
}

function Summary({ brew }: { brew: BrewState }) {
  const nowMs = useNow(500);
  const units = useUnits();
  const { state } = useBar();
  const scale = useScale(brew.stationId);
  const order = state.orders[brew.orderId];
  const cup = order?.cups.find(({ cupId }) => cupId === brew.cupId);
  const zeroMs = anchorMs(brew, nowMs);
  const { card } = brew;
  const changed = Math.abs(card.ratio - brew.planned.ratio) >= 0.1;
  return (
    <Card style={{ flexDirection: 'row', gap: 16 }}>
      <Vessel method={card.method} {...levelOf(brew, nowMs)} size={104} />
      <View style={{ flex: 1, gap: 2 }}>
        <Row>
          {order ? <Badge badge={order.badge} size={28} /> : null}
          <Text bold numberOfLines={1} style={{ flex: 1 }}>
            {cupInWords(brew.ask, units)}
          </Text>
        </Row>
        {cup ? <Wishes cup={cup} /> : null}
        <Text size="verb">{zeroMs === null ? 'prep' : showClock(Math.max(0, nowMs - zeroMs) / 1000)}</Text>
        <Text quiet size="small">
          {WORDS.to1(
            METHODS[card.method].name,
            inWords(showMass(card.doseG, units, 'dose')),
            inWords(showMass(card.brewWaterG, units, 'water')),
            card.ratio.toFixed(1),
            changed ? WORDS.planned1(brew.planned.ratio.toFixed(1)) : '',
          )}
        </Text>
        {scale?.connected ? (
          <Text size="small" quiet>
            {WORDS.scaleReadsMass(inWords(showMass(scale.massG, units, 'water')))}
          </Text>
        ) : null}
        {brew.notes?.map(({ note, atMs }) => (
          <Text key={`${note} ${atMs}`} size="small" bold>
            {WORDS.nextTime(noteWords(note, card.method).name, noteWords(note, card.method).next)}
          </Text>
        ))}
      </View>
    </Card>
  );
}
