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
    asked.cups === '1' ? '1 cup' : `${asked.cups} cups`,
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
          label={open ? 'Less' : 'Change'}
          says={open ? 'Fewer settings' : 'Change altitude, brewer, grinder, ratio, cups or additions'}
          onPress={() => setOpen(!open)}
        />
      </Row>
      {open ? (
        <View style={{ gap: 12 }}>
          <Row style={{ alignItems: 'flex-start' }}>
            <Field
              label="Altitude, m"
              says="Altitude in metres"
              inputMode="numeric"
              value={asked.altitude ?? String(bar?.altitudeM ?? 0)}
              fault={!made.ok && made.field === 'altitude'}
              onChangeText={(altitude) => onAsk({ altitude })}
              testID="convert-altitude"
              style={{ flex: 1 }}
            />
            <Field
              label="Ratio, 1 to"
              says="Ratio, one to"
              inputMode="decimal"
              value={asked.ratio ?? String(recipe.ratio)}
              fault={!made.ok && made.field === 'ratio'}
              onChangeText={(ratio) => onAsk({ ratio: ratio === String(recipe.ratio) ? null : ratio })}
              testID="convert-ratio"
              style={{ flex: 1 }}
            />
            <Field
              label="Cups"
              inputMode="numeric"
              value={asked.cups}
              fault={!made.ok && made.field === 'cups'}
              onChangeText={(cups) => onAsk({ cups })}
              testID="convert-cups"
              style={{ flex: 1 }}
            />
          </Row>
          <Select
            label="Roast"
            value={asked.roast ?? 'coffee'}
            onChange={(roast) => onAsk({ roast: roast === 'coffee' ? null : roast })}
            options={[
              { value: 'coffee' as const, label: `the coffee’s: ${made.coffee?.roast ?? 'medium'}` },
              ...ROAST_LEVELS.map((value) => ({ value, label: value })),
            ]}
          />
          <Choice
            name="Brewer"
            value={made.ok ? made.brewer.id : ''}
            onChange={(brewerId) => onAsk({ brewerId })}
            options={made.brewers.map(({ brewer, onBench }) => ({
              value: brewer.id,
              label: brewer.name,
              hint: `${brewer.minDoseG}–${brewer.maxDoseG} g${onBench ? '' : ', not here'}`,
            }))}
          />
          {bar && bar.grinders.length > 1 ? (
            <Choice
              name="Grinder"
              value={made.grinder?.id ?? ''}
              onChange={(grinderId) => onAsk({ grinderId })}
              options={bar.grinders.map(({ id, name }) => ({ value: id, label: name }))}
            />
          ) : null}
          <Choice
            name="Added"
            value={asked.addition}
            onChange={(addition) => onAsk({ addition })}
            options={(['nothing', ...ADDITIONS] as const).map((value) => ({
              value,
              label: value === 'nothing' ? 'nothing added' : value,
            }))}
          />
          {units.volume === 'fl oz' ? (
            <Text size="small" quiet>
              Ratios are by mass.
            </Text>
          ) : null}
        </View>
      ) : null}
    </View>
  );
}
