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
import { Loaded, PageHead } from '../../parts/loaded';
import { Picture } from './picture';
import { RunChart, RunTable } from './run-chart';
import { TriedLine } from './tried-line';
import { WORDS } from './words';

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
        <PageHead title={WORDS.brewTimeTrend} />
        <Notice title={WORDS.nothingBrewedYet}>{WORDS.runEmptyHint}</Notice>
      </Page>
    );
  return (
    <Page>
      <PageHead title={WORDS.brewTimeTrend} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
        <Select
          label={WORDS.recipe}
          value={recipeId ?? ''}
          onChange={(id) => choose({ recipeId: id })}
          options={recipes.map(({ id, name }) => ({ value: id, label: name }))}
          style={{ flexGrow: 1, flexBasis: 200 }}
        />
        <Select
          label={WORDS.coffee}
          value={coffee ?? ''}
          onChange={(name) => choose({ coffee: name })}
          options={[
            ...new Set([...(bar?.coffees ?? []).map(({ name }) => name), ...(coffee ? [coffee] : [])]),
          ].map((name) => ({ value: name, label: name }))}
          style={{ flexGrow: 1, flexBasis: 150 }}
        />
      </View>
      <Loaded of={learnt} what={WORDS.theRun}>
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
  if (run.length === 0) return <Notice title={WORDS.noBrewsYet}>{WORDS.timesOnceServed}</Notice>;
  return (
    <>
      <Card>
        <Subheading>{WORDS.brewTimeChart}</Subheading>
        <Picture
          name={`run-${learnt.recipeId}`}
          table={<RunTable run={run} chart={chart} nowMs={clock.nowMs()} />}
        >
          <RunChart run={run} chart={chart} nowMs={clock.nowMs()} />
        </Picture>
        <Text>{verdict(learnt)}</Text>
        <Text size="small" quiet>
          {WORDS.timesForLatestSize}
        </Text>
      </Card>
      <Facts learnt={learnt} />
      {tried.length > 0 ? (
        <Card>
          <Subheading>{WORDS.tried}</Subheading>
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
    return WORDS.brewsAtSetting(same);
  }
  if (chart.shift)
    return WORDS.runShifted(
      chart.shift.fromIndex + 1,
      Math.abs(Math.round(chart.shift.byS)),
      chart.shift.byS > 0 ? 'longer' : 'less',
    );
  const odd = chart.outside.filter(Boolean).length;
  return odd === 0
    ? WORDS.runsWithin(showClock(chart.lowS), showClock(chart.highS), showClock(chart.centreS))
    : WORDS.runsAround(showClock(chart.centreS), odd);
}

/** How long a coffee's beds take, against what its cards say. */
function levelInWords(level: number): string {
  const percent = Math.round(100 * (level - 1));
  if (percent === 0) return WORDS.asCardsExpect;
  return WORDS.bedsPlannedWith(Math.abs(percent), percent > 0 ? 'longer' : 'shorter');
}

type Fact = { name: string; value: string; from: string; odd?: string[] | undefined };

/** What is learnt, from how many brews, and how sure it is; brews that were left out, by name. */
function Facts({ learnt: { versions, run, grind, retention, drawdown } }: { learnt: Learnt }) {
  const facts: Fact[] = [
    ...(grind
      ? [
          {
            name: WORDS.aStepCoarser,
            value: `${grind.secondsPerStep < 0 ? '−' : '+'}${Math.abs(Math.round(grind.secondsPerStep))} s ± ${Math.round(grind.plusMinusS)} s (80 %)`,
            from: grind.brews === 0 ? WORDS.usualNoBrew : WORDS.fromBrews(grind.grinderName, grind.brews),
          },
        ]
      : []),
    {
      name: 'retention',
      value: retention
        ? `${retention.gPerG.toFixed(2)} g/g ± ${retention.plusMinus.toFixed(2)} (80 %)`
        : WORDS.theMethodsOwn,
      from: retention ? WORDS.fromWeighedCups(retention.cups) : WORDS.fiveWeighedCups,
      odd: retention?.outliers,
    },
    {
      name: 'drawdown',
      value: drawdown ? WORDS.sAtG(Math.round(drawdown.usualS), drawdown.usualG) : WORDS.theRecipesOwn,
      from: drawdown
        ? WORDS.growsWithWater(
            levelInWords(drawdown.level),
            drawdown.exponent,
            (1.28 * drawdown.exponentSd).toFixed(2),
            drawdown.brews,
          )
        : WORDS.eightBrewsTeachIt,
      odd: drawdown?.outliers,
    },
  ];
  return (
    <Card>
      <Subheading>{WORDS.learnt}</Subheading>
      {versions.length > 1 ? (
        <Text quiet size="small">
          {WORDS.fromVersions(versions.join(', '))}
        </Text>
      ) : null}
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
        {WORDS.leftOutAsOdd(shown.length < ids.length ? WORDS.theLatestOf(ids.length) : '')}
      </Text>
      {shown.map((id) => {
        const brew = run.find(({ brewId }) => brewId === id);
        const when = brew ? dayAndTime(brew.endedMs, clock.nowMs()) : WORDS.anOlderBrew;
        return (
          <Button
            key={id}
            kind="bare"
            label={when}
            says={`Left out of ${of}: ${brew ? WORDS.theBrewOf(when) : when}`}
            onPress={() => router.push({ pathname: '/log/[id]', params: { id } })}
          />
        );
      })}
    </Row>
  );
}
