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

const LETTERS = 'ABCDEFGH';
const SCORES = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
const CUP_ML = 200;

export function RoundPage() {
  const { bar, state } = useBar();
  const rounds = roundsOf(state);
  const open = rounds.find(({ revealed }) => !revealed);
  return (
    <Page>
      <PageHead title="Sample round" />
      {bar ? null : <Loading what="the round" height={240} />}
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
        name: `sample round ${shuffled.map(({ letter }) => letter).join(' ')}`,
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
    act(events, 'Begin the sample round');
  };
  const many = chosen.length;
  return (
    <Card style={{ gap: 12 }}>
      <Subheading>Begin one</Subheading>
      <Text quiet>
        One recipe, so that only the coffee differs. The cups come on the bar as an order, in the order of
        their letters: whoever brews marks them A, B, C and keeps quiet.
      </Text>
      <Select
        label="Recipe"
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
        label={many < 2 ? 'Choose two or more coffees' : `Begin with ${many}`}
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
  const reveal = () => act([{ type: 'round-revealed', roundId: round.roundId }], 'Open the letters');
  const heard = round.letters.every(({ scores }) => scores.length > 0);
  return (
    <Card style={{ gap: 14 }}>
      <Subheading>Taste, and score 1 to 10</Subheading>
      <Field label="Whose tongue" value={taster} maxLength={24} onChangeText={setTaster} />
      {round.letters
        .toSorted((a, b) => a.letter.localeCompare(b.letter))
        .map(({ letter, scores }) => {
          const mine = scores.find((each) => each.taster === name)?.score;
          return (
            <View key={letter} style={{ gap: 6 }}>
              <Row style={{ justifyContent: 'space-between' }}>
                <Text size="verb">{letter}</Text>
                <Text size="small" quiet>
                  {scores.length} heard
                </Text>
              </Row>
              <View
                role="group"
                aria-label={`Score of ${letter}`}
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
        <Button kind="main" label="Open the letters" onPress={reveal} testID="reveal" />
      ) : (
        <Button kind="ruled" label="Open before all are scored…" onPress={() => setSure(true)} />
      )}
      <Button kind="bare" label="To the bar" onPress={() => router.navigate('/')} />
    </Card>
  );
}

function Opened({ round }: { round: Round }) {
  const { clock } = useHere();
  return (
    <Card>
      <Subheading>Opened, {dayAndTime(round.begunMs, clock.nowMs())}</Subheading>
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
              ? 'nobody scored it'
              : scores.map(({ taster, score }) => `${taster} ${score}`).join(', ')}
          </Text>
        </View>
      ))}
    </Card>
  );
}
