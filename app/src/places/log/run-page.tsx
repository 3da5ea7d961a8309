/**
 * The run of one recipe with one coffee: every brew's time, the limits that its own history gives, and what is learnt.
 */
import { View } from 'react-native';
import { router, useLocalSearchParams } from 'expo-router';
import { useQuery } from '@tanstack/react-query';
import type { Learnt } from '@even-kettle/core/contract';
import { showClock } from '@even-kettle/core/units';
import { useBar, useHere } from '../../client/bar-context';
import { dayAndTime } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Notice } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Subheading, Text } from '../../ui/text';
import { Loaded, PageHead } from './loaded';
import { Picture } from './picture';
import { RunChart, RunTable } from './run-chart';
import { TriedLine } from './tried-line';

export function RunPage() {
  const { api } = useHere();
  const { bar, recipes } = useBar();
  const asked = useLocalSearchParams<{ recipeId?: string; coffee?: string }>();
  // Nothing chosen yet: the latest brew's.
  const latest = useQuery({ queryKey: ['log', 'latest'], queryFn: () => api.log({}, null) });
  const last = latest.data?.records.find(({ outcome }) => outcome === 'served');
  const recipeId = asked.recipeId ?? last?.recipeId;
  const coffee = asked.coffee ?? last?.coffee;
  const learnt = useQuery({
    queryKey: ['learnt', recipeId, coffee],
    queryFn: () => api.learnt(recipeId!, coffee!),
    enabled: recipeId !== undefined && coffee !== undefined,
  });
  const choose = (params: { recipeId?: string; coffee?: string }) =>
    router.setParams({ recipeId: recipeId ?? '', coffee: coffee ?? '', ...params });
  if (latest.isSuccess && recipeId === undefined)
    return (
      <Page>
        <PageHead title="Brew-time trend" />
        <Notice title="Nothing brewed yet">The first brews that are handed over begin the run.</Notice>
      </Page>
    );
  return (
    <Page>
      <PageHead title="Brew-time trend" />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
        <Select
          label="Recipe"
          value={recipeId ?? ''}
          onChange={(id) => choose({ recipeId: id })}
          options={recipes.map(({ id, name }) => ({ value: id, label: name }))}
          style={{ flexGrow: 1, flexBasis: 200 }}
        />
        <Select
          label="Coffee"
          value={coffee ?? ''}
          onChange={(name) => choose({ coffee: name })}
          options={[
            ...new Set([...(bar?.coffees ?? []).map(({ name }) => name), ...(coffee ? [coffee] : [])]),
          ].map((name) => ({ value: name, label: name }))}
          style={{ flexGrow: 1, flexBasis: 150 }}
        />
      </View>
      <Loaded of={learnt} what="the run">
        {(of) => <RunDetails learnt={of} />}
      </Loaded>
    </Page>
  );
}

/** The latest of those that were left out. */
const ODD_SHOWN = 5;

function RunDetails({ learnt }: { learnt: Learnt }) {
  const { clock } = useHere();
  const { run, chart, tried } = learnt;
  if (run.length === 0)
    return <Notice title="No brew of these yet">Times are shown once one is handed over.</Notice>;
  return (
    <>
      <Card>
        <Subheading>Brew time, brew by brew</Subheading>
        <Picture
          name={`run-${learnt.recipeId}`}
          table={<RunTable run={run} chart={chart} nowMs={clock.nowMs()} />}
        >
          <RunChart run={run} chart={chart} nowMs={clock.nowMs()} />
        </Picture>
        <Text>{verdict(learnt)}</Text>
        <Text size="small" quiet>
          Times are as they would be for the latest cup’s size.
        </Text>
      </Card>
      <Facts learnt={learnt} />
      {tried.length > 0 ? (
        <Card>
          <Subheading>Tried</Subheading>
          {tried.map((each) => (
            <TriedLine key={each.atMs} tried={each} />
          ))}
        </Card>
      ) : null}
    </>
  );
}

