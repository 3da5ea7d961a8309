/**
 * A new recipe from nothing: typed or pasted as it stands on a bag of coffee, with what was understood of it.
 */
import { useState } from 'react';
import { View, type DimensionValue } from 'react-native';
import { router } from 'expo-router';
import { METHODS, METHOD_IDS, bandInWords, brewCard, type Recipe } from '@even-kettle/core/recipe';
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
import {
  EMPTY_FORM,
  fillFrom,
  isPoured,
  readForm,
  type FormField,
  type PlainForm,
  type ReadForm,
} from './plain-form';
import { otherCupInWords } from './facts';
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
  const [unread, setUnread] = useState<string[]>([]);
  const storing = useSaveRecipe(forget);
  const read = readForm(form, units, spoonG, new Set(recipes.map(({ id }) => id)));
  const set = (part: Partial<PlainForm>) => setForm({ ...form, ...part });
  const checked = read.made ? schemas().readRecipe(read.made.recipe) : null;
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
          onRead={(text) => {
            const found = schemas().readRecipeText(text);
            setForm(fillFrom(found, form, units));
            setUnread(found.unread);
          }}
          unread={unread}
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

/** A text from a bag or a message; what could not be read is marked in its own words. */
function Pasted({ onRead, unread }: { onRead: (text: string) => void; unread: readonly string[] }) {
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
      {unread.length > 0 ? (
        <View role="alert" style={{ gap: 2 }} testID="unread">
          <Text bold size="small">
            {WORDS.couldNotBeRead}
          </Text>
          {unread.map((part) => (
            <Text key={part} size="small">
              “{part}”
            </Text>
          ))}
        </View>
      ) : null}
    </Card>
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
      {isPoured(form.method) ? (
        <>
          {field('pours', WORDS.poursField, '100%', { multiline: true })}
          <Text size="small" quiet>
            {WORDS.poursLike}
          </Text>
        </>
      ) : null}
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
        {field('end', isPoured(form.method) ? WORDS.dryAt : WORDS.doneAt, 140)}
        {field('grindBand', WORDS.grindField, 140)}
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
        .filter(({ targetG }) => targetG !== undefined)
        .map((step) => (
          <Text key={step.id} size="small">
            {WORDS.pourUnderstood(
              showClock(step.startS),
              step.name,
              water(step.targetG!),
              relative(recipe, step.id),
            )}
          </Text>
        ))}
      <Text size="small">
        {WORDS.dryBetween(showClock(own.brewWindowS.from), showClock(own.brewWindowS.to))}
      </Text>
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
