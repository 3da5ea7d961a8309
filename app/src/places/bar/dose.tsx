/**
 * The dose that is really in the brewer: what the grinder gave is weighed again, and the recipe follows it.
 */
import { useState } from 'react';
import type { BrewState } from '@even-kettle/core/brew';
import { useUnits } from '../../client/bar-context';
import { useAct, type NewEvent } from '../../device/use-act';
import { Form } from '../../ui/by-keys';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { UnitField } from '../../ui/unit-field';
import { WORDS } from '../../parts/hands/words';

export function Dose({ brew }: { brew: BrewState }) {
  const act = useAct();
  const units = useUnits();
  const [doseG, setDoseG] = useState(brew.card.doseG);
  const changed = Math.abs(doseG - brew.card.doseG) > 0.04;
  const set = () => {
    const real: NewEvent = {
      type: 'dose-corrected',
      brewId: brew.id,
      doseG: Math.round(doseG * 10) / 10,
    };
    if (changed) act([real], WORDS.dose);
  };
  return (
    <Form onSubmit={set} style={{ gap: 4 }}>
      <Row style={{ alignItems: 'flex-end' }}>
        <UnitField
          quantity="mass"
          units={units}
          label={WORDS.reallyInTheBrewer}
          value={doseG}
          onChange={setDoseG}
          fault={!(doseG > 0)}
          style={{ flex: 1 }}
          testID="real-dose"
        />
        <Button
          label={WORDS.save}
          says={WORDS.saveTheRealDose}
          kind={changed ? 'main' : 'plain'}
          disabled={!changed}
          onPress={set}
        />
      </Row>
      <Text size="small" quiet>
        {WORDS.targetsFollowDose}
      </Text>
    </Form>
  );
}
