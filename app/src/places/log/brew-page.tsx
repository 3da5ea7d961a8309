/**
 * One finished brew: its weight over the plan's line, its steps planned against real, its taste, and the one change that
 * it asks for.
 */
import { View } from 'react-native';
import { useLocalSearchParams } from 'expo-router';
import { useQuery } from '@tanstack/react-query';
import { noteWords } from '@even-kettle/core/brew';
import type { BrewPage as Page_, BrewRecord } from '@even-kettle/core/contract';
import { METHODS } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass, showTemperature } from '@even-kettle/core/units';
import { useBar, useHere, useUnits } from '../../client/bar-context';
import { dayAndTime } from '../../words/hands-words';
import { Badge } from '../../ui/badge';
import { Card } from '../../ui/card';
import { Page, Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { AdviceCard } from './advice-card';
import { Loaded, PageHead } from '../../parts/loaded';
import { verdict } from './brewed';
import { Picture } from './picture';
import { StrengthChart, StrengthTable } from './strength-chart';
import { TasteForm } from './taste-form';
import { Weights } from './weights';
import { WORDS } from './words';

export function BrewPage() {
  const { id } = useLocalSearchParams<{ id: string }>();
  return (
    <Page>
      <PageHead title={WORDS.aBrew} />
      <BrewOf id={id} />
    </Page>
  );
}

/** All that is known of one brew: a page's, or what stands beside the list. */
export function BrewOf({ id }: { id: string }) {
  const { api } = useHere();
  const { state, waiting } = useBar();
  const tastedMs = state.brews[id]?.taste?.atMs ?? null;
  const page = useQuery({
    // Asked again once what was said here has been stored there.
    queryKey: ['log', 'brew', id, tastedMs, waiting],
    queryFn: () => api.brew(id),
    placeholderData: (before) => (before?.record.brewId === id ? before : undefined),
  });
  return (
    <Loaded of={page} what={WORDS.theBrew}>
      {(of) => <BrewDetails key={id} page={of} />}
    </Loaded>
  );
}

function BrewDetails({ page: { record, trace, advice } }: { page: Page_ }) {
  const strength =
    record.taste?.tdsPct === undefined || record.yieldPct === null
      ? []
      : [{ tdsPct: record.taste.tdsPct, yieldPct: record.yieldPct, name: record.coffee }];
  return (
    <>
      <Summary record={record} />
      {record.zeroMs === null ? null : <Weights record={record} trace={trace} />}
      {advice ? <AdviceCard record={record} advice={advice} /> : null}
      {record.outcome === 'served' ? (
        <TasteForm key={record.taste?.atMs ?? 'untold'} record={record} />
      ) : null}
      {strength.length > 0 ? (
        <Card>
          <Subheading>{WORDS.strengthAndExtraction}</Subheading>
          <Picture name={`extraction-${record.brewId}`} table={<StrengthTable points={strength} />}>
            <StrengthChart points={strength} />
          </Picture>
          <Text size="small" quiet>
            {METHODS[record.method].isImmersion
              ? WORDS.immersionYield
              : WORDS.percolationYield(record.beverageG === null ? WORDS.beverageNotWeighed : '')}
          </Text>
        </Card>
      ) : null}
      <Steps record={record} />
    </>
  );
}

function Summary({ record }: { record: BrewRecord }) {
  const units = useUnits();
  const { recipes, bar } = useBar();
  const { clock } = useHere();
  const grams = (g: number, as: 'dose' | 'water') => inWords(showMass(g, units, as));
  const grinder = bar?.grinders.find(({ id }) => id === record.grind?.grinderId)?.name;
  const people = record.by.map((id) => bar?.people.find((person) => person.id === id)?.name ?? id);
  const facts: [string, string][] = [
    ['for', [record.guest, ...(record.sharers ?? []).map(({ guest }) => guest)].filter(Boolean).join(', ')],
    [
      'dose',
      `${grams(record.doseG, 'dose')}${record.doseG === record.plannedDoseG ? '' : WORDS.planned(grams(record.plannedDoseG, 'dose'))}`,
    ],
    ['water', `${grams(record.brewWaterG, 'water')}, 1:${record.ratio.toFixed(1)}`],
    [
      'beverage',
      record.beverageG === null
        ? WORDS.byTheCard(grams(record.plannedBeverageG, 'water'))
        : WORDS.weighed(grams(record.beverageG, 'water')),
    ],
    [
      'at',
      `${inWords(showTemperature(record.waterC, units, !Number.isInteger(record.waterC)))}${record.water ? `, ${record.water}` : ''}`,
    ],
    ['ground', record.grind ? `${grinder ?? record.grind.grinderId} ${record.grind.setting}` : ''],
    ['age', record.ageDays === null ? '' : WORDS.days(record.ageDays)],
    [WORDS.handsOf, people.join(', ')],
  ];
  return (
    <Card ruled={record.outcome === 'abandoned'}>
      <Row>
        {record.fromFile ? null : <Badge badge={record.badge} size={34} />}
        <View style={{ flex: 1 }}>
          <Text size="title" numberOfLines={2}>
            {record.coffee} · {METHODS[record.method].name}
          </Text>
          <Text size="small" quiet>
            {dayAndTime(record.endedMs, clock.nowMs())}, {record.stationName} ·{' '}
            {recipes.find(({ id }) => id === record.recipeId)?.name ?? record.recipeId}
            {WORDS.version} {record.recipeVersion}
            {record.attempt > 1 ? WORDS.brewedAgain : ''}
          </Text>
        </View>
        <Text size="verb" testID="brew-time">
          {record.realBrewS === null ? '–' : showClock(record.realBrewS)}
        </Text>
      </Row>
      <Text>{verdict(record)}</Text>
      {record.fromFile ? (
        <Text size="small" quiet>
          {WORDS.importedBrewHint}
        </Text>
      ) : null}
      {record.notes.length > 0 ? (
        <Text size="small">{record.notes.map((note) => noteWords(note, record.method).name).join(', ')}</Text>
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', rowGap: 6 }}>
        {facts
          .filter(([, value]) => value !== '')
          .map(([name, value]) => (
            <View key={name} style={{ width: '50%', paddingRight: 10 }}>
              <Text size="small" quiet>
                {name}
              </Text>
              <Text>{value}</Text>
            </View>
          ))}
      </View>
    </Card>
  );
}

function Steps({ record }: { record: BrewRecord }) {
  const units = useUnits();
  const steps = record.steps.filter(({ realEndS }) => realEndS !== null);
  if (steps.length === 0) return null;
  const at = (s: number) => `${s <= -0.5 ? '−' : ''}${showClock(Math.abs(s))}`;
  const cell = (text: string, quiet = false, flex = 1) => (
    <Text size="small" quiet={quiet} style={{ flex, textAlign: flex === 1 ? 'right' : 'left' }}>
      {text}
    </Text>
  );
  return (
    <Card style={{ gap: 4 }}>
      <Subheading>{WORDS.stepByStep}</Subheading>
      <Row>
        {cell('', true, 2)}
        {cell('planned', true)}
        {cell('begun', true)}
        {cell('done', true)}
        {cell('reads', true)}
      </Row>
      {steps.map(
        ({ id, name, phase, plannedStartS, realStartS, realEndS, targetG, readingG, readC, askedC }) => (
          <Row key={id}>
            {cell(name, false, 2)}
            {cell(phase === 'brew' ? at(plannedStartS) : '', true)}
            {cell(realStartS === null ? '' : at(realStartS))}
            {cell(at(realEndS!))}
            {cell(
              readC !== undefined && askedC
                ? WORDS.readOfAsked(
                    inWords(showTemperature(readC, units)),
                    showTemperature(askedC.from, units).figure,
                    showTemperature(askedC.to, units).figure,
                  )
                : readingG !== null
                  ? showMass(readingG, units, 'water').figure
                  : targetG === null
                    ? ''
                    : `(${showMass(targetG, units, 'water').figure})`,
            )}
          </Row>
        ),
      )}
    </Card>
  );
}
