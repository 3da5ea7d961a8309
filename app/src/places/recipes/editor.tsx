/**
 * Changing a recipe, checked as one types, saved as a new version. Brews that were begun keep theirs.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { router, useLocalSearchParams } from 'expo-router';
import { METHODS, WISHES, brewCard, type Recipe } from '@even-kettle/core/recipe';
import { inWords, showClock, showMass } from '@even-kettle/core/units';
import { useBar, useUnits } from '../../client/bar-context';
import { schemas } from '../../client/load-schemas';
import { Field } from '../../ui/field';
import { Form } from '../../ui/by-keys';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Page, Row } from '../../ui/page';
import { Heading, Subheading, Text } from '../../ui/text';
import { idFor } from './draft';
import { NumberField } from '../../ui/number-field';
import { OptionalNumber } from '../../ui/optional-number';
import { useUndo } from '../../ui/use-undo';
import { LeaveTap } from '../../ui/leave-tap';
import { UnitField } from '../../ui/unit-field';
import { useDraft } from '../../ui/use-draft';
import { FaultLines, type FaultsAt } from './edit-fields';
import { PourChart } from './pour-chart';
import { RecipeMore } from './recipe-more';
import { StepList } from './step-list';
import { withPart } from './step-more';
import { useSaveRecipe } from './use-save-recipe';
import { WORDS } from './words';

export function EditRecipe({ recipe }: { recipe: Recipe }) {
  const copy = useLocalSearchParams<{ copy?: string }>().copy === 'yes';
  return <Editor key={`${recipe.id} ${copy}`} recipe={recipe} kind={copy ? 'copy' : 'change'} />;
}

/** The recipe that the form made, step by step before it is saved. What was changed is kept as long as the form says the same. */
export const EditNewRecipe = (props: { recipe: Recipe; onLeave: () => void; onSaved: () => void }) => (
  <Editor kind="new" {...props} />
);

type EditorProps = {
  recipe: Recipe;
  kind: 'change' | 'copy' | 'new';
  /** Left out: back to the recipe. */
  onLeave?: () => void;
  onSaved?: () => void;
};

// eslint-disable-next-line max-lines-per-function -- the arrangement of one form
function Editor({ recipe, kind, onLeave, onSaved }: EditorProps) {
  const copy = kind === 'copy';
  const { recipes } = useBar();
  const units = useUnits();
  // What is edited is what was opened, also when a later version comes meanwhile: saving says so then.
  const [opened] = useState(recipe);
  const [first] = useState(() => (copy ? copyOf(recipe, recipes) : recipe));
  const [draft, keepDraft, forgetDraft] = useDraft<Recipe>(
    kind === 'new' ? `recipe.new ${JSON.stringify(recipe)}` : `recipe.${recipe.id}${copy ? ' copy' : ''}`,
    () => first,
    (kept): kept is Recipe => isRecipeDraft(kept, first),
  );
  const { setDraft, undo, canUndo } = useUndo(draft, keepDraft);
  const storing = useSaveRecipe(() => {
    forgetDraft();
    onSaved?.();
  });
  const read = schemas().readRecipe(draft);
  const faults = read.ok ? [] : read.faults;
  const at: FaultsAt = (field) =>
    faults.filter((fault) => fault.field === field || fault.field.startsWith(`${field}.`));
  const set = (part: Partial<Recipe>) => setDraft({ ...draft, ...part });
  const leave = () => {
    forgetDraft();
    if (onLeave) onLeave();
    else router.replace({ pathname: '/recipes/[id]', params: { id: recipe.id } });
  };

  const isNew = kind !== 'change';
  const save = () => read.ok && void storing.save(read.recipe, isNew ? null : opened.version);

  return (
    <Page>
      <Form onSubmit={save} style={{ gap: 12 }}>
        <Row style={{ justifyContent: 'space-between' }}>
          <Heading style={{ flex: 1 }}>{TITLES[kind](recipe.name)}</Heading>
          <Button
            kind="bare"
            icon="undo"
            label={WORDS.undo}
            says={WORDS.undoTheLastChange}
            disabled={!canUndo}
            onPress={undo}
          />
          <LeaveTap
            icon="close"
            label={WORDS.close}
            changed={JSON.stringify(draft) !== JSON.stringify(first)}
            onLeave={leave}
          />
        </Row>
        <Card style={{ gap: 12 }} ruled={at('name').length > 0 || at('id').length > 0}>
          <Field
            label={WORDS.name}
            value={draft.name}
            onChangeText={(name) => set(isNew ? { name, id: idFor(draft.method, name) } : { name })}
            fault={at('name').length > 0}
          />
          <Text size="small" quiet>
            {METHODS[draft.method].name} · {draft.id}
          </Text>
          <Field
            label={WORDS.whyChooseIt}
            value={draft.why}
            onChangeText={(why) => set({ why })}
            fault={at('why').length > 0}
            multiline
          />
          <FaultLines faults={[...at('name'), ...at('id'), ...at('why')]} />
          <Row style={{ flexWrap: 'wrap' }}>
            {WISHES.map((wish) => {
              const on = draft.suits.includes(wish);
              return (
                <Button
                  key={wish}
                  label={wish}
                  says={`${wish}: ${on ? 'yes' : 'no'}`}
                  kind={on ? 'chosen' : 'plain'}
                  onPress={() =>
                    set({ suits: on ? draft.suits.filter((each) => each !== wish) : [...draft.suits, wish] })
                  }
                />
              );
            })}
          </Row>
        </Card>
        <Card style={{ gap: 12 }}>
          <Subheading>{WORDS.numbers}</Subheading>
          <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
            <UnitField
              quantity="mass"
              units={units}
              label={WORDS.setFor}
              value={draft.refDoseG}
              onChange={(refDoseG) => set({ refDoseG })}
              fault={at('refDoseG').length > 0}
            />
            <NumberField
              label={WORDS.ratio1To}
              value={draft.ratio}
              onChange={(ratio) => set({ ratio })}
              fault={at('ratio').length > 0}
            />
            <NumberField
              label={WORDS.grindField}
              value={draft.grindBand}
              onChange={(grindBand) => set({ grindBand })}
              fault={at('grindBand').length > 0}
            />
            <UnitField
              quantity="temperature"
              units={units}
              label={WORDS.water}
              value={draft.waterC}
              onChange={(waterC) => set({ waterC })}
              fault={at('waterC').length > 0}
            />
            <NumberField
              label={WORDS.bypassDose}
              value={draft.bypassTimesDose}
              onChange={(bypassTimesDose) => set({ bypassTimesDose })}
              fault={at('bypassTimesDose').length > 0}
            />
            <OptionalNumber
              label={WORDS.iceTimesDose}
              value={draft.iceTimesDose}
              onChange={(ice) => setDraft(withPart(draft, 'iceTimesDose', ice))}
              fault={at('iceTimesDose').length > 0}
            />
            <OptionalNumber
              label={WORDS.cupsItMakes}
              value={draft.servings}
              onChange={(cups) => setDraft(withPart(draft, 'servings', cups))}
              fault={at('servings').length > 0}
            />
            <NumberField
              label={WORDS.endsFromS}
              value={draft.endWindowS.from}
              onChange={(from) => set({ endWindowS: { ...draft.endWindowS, from } })}
              fault={at('endWindowS').length > 0}
            />
            <NumberField
              label={WORDS.endsByS}
              value={draft.endWindowS.to}
              onChange={(to) => set({ endWindowS: { ...draft.endWindowS, to } })}
              fault={at('endWindowS').length > 0}
            />
          </Row>
          <FaultLines faults={NUMBERS.flatMap(at)} />
        </Card>
        <RecipeMore draft={draft} at={at} onChange={setDraft} />
        <StepList recipe={draft} onChange={setDraft} at={at} />
        <Result draft={draft} faults={faults.length} at={at} />
        {storing.refused ? (
          <Text role="alert" bold>
            {storing.refused}
          </Text>
        ) : null}
        <Button
          kind="main"
          label={isNew ? WORDS.saveAsNewRecipe : WORDS.saveAsVersion(opened.version + 1)}
          disabled={!read.ok || storing.saving}
          onPress={save}
          testID="save-recipe"
          style={{ minHeight: 64 }}
        />
      </Form>
    </Page>
  );
}

