/**
 * What is chosen with one tap: pairs of hands, when a cup is tasted, the theme of this device.
 */
import { useState } from 'react';
import { OWN_TASTE_WORDS } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { useThemeChoice, type ThemeChoice } from '../../ui/use-theme';
import { router } from 'expo-router';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Field } from '../../ui/field';
import { Subheading, Text } from '../../ui/text';
import { Failure } from './list-card';
import { useChange } from '../../parts/use-change';
import { GuestsDue } from '../guests-due';
import { WORDS } from './words';

/** How many pairs of hands the bar is planned for. */
export function HandsChoice({ bar }: { bar: Bar }) {
  const change = useChange();
  return (
    <Card>
      <Subheading>{WORDS.hands}</Subheading>
      <Choice
        name={WORDS.pairsOfHands}
        value={String(bar.hands)}
        onChange={(hands) => change.mutate({ hands: Number(hands) })}
        options={[
          { value: '1', label: WORDS.onePair },
          { value: '2', label: WORDS.twoPairs },
        ]}
      />
      <Failure error={change.error} />
    </Card>
  );
}

/** When a cup is asked after: it has to cool before it can be judged. */
export function TasteCard({ bar }: { bar: Bar }) {
  const change = useChange();
  const [words, setWords] = useState<string | null>(null);
  const keepWords = () => {
    if (words === null) return;
    const said = words.split(/[,;]/).map((word) => word.trim());
    // What is refused stays as it was typed, beside the reason.
    change.mutate({ tasteWords: [...new Set(said.filter(Boolean))] }, { onSuccess: () => setWords(null) });
  };
  return (
    <Card>
      <Subheading>{WORDS.tasting}</Subheading>
      <Text quiet size="small">
        {WORDS.tasteAfterHint}
      </Text>
      <Choice
        name={WORDS.minutesToCool}
        value={String(bar.tasteAfterMin)}
        onChange={(minutes) => change.mutate({ tasteAfterMin: Number(minutes) })}
        options={['5', '7', '10', '15'].map((value) => ({ value, label: WORDS.min(value) }))}
      />
      <Field
        label={WORDS.ownTasteWords(OWN_TASTE_WORDS)}
        value={words ?? (bar.tasteWords ?? []).join(', ')}
        maxLength={80}
        onChangeText={setWords}
        onBlur={keepWords}
        testID="taste-words"
      />
      <Failure error={change.error} />
    </Card>
  );
}

/** Whether advice moves the grinders, or something else. */
export function OneGrindCard({ bar }: { bar: Bar }) {
  const change = useChange();
  return (
    <Card>
      <Subheading>{WORDS.adviceAndTheGrind}</Subheading>
      <Text quiet size="small">
        {WORDS.oneGrindHint}
      </Text>
      <Choice
        name={WORDS.adviceAndTheGrind}
        value={bar.oneGrind ? 'one' : 'each'}
        onChange={(value) => change.mutate({ oneGrind: value === 'one' })}
        options={[
          { value: 'each', label: WORDS.adjustTheGrind },
          { value: 'one', label: WORDS.oneGrindForAll },
        ]}
      />
      <Failure error={change.error} />
    </Card>
  );
}

/** The way back to what was left out on the first day. */
export const FirstDayCard = () => (
  <Card style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
    <Text quiet size="small" style={{ flex: 1 }}>
      {WORDS.firstDayHint}
    </Text>
    <Button label={WORDS.firstDay} onPress={() => router.push('/first-day')} />
  </Card>
);

/** How long guests' names and words stay in the log. */
export function GuestsCard({ bar }: { bar: Bar }) {
  const change = useChange();
  return (
    <Card>
      <Subheading>{WORDS.guests}</Subheading>
      <Text quiet size="small">
        {WORDS.guestsAreForgottenAfter}
      </Text>
      <GuestsDue />
      <Choice
        name={WORDS.guestsAreForgotten}
        value={String(bar.guestsKeptDays ?? 30)}
        onChange={(days) => change.mutate({ guestsKeptDays: Number(days) })}
        options={['1', '7', '30', '90'].map((days) => ({
          value: days,
          label: WORDS.afterDays(Number(days)),
        }))}
      />
      <Failure error={change.error} />
    </Card>
  );
}

export function LookCard() {
  const { choice, choose } = useThemeChoice();
  const options: { value: ThemeChoice; label: string }[] = [
    { value: 'auto', label: WORDS.asTheDevice },
    { value: 'day', label: WORDS.day },
    { value: 'evening', label: WORDS.evening },
    { value: 'sun', label: WORDS.strongSun },
  ];
  return (
    <Card>
      <Subheading>{WORDS.lookOfThisDevice}</Subheading>
      <Choice name={WORDS.look} value={choice} onChange={choose} options={options} />
    </Card>
  );
}
