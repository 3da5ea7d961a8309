/**
 * The one change that a brew asks for, with its reasons; or that its signs do not go together. What is taken up is set at
 * the grinder, and the next brew shows what came of it.
 */
import { View } from 'react-native';
import { router } from 'expo-router';
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import type { BrewPage, BrewRecord } from '@even-kettle/core/contract';
import { coffeesWithChange, isKept } from '@even-kettle/core/learn';
import { useBar, useHere } from '../../client/bar-context';
import { useSign } from '../../device/use-act';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Subheading, Text } from '../../ui/text';
import { TriedLine } from './tried-line';
import { WORDS } from './words';

type Advice = NonNullable<BrewPage['advice']>;

export function AdviceCard({ record, advice }: { record: BrewRecord; advice: Advice }) {
  const { api } = useHere();
  const { state, waiting } = useBar();
  const { recipeId, coffee, brewId } = record;
  // A change that was just taken up is in the state before the server has been asked again.
  const taken = (state.houseEvents ?? []).filter((event) => event.type === 'change-tried');
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
          ? WORDS.nothingToChange
          : advice.kind === 'change'
            ? WORDS.oneChange
            : WORDS.notTogether}
      </Subheading>
      {advice.kind === 'leave' ? null : (
        <Text size="title" testID="advice">
          {advice.words}
        </Text>
      )}
      {advice.kind === 'contradiction' ? (
        <View style={{ gap: 4 }}>
          <Text bold>{WORDS.lookAtThisFirst}</Text>
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

function TakeUp({ record, advice }: { record: BrewRecord; advice: Extract<Advice, { kind: 'change' }> }) {
  const { api, store } = useHere();
  const sign = useSign();
  const { bar, recipes } = useBar();
  const { change, words } = advice;
  const grinder = bar?.grinders.find(({ id }) => id === record.grind?.grinderId);
  const recipe = recipes.find(({ id }) => id === record.recipeId);
  const set = useMutation({
    mutationFn: async () =>
      store.tookBar(await api.takeAdvice(record.brewId, { ...sign(), words: words.slice(0, 200) })),
  });
  if (isKept(change) && !coffeesWithChange(bar?.coffees ?? [], record, change, grinder))
    return <Text size="small">{WORDS.setByHand}</Text>;
  const label =
    change.what === 'grind'
      ? WORDS.setSo(grinder!.name)
      : isKept(change)
        ? WORDS.keepItFor(record.coffee)
        : WORDS.doSoNextTime;
  return (
    <>
      {isKept(change) && change.what !== 'grind' ? (
        <Button
          label={WORDS.seeFirst(recipe?.name ?? WORDS.theRecipe)}
          onPress={() => router.push({ pathname: '/recipes/[id]', params: { id: record.recipeId } })}
        />
      ) : null}
      <Button
        kind="main"
        label={label}
        testID="take-up"
        disabled={set.isPending}
        onPress={() => set.mutate()}
      />
      {set.isError ? <Text role="alert">{WORDS.notSetTryAgain(set.error.message)}</Text> : null}
    </>
  );
}
