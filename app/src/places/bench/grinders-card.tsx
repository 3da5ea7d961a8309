/**
 * The grinders and their calibration.
 */
import { View } from 'react-native';
import type { Bar } from '@even-kettle/core/contract';
import { USUAL_KEEPS_G, USUAL_PURGE_G } from '@even-kettle/core/recipe';
import { inWords, showMass } from '@even-kettle/core/units';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { NumberField } from '../../ui/number-field';
import { UnitField } from '../../ui/unit-field';
import { ListCard, NameField } from './list-card';
import { WORDS } from './words';

export const GrindersCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title={WORDS.grinders}
    intro={WORDS.calibrationHint}
    setting="grinders"
    bar={bar}
    addLabel={WORDS.aGrinder}
    fresh={(id) => ({
      id,
      name: WORDS.newGrinder,
      points: [
        { band: 20, setting: 30 },
        { band: 80, setting: 6 },
      ],
    })}
    line={({ name, points, keepsG }) => ({
      name,
      detail: [
        points.map(({ band, setting }) => WORDS.is(band, setting)).join(', '),
        WORDS.keeps(inWords(showMass(keepsG ?? USUAL_KEEPS_G, bar.units, 'dose'))),
      ].join(' · '),
    })}
    form={(grinder, set, wrong) => (
      <>
        <NameField of={grinder} set={set} wrong={wrong} />
        <View style={{ gap: 8 }}>
          {grinder.points.map((point, index) => (
            <Row key={index} style={{ alignItems: 'flex-end' }}>
              <NumberField
                label={WORDS.band}
                value={point.band}
                onChange={(band) => set({ points: grinder.points.with(index, { ...point, band }) })}
                fault={wrong('points')}
                style={{ flex: 1 }}
              />
              <NumberField
                label={WORDS.setting}
                value={point.setting}
                onChange={(setting) => set({ points: grinder.points.with(index, { ...point, setting }) })}
                fault={wrong('points')}
                style={{ flex: 1 }}
              />
              <Button
                kind="bare"
                icon="close"
                label=""
                says={WORDS.removePoint(index + 1)}
                disabled={grinder.points.length <= 2}
                onPress={() => set({ points: grinder.points.toSpliced(index, 1) })}
              />
            </Row>
          ))}
          <Button
            label={WORDS.anotherPoint}
            onPress={() => set({ points: [...grinder.points, { band: 100, setting: 0 }] })}
            style={{ alignSelf: 'flex-start' }}
          />
        </View>
        <Row>
          <UnitField
            quantity="mass"
            units={bar.units}
            label={WORDS.keepsLabel}
            value={grinder.keepsG ?? USUAL_KEEPS_G}
            onChange={(keepsG) => set({ keepsG })}
            fault={wrong('keepsG')}
            style={{ flex: 1 }}
          />
          <UnitField
            quantity="mass"
            units={bar.units}
            label={WORDS.purge}
            value={grinder.purgeG ?? USUAL_PURGE_G}
            onChange={(purgeG) => set({ purgeG })}
            fault={wrong('purgeG')}
            style={{ flex: 1 }}
          />
        </Row>
        <Text size="small" quiet>
          {WORDS.twoGrindsHint}
        </Text>
      </>
    )}
  />
);
