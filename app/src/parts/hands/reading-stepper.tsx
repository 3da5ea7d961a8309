/**
 * What a scale read where none tells it, a pour's end or what the grinder gave: by a little a tap, quicker while it is
 * held, or typed.
 */
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import type { AgendaItem } from '@even-kettle/core/plan';
import {
  G_PER_OZ,
  fahrenheitToCelsius,
  inWords,
  showMass,
  showTemperature,
  type Units,
} from '@even-kettle/core/units';
import { Field } from '../../ui/field';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { readTyped } from '../../ui/typed';
import { WORDS } from './words';

export type Reading = {
  shown: number;
  /** What was said; nothing where it was left alone. */
  given: number | undefined;
  change: (by: number) => void;
};

/** A figure that is taken for true until somebody says another, for one step. */
export function useReading({ key }: Pick<AgendaItem, 'key'>, expected: number): Reading {
  const [off, setOff] = useState<{ key: string; by: number }>({ key, by: 0 });
  const by = off.key === key ? off.by : 0;
  const shown = tenth(expected + by);
  return {
    shown,
    given: by === 0 ? undefined : Math.max(0, shown),
    change: (more) => setOff((before) => ({ key, by: tenth((before.key === key ? before.by : 0) + more) })),
  };
}
const tenth = (value: number): number => Math.round(value * 10) / 10;

/** Water to a gram, a dose to a tenth. */
const ofMass = (kind: 'water' | 'dose') => ({
  unit: ({ mass }: Units) => mass,
  show: (value: number, units: Units) => inWords(showMass(value, units, kind)),
  toValue: (typed: number, { mass }: Units) => (mass === 'oz' ? typed * G_PER_OZ : typed),
});
const KINDS = {
  water: {
    ...ofMass('water'),
    least: 1,
    shows: WORDS.readsForShown,
    says: WORDS.scaleReadsTypeAnother,
    steps: WORDS.scaleReadsOneGram,
    field: WORDS.scaleReads,
    testID: 'typed-reading',
  },
  dose: {
    ...ofMass('dose'),
    least: 0.1,
    shows: WORDS.cameOutShown,
    says: WORDS.cameOutTypeAnother,
    steps: WORDS.cameOutATenth,
    field: WORDS.cameOut,
    testID: 'real-dose',
  },
  temperature: {
    unit: ({ temperature }: Units) => temperature,
    show: (value: number, units: Units) => inWords(showTemperature(value, units)),
    toValue: (typed: number, { temperature }: Units) =>
      temperature === 'F' ? fahrenheitToCelsius(typed) : typed,
    least: 1,
    shows: WORDS.thermometerReads,
    says: WORDS.thermometerTypeAnother,
    steps: WORDS.thermometerOneDegree,
    field: WORDS.thermometerField,
    testID: 'typed-temperature',
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
  const { least, shows, says, steps, field, testID, ...as } = KINDS[kind];
  const held = useHeld((by) => reading.change(by * least));
  const [typing, setTyping] = useState<string | null>(null);
  const shown = as.show(reading.shown, units);
  const take = (text: string) => {
    setTyping(text);
    const read = readTyped(text, WORDS.theScale);
    if (read.ok && read.value >= 0)
      reading.change(Math.round(as.toValue(read.value, units) / least) * least - reading.shown);
  };
  const step = (sign: 1 | -1) => (
    <Button
      kind="bare"
      label=""
      icon={sign > 0 ? 'plus' : 'minus'}
      says={steps(sign > 0 ? 'more' : 'less')}
      onPress={() => reading.change(sign * least)}
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
          label={shows(shown)}
          says={says(shown)}
          onPress={() => setTyping('')}
          style={{ paddingHorizontal: 4 }}
        />
      ) : (
        <Field
          label={field(as.unit(units))}
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
