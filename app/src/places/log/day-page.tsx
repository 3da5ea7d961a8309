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
import { Loaded, PageHead } from './loaded';
import { ProgressBar } from './progress-bar';

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
      <PageHead title={back === 0 ? `Today, ${name}` : name} />
      <Row>
        <Button label="Day before" onPress={() => setBack(back + 1)} />
        <Button label="Day after" disabled={back === 0} onPress={() => setBack(Math.max(0, back - 1))} />
        <Button
          kind="bare"
          label="Print"
          says={`Print the day of ${bar?.name ?? 'the bar'}`}
          onPress={() => window.print()}
        />
      </Row>
      <Loaded of={day} what="the day">
        {(of) =>
          of.cups === 0 && of.abandoned.length === 0 ? (
            <Notice title="Nothing was brewed on this day" />
          ) : (
            <DayDetails day={of} />
          )
        }
      </Loaded>
    </Page>
  );
}

function DayDetails({ day }: { day: Day }) {
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
          {day.late.length === 0 ? 'No order was late' : `${day.late.length} late of ${day.orders}`}
        </Subheading>
        {day.late.slice(0, 12).map(({ orderId, badge, guest, byS, cause }) => (
          <Row key={orderId}>
            <Badge badge={badge} />
            <Text style={{ flex: 1 }} numberOfLines={1}>
              {guest ?? 'no name'}
            </Text>
            <Text bold>{showClock(byS)}</Text>
            <Text size="small" quiet style={{ flexBasis: 150 }}>
              {cause}
            </Text>
          </Row>
        ))}
      </Card>
      <Card>
        <Subheading>Hands, by method</Subheading>
        {day.handsByMethod.map(({ method, cups, handsS }) => (
          <View key={method} style={{ gap: 2 }}>
            <Row style={{ justifyContent: 'space-between' }}>
              <Text>
                {METHODS[method].name}, {cups} cup{cups === 1 ? '' : 's'}
              </Text>
              <Text bold>{showClock(handsS)}</Text>
            </Row>
            <ProgressBar share={handsS / most} />
          </View>
        ))}
      </Card>
      <Card>
        <Subheading>Lost and made again</Subheading>
        <Text>
          {day.remade} made again, {day.abandoned.reduce((sum, { count }) => sum + count, 0)} given up
          {day.waste.coffeeG > 0
            ? `: ${inWords(showMass(day.waste.coffeeG, units, 'dose'))} of coffee, ${inWords(showMass(day.waste.waterG, units, 'water'))} of water`
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
          <Subheading>Learnt</Subheading>
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
