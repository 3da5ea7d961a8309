/**
 * Where the bar stands, what its water is, and in which units it is shown.
 */
import type { Bar, BarChange } from '@even-kettle/core/contract';
import { inWords, showTemperature, type Units } from '@even-kettle/core/units';
import { ALTITUDE_RANGE_M, boilingPointC } from '@even-kettle/core/water';
import { Field } from '../../ui/field';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { NumberField } from '../../ui/number-field';
import { UnitField } from '../../ui/unit-field';
import { Form } from '../../ui/by-keys';
import { Failure } from './list-card';
import { useChange, useChangeForm } from '../../parts/use-change';
import { WORDS } from './words';

const PLACE_WORDS: Record<string, string> = {
  altitudeM: WORDS.altitude,
  roomC: WORDS.room,
  tapC: WORDS.filledAt,
  burners: WORDS.burners,
  'water.name': WORDS.water,
  'water.hardnessPpm': WORDS.hardness,
};
const isPlace = (kept: unknown): kept is BarChange =>
  typeof kept === 'object' && kept !== null && 'water' in kept;

/** Where the bar stands and what its water is. */
export function PlaceCard({ bar }: { bar: Bar }) {
  const { altitudeM, roomC, tapC, burners, water } = bar;
  const change = useChangeForm('bench.place', { altitudeM, roomC, tapC, burners, water }, isPlace);
  const now = { ...bar, ...change.values };
  const { set, wrong, changed, save, faults } = change;
  const altitudeRight = now.altitudeM >= ALTITUDE_RANGE_M.min && now.altitudeM <= ALTITUDE_RANGE_M.max;
  return (
    <Card ruled={faults.length > 0 || change.failure !== null}>
      <Form onSubmit={() => changed && save()} style={{ gap: 10 }}>
        <Subheading>{WORDS.placeAndWater}</Subheading>
        <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
          <NumberField
            label={WORDS.altitudeM}
            value={now.altitudeM}
            onChange={(altitudeM) => set({ altitudeM })}
            fault={wrong('altitudeM')}
            testID="altitude"
          />
          <UnitField
            quantity="temperature"
            units={bar.units}
            label={WORDS.room}
            value={now.roomC}
            onChange={(roomC) => set({ roomC })}
            fault={wrong('roomC')}
          />
          <UnitField
            quantity="temperature"
            units={bar.units}
            label={WORDS.filledAt}
            value={now.tapC}
            onChange={(tapC) => set({ tapC })}
            fault={wrong('tapC')}
          />
          <NumberField
            label={WORDS.burners}
            value={now.burners}
            onChange={(burners) => set({ burners })}
            fault={wrong('burners')}
          />
        </Row>
        <Row style={{ alignItems: 'flex-start' }}>
          <Field
            label={WORDS.water}
            value={now.water.name}
            maxLength={40}
            onChangeText={(name) => set({ water: { ...now.water, name } })}
            fault={wrong('water')}
            style={{ flex: 2 }}
          />
          <NumberField
            label={WORDS.hardnessPpm}
            value={now.water.hardnessPpm ?? 0}
            onChange={(hardnessPpm) => set({ water: { ...now.water, hardnessPpm } })}
            fault={wrong('water.hardnessPpm')}
            style={{ flex: 1 }}
          />
        </Row>
        {altitudeRight ? (
          <Text quiet>
            {WORDS.waterBoilsAtHere(inWords(showTemperature(boilingPointC(now.altitudeM), bar.units, true)))}
          </Text>
        ) : null}
        <Button
          label={WORDS.save}
          says={WORDS.savePlaceAndWater}
          kind={changed ? 'main' : 'plain'}
          disabled={!changed || change.saving}
          onPress={save}
          style={{ alignSelf: 'flex-start' }}
        />
        {faults.map(({ field, reason }) => (
          <Text key={`${field} ${reason}`} role="alert" bold size="small">
            {PLACE_WORDS[field] ?? WORDS.theSettings}: {reason}
          </Text>
        ))}
        <Failure error={change.failure} shown={faults.length > 0} />
      </Form>
    </Card>
  );
}

export function UnitsCard({ bar }: { bar: Bar }) {
  const change = useChange();
  const set = (part: Partial<Units>) => change.mutate({ units: { ...bar.units, ...part } });
  return (
    <Card>
      <Subheading>{WORDS.units}</Subheading>
      <Text quiet size="small">
        {WORDS.forEveryDevice}
      </Text>
      <Row style={{ flexWrap: 'wrap', rowGap: 10, columnGap: 20 }}>
        <Choice
          name={WORDS.mass}
          value={bar.units.mass}
          onChange={(mass) => set({ mass })}
          options={[
            { value: 'g', label: 'g' },
            { value: 'oz', label: WORDS.oz },
          ]}
        />
        <Choice
          name={WORDS.temperature}
          value={bar.units.temperature}
          onChange={(temperature) => set({ temperature })}
          options={[
            { value: 'C', label: '°C' },
            { value: 'F', label: '°F' },
          ]}
        />
        <Choice
          name={WORDS.volume}
          value={bar.units.volume}
          onChange={(volume) => set({ volume })}
          options={[
            { value: 'ml', label: WORDS.ml },
            { value: 'fl oz', label: WORDS.flOz },
          ]}
        />
      </Row>
      <Failure error={change.error} />
    </Card>
  );
}
