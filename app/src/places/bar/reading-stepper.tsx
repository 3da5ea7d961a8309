/**
 * What the scale read at the end of a pour, where no scale tells it: by a gram a tap, quicker while it is held, or typed.
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

type Reading = { shownG: number; given: number | undefined; change: (byG: number) => void };

/** Left alone, nothing is said of it. */
export function useReading(item: AgendaItem): Reading {
  const [off, setOff] = useState<{ key: string; byG: number }>({ key: item.key, byG: 0 });
  const byG = off.key === item.key ? off.byG : 0;
  const shownG = (item.step.targetG ?? 0) + byG;
  return {
    shownG,
    given: byG === 0 ? undefined : Math.max(0, shownG),
    change: (by) =>
      setOff((before) => ({ key: item.key, byG: (before.key === item.key ? before.byG : 0) + by })),
  };
}

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

export function ReadingStepper({ reading, units }: { reading: Reading; units: Units }) {
  const held = useHeld(reading.change);
  const [typing, setTyping] = useState<string | null>(null);
  const ofG = units.mass === 'oz' ? G_PER_OZ : 1;
  const shown = showMass(reading.shownG, units, 'water');
  const take = (text: string) => {
    setTyping(text);
    const read = readTyped(text, WORDS.theScale);
    if (read.ok && read.value >= 0) reading.change(Math.round(read.value * ofG) - reading.shownG);
  };
  const step = (sign: 1 | -1) => (
    <Button
      kind="bare"
      label=""
      icon={sign > 0 ? 'plus' : 'minus'}
      says={WORDS.scaleReadsOneGram(sign > 0 ? 'more' : 'less')}
      onPress={() => reading.change(sign)}
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
          label={WORDS.readsForShown(inWords(shown))}
          says={WORDS.scaleReadsTypeAnother(inWords(shown))}
          onPress={() => setTyping('')}
          style={{ paddingHorizontal: 4 }}
        />
      ) : (
        <Field
          label={WORDS.scaleReads(units.mass)}
          inputMode="decimal"
          value={typing}
          onChangeText={take}
          onBlur={() => setTyping(null)}
          autoFocus
          style={{ width: 110 }}
          testID="typed-reading"
        />
      )}
      <Row style={{ gap: 8 }}>
        {step(-1)}
        {step(1)}
      </Row>
    </View>
  );
}