const TITLES = { copy: WORDS.aCopyOf, change: WORDS.changeForName, new: WORDS.newForName };
const NUMBERS = [
  'refDoseG',
  'ratio',
  'grindBand',
  'waterC',
  'bypassTimesDose',
  'iceTimesDose',
  'servings',
  'endWindowS',
] as const;

/** What comes of the draft at its reference dose, or what is still wrong with it as a whole. */
function Result({ draft, faults, at }: { draft: Recipe; faults: number; at: FaultsAt }) {
  const units = useUnits();
  if (faults > 0)
    return (
      <Card ruled>
        <View role="status" style={{ gap: 4 }}>
          <Subheading>{faults === 1 ? WORDS.oneThingToMend : WORDS.thingsToMend(faults)}</Subheading>
          <FaultLines faults={at('steps').filter(({ field }) => field === 'steps')} />
        </View>
      </Card>
    );
  const card = brewCard(draft, { doseG: draft.refDoseG });
  return (
    <Card>
      <Subheading>{WORDS.atTheReferenceDose}</Subheading>
      <Text>
        {WORDS.recipeInFigures(
          inWords(showMass(card.doseG, units, 'dose')),
          inWords(showMass(card.brewWaterG, units, 'water')),
          inWords(showMass(card.beverageG, units, 'water')),
          showClock(card.brewTimeS),
        )}
      </Text>
      <PourChart card={card} units={units} />
    </Card>
  );
}

const OPTIONAL: readonly (keyof Recipe)[] = ['retentionGPerG', 'otherwise', 'iceTimesDose', 'servings'];

/** A recipe that was being changed: of the same make as the one that it was made from, whatever is still wrong in it. */
function isRecipeDraft(kept: unknown, first: Recipe): kept is Recipe {
  if (typeof kept !== 'object' || kept === null) return false;
  const draft = kept as Partial<Record<keyof Recipe, unknown>>;
  const alike = (Object.keys(first) as (keyof Recipe)[]).every(
    (field) => OPTIONAL.includes(field) || sameKind(draft[field], first[field]),
  );
  return (
    alike &&
    (draft.steps as Recipe['steps']).every(
      (step) => typeof step?.id === 'string' && typeof step.lasts !== 'undefined',
    )
  );
}
const sameKind = (one: unknown, other: unknown): boolean =>
  typeof one === typeof other && Array.isArray(one) === Array.isArray(other);

function copyOf(recipe: Recipe, recipes: readonly Recipe[]): Recipe {
  const taken = new Set(recipes.map(({ id }) => id));
  let name = WORDS.ours(recipe.name);
  for (let count = 2; taken.has(idFor(recipe.method, name)); count += 1)
    name = WORDS.oursForName(recipe.name, count);
  return { ...recipe, name, id: idFor(recipe.method, name), version: 1 };
}
