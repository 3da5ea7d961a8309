/**
 * A new recipe from nothing: typed or pasted as it stands on a bag of coffee, with what was understood of it.
 */
import { useState } from 'react';
import { View, type DimensionValue } from 'react-native';
import { router, useLocalSearchParams } from 'expo-router';
import type { ReadText } from '@even-kettle/core/formats';
import {
  BED_PREPARATIONS,
  METHODS,
  METHOD_IDS,
  PLAIN_FILTERS,
  ROAST_LEVELS,
  bandInWords,
  brewCard,
  type Recipe,
} from '@even-kettle/core/recipe';
import { inWords, showClock, showMass, type Units } from '@even-kettle/core/units';
import { useBar, useUnits } from '../../client/bar-context';
import { schemas } from '../../client/load-schemas';
import { setDevice, useDevice } from '../../device/settings';
import { Button } from '../../ui/button';
import { Form } from '../../ui/by-keys';
import { Card } from '../../ui/card';
import { Field } from '../../ui/field';
import { LeaveTap } from '../../ui/leave-tap';
import { Page, Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Heading, Subheading, Text } from '../../ui/text';
import { UnitField } from '../../ui/unit-field';
import { useDraft } from '../../ui/use-draft';
import { useTheme } from '../../ui/use-theme';
import {
  EMPTY_FORM,
  fillFrom,
  isPoured,
  readForm,
  fieldInWords,
  partsOf,
  type FormField,
  type PlainForm,
  type ReadForm,
} from './plain-form';
import { EditNewRecipe } from './editor';
import { otherCupInWords, writtenInWords } from './facts';
import { useSaveRecipe } from './use-save-recipe';
import { WORDS } from './words';

const isForm = (kept: unknown): kept is PlainForm =>
  typeof kept === 'object' &&
  kept !== null &&
  Object.keys(EMPTY_FORM).every((field) => typeof (kept as Record<string, unknown>)[field] === 'string') &&
  (METHOD_IDS as readonly string[]).includes((kept as PlainForm).method);

export function NewRecipe() {
  const { recipes } = useBar();
  const units = useUnits();
  const { spoonG } = useDevice();
  const [form, setForm, forget] = useDraft<PlainForm>('new-recipe', () => EMPTY_FORM, isForm);
  const [said, setSaid] = useState<Said | null>(null);
  // What a person has corrected stays, whatever the text says when it is read again.
  const [corrected, setCorrected] = useState<ReadonlySet<FormField>>(new Set());
  const storing = useSaveRecipe(forget);
  const read = readForm(form, units, spoonG, new Set(recipes.map(({ id }) => id)));
  const set = (part: Partial<PlainForm>) => {
    setForm({ ...form, ...part });
    if (said) setCorrected(new Set([...corrected, ...(Object.keys(part) as FormField[])]));
  };
  const checked = read.made ? schemas().readRecipe(read.made.recipe) : null;
  const inSteps = useLocalSearchParams<{ steps?: string }>().steps === 'yes';
  if (inSteps && checked?.ok)
    return (
      <EditNewRecipe
        recipe={checked.recipe}
        onLeave={() => router.setParams({ steps: undefined })}
        onSaved={forget}
      />
    );
  const leave = () => {
    forget();
    router.replace('/recipes');
  };
  const save = () => checked?.ok && void storing.save(checked.recipe, null);
  return (
    <Page>
      <Form onSubmit={save} style={{ gap: 12 }}>
        <Row style={{ justifyContent: 'space-between' }}>
          <Heading style={{ flex: 1 }}>{WORDS.newRecipe}</Heading>
          <LeaveTap
            icon="close"
            label={WORDS.close}
            changed={JSON.stringify(form) !== JSON.stringify(EMPTY_FORM)}
            onLeave={leave}
          />
        </Row>
        <Pasted
          said={said}
          onRead={(text) => {
            const found = schemas().readRecipeText(text);
            setForm(fillFrom(found, form, units, corrected));
            setSaid({ text, read: found });
          }}
          onGoTo={goTo}
        />
        <Fields form={form} read={read} units={units} onChange={set} />
        {read.made ? <Understood made={read.made} units={units} /> : null}
        {checked && !checked.ok ? (
          <Text role="alert" bold>
            {checked.faults[0]!.reason}
          </Text>
        ) : null}
        {storing.refused ? (
          <Text role="alert" bold>
            {storing.refused}
          </Text>
        ) : null}
        <Button
          label={WORDS.changeTheSteps}
          says={WORDS.changeBeforeSaving}
          disabled={!checked?.ok}
          onPress={() => router.setParams({ steps: 'yes' })}
        />
        <Button
          kind="main"
          label={WORDS.save}
          disabled={!checked?.ok || storing.saving}
          onPress={save}
          testID="save-new-recipe"
          style={{ minHeight: 64 }}
        />
      </Form>
    </Page>
  );
}

