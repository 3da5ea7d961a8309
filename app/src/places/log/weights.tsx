/**
 * The weight of a brew over the plan's line, and over up to three others of any recipe and method, with what they were brewed with.
 */
import { addressWith } from '@even-kettle/core/contract/addresses';
import { useState } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import { useQueries, useQuery } from '@tanstack/react-query';
import type { BrewPage, BrewRecord } from '@even-kettle/core/contract';
import { tasteInWords } from '@even-kettle/core/brew';
import { METHODS } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass, showTemperature } from '@even-kettle/core/units';
import { useBar, useHere, useUnits } from '../../client/bar-context';
import { dayAndTime } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Table, type Column } from '../../ui/table';
import { Subheading, Text } from '../../ui/text';
import { Picture } from './picture';
import { DASHES, TraceChart, TraceTable, asShares, showGrams, showShare, type Of } from './trace-chart';
import { WORDS } from './words';

/** Of so many of the latest the others are chosen. */
const OFFERED = 30;
/** Among which brews the others are looked for. */
type Scope = 'recipe' | 'coffee' | 'all';

export function Weights({ record, trace }: Pick<BrewPage, 'record' | 'trace'>) {
  const { api, clock } = useHere();
  const { recipes } = useBar();
  const units = useUnits();
  const [chosen, setChosen] = useState<BrewRecord[]>([]);
  const [scope, setScope] = useState<Scope>('recipe');
  const [isShare, setIsShare] = useState(false);
  const asked =
    scope === 'recipe'
      ? { recipeId: record.recipeId, coffee: record.coffee }
      : scope === 'coffee'
        ? { coffee: record.coffee }
        : {};
  const same = useQuery({
    queryKey: ['log', 'same', scope, record.recipeId, record.coffee],
    queryFn: () => api.log(asked, null),
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
  const named = ({ endedMs, realBrewS, coffee, recipeId, method }: BrewRecord) =>
    [
      dayAndTime(endedMs, clock.nowMs()),
      recipeId === record.recipeId
        ? null
        : `${METHODS[method].name}: ${recipes.find(({ id }) => id === recipeId)?.name ?? recipeId}`,
      coffee === record.coffee ? null : coffee,
      realBrewS === null ? null : showClock(realBrewS),
    ]
      .filter(Boolean)
      .join(', ');
  // On a phone a name in full is wider than the page.
  const shortly = (other: BrewRecord) =>
    other.recipeId === record.recipeId && other.coffee === record.coffee
      ? named(other)
      : `${dayAndTime(other.endedMs, clock.nowMs())}, ${METHODS[other.method].name}`;
  // With nothing beside it a brew is drawn in its own grams.
  const byShare = isShare && chosen.length > 0;
  const show = byShare ? showShare : showGrams(units);
  const drawn = (of: Of) => (byShare ? asShares(of) : of);
  const own = drawn({ record, points: trace });
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
        table={<TraceTable {...own} show={show} />}
      >
        <TraceChart
          {...own}
          others={chosen.map((other, n) => drawn({ record: other, points: pages[n]?.data?.trace ?? null }))}
          show={show}
        />
      </Picture>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
        {chosen.map((other, n) => (
          <Button
            key={other.brewId}
            label={`${n + 1}: ${shortly(other)}`}
            says={WORDS.takeAway(n + 1, named(other))}
            icon="close"
            onPress={() => setChosen(chosen.filter(({ brewId }) => brewId !== other.brewId))}
          />
        ))}
      </View>
      {chosen.length > 0 ? (
        <>
          <Choice
            name={WORDS.waterIsDrawn}
            value={isShare ? 'share' : 'grams'}
            onChange={(value) => setIsShare(value === 'share')}
            options={[
              { value: 'grams', label: WORDS.asWeight },
              { value: 'share', label: WORDS.asShareOfWater },
            ]}
          />
          <Compared brews={[record, ...chosen]} />
        </>
      ) : null}
      <Text size="small" quiet>
        {WORDS.compareWith}
      </Text>
      <Choice
        name={WORDS.compareWith}
        value={scope}
        onChange={setScope}
        options={[
          { value: 'recipe', label: WORDS.sameRecipe },
          { value: 'coffee', label: WORDS.sameCoffee },
          { value: 'all', label: WORDS.anyBrew },
        ]}
      />
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

/** What each of the brews was brewed with, and how it tasted. */
function Compared({ brews }: { brews: readonly BrewRecord[] }) {
  const units = useUnits();
  const columns: Column<BrewRecord>[] = [
    {
      name: WORDS.brewLabel,
      value: (brew) => brews.indexOf(brew),
      show: (brew) =>
        `${brews.indexOf(brew) === 0 ? WORDS.thisOne : brews.indexOf(brew)}: ${METHODS[brew.method].name}`,
    },
    {
      name: WORDS.dose,
      value: ({ doseG }) => doseG,
      show: ({ doseG }) => inWords(showMass(doseG, units, 'dose')),
      numeric: true,
    },
    {
      name: WORDS.ratioLabel,
      value: ({ ratio }) => ratio,
      show: ({ ratio }) => `1:${ratio.toFixed(1)}`,
      numeric: true,
    },
    {
      name: WORDS.waterTemperature,
      value: ({ waterC }) => waterC,
      show: ({ waterC }) => inWords(showTemperature(waterC, units)),
      numeric: true,
    },
    {
      name: WORDS.setting,
      value: ({ grind }) => grind?.setting ?? null,
      show: ({ grind }) => (grind ? String(grind.setting) : ''),
      numeric: true,
    },
    { name: WORDS.taste, value: ({ taste }) => (taste ? tasteInWords(taste) : '') },
  ];
  return <Table label={WORDS.brewsCompared} columns={columns} rows={brews} />;
}
