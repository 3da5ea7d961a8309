/**
 * The coffees on the bench.
 */
import type { Bar } from '@even-kettle/core/contract';
import { ROAST_LEVELS } from '@even-kettle/core/recipe';
import { Field } from '../../ui/field';
import { Choice, Row } from '../../ui/parts';
import { Select } from '../../ui/select';
import { DayField } from '../../ui/day-field';
import { NumberField } from '../../ui/number-field';
import { ListCard, NameField } from './list-card';

export const CoffeesCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title="Coffees"
    setting="coffees"
    bar={bar}
    addLabel="A coffee"
    fresh={(id) => ({ id, name: 'New coffee', roast: 'medium', notes: '', decaf: false })}
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
            label="Roast"
            value={coffee.roast}
            options={ROAST_LEVELS.map((value) => ({ value, label: value }))}
            onChange={(roast) => set({ roast })}
            style={{ flex: 1 }}
          />
        </Row>
        <Row style={{ alignItems: 'flex-end' }}>
          <DayField
            label="Roasted on"
            value={coffee.roastedOn ?? ''}
            onChange={(day) => set({ roastedOn: day || undefined })}
            style={{ flex: 1 }}
          />
          <Choice
            name="Caffeine"
            value={coffee.decaf ? 'decaf' : 'usual'}
            onChange={(value) => set({ decaf: value === 'decaf' })}
            options={[
              { value: 'usual', label: 'usual' },
              { value: 'decaf', label: 'decaf' },
            ]}
          />
        </Row>
        <Field
          label="Tastes of"
          value={coffee.notes}
          onChangeText={(notes) => set({ notes })}
          fault={wrong('notes')}
        />
        {bar.grinders.map(({ id, name }) => (
          <NumberField
            key={id}
            label={`Steps off on the ${name}`}
            value={coffee.grindOffsets?.[id] ?? 0}
            onChange={(steps) => set({ grindOffsets: { ...coffee.grindOffsets, [id]: steps } })}
            fault={wrong('grindOffsets')}
            style={{ width: '100%' }}
          />
        ))}
      </>
    )}
  />
);

/** Days since roasting, as it is said at the bar. */
function age(roastedOn: string): string {
  const days = Math.floor((Date.now() - Date.parse(`${roastedOn}T00:00`)) / 86_400_000);
  return days === 0 ? 'roasted today' : days === 1 ? '1 day off roast' : `${days} days off roast`;
}
