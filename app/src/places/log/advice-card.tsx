/**
 * The one change that a brew asks for, with its reasons; or that its signs do not go together. What is taken up is set at
 * the grinder, and the next brew shows what came of it.
 */
import { View } from 'react-native';
import { router } from 'expo-router';
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import type { BrewPage, BrewRecord } from '@even-kettle/core/contract';
import { coarserWay } from '@even-kettle/core/learn';
import type { RecipeChange } from '@even-kettle/core/plan';
import { round, type Grinder } from '@even-kettle/core/recipe';
import { useBar, useHere } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { Card, Tap } from '../../ui/parts';
import { Subheading, Text } from '../../ui/text';
import { TriedLine } from './tried-line';

type Advice = NonNullable<BrewPage['advice']>;

export function AdviceCard({ record, advice }: { record: BrewRecord; advice: Advice }) {
  const { api } = useHere();
  const { state, waiting } = useBar();
  const { recipeId, coffee, brewId } = record;
  // A change that was just taken up is in the state before the server has been asked again.
  const taken = (state.things ?? []).filter((event) => event.type === 'change-tried');
  const learnt = useQuery({
    queryKey: ['learnt', recipeId, coffee, taken.length, waiting],
    queryFn: () => api.learnt(recipeId, coffee),
    placeholderData: keepPreviousData,
  });
  const mine = taken.some(({ fromBrewId }) => fromBrewId === brewId);
  return (
    <Card style={{ gap: 8 }}>
      <Subheading>
        {advice.kind === 'leave'
          ? 'Nothing to change'
          : advice.kind === 'change'
            ? 'One change'
            : 'These do not go together'}
      </Subheading>
      {advice.kind === 'leave' ? null : (
        <Text size="title" testID="advice">
          {advice.words}
        </Text>
      )}
      {advice.kind === 'contradiction' ? (
        <View style={{ gap: 4 }}>
          <Text bold>Look at this first</Text>
          {advice.checkFirst.map((check) => (
            <Text key={check}>· {check}</Text>
          ))}
        </View>
      ) : null}
      <View style={{ gap: 2 }}>
        {advice.because.map((reason) => (
          <Text key={reason} size="small" quiet>
            {reason}
          </Text>
        ))}
      </View>
      {advice.kind === 'change' && !mine ? <TakeUp record={record} advice={advice} /> : null}
      {learnt.data?.tried.slice(0, 2).map((tried) => (
        <TriedLine key={tried.atMs} tried={tried} />
      ))}
    </Card>
  );
}

type Change = Extract<Advice, { kind: 'change' }>['change'];

/** What is kept for a coffee with a recipe once the change is taken up; null where the advice is of something else. */
function withChange(before: RecipeChange, change: Change, grinder: Grinder | undefined): RecipeChange | null {
  if (change.what === 'temperature')
    return { ...before, waterByC: round((before.waterByC ?? 0) + change.byC, 1) };
  if (change.what === 'ratio') return { ...before, ratioBy: round((before.ratioBy ?? 0) + change.by, 1) };
  if (change.what !== 'grind' || !grinder) return null;
  const steps = (before.grindBy?.[grinder.id] ?? 0) + change.stepsCoarser * coarserWay(grinder);
  return { ...before, grindBy: { ...before.grindBy, [grinder.id]: steps } };
}

function TakeUp({ record, advice }: { record: BrewRecord; advice: Extract<Advice, { kind: 'change' }> }) {
  const { api, store } = useHere();
  const act = useAct();
  const { bar, recipes } = useBar();
  const { change } = advice;
  const grinder = bar?.grinders[0];
  const coffee = bar?.coffees.find(({ name }) => name === record.coffee);
  const recipe = recipes.find(({ id }) => id === record.recipeId);
  const next = coffee ? withChange(coffee.recipeChanges?.[record.recipeId] ?? {}, change, grinder) : null;
  const set = useMutation({
    mutationFn: async () => {
      if (next && coffee && bar) {
        const changed = { ...coffee, recipeChanges: { ...coffee.recipeChanges, [record.recipeId]: next } };
        const coffees = bar.coffees.map((each) => (each.id === coffee.id ? changed : each));
        store.tookBar(await api.changeBar({ coffees }, bar));
      }
      act(
        [
          {
            type: 'change-tried',
            coffee: record.coffee,
            recipeId: record.recipeId,
            fromBrewId: record.brewId,
            words: advice.words.slice(0, 200),
            ...(change.what === 'grind' && change.expect
              ? { expectS: change.expect.brewS, plusMinusS: change.expect.plusMinusS }
              : {}),
          },
        ],
        'Take the change up',
      );
    },
  });
  const isKept = change.what === 'grind' || change.what === 'temperature' || change.what === 'ratio';
  if (isKept && !next)
    return <Text size="small">Set it by hand: this coffee or its grinder is not on the bench now.</Text>;
  const label =
    change.what === 'grind'
      ? `Set ${grinder!.name} so`
      : next
        ? `Keep it for ${record.coffee}`
        : 'Do so next time';
  return (
    <>
      {next && change.what !== 'grind' ? (
        <Tap
          label={`See ${recipe?.name ?? 'the recipe'} first`}
          onPress={() => router.push({ pathname: '/recipes/[id]', params: { id: record.recipeId } })}
        />
      ) : null}
      <Tap kind="main" label={label} testID="take-up" disabled={set.isPending} onPress={() => set.mutate()} />
      {set.isError ? <Text role="alert">Not set: {set.error.message} Try again.</Text> : null}
    </>
  );
}
