/**
 * The scale under a station: what it reads, its tare, and for the stand-in who pours on it.
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
        <Subheading>No scale here</Subheading>
        <Text quiet>Its water is weighed beforehand; pours end by clock and eye.</Text>
      </Card>
    );
  if (!scale)
    return (
      <Card>
        <Subheading>A scale that you read</Subheading>
        <Text quiet>
          {station.scale === 'simulated' || station.scale === 'bridge'
            ? 'Its scale cannot be heard while the server is away. Read it, and tap.'
            : 'The bar hears no scale here: taps say when a pour is done. The Bench can connect one.'}
        </Text>
      </Card>
    );
  return (
    <Card>
      <Row style={{ justifyContent: 'space-between' }}>
        <Subheading>{scale.standIn ? 'Simulated scale' : 'Scale'}</Subheading>
        <Text size="verb" testID="scale-reads">
          {scale.connected ? inWords(showMass(scale.massG, units, 'dose')) : 'not heard'}
        </Text>
      </Row>
      {scale.connected ? null : (
        <Text bold>Lost. Everything goes on by taps; it takes over again when it is back.</Text>
      )}
      <Row style={{ flexWrap: 'wrap' }}>
        <Button label="Tare" says="Tare the scale" onPress={() => void order({ do: 'tare' })} />
        {scale.standIn ? (
          <Button
            label="Simulate a dropout"
            kind="bare"
            onPress={() => void order({ do: 'lose', forS: 60 })}
          />
        ) : null}
      </Row>
      {scale.standIn ? (
        <Choice
          name="Who pours on it"
          value={scale.practised ? 'practised' : 'held'}
          onChange={(who) => void order({ do: 'practised', on: who === 'practised' })}
          options={[
            { value: 'held', label: 'Your thumb', hint: 'hold to pour' },
            { value: 'practised', label: 'A practised hand', hint: 'pours when the card asks' },
          ]}
        />
      ) : null}
      {failed ? (
        <Text role="alert" bold size="small">
          Not passed on: the server cannot be reached just now.
        </Text>
      ) : null}
    </Card>
  );
}
