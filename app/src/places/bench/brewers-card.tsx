/**
 * The bar's own brewers and pots, beside those that every bar knows.
 */
import { METHODS, METHOD_IDS } from '@even-kettle/core/recipe';
import { inWords, showMass } from '@even-kettle/core/units';
import type { Bar } from '@even-kettle/core/contract';
import { Choice } from '../../ui/choice';
import { Field } from '../../ui/field';
import { NumberField } from '../../ui/number-field';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { UnitField } from '../../ui/unit-field';
import { ListCard, NameField } from './list-card';
import { dosesInWords } from '../../words/hands-words';
import { WORDS } from './words';

const isPot = (method: keyof typeof METHODS): boolean => METHODS[method].heatedIn === 'pot';

export const BrewersCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title={WORDS.ownBrewers}
    intro={WORDS.ownBrewersIntro}
    setting="brewers"
    bar={bar}
    addLabel={WORDS.aBrewer}
    fresh={(id) => ({
      id,
      name: WORDS.newBrewer,
      method: 'cone' as const,
      minDoseG: 12,
      maxDoseG: 24,
      maxWaterG: 300,
    })}
    line={({ name, method, minDoseG, maxDoseG, maxWaterG }) => ({
      name,
      detail: [
        METHODS[method].name,
        dosesInWords({ minDoseG, maxDoseG }, bar.units),
        WORDS.holds(inWords(showMass(maxWaterG, bar.units, 'water'))),
      ].join(' · '),
    })}
    form={(brewer, set, wrong) => (
      <>
        <Row style={{ alignItems: 'flex-end' }}>
          <NameField of={brewer} set={set} wrong={wrong} style={{ flex: 1 }} />
          <Select
            label={WORDS.method}
            value={brewer.method}
            options={METHOD_IDS.map((value) => ({ value, label: METHODS[value].name }))}
            onChange={(method) => set({ method })}
            style={{ flex: 1 }}
          />
        </Row>
        <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
          <UnitField
            quantity="mass"
            units={bar.units}
            label={WORDS.leastDose}
            value={brewer.minDoseG}
            onChange={(minDoseG) => set({ minDoseG })}
            fault={wrong('minDoseG')}
          />
          <UnitField
            quantity="mass"
            units={bar.units}
            label={WORDS.mostDose}
            value={brewer.maxDoseG}
            onChange={(maxDoseG) => set({ maxDoseG })}
            fault={wrong('maxDoseG')}
          />
          <UnitField
            quantity="mass"
            units={bar.units}
            label={WORDS.mostWaterAtOnce}
            value={brewer.maxWaterG}
            onChange={(maxWaterG) => set({ maxWaterG })}
            fault={wrong('maxWaterG')}
          />
        </Row>
        {isPot(brewer.method) ? (
          <Choice
            name={WORDS.howItIsFilled}
            value={brewer.filledWhole ? 'whole' : 'any'}
            onChange={(value) => set({ filledWhole: value === 'whole' })}
            options={[
              { value: 'any', label: WORDS.anyAmountInRange },
              { value: 'whole', label: WORDS.alwaysWhole },
            ]}
          />
        ) : (
          <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
            <Field
              label={WORDS.filterField}
              value={brewer.filter ?? ''}
              onChangeText={(text) => set({ filter: text === '' ? undefined : text })}
              fault={wrong('filter')}
              style={{ flexGrow: 1, width: 200 }}
            />
            <NumberField
              label={WORDS.keptByAGram}
              value={brewer.retentionGPerG ?? METHODS[brewer.method].retentionGPerG}
              onChange={(retentionGPerG) => set({ retentionGPerG })}
              fault={wrong('retentionGPerG')}
              style={{ width: 140 }}
            />
            <NumberField
              label={WORDS.drainsTimesTheUsual}
              value={brewer.drainShare ?? 1}
              onChange={(drainShare) => set({ drainShare })}
              fault={wrong('drainShare')}
              style={{ width: 140 }}
            />
          </Row>
        )}
      </>
    )}
  />
);
