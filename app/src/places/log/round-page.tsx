/**
 * Tasting blind: several coffees by one recipe, or one coffee with something changed, brewed behind letters, scored by those
 * who do not know which is which, then opened. The best of a dial-in is kept for its coffee.
 */
import { useState } from 'react';
import { useMutation } from '@tanstack/react-query';
import { View } from 'react-native';
import { router } from 'expo-router';
import {
  BODY_WORDS,
  isOut,
  latestBrew,
  roundsOf,
  type Notch,
  type Round,
  type Trial,
} from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { METHODS, type Recipe } from '@even-kettle/core/recipe';
import { newId, useBar, useHere } from '../../client/bar-context';
import { useMay } from '../../client/may';
import { useAct } from '../../device/use-act';
import { dayAndTime } from '../../words/hands-words';
import { Field } from '../../ui/field';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Loading } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { PageHead } from '../../parts/loaded';
import { BeginRound } from './round-begin';
import { Scale } from './taste-form';
import { coffeesWithTrial, hiddenInWords, menuWith, recipeThatWon, trialInWords } from './trials';
import { ProgressBar as ShareBar } from '../../parts/progress-bar';
import { WORDS } from './words';

const SCORES = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

export function RoundPage() {
  const { bar, state } = useBar();
  const rounds = roundsOf(state);
  const open = rounds.find(({ revealed }) => !revealed);
  return (
    <Page>
      <PageHead title={WORDS.sampleRound} />
      {bar ? null : <Loading what={WORDS.theRound} height={240} />}
      {bar && !open ? <BeginRound bar={bar} /> : null}
      {bar && open ? <Scoring key={open.roundId} round={open} bar={bar} /> : null}
      {rounds
        .filter(({ revealed }) => revealed)
        .slice(0, 3)
        .map((round) => (
          <Opened key={round.roundId} round={round} bar={bar} />
        ))}
    </Page>
  );
}

function Scoring({ round, bar }: { round: Round; bar: Bar }) {
  const act = useAct();
  const { state } = useBar();
  const [words, setWords] = useState<Record<string, string>>({});
  const [taster, setTaster] = useState(bar.people[0]?.name ?? '');
  const [sure, setSure] = useState(false);
  const name = taster.trim();
  const [bodies, setBodies] = useState<Record<string, Notch>>({});
  const say = (letter: string, score: number, body = bodies[letter]) =>
    act(
      [
        {
          type: 'round-scored',
          roundId: round.roundId,
          letter,
          taster: name,
          score,
          ...(body === undefined ? {} : { body }),
          ...(words[letter]?.trim() ? { words: words[letter].trim() } : {}),
        },
      ],
      `${letter}: ${score}`,
    );
  const reveal = () => act([{ type: 'round-revealed', roundId: round.roundId }], WORDS.openTheLetters);
  const heard = round.letters.every(({ scores }) => scores.length > 0);
  return (
    <Card style={{ gap: 14 }}>
      <Subheading>{WORDS.tasteAndScore}</Subheading>
      <Field label={WORDS.whoseTongue} value={taster} maxLength={24} onChangeText={setTaster} />
      {round.letters
        .toSorted((a, b) => a.letter.localeCompare(b.letter))
        .map(({ letter, scores }) => {
          const mine = scores.find((each) => each.taster === name)?.score;
          const isThere = isOut(state, round, letter);
          return (
            <View key={letter} style={{ gap: 6 }}>
              <Row style={{ justifyContent: 'space-between' }}>
                <Text size="verb">{letter}</Text>
                <Text size="small" quiet>
                  {isThere ? WORDS.heard(scores.length) : WORDS.notOutYet}
                </Text>
              </Row>
              <View
                role="group"
                aria-label={WORDS.scoreOf(letter)}
                style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}
              >
                {SCORES.map((score) => (
                  <Button
                    key={score}
                    label={String(score)}
                    says={`${letter}: ${score}`}
                    kind={mine === score ? 'chosen' : 'plain'}
                    disabled={name === '' || !isThere}
                    onPress={() => say(letter, score)}
                    style={{ paddingHorizontal: 0, flexBasis: 56, flexGrow: 1, maxWidth: 90 }}
                  />
                ))}
              </View>
              {isThere ? (
                <Scale
                  name={WORDS.body}
                  words={BODY_WORDS}
                  value={bodies[letter]}
                  onChange={(body) => {
                    setBodies({ ...bodies, [letter]: body });
                    if (mine !== undefined) say(letter, mine, body);
                  }}
                />
              ) : null}
              <Field
                label={WORDS.inWords}
                says={WORDS.inWordsOf(letter)}
                value={words[letter] ?? ''}
                maxLength={200}
                onChangeText={(text) => setWords({ ...words, [letter]: text })}
                onBlur={() => mine !== undefined && words[letter]?.trim() && say(letter, mine)}
              />
            </View>
          );
        })}
      {sure || heard ? (
        <Button kind="main" label={WORDS.openTheLetters} onPress={reveal} testID="reveal" />
      ) : (
        <Button kind="ruled" label={WORDS.openBeforeScored} onPress={() => setSure(true)} />
      )}
      <Button kind="bare" label={WORDS.toTheBar} onPress={() => router.navigate('/')} />
    </Card>
  );
}

