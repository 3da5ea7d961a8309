/**
 * What a cup tasted like: a tap for balance, a tap for strength, chips for what was seen; the rest if there is time.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { Touch } from '../../ui/touch';
import {
  BALANCE_WORDS,
  SEEN,
  SEEN_WORDS,
  STRENGTH_WORDS,
  type Notch,
  type Seen,
  type Taste,
} from '@even-kettle/core/brew';
import type { BrewRecord } from '@even-kettle/core/contract';
import { useHere } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { Field } from '../../ui/field';
import { Form, RadioGroup, tabStop } from '../../ui/by-keys';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { RADIUS, TOUCH } from '../../ui/theme';
import { readTyped } from '../../ui/typed';

const NOTCHES: readonly Notch[] = [-2, -1, 0, 1, 2];

export function TasteForm({ record }: { record: BrewRecord }) {
  const { store } = useHere();
  const act = useAct();
  const { atMs: _atMs, ...before } = record.taste ?? { atMs: 0 };
  const [taste, setTaste] = useState<Taste>(before);
  const [tds, setTds] = useState(before.tdsPct === undefined ? '' : String(before.tdsPct));
  const [beverage, setBeverage] = useState(before.beverageG === undefined ? '' : String(before.beverageG));
  const seen = new Set(taste.seen);
  const read = numbersOf(tds, beverage);
  const told = { ...taste, ...(read.ok ? read.numbers : {}) };
  const toggle = (each: Seen) => {
    const next = new Set(seen);
    if (!next.delete(each)) next.add(each);
    setTaste({ ...taste, seen: [...next] });
  };
  const keep = () => {
    const { words, seen: chips = [], ...rest } = told;
    const said: Taste = {
      ...rest,
      ...(words?.trim() ? { words: words.trim() } : {}),
      ...(chips.length > 0 ? { seen: chips } : {}),
    };
    act(
      [{ type: 'cup-tasted', brewId: record.brewId, taste: said }],
      // What is told of an old brew is told anew rather than taken back.
      store.view().state.brews[record.brewId] ? 'Taste' : undefined,
    );
  };
  const says =
    taste.balance !== undefined || taste.strength !== undefined || seen.size > 0 || !!taste.words?.trim();
  const canSave = read.ok && (says || Object.keys(read.numbers).length > 0);
  return (
    <Card>
      <Form onSubmit={() => canSave && keep()} style={{ gap: 12 }}>
        <Subheading>How was it?</Subheading>
        <Scale
          name="Balance"
          words={BALANCE_WORDS}
          value={taste.balance}
          onChange={(balance) => setTaste({ ...taste, balance })}
        />
        <Scale
          name="Strength"
          words={STRENGTH_WORDS}
          value={taste.strength}
          onChange={(strength) => setTaste({ ...taste, strength })}
        />
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          {SEEN.map((each) => (
            <Button
              key={each}
              label={SEEN_WORDS[each]}
              kind={seen.has(each) ? 'chosen' : 'plain'}
              onPress={() => toggle(each)}
            />
          ))}
        </View>
        <Field
          label="In your words"
          value={taste.words ?? ''}
          maxLength={200}
          onChangeText={(words) => setTaste({ ...taste, words })}
        />
        <Row style={{ alignItems: 'flex-end' }}>
          <Field
            label="TDS, %"
            inputMode="decimal"
            value={tds}
            onChangeText={setTds}
            fault={!read.ok && read.field === 'tds'}
            style={{ flex: 1 }}
          />
          <Field
            label="Beverage, g"
            inputMode="decimal"
            value={beverage}
            onChangeText={setBeverage}
            fault={!read.ok && read.field === 'beverage'}
            style={{ flex: 1 }}
          />
        </Row>
        {read.ok ? null : <Text role="alert">{read.reason}</Text>}
        <Button kind="main" label="Save" disabled={!canSave} onPress={keep} testID="keep-taste" />
      </Form>
    </Card>
  );
}

type Numbers =
  | { ok: true; numbers: Pick<Taste, 'tdsPct' | 'beverageG'> }
  | { ok: false; field: 'tds' | 'beverage'; reason: string };

function numbersOf(tds: string, beverage: string): Numbers {
  const numbers: Pick<Taste, 'tdsPct' | 'beverageG'> = {};
  if (tds.trim() !== '') {
    const read = readTyped(tds, 'TDS');
    if (!read.ok) return { ok: false, field: 'tds', reason: read.reason };
    if (read.value < 0.1 || read.value > 25)
      return { ok: false, field: 'tds', reason: 'TDS is a per cent from 0.1 to 25; a cone is near 1.4.' };
    numbers.tdsPct = read.value;
  }
  if (beverage.trim() !== '') {
    const read = readTyped(beverage, 'The beverage');
    if (!read.ok) return { ok: false, field: 'beverage', reason: read.reason };
    if (read.value < 0 || read.value > 3000)
      return { ok: false, field: 'beverage', reason: 'The beverage is from 0 to 3000 g.' };
    numbers.beverageG = read.value;
  }
  return { ok: true, numbers };
}

type ScaleProps = {
  name: string;
  words: readonly string[];
  value: Notch | undefined;
  onChange: (value: Notch) => void;
};

/** Five notches on a line; the ends and the middle are named, and what is chosen is said in words. */
function Scale({ name, words, value, onChange }: ScaleProps) {
  const theme = useTheme();
  return (
    <View style={{ gap: 4 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Text size="small" quiet>
          {words[1]}
        </Text>
        <Text size="small" bold>
          {value === undefined ? name.toLowerCase() : words[value + 2]}
        </Text>
        <Text size="small" quiet>
          {words[3]}
        </Text>
      </Row>
      <RadioGroup name={name} style={{ flexDirection: 'row', gap: 4 }}>
        {NOTCHES.map((notch, index) => {
          const chosen = notch === value;
          return (
            <Touch
              key={notch}
              role="radio"
              aria-checked={chosen}
              aria-label={words[notch + 2]!}
              onPress={() => onChange(notch)}
              tabIndex={tabStop(chosen, value !== undefined, index)}
              style={{
                flex: 1,
                height: TOUCH,
                minWidth: TOUCH,
                borderRadius: RADIUS,
                borderWidth: chosen ? 2 : 1,
                borderColor: chosen ? theme.ink : theme.rim,
                backgroundColor: chosen ? theme.coolPale : theme.surface,
                alignItems: 'center',
                justifyContent: 'center',
              }}
            >
              <View
                style={{
                  width: 10 + 5 * Math.abs(notch),
                  height: 10 + 5 * Math.abs(notch),
                  borderRadius: 10,
                  borderWidth: 2,
                  borderColor: theme.ink,
                  backgroundColor: chosen ? theme.ink : 'transparent',
                }}
              />
            </Touch>
          );
        })}
      </RadioGroup>
    </View>
  );
}