function verdict({ run, chart }: Learnt): string {
  if (!chart) {
    const same = run.filter(({ setting }) => setting === run.at(-1)!.setting).length;
    return `${same} brew${same === 1 ? '' : 's'} at this setting; twelve give limits.`;
  }
  if (chart.shift)
    return `It has shifted: since brew ${chart.shift.fromIndex + 1} it takes ${Math.abs(Math.round(chart.shift.byS))} s ${chart.shift.byS > 0 ? 'longer' : 'less'}. Look at what changed then.`;
  const odd = chart.outside.filter(Boolean).length;
  return odd === 0
    ? `It runs as it does: ${showClock(chart.lowS)} to ${showClock(chart.highS)}, around ${showClock(chart.centreS)}.`
    : `It runs as it does, around ${showClock(chart.centreS)}; ${odd} brew${odd === 1 ? ' was' : 's were'} odd by ${odd === 1 ? 'itself' : 'themselves'}.`;
}

/** How long a coffee's beds take, against what its cards say. */
function levelInWords(level: number): string {
  const percent = Math.round(100 * (level - 1));
  if (percent === 0) return 'as cards expect';
  return `${Math.abs(percent)} % ${percent > 0 ? 'longer' : 'shorter'} than cards expect, and planned with`;
}

type Fact = { name: string; value: string; from: string; odd?: string[] | undefined };

/** What is learnt, from how many brews, and how sure it is; brews that were left out, by name. */
function Facts({ learnt: { run, grind, retention, drawdown } }: { learnt: Learnt }) {
  const facts: Fact[] = [
    ...(grind
      ? [
          {
            name: 'a step coarser',
            value: `${grind.secondsPerStep < 0 ? '−' : '+'}${Math.abs(Math.round(grind.secondsPerStep))} s ± ${Math.round(grind.plusMinusS)} s (80 %)`,
            from:
              grind.brews === 0
                ? 'the usual, no brew yet'
                : `${grind.grinderName}, from ${grind.brews} brew${grind.brews === 1 ? '' : 's'}`,
          },
        ]
      : []),
    {
      name: 'retention',
      value: retention
        ? `${retention.gPerG.toFixed(2)} g/g ± ${retention.plusMinus.toFixed(2)} (80 %)`
        : 'the method’s own',
      from: retention ? `from ${retention.cups} weighed cups` : 'five weighed cups teach it',
      odd: retention?.outliers,
    },
    {
      name: 'drawdown',
      value: drawdown ? `${Math.round(drawdown.usualS)} s at ${drawdown.usualG} g` : 'the recipe’s own',
      from: drawdown
        ? `${levelInWords(drawdown.level)}; grows with water to the power ${drawdown.exponent} ± ${(1.28 * drawdown.exponentSd).toFixed(2)} (80 %); from ${drawdown.brews} brews`
        : 'eight brews teach it',
      odd: drawdown?.outliers,
    },
  ];
  return (
    <Card>
      <Subheading>Learnt</Subheading>
      {facts.map(({ name, value, from, odd = [] }) => (
        <View key={name}>
          <Text size="small" quiet>
            {name}
          </Text>
          <Text bold>{value}</Text>
          <Text size="small" quiet>
            {from}
          </Text>
          {odd.length > 0 ? <Odd ids={odd} run={run} of={name} /> : null}
        </View>
      ))}
    </Card>
  );
}

/** Brews that the rest speaks against, each a way to its page. */
function Odd({ ids, run, of }: { ids: string[]; run: Learnt['run']; of: string }) {
  const { clock } = useHere();
  const shown = ids.slice(-ODD_SHOWN);
  return (
    <Row style={{ flexWrap: 'wrap', gap: 0 }}>
      <Text size="small" quiet>
        left out as odd{shown.length < ids.length ? `, the latest of ${ids.length}` : ''}:
      </Text>
      {shown.map((id) => {
        const brew = run.find(({ brewId }) => brewId === id);
        const when = brew ? dayAndTime(brew.endedMs, clock.nowMs()) : 'an older brew';
        return (
          <Button
            key={id}
            kind="bare"
            label={when}
            says={`Left out of ${of}: ${brew ? `the brew of ${when}` : when}`}
            onPress={() => router.push({ pathname: '/log/[id]', params: { id } })}
          />
        );
      })}
    </Row>
  );
}
