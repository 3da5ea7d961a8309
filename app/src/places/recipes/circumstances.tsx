/**
 * What surrounds the cup: taken from the Bench, changeable here for this once.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { ADDITIONS, ROAST_LEVELS, type Recipe } from '@even-kettle/core/recipe';
import type { Units } from '@even-kettle/core/units';
import type { Bar } from '@even-kettle/core/contract';
import { Field } from '../../ui/field';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Text } from '../../ui/text';
import type { ConverterInput } from './asked';
import type { Conversion } from './conversion';
import { dosesInWords } from '../../words/hands-words';
import { WORDS } from './words';

export type ConverterProps = {
  recipe: Recipe;
  bar: Bar | null;
  units: Units;
  asked: ConverterInput;
  onAsk: (part: Partial<ConverterInput>) => void;
  made: Conversion;
};

export function Circumstances({ bar, recipe, units, asked, onAsk, made }: ConverterProps) {
  const [open, setOpen] = useState(false);
  const altitudeM = made.place.altitudeM;
  const line = [
    `${altitudeM} m`,
    made.grinder?.name,
    asked.cups === '1' ? WORDS.n1Cup : WORDS.cups(asked.cups),
    `1:${asked.ratio || recipe.ratio}`,
    asked.roast,
    asked.addition === 'nothing' ? null : asked.addition,
  ].filter(Boolean);
  return (
    <View style={{ gap: 10 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Text size="small" quiet style={{ flex: 1 }}>
          {line.join(' · ')}
        </Text>
        <Button
          kind="bare"
          label={open ? WORDS.less : WORDS.change}
          says={open ? WORDS.fewerSettings : WORDS.convertHint}
          onPress={() => setOpen(!open)}
        />
      </Row>
      {open ? (
        <View style={{ gap: 12 }}>
          <Row style={{ alignItems: 'flex-start' }}>
            <Field
              label={WORDS.altitudeM}
              says={WORDS.altitudeInMetres}
              inputMode="numeric"
              value={asked.altitude ?? String(bar?.altitudeM ?? 0)}
              fault={!made.ok && made.field === 'altitude'}
              onChangeText={(altitude) => onAsk({ altitude })}
              testID="convert-altitude"
              style={{ flex: 1 }}
            />
            <Field
              label={WORDS.ratio1To}
              says={WORDS.ratioOneTo}
              inputMode="decimal"
              value={asked.ratio ?? String(recipe.ratio)}
              fault={!made.ok && made.field === 'ratio'}
              onChangeText={(ratio) => onAsk({ ratio: ratio === String(recipe.ratio) ? null : ratio })}
              testID="convert-ratio"
              style={{ flex: 1 }}
            />
            <Field
              label={WORDS.cupsLabel}
              inputMode="numeric"
              value={asked.cups}
              fault={!made.ok && made.field === 'cups'}
              onChangeText={(cups) => onAsk({ cups })}
              testID="convert-cups"
              style={{ flex: 1 }}
            />
          </Row>
          <Select
            label={WORDS.roast}
            value={asked.roast ?? 'coffee'}
            onChange={(roast) => onAsk({ roast: roast === 'coffee' ? null : roast })}
            options={[
              { value: 'coffee' as const, label: WORDS.theCoffees(made.coffee?.roast ?? 'medium') },
              ...ROAST_LEVELS.map((value) => ({ value, label: value })),
            ]}
          />
          <Choice
            name={WORDS.brewer}
            value={made.ok ? made.brewer.id : ''}
            onChange={(brewerId) => onAsk({ brewerId })}
            options={made.brewers.map(({ brewer, onBench }) => ({
              value: brewer.id,
              label: brewer.name,
              hint: `${dosesInWords(brewer, units)}${onBench ? '' : WORDS.notHere}`,
            }))}
          />
          {bar && bar.grinders.length > 1 ? (
            <Choice
              name={WORDS.grinder}
              value={made.grinder?.id ?? ''}
              onChange={(grinderId) => onAsk({ grinderId })}
              options={bar.grinders.map(({ id, name }) => ({ value: id, label: name }))}
            />
          ) : null}
          <Choice
            name={WORDS.added}
            value={asked.addition}
            onChange={(addition) => onAsk({ addition })}
            options={(['nothing', ...ADDITIONS] as const).map((value) => ({
              value,
              label: value === 'nothing' ? WORDS.nothingAdded : value,
            }))}
          />
          {units.volume === 'fl oz' ? (
            <Text size="small" quiet>
              {WORDS.ratiosAreByMass}
            </Text>
          ) : null}
        </View>
      ) : null}
    </View>
  );
}
