/**
 * How the drill went against the plan: waits, late pours and what they cost, idle hands, and what to practise next. The shift
 * can be looked at again on the rail.
 */
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { badgeOf } from '@even-kettle/core/brew';
import type { RushReview } from '@even-kettle/core/practice';
import { showClock } from '@even-kettle/core/units';
import type { Bar } from '@even-kettle/core/contract';
import { BarContext, useHere } from '../../client/bar-context';
import { stillBar } from '../../client/private-bar';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Slider } from '../../ui/slider';
import { Subheading, Text } from '../../ui/text';
import { Table } from '../../ui/table';
import { Rail } from '../../parts/hands/rail';
import { clockOf } from './instruction';
import { Keep } from './keep';
import type { RushMoment } from './rush-shift';
import { WORDS } from './words';

type Props = {
  review: RushReview;
  moments: readonly RushMoment[];
  bar: Bar;
  startMs: number;
  onAgain: () => void;
  onNext: () => void;
  onRecord: (() => Promise<void>) | null;
};

const clock = (s: number | null): string => (s === null ? WORDS.notOut : showClock(s));

export function RushReviewPage({ review, moments, bar, startMs, onAgain, onNext, onRecord }: Props) {
  const badges = moments.at(-1)?.state.orders ?? {};
  const letter = (orderId: string) => badgeOf(badges[orderId]?.badge ?? 0).letter;
  return (
    <View style={{ gap: 12 }} testID="rush-review">
      <Card>
        <Text size="verb">{review.isMastered ? WORDS.mastered : WORDS.notMastered}</Text>
        <Text>
          {WORDS.nextDrillIs(
            WORDS.levels[review.next.level],
            review.next.surprises.map((each) => WORDS.surprises[each]),
          )}
        </Text>
        <Row style={{ flexWrap: 'wrap' }}>
          <Button kind="main" label={WORDS.nextDrill} onPress={onNext} />
          <Button label={WORDS.sameAgain} onPress={onAgain} />
        </Row>
      </Card>
      <Card>
        <Subheading>{WORDS.rushWaits}</Subheading>
        <Table
          label={WORDS.rushWaits}
          rows={review.orders}
          columns={[
            { name: WORDS.order, value: ({ orderId }) => letter(orderId) },
            {
              name: WORDS.waited,
              value: ({ waitS }) => waitS,
              show: ({ waitS }) => clock(waitS),
              numeric: true,
            },
            {
              name: WORDS.couldHave,
              value: ({ exactS }) => exactS,
              show: ({ exactS }) => clock(exactS),
              numeric: true,
            },
          ]}
        />
        <Text size="small" quiet>
          {WORDS.couldHaveIs}
        </Text>
      </Card>
      <Card>
        <Subheading>{WORDS.whatItCost}</Subheading>
        <Text testID="idle">{WORDS.idle(showClock(review.idleS))}</Text>
        <Text>{WORDS.wrongOrder(review.wrongOrder)}</Text>
        <Text>{WORDS.tooEarly(review.tooEarly)}</Text>
        {review.latePours.map(({ brewId, step, station, lateS, bareS }) => (
          <Text key={`${brewId} ${step}`}>{WORDS.latePour(station, step, lateS, bareS)}</Text>
        ))}
        {review.latePours.length === 0 ? <Text>{WORDS.noLatePour}</Text> : null}
        {review.outOfWindow.map(({ brewId, station, byS }) => (
          <Text key={brewId}>{WORDS.outOfWindow(station, showClock(Math.abs(byS)), byS > 0)}</Text>
        ))}
      </Card>
      <Keep onRecord={onRecord} />
      <Replay moments={moments} bar={bar} startMs={startMs} />
    </View>
  );
}

/** The rail as it stood at a moment of the drill. */
function Replay({ moments, bar, startMs }: Pick<Props, 'moments' | 'bar' | 'startMs'>) {
  const here = useHere();
  const lastMs = moments.at(-1)?.atMs ?? startMs;
  const [atS, setAtS] = useState(0);
  const atMs = startMs + atS * 1000;
  const moment = moments.findLast((each) => each.atMs <= atMs) ?? moments[0];
  const still = useMemo(
    () => moment && stillBar(here, { bar, state: moment.state, plan: moment.plan, atMs }),
    [here, bar, moment, atMs],
  );
  if (!still) return null;
  return (
    <View style={{ gap: 6 }}>
      <Subheading>{WORDS.replay}</Subheading>
      <Slider
        label={WORDS.replayAt}
        value={atS}
        most={Math.ceil((lastMs - startMs) / 1000)}
        says={clockOf(atS)}
        onChange={setAtS}
      />
      <BarContext.Provider value={still}>
        <Rail minutes={8} />
      </BarContext.Provider>
    </View>
  );
}