function Opened({ round, bar }: { round: Round; bar: Bar | null }) {
  const { clock } = useHere();
  const { recipes } = useBar();
  const wordsOf = (trial: Trial) => (bar ? hiddenInWords(trial, bar, recipes) : null);
  const isDialIn = round.letters.some((each) => wordsOf(each) !== null);
  const [best] = round.letters;
  return (
    <Card>
      <Subheading>{WORDS.opened(dayAndTime(round.begunMs, clock.nowMs()))}</Subheading>
      {round.letters.map(({ letter, coffee, mean, meanBody, scores, ...trial }) => (
        <View key={letter} style={{ gap: 2 }} testID="opened-letter">
          <Row style={{ justifyContent: 'space-between' }}>
            <Text style={{ flexShrink: 1 }}>
              <Text bold>{letter}</Text> · {coffee}
              {isDialIn ? ` · ${wordsOf(trial) ?? WORDS.asItIs}` : ''}
              {meanBody === null ? '' : WORDS.bodyFound(BODY_WORDS[Math.round(meanBody) + 2]!)}
            </Text>
            <Text size="clock">{mean === null ? '–' : mean.toFixed(1)}</Text>
          </Row>
          <ShareBar share={(mean ?? 0) / 10} />
          <Text size="small" quiet>
            {scores.length === 0
              ? WORDS.nobodyScoredIt
              : scores
                  .map(({ taster, score, words }) => `${taster} ${score}${words ? `, “${words}”` : ''}`)
                  .join('; ')}
          </Text>
        </View>
      ))}
      {isDialIn && bar && best && best.mean !== null ? (
        best.recipeId === undefined ? (
          <KeepBest round={round} bar={bar} />
        ) : (
          <KeepRecipe round={round} bar={bar} />
        )
      ) : null}
    </Card>
  );
}

/** The recipe that won becomes the menu's line of its coffee. */
function KeepRecipe({ round, bar }: { round: Round; bar: Bar }) {
  const { api, store } = useHere();
  const { recipes, state } = useBar();
  const [{ letter, coffee: name, ...trial }] = round.letters as [Round['letters'][number]];
  const won = recipeThatWon(trial, recipes);
  const coffee = bar.coffees.find((each) => each.name === name);
  const order = round.orderId === null ? undefined : state.orders[round.orderId];
  const cup = order?.cups.find(({ sample }) => sample?.letter === letter);
  const put = useMutation({
    mutationFn: async (choice: { recipe: Recipe; coffeeId: string }) => {
      const { recipe, coffeeId } = choice;
      const isNew = !recipes.some(({ id }) => id === recipe.id);
      if (isNew) store.tookRecipe(await api.saveRecipe({ recipe, basedOn: null }));
      const compared = round.letters.flatMap(({ recipeId }) => recipeId ?? []);
      const menu = menuWith(bar, {
        coffeeId,
        recipeId: recipe.id,
        compared,
        sizeMl: cup?.cupMl ?? METHODS[recipe.method].usualCupMl,
        lineId: newId(),
      });
      return api.changeBar({ menu }, bar);
    },
    onSuccess: (changed) => store.tookBar(changed),
  });
  const may = useMay();
  if (!won || !coffee) return null;
  const words = hiddenInWords(trial, bar, recipes) ?? won.name;
  const isOn = bar.menu?.some(({ coffeeId, recipeId }) => coffeeId === coffee.id && recipeId === won.id);
  if (isOn) return <Text role="status">{WORDS.onMenuFor(words, coffee.name)}</Text>;
  return (
    <>
      <Button
        kind="main"
        disabled={put.isPending || !may('changeBar')}
        label={WORDS.putOnMenu(letter, words, coffee.name)}
        onPress={() => put.mutate({ recipe: won, coffeeId: coffee.id })}
        testID="keep-best"
      />
      {may('changeBar') ? null : <Text quiet>{WORDS.leadKeeps}</Text>}
      {put.error ? <Text role="alert">{WORDS.serverUnreachable}</Text> : null}
    </>
  );
}

/** The best of a dial-in is kept for its coffee with that recipe, and the log says so. */
function KeepBest({ round, bar }: { round: Round; bar: Bar }) {
  const { api, store } = useHere();
  const { state } = useBar();
  const act = useAct();
  const [best] = round.letters;
  const {
    letter,
    coffee,
    mean: _mean,
    meanBody: _body,
    scores: _scores,
    ...trial
  }: Trial & Round['letters'][number] = best!;
  const words = trialInWords(trial, bar) ?? WORDS.asItIs;
  const order = round.orderId === null ? undefined : state.orders[round.orderId];
  const cup = order?.cups.find(({ sample }) => sample?.letter === letter);
  const brew = cup && latestBrew(state, cup);
  const kept = state.houseEvents?.some(
    (event) =>
      event.type === 'change-tried' &&
      event.coffee === coffee &&
      event.recipeId === round.recipeId &&
      event.atMs >= round.begunMs,
  );
  const may = useMay();
  const coffees = coffeesWithTrial(bar, coffee, round.recipeId, trial);
  const keep = useMutation({
    mutationFn: () => api.changeBar({ coffees: coffees ?? [] }, bar),
    onSuccess: (changed) => {
      store.tookBar(changed);
      if (brew) act([{ type: 'change-tried', coffee, recipeId: round.recipeId, fromBrewId: brew.id, words }]);
    },
  });
  if (coffees === null) return <Text quiet>{WORDS.theUsualWon(coffee)}</Text>;
  if (kept || keep.isSuccess) return <Text role="status">{WORDS.keptFor(words, coffee)}</Text>;
  return (
    <>
      <Button
        kind="main"
        label={WORDS.keepFor(letter, words, coffee)}
        disabled={keep.isPending || !may('changeBar')}
        onPress={() => keep.mutate()}
        testID="keep-best"
      />
      {may('changeBar') ? null : <Text quiet>{WORDS.leadKeeps}</Text>}
      {keep.error ? <Text role="alert">{WORDS.serverUnreachable}</Text> : null}
    </>
  );
}
