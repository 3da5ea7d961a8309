/**
 * The scale under a station: what it reads, its tare, and for a simulated one who pours on it.
 */
import { useState } from 'react';
import type { ScaleOrder } from '@even-kettle/core/contract';
import type { Station } from '@even-kettle/core/plan';
import { inWords, showMass } from '@even-kettle/core/units';
import { useHere, useScale, useUnits } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { WORDS } from '../../parts/hands/words';

export function ScaleCard({ station }: { station: Station }) {
  const { api } = useHere();
  const units = useUnits();
  const scale = useScale(station.id);
  const [failed, setFailed] = useState(false);
  const order = (what: ScaleOrder) =>
    api.orderScale(station.id, what).then(
      () => setFailed(false),
      () => setFailed(true),
    );
  if (station.scale === 'none')
    return (
      <Card>
        <Subheading>{WORDS.noScaleHere}</Subheading>
        <Text quiet>{WORDS.handHeldHint}</Text>
      </Card>
    );
  if (!scale)
    return (
      <Card>
        <Subheading>{WORDS.scaleByEye}</Subheading>
        <Text quiet>
          {station.scale === 'simulated' || station.scale === 'bridge'
            ? WORDS.scaleUnheard
            : WORDS.noScaleHereHint}
        </Text>
      </Card>
    );
  return (
    <Card>
      <Row style={{ justifyContent: 'space-between' }}>
        <Subheading>{scale.simulated ? WORDS.simulatedScale : WORDS.scaleLabel}</Subheading>
        <Text size="verb" testID="scale-reads">
          {scale.connected ? inWords(showMass(scale.massG, units, 'dose')) : WORDS.notHeard}
        </Text>
      </Row>
      {scale.connected ? null : <Text bold>{WORDS.scaleLost}</Text>}
      <Row style={{ flexWrap: 'wrap' }}>
        <Button label={WORDS.tare} says={WORDS.tareTheScale} onPress={() => void order({ do: 'tare' })} />
        {scale.simulated ? (
          <Button
            label={WORDS.simulateADropout}
            kind="bare"
            onPress={() => void order({ do: 'lose', forS: 60 })}
          />
        ) : null}
      </Row>
      {scale.simulated ? (
        <Choice
          name={WORDS.whoPoursOnIt}
          value={scale.practised ? 'practised' : 'held'}
          onChange={(who) => void order({ do: 'practised', on: who === 'practised' })}
          options={[
            { value: 'held', label: WORDS.yourThumb, hint: WORDS.holdToPourLabel },
            { value: 'practised', label: WORDS.aPractisedHand, hint: WORDS.practisedHandPours },
          ]}
        />
      ) : null}
      {failed ? (
        <Text role="alert" bold size="small">
          {WORDS.notPassedOn}
        </Text>
      ) : null}
    </Card>
  );
}
