/**
 * The coffees on the bench.
 */
import type { Bar } from '@even-kettle/core/contract';
import { ROAST_LEVELS } from '@even-kettle/core/recipe';
import { useBar } from '../../client/bar-context';
import { changesInWords } from '../../words/change-words';
import { Field } from '../../ui/field';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { Select } from '../../ui/select';
import { DayField } from '../../ui/day-field';
import { NumberField } from '../../ui/number-field';
import { ListCard, NameField } from './list-card';
import { WORDS } from './words';

export const CoffeesCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title={WORDS.coffees}
    intro={bar.coffees.length === 0 ? WORDS.coffeesAreFor : ''}
    setting="coffees"
    bar={bar}
    addLabel={WORDS.aCoffee}
    fresh={(id) => ({ id, name: WORDS.newCoffee, roast: 'medium', notes: '', decaf: false })}
    line={({ name, roast, roastedOn, decaf, notes }) => ({
      name,
      detail: [decaf ? 'DECAF' : null, roast, roastedOn ? age(roastedOn) : null, notes]
        .filter(Boolean)
        .join(' · '),
    })}
    form={(coffee, set, wrong) => (
      <>
        <Row style={{ alignItems: 'flex-end' }}>
          <NameField of={coffee} set={set} wrong={wrong} most={40} style={{ flex: 1 }} />
          <Select
            label={WORDS.roast}
            value={coffee.roast}
            options={ROAST_LEVELS.map((value) => ({ value, label: value }))}
            onChange={(roast) => set({ roast })}
            style={{ flex: 1 }}
          />
        </Row>
        <Row style={{ alignItems: 'flex-end' }}>
          <DayField
            label={WORDS.roastedOn}
            value={coffee.roastedOn ?? ''}
            onChange={(day) => set({ roastedOn: day || undefined })}
            style={{ flex: 1 }}
          />
          <Choice
            name={WORDS.caffeine}
            value={coffee.decaf ? 'decaf' : 'usual'}
            onChange={(value) => set({ decaf: value === 'decaf' })}
            options={[
              { value: 'usual', label: WORDS.usual },
              { value: 'decaf', label: WORDS.decaf },
            ]}
          />
        </Row>
        <Field
          label={WORDS.tastesOf}
          value={coffee.notes}
          onChangeText={(notes) => set({ notes })}
          fault={wrong('notes')}
        />
        {bar.grinders.map(({ id, name }) => (
          <NumberField
            key={id}
            label={WORDS.stepsOffOnThe(name)}
            value={coffee.grindOffsets?.[id] ?? 0}
            onChange={(steps) => set({ grindOffsets: { ...coffee.grindOffsets, [id]: steps } })}
            fault={wrong('grindOffsets')}
            style={{ width: '100%' }}
          />
        ))}
        <Kept
          bar={bar}
          changes={coffee.recipeChanges ?? {}}
          onChange={(recipeChanges) => set({ recipeChanges })}
        />
      </>
    )}
  />
);

type Changes = NonNullable<Bar['coffees'][number]['recipeChanges']>;

/** What was taken up from tasted brews: seen here, and taken back here. */
function Kept({
  bar,
  changes,
  onChange,
}: {
  bar: Bar;
  changes: Changes;
  onChange: (changes: Changes) => void;
}) {
  const { recipes } = useBar();
  const kept = Object.entries(changes)
    .map(([recipeId, change]) => ({
      recipeId,
      name: recipes.find(({ id }) => id === recipeId)?.name ?? recipeId,
      words: changesInWords(change, bar),
    }))
    .filter(({ words }) => words !== '');
  return kept.map(({ recipeId, name, words }) => (
    <Row key={recipeId}>
      <Text style={{ flex: 1 }}>{WORDS.withIt(name, words)}</Text>
      <Button
        kind="bare"
        label={WORDS.remove}
        says={WORDS.removeTheChangesWith(name)}
        onPress={() =>
          onChange(Object.fromEntries(Object.entries(changes).filter(([id]) => id !== recipeId)))
        }
      />
    </Row>
  ));
}

/** Days since roasting, as it is said at the bar. */
function age(roastedOn: string): string {
  const days = Math.floor((Date.now() - Date.parse(`${roastedOn}T00:00`)) / 86_400_000);
  return days === 0 ? WORDS.roastedToday : days === 1 ? WORDS.oneDayOffRoast : WORDS.daysOffRoast(days);
}
