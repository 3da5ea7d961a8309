/**
 * The one change that a brew asks for, with its reasons; or that its signs do not go together. What is taken up is set at
 * the grinder, and the next brew shows what came of it.
 */
import { View } from 'react-native';
import { router } from 'expo-router';
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import type { BrewPage, BrewRecord } from '@even-kettle/core/contract';
import { coarserWay } from '@even-kettle/core/learn';
import type { Recipe } from '@even-kettle/core/recipe';
import { newId, useBar, useHere } from '../../bar/bar-context';
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

/** The recipe with one number changed, as the advice has it; null where the advice is of something else. */
function changed(recipe: Recipe, change: Extract<Advice, { kind: 'change' }>['change']): Recipe | null {
  const tenth = (value: number) => Math.round(value * 10) / 10;
  if (change.what === 'temperature') return { ...recipe, waterC: tenth(recipe.waterC + change.byC) };
  if (change.what === 'ratio') return { ...recipe, ratio: tenth(recipe.ratio + change.by) };
  return null;
}

function TakeUp({ record, advice }: { record: BrewRecord; advice: Extract<Advice, { kind: 'change' }> }) {
  const { api, store, clock } = useHere();
  const { bar, recipes } = useBar();
  const { change } = advice;
  const grinder = bar?.grinders[0];
  const coffee = bar?.coffees.find(({ name }) => name === record.coffee);
  const recipe = recipes.find(({ id }) => id === record.recipeId);
  const next = recipe ? changed(recipe, change) : null;
  const set = useMutation({
    mutationFn: async () => {
      if (change.what === 'grind' && grinder && coffee && bar) {
        const offset = (coffee.grindOffsets?.[grinder.id] ?? 0) + change.stepsCoarser * coarserWay(grinder);
        const turned = { ...coffee, grindOffsets: { ...coffee.grindOffsets, [grinder.id]: offset } };
        const coffees = bar.coffees.map((each) => (each.id === coffee.id ? turned : each));
        store.tookBar(await api.changeBar({ coffees }, bar));
      }
      if (next) store.tookRecipe(await api.saveRecipe({ recipe: next, basedOn: recipe!.version }));
      store.act(
        [
          {
            id: newId(),
            type: 'change-tried',
            atMs: clock.nowMs(),
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
  if (change.what === 'grind' && !(grinder && coffee))
    return (
      <Text size="small">Set the grinder by hand: this coffee or its grinder is not on the bench now.</Text>
    );
  if ((change.what === 'temperature' || change.what === 'ratio') && recipe?.version !== record.recipeVersion)
    return (
      <Text size="small">
        {recipe
          ? `${recipe.name} was changed since this brew. Brew it once as it is now, then change one thing.`
          : 'This recipe is not on the bar.'}
      </Text>
    );
  const label =
    change.what === 'grind'
      ? `Set ${grinder!.name} so`
      : next
        ? `Save as version ${recipe!.version + 1}`
        : 'Do so next time';
  return (
    <>
      {next ? (
        <Tap
          label={`See ${recipe!.name} first`}
          onPress={() => router.push({ pathname: '/recipes/[id]', params: { id: record.recipeId } })}
        />
      ) : null}
      <Tap kind="main" label={label} testID="take-up" disabled={set.isPending} onPress={() => set.mutate()} />
      {set.isError ? <Text role="alert">Not set: {set.error.message} Try again.</Text> : null}
    </>
  );
}
