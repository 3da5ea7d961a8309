/**
 * A sample round: several coffees by one recipe, brewed behind letters, scored by those who do not know which is which,
 * then opened.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import { roundsOf, type Round } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { newId, useBar, useHere } from '../../client/bar-context';
import { useAct, type NewEvent } from '../../device/use-act';
import { dayAndTime } from '../../words/hands-words';
import { Field } from '../../ui/field';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Loading } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Subheading, Text } from '../../ui/text';
import { PageHead } from './loaded';
import { ProgressBar as ShareBar } from './progress-bar';
import { WORDS } from './words';

const LETTERS = 'ABCDEFGH';
const SCORES = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
const CUP_ML = 200;

export function RoundPage() {
  const { bar, state } = useBar();
  const rounds = roundsOf(state);
  const open = rounds.find(({ revealed }) => !revealed);
  return (
    <Page>
      <PageHead title={WORDS.sampleRound} />
      {bar ? null : <Loading what={WORDS.theRound} height={240} />}
      {bar && !open ? <Begin bar={bar} /> : null}
      {bar && open ? <Scoring key={open.roundId} round={open} bar={bar} /> : null}
      {rounds
        .filter(({ revealed }) => revealed)
        .slice(0, 3)
        .map((round) => (
          <Opened key={round.roundId} round={round} />
        ))}
    </Page>
  );
}

function Begin({ bar }: { bar: Bar }) {
  const act = useAct();
  const { recipes } = useBar();
  const [recipeId, setRecipeId] = useState(recipes[0]?.id ?? '');
  const [chosen, setChosen] = useState<string[]>([]);
  const recipe = recipes.find(({ id }) => id === recipeId);
  const toggle = (id: string) =>
    setChosen(chosen.includes(id) ? chosen.filter((each) => each !== id) : [...chosen, id]);
  const begin = () => {
    // Which letter hides which coffee is chance's to say, on this device, now.
    const shuffled = chosen
      .map((id) => ({
        coffee: bar.coffees.find((each) => each.id === id)!,
        draw: crypto.getRandomValues(new Uint32Array(1))[0]!,
      }))
      .sort((a, b) => a.draw - b.draw)
      .map(({ coffee }, index) => ({ coffee, letter: LETTERS[index]! }));
    const events: NewEvent[] = [
      {
        type: 'round-begun',
        roundId: newId(),
        recipeId,
        cups: shuffled.map(({ letter, coffee }) => ({ letter, coffee: coffee.name })),
      },
      {
        type: 'order-taken',
        orderId: newId(),
        name: WORDS.sampleRoundForShuffled(shuffled.map(({ letter }) => letter).join(' ')),
        cups: shuffled.map(({ coffee }) => ({
          cupId: newId(),
          recipeId,
          recipeVersion: recipe!.version,
          coffee: coffee.name,
          roast: coffee.roast,
          cupMl: CUP_ML,
        })),
      },
    ];
    act(events, WORDS.beginTheSampleRound);
  };
  const many = chosen.length;
  return (
    <Card style={{ gap: 12 }}>
      <Subheading>{WORDS.beginOne}</Subheading>
      <Text quiet>{WORDS.oneRecipeSoThatOnlyThe}</Text>
      <Select
        label={WORDS.recipe}
        value={recipeId}
        onChange={setRecipeId}
        options={recipes.map(({ id, name }) => ({ value: id, label: name }))}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {bar.coffees.map(({ id, name }) => (
          <Button
            key={id}
            label={name}
            kind={chosen.includes(id) ? 'chosen' : 'plain'}
            disabled={!chosen.includes(id) && many >= 6}
            onPress={() => toggle(id)}
          />
        ))}
      </View>
      <Button
        kind="main"
        label={many < 2 ? WORDS.chooseTwoOrMoreCoffees : WORDS.beginWith(many)}
        disabled={many < 2 || !recipe}
        onPress={begin}
        testID="begin-round"
      />
    </Card>
  );
}

function Scoring({ round, bar }: { round: Round; bar: Bar }) {
  const act = useAct();
  const [taster, setTaster] = useState(bar.people[0]?.name ?? '');
  const [sure, setSure] = useState(false);
  const name = taster.trim();
  const say = (letter: string, score: number) =>
    act(
      [
        {
          type: 'round-scored',
          roundId: round.roundId,
          letter,
          taster: name,
          score,
        },
      ],
      `${letter}: ${score}`,
    );
  const reveal = () => act([{ type: 'round-revealed', roundId: round.roundId }], WORDS.openTheLetters);
  const heard = round.letters.every(({ scores }) => scores.length > 0);
  return (
    <Card style={{ gap: 14 }}>
      <Subheading>{WORDS.tasteAndScore1To10}</Subheading>
      <Field label={WORDS.whoseTongue} value={taster} maxLength={24} onChangeText={setTaster} />
      {round.letters
        .toSorted((a, b) => a.letter.localeCompare(b.letter))
        .map(({ letter, scores }) => {
          const mine = scores.find((each) => each.taster === name)?.score;
          return (
            <View key={letter} style={{ gap: 6 }}>
              <Row style={{ justifyContent: 'space-between' }}>
                <Text size="verb">{letter}</Text>
                <Text size="small" quiet>
                  {WORDS.heard(scores.length)}
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
                    disabled={name === ''}
                    onPress={() => say(letter, score)}
                    style={{ paddingHorizontal: 0, flexBasis: 56, flexGrow: 1, maxWidth: 90 }}
                  />
                ))}
              </View>
            </View>
          );
        })}
      {sure || heard ? (
        <Button kind="main" label={WORDS.openTheLetters} onPress={reveal} testID="reveal" />
      ) : (
        <Button kind="ruled" label={WORDS.openBeforeAllAreScored} onPress={() => setSure(true)} />
      )}
      <Button kind="bare" label={WORDS.toTheBar} onPress={() => router.navigate('/')} />
    </Card>
  );
}

function Opened({ round }: { round: Round }) {
  const { clock } = useHere();
  return (
    <Card>
      <Subheading>{WORDS.opened(dayAndTime(round.begunMs, clock.nowMs()))}</Subheading>
      {round.letters.map(({ letter, coffee, mean, scores }) => (
        <View key={letter} style={{ gap: 2 }} testID="opened-letter">
          <Row style={{ justifyContent: 'space-between' }}>
            <Text style={{ flexShrink: 1 }}>
              <Text bold>{letter}</Text> · {coffee}
            </Text>
            <Text size="clock">{mean === null ? '–' : mean.toFixed(1)}</Text>
          </Row>
          <ShareBar share={(mean ?? 0) / 10} />
          <Text size="small" quiet>
            {scores.length === 0
              ? WORDS.nobodyScoredIt
              : scores.map(({ taster, score }) => `${taster} ${score}`).join(', ')}
          </Text>
        </View>
      ))}
    </Card>
  );
}
