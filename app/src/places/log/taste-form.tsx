/**
 * What a cup tasted like: a tap for balance, a tap for strength and for body, chips for what was seen; the rest if there is time.
 */
import { useState } from 'react';
import { Controller, useForm, useWatch, type Control } from 'react-hook-form';
import { standardSchemaResolver } from '@hookform/resolvers/standard-schema';
import { View } from 'react-native';
import { Touch } from '../../ui/touch';
import {
  BALANCE_WORDS,
  BODY_WORDS,
  SEEN,
  SEEN_WORDS,
  STRENGTH_WORDS,
  type Notch,
  type Taste,
} from '@even-kettle/core/brew';
import type { BrewRecord } from '@even-kettle/core/contract';
import { useBar, useHere } from '../../client/bar-context';
import { schemas } from '../../client/load-schemas';
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
import { WORDS } from './words';

const NOTCHES: readonly Notch[] = [-2, -1, 0, 1, 2];

export function TasteForm({ record }: { record: BrewRecord }) {
  const { store } = useHere();
  const { bar } = useBar();
  const act = useAct();
  const { atMs: _atMs, ...before } = record.taste ?? { atMs: 0 };
  const { control, formState, handleSubmit } = useForm<Taste>({
    defaultValues: before,
    mode: 'onChange',
    resolver: standardSchemaResolver(schemas().taste),
  });
  // A word that the bar has given up stays with the cup that it was said of.
  const ownWords = [...new Set([...(bar?.tasteWords ?? []), ...(before.own ?? [])])];
  const says = Object.keys(saidOf(useWatch({ control }) as Taste)).length > 0;
  const keep = handleSubmit(
    (taste) =>
      void act(
        [{ type: 'cup-tasted', brewId: record.brewId, taste: saidOf(taste) }],
        // The taste of an old brew is entered again rather than undone.
        store.view().state.brews[record.brewId] ? WORDS.taste : undefined,
      ),
  );
  const { tdsPct, beverageG, words } = formState.errors;
  return (
    <Card>
      <Form onSubmit={() => says && void keep()} style={{ gap: 12 }}>
        <Subheading>{WORDS.howWasIt}</Subheading>
        <Controller
          control={control}
          name="balance"
          render={({ field: { value, onChange } }) => (
            <Scale name={WORDS.balance} words={BALANCE_WORDS} value={value} onChange={onChange} />
          )}
        />
        <Controller
          control={control}
          name="strength"
          render={({ field: { value, onChange } }) => (
            <Scale name={WORDS.strength} words={STRENGTH_WORDS} value={value} onChange={onChange} />
          )}
        />
        <Controller
          control={control}
          name="body"
          render={({ field: { value, onChange } }) => (
            <Scale name={WORDS.body} words={BODY_WORDS} value={value} onChange={onChange} />
          )}
        />
        <Chosen control={control} name="own" of={ownWords} label={(word) => word} />
        <Chosen control={control} name="seen" of={SEEN} label={(each) => SEEN_WORDS[each]} />
        <Controller
          control={control}
          name="words"
          render={({ field: { value = '', onChange } }) => (
            <Field
              label={WORDS.inYourWords}
              value={value}
              maxLength={200}
              onChangeText={(typed) => onChange(typed.trim() === '' ? undefined : typed)}
              fault={words !== undefined}
            />
          )}
        />
        <Row style={{ alignItems: 'flex-end' }}>
          <Measured control={control} name="tdsPct" label={WORDS.tds} />
          <Measured control={control} name="beverageG" label={WORDS.beverageG} />
        </Row>
        {tdsPct ? <Text role="alert">{WORDS.tdsError(tdsPct.message ?? '')}</Text> : null}
        {beverageG ? <Text role="alert">{WORDS.theBeverage(beverageG.message ?? '')}</Text> : null}
        {words ? <Text role="alert">{WORDS.yourWords(words.message ?? '')}</Text> : null}
        <Button
          kind="main"
          label={WORDS.save}
          disabled={!says || !formState.isValid}
          onPress={() => void keep()}
          testID="keep-taste"
        />
      </Form>
    </Card>
  );
}

/** Words of which any may be true. */
function Chosen<Word extends string>({
  control,
  name,
  of,
  label,
}: {
  control: Control<Taste>;
  name: 'own' | 'seen';
  of: readonly Word[];
  label: (word: Word) => string;
}) {
  if (of.length === 0) return null;
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { value, onChange } }) => {
        const chosen: readonly string[] = value ?? [];
        return (
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            {of.map((each) => (
              <Button
                key={each}
                label={label(each)}
                kind={chosen.includes(each) ? 'chosen' : 'plain'}
                onPress={() =>
                  onChange(chosen.includes(each) ? chosen.filter((one) => one !== each) : [...chosen, each])
                }
              />
            ))}
          </View>
        );
      }}
    />
  );
}

/** Without what was left open. */
const saidOf = (taste: Taste): Taste =>
  Object.fromEntries(
    Object.entries(taste).filter(
      ([, value]) => value !== undefined && !(Array.isArray(value) && value.length === 0),
    ),
  );

/** A figure that was measured; left empty, nothing was. */
function Measured({
  control,
  name,
  label,
}: {
  control: Control<Taste>;
  name: 'tdsPct' | 'beverageG';
  label: string;
}) {
  const [text, setText] = useState<string | null>(null);
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { value, onChange }, fieldState: { invalid } }) => (
        <Field
          label={label}
          inputMode="decimal"
          value={text ?? (value === undefined ? '' : String(value))}
          onChangeText={(typed) => {
            setText(typed);
            const read = readTyped(typed, label);
            onChange(typed.trim() === '' ? undefined : read.ok ? read.value : NaN);
          }}
          fault={invalid}
          style={{ flex: 1 }}
        />
      )}
    />
  );
}

type ScaleProps = {
  name: string;
  words: readonly string[];
  value: Notch | undefined;
  onChange: (value: Notch) => void;
};

/** Five notches on a line; the ends and the middle are named, and what is chosen is said in words. */
export function Scale({ name, words, value, onChange }: ScaleProps) {
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