type Said = { text: string; read: ReadText };

/** To the field that holds what was tapped in the text. */
function goTo(field: FormField): void {
  const found = globalThis.document?.querySelector<HTMLElement>(`[data-testid="new-${field}"]`);
  const input = found?.matches('input, textarea, button')
    ? found
    : found?.querySelector<HTMLElement>('input, textarea, button');
  input?.focus();
  input?.scrollIntoView({ block: 'center' });
}

/** A text from a bag, a message or somebody's mouth; above the fields it stands with what was understood of it, and what was not. */
function Pasted({
  said,
  onRead,
  onGoTo,
}: {
  said: Said | null;
  onRead: (text: string) => void;
  onGoTo: (field: FormField) => void;
}) {
  const [text, setText] = useState('');
  return (
    <Card style={{ gap: 8 }}>
      <Field
        label={WORDS.pasteARecipe}
        value={text}
        onChangeText={setText}
        multiline
        testID="pasted-recipe"
      />
      <Row style={{ justifyContent: 'space-between' }}>
        <Text size="small" quiet style={{ flex: 1 }}>
          {WORDS.orFillFields}
        </Text>
        <Button
          label={WORDS.readIt}
          says={WORDS.readThePastedText}
          disabled={text.trim() === ''}
          onPress={() => onRead(text)}
        />
      </Row>
      {said ? <WhatWasSaid said={said} onGoTo={onGoTo} /> : null}
    </Card>
  );
}

function WhatWasSaid({ said: { text, read }, onGoTo }: { said: Said; onGoTo: (field: FormField) => void }) {
  const theme = useTheme();
  const named = (fields: readonly string[]) => [...new Set(fields.map(fieldInWords))].join(', ');
  return (
    <View style={{ gap: 4 }} testID="said">
      <Text size="small" quiet>
        {WORDS.saidInTheText}
      </Text>
      <Text>
        {partsOf(text, read).map(({ words, field, isUnread }, n) =>
          isUnread ? (
            <Text key={n} bold color={theme.bg} style={{ backgroundColor: theme.ink }}>
              {words}
            </Text>
          ) : field ? (
            <Text
              key={n}
              role="link"
              onPress={() => onGoTo(field)}
              style={{ textDecorationLine: 'underline' }}
            >
              {words}
            </Text>
          ) : (
            words
          ),
        )}
      </Text>
      {read.asked.length > 0 ? (
        <Text bold size="small" role="alert">
          {WORDS.asked(named(read.asked))}
        </Text>
      ) : null}
      {read.usual.length > 0 ? <Text size="small">{WORDS.usualHere(named(read.usual))}</Text> : null}
      {read.unread.length > 0 ? (
        <View role="alert" style={{ gap: 2 }} testID="unread">
          <Text bold size="small">
            {WORDS.couldNotBeRead}
          </Text>
          {read.unread.map((part) => (
            <Text key={part} size="small">
              “{part}”
            </Text>
          ))}
        </View>
      ) : null}
    </View>
  );
}

