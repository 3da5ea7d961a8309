/**
 * The dose that is really in the brewer: what the grinder gave is weighed again, and the recipe follows it.
 */
import { useState } from 'react';
import type { BarEvent, BrewState } from '@even-kettle/core/brew';
import { newId, useHere, useUnits } from '../../client/bar-context';
import { Form } from '../../ui/by-keys';
import { Row, Tap } from '../../ui/parts';
import { Text } from '../../ui/text';
import { UnitField } from '../../ui/unit-field';

export function Dose({ brew }: { brew: BrewState }) {
  const { store, clock } = useHere();
  const units = useUnits();
  const [doseG, setDoseG] = useState(brew.card.doseG);
  const changed = Math.abs(doseG - brew.card.doseG) > 0.04;
  const set = () => {
    const real: BarEvent = {
      id: newId(),
      type: 'dose-corrected',
      atMs: clock.nowMs(),
      brewId: brew.id,
      doseG: Math.round(doseG * 10) / 10,
    };
    if (changed) store.act([real], 'Dose');
  };
  return (
    <Form onSubmit={set} style={{ gap: 4 }}>
      <Row style={{ alignItems: 'flex-end' }}>
        <UnitField
          quantity="mass"
          units={units}
          label="Really in the brewer"
          value={doseG}
          onChange={setDoseG}
          fault={!(doseG > 0)}
          style={{ flex: 1 }}
          testID="real-dose"
        />
        <Tap
          label="Save"
          says="Save the real dose"
          kind={changed ? 'main' : 'plain'}
          disabled={!changed}
          onPress={set}
        />
      </Row>
      <Text size="small" quiet>
        Every target follows the dose; what is poured already counts as it is.
      </Text>
    </Form>
  );
}
