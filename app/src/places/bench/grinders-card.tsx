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

export const GrindersCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title="Grinders"
    intro="Calibration: which setting gives which band, 0 coarse to 100 extra fine."
    setting="grinders"
    bar={bar}
    addLabel="A grinder"
    fresh={(id) => ({
      id,
      name: 'New grinder',
      points: [
        { band: 20, setting: 30 },
        { band: 80, setting: 6 },
      ],
    })}
    line={({ name, points, keepsG }) => ({
      name,
      detail: [
        points.map(({ band, setting }) => `${band} is ${setting}`).join(', '),
        `keeps ${inWords(showMass(keepsG ?? USUAL_KEEPS_G, bar.units, 'dose'))}`,
      ].join(' · '),
    })}
    form={(grinder, set, wrong) => (
      <>
        <NameField of={grinder} set={set} wrong={wrong} />
        <View style={{ gap: 8 }}>
          {grinder.points.map((point, index) => (
            <Row key={index} style={{ alignItems: 'flex-end' }}>
              <NumberField
                label="Band"
                value={point.band}
                onChange={(band) => set({ points: grinder.points.with(index, { ...point, band }) })}
                fault={wrong('points')}
                style={{ flex: 1 }}
              />
              <NumberField
                label="Setting"
                value={point.setting}
                onChange={(setting) => set({ points: grinder.points.with(index, { ...point, setting }) })}
                fault={wrong('points')}
                style={{ flex: 1 }}
              />
              <Button
                kind="bare"
                icon="close"
                label=""
                says={`Remove point ${index + 1}`}
                disabled={grinder.points.length <= 2}
                onPress={() => set({ points: grinder.points.toSpliced(index, 1) })}
              />
            </Row>
          ))}
          <Button
            label="Another point"
            onPress={() => set({ points: [...grinder.points, { band: 100, setting: 0 }] })}
            style={{ alignSelf: 'flex-start' }}
          />
        </View>
        <Row>
          <UnitField
            quantity="mass"
            units={bar.units}
            label="Keeps"
            value={grinder.keepsG ?? USUAL_KEEPS_G}
            onChange={(keepsG) => set({ keepsG })}
            fault={wrong('keepsG')}
            style={{ flex: 1 }}
          />
          <UnitField
            quantity="mass"
            units={bar.units}
            label="Purge"
            value={grinder.purgeG ?? USUAL_PURGE_G}
            onChange={(purgeG) => set({ purgeG })}
            fault={wrong('purgeG')}
            style={{ flex: 1 }}
          />
        </Row>
        <Text size="small" quiet>
          Two grinds that you know are enough to begin with; a third makes the middle truer.
        </Text>
      </>
    )}
  />
);