function Fields({
  form,
  read,
  units,
  onChange,
}: {
  form: PlainForm;
  read: ReadForm;
  units: Units;
  onChange: (part: Partial<PlainForm>) => void;
}) {
  const { spoonG } = useDevice();
  const { faults } = read;
  const field = (
    name: FormField,
    label: string,
    width: DimensionValue,
    more: { says?: string; multiline?: boolean } = {},
  ) => (
    <Field
      label={label}
      value={form[name]}
      onChangeText={(text) => onChange({ [name]: text })}
      fault={faults[name] !== undefined}
      style={{ flexGrow: 1, width }}
      testID={`new-${name}`}
      {...more}
    />
  );
  return (
    <Card style={{ gap: 10 }} ruled={Object.keys(faults).length > 0}>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <Select
          label={WORDS.method}
          value={form.method}
          options={METHOD_IDS.map((value) => ({ value, label: METHODS[value].name }))}
          onChange={(method) => onChange({ method })}
          style={{ flexGrow: 1, width: 150 }}
        />
        {field('name', WORDS.name, 170)}
      </Row>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
        {field('dose', WORDS.doseIn(units.mass), 90, { says: WORDS.doseField })}
        {field('water', WORDS.waterIn(units.mass), 90)}
        {field('temperature', WORDS.waterAtIn(`°${units.temperature}`), 90)}
      </Row>
      <Text size="small" quiet>
        {WORDS.theDoseMayBe}
      </Text>
      {/spoon/i.test(form.dose) ? (
        <UnitField
          quantity="mass"
          units={units}
          label={WORDS.aLevelSpoonWeighs}
          value={spoonG}
          onChange={(grams) => setDevice({ spoonG: Number.isNaN(grams) ? 0 : grams })}
          fault={!(spoonG > 0)}
          testID="spoon"
        />
      ) : null}
      {field('pours', isPoured(form.method) ? WORDS.poursField : WORDS.stepsField, '100%', {
        multiline: true,
      })}
      <Text size="small" quiet>
        {isPoured(form.method) ? WORDS.poursLike : WORDS.stepsLike}
      </Text>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
        {field('end', isPoured(form.method) ? WORDS.dryAt : WORDS.doneAt, 140)}
        {field('grindBand', WORDS.grindOrWords, 140)}
      </Row>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <Select
          label={WORDS.filterField}
          value={form.filter}
          options={[
            { value: '' as const, label: WORDS.asUsual },
            ...PLAIN_FILTERS.map((value) => ({ value, label: WORDS.filterNames[value] })),
          ]}
          onChange={(filter) => onChange({ filter })}
          testID="new-filter"
          style={{ flexGrow: 1, width: 140 }}
        />
        <Select
          label={WORDS.roastMeant}
          value={form.roast}
          options={[
            { value: '' as const, label: WORDS.asUsual },
            ...ROAST_LEVELS.map((value) => ({ value, label: value })),
          ]}
          onChange={(roast) => onChange({ roast })}
          testID="new-roast"
          style={{ flexGrow: 1, width: 140 }}
        />
        <Select
          label={WORDS.bedBefore}
          value={form.bed}
          options={[
            { value: '' as const, label: WORDS.asUsual },
            ...BED_PREPARATIONS.map((value) => ({ value, label: value })),
          ]}
          onChange={(bed) => onChange({ bed })}
          testID="new-bed"
          style={{ flexGrow: 1, width: 140 }}
        />
      </Row>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
        {field('bypass', WORDS.inMass(WORDS.addedAfterwards, units.mass), 140)}
        {field('rinse', WORDS.inMass(WORDS.rinseWater, units.mass), 140)}
        {field('ice', WORDS.inMass(WORDS.ice, units.mass), 90)}
        {field('servings', WORDS.cupsItMakes, 90)}
        {field('brewer', WORDS.brewerHoldsIn(units.volume), 140)}
      </Row>
      {Object.entries(faults).map(([name, reason]) => (
        <Text key={name} bold size="small" role="alert">
          {reason}
        </Text>
      ))}
    </Card>
  );
}

/** What was understood: each pour by what it is relative to, and what that makes of another cup. */
function Understood({ made, units }: { made: NonNullable<ReadForm['made']>; units: Units }) {
  const { recipe } = made;
  const own = brewCard(recipe, { doseG: recipe.refDoseG });
  const water = (grams: number) => inWords(showMass(grams, units, 'water'));
  return (
    <Card style={{ gap: 4 }}>
      <Subheading>{WORDS.understood}</Subheading>
      <Text testID="understood">
        {WORDS.ratioAndGrind(recipe.ratio.toFixed(1), bandInWords(recipe.grindBand), recipe.grindBand)}
      </Text>
      {own.steps
        .filter(({ phase, attended, targetG }) => targetG !== undefined || (phase === 'brew' && attended))
        .map((step) => (
          <Text key={step.id} size="small">
            {step.targetG === undefined
              ? WORDS.stepUnderstood(showClock(step.startS), step.name)
              : WORDS.pourUnderstood(
                  showClock(step.startS),
                  step.name,
                  water(step.targetG),
                  relative(recipe, step.id),
                )}
          </Text>
        ))}
      <Text size="small">
        {WORDS.dryBetween(showClock(own.brewWindowS.from), showClock(own.brewWindowS.to))}
      </Text>
      {writtenInWords(recipe, units).map((words) => (
        <Text key={words} size="small">
          {words}
        </Text>
      ))}
      <OtherCup recipe={recipe} units={units} />
    </Card>
  );
}

function OtherCup({ recipe, units }: { recipe: Recipe; units: Units }) {
  const words = otherCupInWords(recipe, units);
  return words === null ? null : (
    <Text size="small" quiet>
      {words}
    </Text>
  );
}

function relative(recipe: Recipe, stepId: string): string {
  const amount = recipe.steps.find(({ id }) => id === stepId)?.pour?.amount;
  if (!amount) return '';
  if ('timesDose' in amount) return WORDS.doseForTimesDose(Math.round(amount.timesDose * 10) / 10);
  return 'toShare' in amount ? WORDS.toForToShare(Math.round(amount.toShare * 1000) / 10) : '';
}
