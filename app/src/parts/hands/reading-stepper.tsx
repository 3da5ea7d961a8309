/**
 * What a scale read where none tells it, a pour's end or what the grinder gave: by a little a tap, quicker while it is
 * held, or typed.
 */
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import type { AgendaItem } from '@even-kettle/core/plan';
import { G_PER_OZ, inWords, showMass, type Units } from '@even-kettle/core/units';
import { Field } from '../../ui/field';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { readTyped } from '../../ui/typed';
import { WORDS } from './words';

export type Reading = {
  shownG: number;
  /** What was said; nothing where it was left alone. */
  given: number | undefined;
  change: (byG: number) => void;
};

/** A figure that is taken for true until somebody says another, for one step. */
export function useReading({ key }: Pick<AgendaItem, 'key'>, expectedG: number): Reading {
  const [off, setOff] = useState<{ key: string; byG: number }>({ key, byG: 0 });
  const byG = off.key === key ? off.byG : 0;
  const shownG = tenth(expectedG + byG);
  return {
    shownG,
    given: byG === 0 ? undefined : Math.max(0, shownG),
    change: (by) => setOff((before) => ({ key, byG: tenth((before.key === key ? before.byG : 0) + by) })),
  };
}
const tenth = (grams: number): number => Math.round(grams * 10) / 10;

/** Water to a gram, a dose to a tenth. */
const KINDS = {
  water: {
    stepG: 1,
    shows: WORDS.readsForShown,
    says: WORDS.scaleReadsTypeAnother,
    steps: WORDS.scaleReadsOneGram,
    field: WORDS.scaleReads,
    testID: 'typed-reading',
  },
  dose: {
    stepG: 0.1,
    shows: WORDS.cameOutShown,
    says: WORDS.cameOutTypeAnother,
    steps: WORDS.cameOutATenth,
    field: WORDS.cameOut,
    testID: 'real-dose',
  },
} as const;

/** A held button goes on by itself after a moment, and by more the longer it is held. */
const HOLD_MS = 400;
const REPEAT_MS = 120;
const stepG = (repeats: number): number => (repeats < 8 ? 1 : repeats < 16 ? 2 : 5);

function useHeld(act: (byG: number) => void) {
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const stop = () => clearTimeout(timer.current);
  useEffect(() => stop, []);
  return {
    start: (sign: 1 | -1) => {
      let repeats = 0;
      const again = () => {
        act(sign * stepG(repeats));
        repeats += 1;
        timer.current = setTimeout(again, REPEAT_MS);
      };
      stop();
      timer.current = setTimeout(again, HOLD_MS);
    },
    stop,
  };
}

type Props = { kind: keyof typeof KINDS; reading: Reading; units: Units };

export function ReadingStepper({ kind, reading, units }: Props) {
  const { stepG: leastG, shows, says, steps, field, testID } = KINDS[kind];
  const held = useHeld((by) => reading.change(by * leastG));
  const [typing, setTyping] = useState<string | null>(null);
  const ofG = units.mass === 'oz' ? G_PER_OZ : 1;
  const shown = showMass(reading.shownG, units, kind);
  const take = (text: string) => {
    setTyping(text);
    const read = readTyped(text, WORDS.theScale);
    if (read.ok && read.value >= 0)
      reading.change(Math.round((read.value * ofG) / leastG) * leastG - reading.shownG);
  };
  const step = (sign: 1 | -1) => (
    <Button
      kind="bare"
      label=""
      icon={sign > 0 ? 'plus' : 'minus'}
      says={steps(sign > 0 ? 'more' : 'less')}
      onPress={() => reading.change(sign * leastG)}
      onPressIn={() => held.start(sign)}
      onPressOut={held.stop}
      style={{ paddingHorizontal: 0, minWidth: 48 }}
    />
  );
  return (
    <View style={{ alignItems: 'center' }}>
      {typing === null ? (
        <Button
          kind={reading.given === undefined ? 'bare' : 'plain'}
          label={shows(inWords(shown))}
          says={says(inWords(shown))}
          onPress={() => setTyping('')}
          style={{ paddingHorizontal: 4 }}
        />
      ) : (
        <Field
          label={field(units.mass)}
          inputMode="decimal"
          value={typing}
          onChangeText={take}
          onBlur={() => setTyping(null)}
          autoFocus
          style={{ width: 110 }}
          testID={testID}
        />
      )}
      <Row style={{ gap: 0 }}>
        {step(-1)}
        {step(1)}
      </Row>
    </View>
  );
}
