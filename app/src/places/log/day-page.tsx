/**
 * A day at the bar on one page: what went out, how long people waited, what held them up, what was learnt. It prints.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { useQuery } from '@tanstack/react-query';
import type { DayPage as Day } from '@even-kettle/core/contract';
import { METHODS } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass } from '@even-kettle/core/units';
import { useBar, useHere, useNow, useUnits } from '../../client/bar-context';
import { Badge } from '../../ui/badge';
import { startOfDay, startOfNextDay } from '../../ui/days';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Notice } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { Loaded, PageHead } from '../../parts/loaded';
import { ProgressBar } from '../../parts/progress-bar';
import { WORDS } from './words';

const DAY_MS = 86_400_000;

export function DayPage() {
  const { api } = useHere();
  const nowMs = useNow(60_000);
  const { bar } = useBar();
  const [back, setBack] = useState(0);
  const todayMs = startOfDay(nowMs);
  const fromMs = startOfDay(todayMs - back * DAY_MS + DAY_MS / 2);
  const day = useQuery({
    queryKey: ['log', 'day', fromMs],
    queryFn: () => api.day(fromMs, startOfNextDay(fromMs)),
    // Bar time is 0 until it has been measured.
    enabled: nowMs > 0,
  });
  const name = new Date(fromMs).toLocaleDateString(undefined, {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
  });
  return (
    <Page>
      <PageHead title={back === 0 ? WORDS.today(name) : name} />
      <Row>
        <Button label={WORDS.dayBefore} onPress={() => setBack(back + 1)} />
        <Button label={WORDS.dayAfter} disabled={back === 0} onPress={() => setBack(Math.max(0, back - 1))} />
        <Button
          kind="bare"
          label={WORDS.print}
          says={WORDS.printTheDayOf(bar?.name ?? WORDS.theBar)}
          onPress={() => window.print()}
        />
      </Row>
      <Loaded of={day} what={WORDS.theDay}>
        {(of) =>
          of.cups === 0 && of.abandoned.length === 0 ? (
            <Notice title={WORDS.nothingBrewed} />
          ) : (
            <DayDetails day={of} />
          )
        }
      </Loaded>
    </Page>
  );
}

function DayDetails({ day }: { day: Day }) {
  const { bar } = useBar();
  const units = useUnits();
  const most = Math.max(1, ...day.handsByMethod.map(({ handsS }) => handsS));
  return (
    <>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
        <Figure value={String(day.cups)} name={`cups, ${day.orders} orders`} />
        <Figure value={day.waitS ? showClock(day.waitS.median) : '–'} name="median wait" />
        <Figure value={day.waitS ? showClock(day.waitS.p90) : '–'} name="waited, nine of ten within" />
        <Figure
          value={
            day.inWindow.of === 0 ? '–' : `${Math.round((100 * day.inWindow.inside) / day.inWindow.of)} %`
          }
          name="of brews inside their window"
        />
      </View>
      <Card>
        <Subheading>
          {day.late.length === 0 ? WORDS.noOrderWasLate : WORDS.lateOf(day.late.length, day.orders)}
        </Subheading>
        {day.late.slice(0, 12).map(({ orderId, badge, guest, byS, cause }) => (
          <Row key={orderId}>
            <Badge badge={badge} />
            <Text style={{ flex: 1 }} numberOfLines={1}>
              {guest ?? WORDS.noName}
            </Text>
            <Text bold>{showClock(byS)}</Text>
            <Text size="small" quiet style={{ flexBasis: 150 }}>
              {cause}
            </Text>
          </Row>
        ))}
      </Card>
      {day.queues.length > 1 ? (
        <Card>
          <Subheading>{WORDS.byQueue}</Subheading>
          {day.queues.map(({ queueId, orders, medianWaitS, late }) => (
            <Row key={queueId} style={{ justifyContent: 'space-between' }}>
              <Text bold>{bar?.queues?.find(({ id }) => id === queueId)?.name ?? queueId}</Text>
              <Text>{WORDS.queueOfADay(orders, showClock(medianWaitS), late)}</Text>
            </Row>
          ))}
        </Card>
      ) : null}
      <Card>
        <Subheading>{WORDS.handsByMethod}</Subheading>
        {day.handsByMethod.map(({ method, cups, handsS }) => (
          <View key={method} style={{ gap: 2 }}>
            <Row style={{ justifyContent: 'space-between' }}>
              <Text>{WORDS.cups(METHODS[method].name, cups)}</Text>
              <Text bold>{showClock(handsS)}</Text>
            </Row>
            <ProgressBar share={handsS / most} />
          </View>
        ))}
      </Card>
      <Card>
        <Subheading>{WORDS.lostAndMadeAgain}</Subheading>
        <Text>
          {day.remade} {WORDS.madeAgain} {day.abandoned.reduce((sum, { count }) => sum + count, 0)}{' '}
          {WORDS.givenUp}
          {day.waste.coffeeG > 0
            ? WORDS.ofCoffeeOfWater(
                inWords(showMass(day.waste.coffeeG, units, 'dose')),
                inWords(showMass(day.waste.waterG, units, 'water')),
              )
            : ''}
          .
        </Text>
        {day.abandoned.map(({ reason, count }) => (
          <Text key={reason} size="small" quiet>
            {count} × {reason}
          </Text>
        ))}
      </Card>
      {day.learnt.length > 0 ? (
        <Card>
          <Subheading>{WORDS.learnt}</Subheading>
          {day.learnt.map((words) => (
            <Text key={words}>{words}</Text>
          ))}
        </Card>
      ) : null}
    </>
  );
}

const Figure = ({ value, name }: { value: string; name: string }) => (
  <Card style={{ flexGrow: 1, flexBasis: 150, gap: 0 }}>
    <Text size="verb">{value}</Text>
    <Text size="small" quiet>
      {name}
    </Text>
  </Card>
);
