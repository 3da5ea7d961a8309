/**
 * What a recipe says besides its figures: filter, bed, what its temperature is of, cautions, and how long it keeps which tool.
 */
import { BED_PREPARATIONS, TOOLS, WATER_MEANINGS, type Hold, type Recipe } from '@even-kettle/core/recipe';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Field } from '../../ui/field';
import { OptionalNumber } from '../../ui/optional-number';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Subheading } from '../../ui/text';
import { FaultLines, type FaultsAt } from './edit-fields';
import { withPart } from './step-more';
import { WORDS } from './words';

type Props = { draft: Recipe; at: FaultsAt; onChange: (draft: Recipe) => void };

const FIELDS = ['filter', 'bed', 'waterIs', 'retentionGPerG', 'otherwise', 'cautions', 'holds'] as const;

export function RecipeMore({ draft, at, onChange }: Props) {
  const set = (part: Partial<Recipe>) => onChange({ ...draft, ...part });
  const half = { flexGrow: 1, width: 150 } as const;
  return (
    <Card style={{ gap: 10 }} ruled={FIELDS.some((field) => at(field).length > 0)}>
      <Subheading>{WORDS.filterAndBed}</Subheading>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <Field
          label={WORDS.filterField}
          value={draft.filter}
          onChangeText={(filter) => set({ filter })}
          fault={at('filter').length > 0}
          style={half}
        />
        <OptionalNumber
          label={WORDS.keptByBed}
          value={draft.retentionGPerG}
          onChange={(kept) => onChange(withPart(draft, 'retentionGPerG', kept))}
          fault={at('retentionGPerG').length > 0}
          style={half}
        />
      </Row>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <Select
          label={WORDS.bedBefore}
          value={draft.bed}
          options={BED_PREPARATIONS.map((value) => ({ value, label: value }))}
          onChange={(bed) => set({ bed })}
          style={half}
        />
        <Select
          label={WORDS.temperatureIs}
          value={draft.waterIs}
          options={WATER_MEANINGS.map((value) => ({ value, label: value }))}
          onChange={(waterIs) => set({ waterIs })}
          style={half}
        />
      </Row>
      <Field
        label={WORDS.whatOthersDo}
        value={draft.otherwise ?? ''}
        onChangeText={(otherwise) =>
          onChange(withPart(draft, 'otherwise', otherwise === '' ? undefined : otherwise))
        }
        fault={at('otherwise').length > 0}
        multiline
      />
      <Field
        label={WORDS.cautionsByLine}
        value={draft.cautions.join('\n')}
        onChangeText={(text) => set({ cautions: text === '' ? [] : text.split('\n') })}
        fault={at('cautions').length > 0}
        multiline
      />
      {draft.holds.map((hold, n) => (
        <HoldRow
          key={n}
          hold={hold}
          number={n + 1}
          steps={draft.steps}
          onChange={(next) => set({ holds: draft.holds.with(n, next) })}
          onRemove={() => set({ holds: draft.holds.toSpliced(n, 1) })}
        />
      ))}
      <Button
        kind="bare"
        icon="plus"
        label={WORDS.addAHold}
        onPress={() =>
          set({
            holds: [...draft.holds, { tool: 'brewer', from: draft.steps[0]!.id, to: draft.steps.at(-1)!.id }],
          })
        }
      />
      <FaultLines faults={FIELDS.flatMap(at)} />
    </Card>
  );
}

function HoldRow({
  hold,
  number,
  steps,
  onChange,
  onRemove,
}: {
  hold: Hold;
  number: number;
  steps: Recipe['steps'];
  onChange: (hold: Hold) => void;
  onRemove: () => void;
}) {
  const named = steps.map(({ id, name }) => ({ value: id, label: name }));
  const third = { flexGrow: 1, width: 110 } as const;
  return (
    <Row style={{ flexWrap: 'wrap', alignItems: 'flex-end' }}>
      <Select
        label={WORDS.holds}
        says={WORDS.heldTool(number)}
        value={hold.tool}
        options={TOOLS.map((value) => ({ value, label: value }))}
        onChange={(tool) => onChange({ ...hold, tool })}
        style={third}
      />
      <Select
        label={WORDS.holdsFrom}
        says={WORDS.heldFrom(number)}
        value={hold.from}
        options={named}
        onChange={(from) => onChange({ ...hold, from })}
        style={third}
      />
      <Select
        label={WORDS.holdsTo}
        says={WORDS.heldTo(number)}
        value={hold.to}
        options={named}
        onChange={(to) => onChange({ ...hold, to })}
        style={third}
      />
      <Button
        kind="bare"
        icon="close"
        label={WORDS.remove}
        says={WORDS.removeForName(WORDS.heldTool(number))}
        onPress={onRemove}
      />
    </Row>
  );
}
