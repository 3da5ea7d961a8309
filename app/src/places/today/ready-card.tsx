/**
 * Mise en place: what to get ready for the rush that is expected, ticked off as it stands there. Brews use it up.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { differenceInMinutes } from 'date-fns/differenceInMinutes';
import type { Bar, Today } from '@even-kettle/core/contract';
import { METHODS } from '@even-kettle/core/recipe';
import { inWords, showMass, type Units } from '@even-kettle/core/units';
import { useBar, useNow, useUnits } from '../../client/bar-context';
import { useFeed } from '../../client/use-feed';
import { useAct } from '../../device/use-act';
import { startOfDay } from '../../ui/days';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { useTheme } from '../../ui/use-theme';
import { dosesOfBoats, together, wantedOf, type Wanted } from '../../parts/wanted';
import { WORDS } from './words';

export const HOURS = ['1', '2', '4'] as const;
export type Hours = (typeof HOURS)[number];
const HOUR_MS = 3600 * 1000;
const MOST_SHOWN = 8;

/** Minutes since local midnight. */
const minuteOf = (atMs: number): number => differenceInMinutes(atMs, startOfDay(atMs));

type Props = { bar: Bar; today: Today; hours: Hours; onHours: (hours: Hours) => void };

export function ReadyCard({ bar, today, hours, onHours }: Props) {
  const { state, recipes, book } = useBar();
  const { feed } = useFeed();
  // What was told a moment ago counts at once, though this clock turns seldom.
  const nowMs = Math.max(useNow(10_000, 300), state.houseEvents?.at(-1)?.atMs ?? 0);
  const [all, setAll] = useState(false);
  const { rush } = today;
  const toMs = nowMs + Number(hours) * HOUR_MS;
  const boats =
    feed?.nextBoatMs && feed.nextBoatMs < toMs
      ? 1 + Math.floor((toMs - feed.nextBoatMs) / (feed.everyMin * 60_000))
      : 0;
  const ofBoats = dosesOfBoats(boats, bar, recipes, book, state, minuteOf(nowMs));
  const wanted = wantedOf(together(rush.doses, ofBoats.doses), bar, recipes, state, nowMs);
  const shown = all ? wanted : wanted.slice(0, MOST_SHOWN);
  return (
    <Card style={{ gap: 8 }}>
      <Subheading>{WORDS.readyForTheRush}</Subheading>
      <Choice
        name={WORDS.theNext}
        value={hours}
        onChange={onHours}
        options={HOURS.map((value) => ({ value, label: WORDS.hours(Number(value)) }))}
      />
      <Text size="small" quiet>
        {[
          rush.weeks > 0 ? WORDS.expected(rush.cups, rush.weeks) : boats === 0 ? WORDS.nothingKnown : null,
          boats > 0 ? WORDS.boats(boats, ofBoats.cups) : null,
        ]
          .filter(Boolean)
          .join(' ')}
      </Text>
      <View>
        {shown.map((line) => (
          <ReadyLine key={[line.thing, line.coffee, line.doseG, line.method].join(' ')} line={line} />
        ))}
      </View>
      {wanted.length > shown.length ? (
        <Button kind="bare" label={WORDS.showAll(wanted.length)} onPress={() => setAll(true)} />
      ) : null}
      <Text size="small" quiet>
        {WORDS.coveredTins}
      </Text>
    </Card>
  );
}

function nameOf({ thing, coffee, doseG, method }: Wanted, units: Units): string {
  if (thing === 'tins') return WORDS.tinsOf(coffee ?? '', inWords(showMass(doseG ?? 0, units, 'dose')));
  return thing === 'filters' ? WORDS.filtersOf(METHODS[method!].name) : WORDS[thing];
}

function ReadyLine({ line }: { line: Wanted }) {
  const theme = useTheme();
  const units = useUnits();
  const act = useAct();
  const name = nameOf(line, units);
  const { thing, coffee, doseG, method, wanted, ready, stale } = line;
  const missing = Math.max(0, wanted - ready);
  const of = {
    thing,
    ...(coffee === undefined ? {} : { coffee }),
    ...(doseG === undefined ? {} : { doseG }),
    ...(method === undefined ? {} : { method }),
  };
  const got = (count: number) => act([{ type: 'made-ready', ...of, count }], WORDS.got(name));
  return (
    <View style={{ borderTopWidth: 1, borderColor: theme.rim, paddingVertical: 4, gap: 2 }}>
      <Row style={{ flexWrap: 'wrap' }}>
        <View style={{ flexGrow: 1, flexBasis: 150 }}>
          <Text bold={missing > 0} quiet={missing === 0}>
            {name}
          </Text>
          <Text size="small" quiet>
            {wanted > 0 ? WORDS.readyOf(ready, wanted) : WORDS.readyMore(ready)}
          </Text>
        </View>
        {missing > 1 ? (
          <Button
            label={WORDS.allOf(missing)}
            says={WORDS.allReady(missing, name)}
            onPress={() => got(missing)}
          />
        ) : null}
        <Button label="" icon="plus" says={WORDS.plusOneOf(name)} onPress={() => got(1)} />
      </Row>
      {stale > 0 && coffee !== undefined && doseG !== undefined ? (
        <Row style={{ flexWrap: 'wrap' }}>
          <Text role="alert" bold size="small" style={{ flexGrow: 1, flexBasis: 200 }}>
            {WORDS.stale(stale)}
          </Text>
          <Button
            label={WORDS.putBack}
            says={WORDS.putBackOf(name)}
            onPress={() => act([{ type: 'tins-emptied', coffee, doseG }], WORDS.putBackOf(name))}
          />
        </Row>
      ) : null}
    </View>
  );
}
