/**
 * Handing over: how the bar stands, on one page that makes itself, and is signed by whoever takes over.
 */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { badgeOf, type BarState } from '@even-kettle/core/brew';
import type { Bar, House, Today } from '@even-kettle/core/contract';
import { METHODS, type Recipe } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass, type Units } from '@even-kettle/core/units';
import { useBar, useUnits } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { clockTime } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Subheading, Text } from '../../ui/text';
import { WORDS } from './words';

/** Less than this is worth a word: of a coffee, grams; of papers, sheets. */
const LOW_G = 120;
const LOW_SHEETS = 20;

type Props = { bar: Bar; today: Today; house: House | undefined; sinceMs: number };

export function HandoverCard({ bar, today, house, sinceMs }: Props) {
  const { state, recipes } = useBar();
  const units = useUnits();
  const act = useAct();
  const signed = (state.houseEvents ?? []).findLast(
    (event) => event.type === 'shift-handed-over' && event.atMs >= sinceMs,
  );
  const name = bar.people.find(({ id }) => id === signed?.by)?.name ?? WORDS.somebody;
  return (
    <Card style={{ gap: 10 }}>
      <Subheading>{WORDS.handingOver}</Subheading>
      <Part title={WORDS.runs} lines={runsLines(state)} none={WORDS.nothingRuns} />
      <Part title={WORDS.drifts} lines={driftLines(today, recipes)} none={WORDS.nothingDrifts} />
      <Part title={WORDS.changed} lines={changeLines(today)} none={WORDS.nothingChanged} />
      <Part title={WORDS.care} lines={dueLines(today, house, units)} none={WORDS.nothingDue} />
      <Text quiet>{signed ? WORDS.signed(name, clockTime(signed.atMs)) : WORDS.notSigned}</Text>
      <Button
        kind={signed ? 'plain' : 'main'}
        label={WORDS.sign}
        onPress={() => act([{ type: 'shift-handed-over' }], WORDS.sign)}
        testID="sign-handover"
      />
    </Card>
  );
}

function Part({ title, lines, none }: { title: string; lines: readonly string[]; none: string }): ReactNode {
  return (
    <View style={{ gap: 2 }} role="group" aria-label={title}>
      <Text bold>{title}</Text>
      {lines.length === 0 ? <Text quiet>{none}</Text> : null}
      {lines.map((line) => (
        <Text key={line}>{line}</Text>
      ))}
    </View>
  );
}

function runsLines(state: BarState): string[] {
  const runs = Object.values(state.brews).filter(({ status }) => status === 'running');
  const cups = Object.values(state.orders).flatMap((order) => order.cups);
  const waiting = cups.filter(({ status }) => status === 'waiting').length;
  return [
    ...runs.map(({ orderId, stationName, ask }) =>
      WORDS.runsLine(badgeOf(state.orders[orderId]!.badge).letter, stationName, ask.coffee),
    ),
    ...(waiting > 0 ? [WORDS.waiting(waiting)] : []),
  ];
}

const driftLines = ({ drifts }: Today, recipes: readonly Recipe[]): string[] =>
  drifts.map(({ coffee, recipeId, byS }) =>
    WORDS.driftLine(
      coffee,
      recipes.find(({ id }) => id === recipeId)?.name ?? recipeId,
      showClock(Math.abs(byS)),
      byS > 0,
    ),
  );

/** The latest ten, the last of them first. */
const changeLines = ({ changes }: Today): string[] => [
  ...new Set(
    changes
      .slice(-10)
      .reverse()
      .map(({ atMs, settings }) => WORDS.changedLine(clockTime(atMs), settings.join(', '))),
  ),
];

function dueLines({ kettles }: Today, house: House | undefined, units: Units): string[] {
  const { litres, descaleAfterL } = kettles;
  return [
    ...(house?.cloths ?? []).flatMap(({ name, due }) => due.map((words) => WORDS.clothDue(name, words))),
    ...(house?.papers ?? []).flatMap(({ method, sheets }) =>
      sheets !== null && sheets < LOW_SHEETS ? [WORDS.papersLow(METHODS[method].name, sheets)] : [],
    ),
    ...(house?.coffees ?? []).flatMap(({ name, stockG }) =>
      stockG !== null && stockG < LOW_G
        ? [WORDS.coffeeLow(name, inWords(showMass(stockG, units, 'water')))]
        : [],
    ),
    ...(descaleAfterL !== null && litres >= descaleAfterL ? [WORDS.descale(litres, descaleAfterL)] : []),
  ];
}
