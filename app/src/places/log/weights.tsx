/**
 * The weight of a brew over the plan's line, and over other brews of the same recipe and coffee.
 */
import { addressWith } from '@even-kettle/core/contract/addresses';
import { useState } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import { useQueries, useQuery } from '@tanstack/react-query';
import type { BrewPage, BrewRecord } from '@even-kettle/core/contract';
import { showClock } from '@even-kettle/core/units';
import { useHere, useUnits } from '../../client/bar-context';
import { dayAndTime } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Subheading } from '../../ui/text';
import { Picture } from './picture';
import { DASHES, TraceChart, TraceTable } from './trace-chart';
import { WORDS } from './words';

/** Of so many of the latest the others are chosen. */
const OFFERED = 30;

export function Weights({ record, trace }: Pick<BrewPage, 'record' | 'trace'>) {
  const { api, clock } = useHere();
  const units = useUnits();
  const [chosen, setChosen] = useState<BrewRecord[]>([]);
  const same = useQuery({
    queryKey: ['log', 'same', record.recipeId, record.coffee],
    queryFn: () => api.log({ recipeId: record.recipeId, coffee: record.coffee }, null),
  });
  const pages = useQueries({
    queries: chosen.map(({ brewId }) => ({
      queryKey: ['log', 'brew', brewId],
      queryFn: () => api.brew(brewId),
    })),
  });
  const offered = (same.data?.records ?? [])
    .filter(({ brewId, zeroMs }) => brewId !== record.brewId && zeroMs !== null)
    .slice(0, OFFERED)
    .filter(({ brewId }) => !chosen.some((other) => other.brewId === brewId));
  const named = ({ endedMs, realBrewS }: BrewRecord) =>
    `${dayAndTime(endedMs, clock.nowMs())}${realBrewS === null ? '' : `, ${showClock(realBrewS)}`}`;
  return (
    <Card>
      <Row style={{ justifyContent: 'space-between' }}>
        <Subheading>{WORDS.waterOverTime}</Subheading>
        <Button
          kind="bare"
          label={WORDS.runOfThese}
          onPress={() =>
            router.push({
              pathname: '/log/run',
              params: { recipeId: record.recipeId, coffee: record.coffee },
            })
          }
        />
      </Row>
      <Picture
        name={`brew-${record.brewId}`}
        csv={trace ? addressWith('getTraceCsv', { id: record.brewId }) : undefined}
        table={<TraceTable record={record} points={trace} units={units} />}
      >
        <TraceChart
          record={record}
          points={trace}
          others={chosen.map((other, n) => ({ record: other, points: pages[n]?.data?.trace ?? null }))}
          units={units}
        />
      </Picture>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {chosen.map((other, n) => (
          <Button
            key={other.brewId}
            label={`${n + 1}: ${named(other)}`}
            says={WORDS.takeAway(n + 1, named(other))}
            icon="close"
            onPress={() => setChosen(chosen.filter(({ brewId }) => brewId !== other.brewId))}
          />
        ))}
      </View>
      {offered.length > 0 && chosen.length < DASHES.length ? (
        <Select
          label={WORDS.layAnotherOverIt}
          value=""
          onChange={(id) => setChosen([...chosen, ...offered.filter(({ brewId }) => brewId === id)])}
          options={[
            { value: '', label: chosen.length === 0 ? 'none' : WORDS.oneMore },
            ...offered.map((other) => ({ value: other.brewId, label: named(other) })),
          ]}
        />
      ) : null}
    </Card>
  );
}
