/**
 * Putting a brew right as a whole: its real dose, its station, its cup, or giving it up with a reason.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import { brewAt, type BrewState } from '@even-kettle/core/brew';
import { brewerById, fitsBrewer } from '@even-kettle/core/recipe';
import { useBar } from '../../client/bar-context';
import { useAct, type NewEvent } from '../../device/use-act';
import { Dose } from './dose';
import { OtherCup } from './other-cup';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Subheading, Text } from '../../ui/text';

const GUEST_LEFT = 'guest has left';
const REASONS = ['spilt', 'wrong coffee', 'stalled', 'too late to serve', GUEST_LEFT, 'something else'];

export function BrewActions({ brew }: { brew: BrewState }) {
  const act = useAct();
  if (brew.status !== 'running') return null;
  return (
    <Card style={{ gap: 14 }}>
      <Subheading>Correct</Subheading>
      <Dose brew={brew} />
      <Elsewhere
        brew={brew}
        onMove={(to) => act([{ type: 'brew-moved', brewId: brew.id, ...to }], 'Station')}
      />
      <OtherCup brew={brew} />
      <GiveUp
        onGiveUp={(reason) => {
          const ends: NewEvent = { type: 'brew-abandoned', brewId: brew.id, reason };
          const { orderId, cupId } = brew;
          // Nobody waits for the cup any more: it is not brewed again.
          const cancels: NewEvent[] =
            reason === GUEST_LEFT ? [{ type: 'cup-cancelled', orderId, cupId }] : [];
          if (act([ends, ...cancels], 'Stop this brew')) router.navigate('/');
        }}
      />
    </Card>
  );
}

type StationRef = { stationId: string; stationName: string; brewerId: string };

function Elsewhere({ brew, onMove }: { brew: BrewState; onMove: (to: StationRef) => void }) {
  const { bar, state } = useBar();
  const [to, setTo] = useState('');
  const free = (bar?.stations ?? []).filter(
    ({ id, brewerId }) => !brewAt(state, id) && brewerById(brewerId)?.method === brew.card.method,
  );
  if (free.length === 0) return null;
  const chosen = free.find(({ id }) => id === to);
  const brewer = chosen && brewerById(chosen.brewerId);
  return (
    <View style={{ gap: 4 }}>
      <Row style={{ alignItems: 'flex-end' }}>
        <Select
          label="It stands at"
          value={chosen ? to : ''}
          options={[
            { value: '', label: `${brew.stationName}, as said` },
            ...free.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={setTo}
          style={{ flex: 1 }}
          testID="moved-to"
        />
        <Button
          label="Move"
          says="Say that it stands there"
          disabled={!chosen}
          onPress={() =>
            chosen && onMove({ stationId: chosen.id, stationName: chosen.name, brewerId: chosen.brewerId })
          }
        />
      </Row>
      {brewer && !fitsBrewer(brewer, brew.card) ? (
        <Text size="small" bold>
          {brewer.name} is made for {brewer.minDoseG} to {brewer.maxDoseG} g and {brewer.maxWaterG} g of
          water: pour in smaller steps, or give the brew up.
        </Text>
      ) : null}
    </View>
  );
}

function GiveUp({ onGiveUp }: { onGiveUp: (reason: string) => void }) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <Button
        kind="ruled"
        label="Stop this brew…"
        onPress={() => setOpen(true)}
        style={{ alignSelf: 'flex-start' }}
      />
    );
  return (
    <View style={{ gap: 6 }}>
      <Text bold>
        Why? Its cup waits to be brewed again, unless the guest has left. The station wants cleaning.
      </Text>
      <Row style={{ flexWrap: 'wrap', gap: 6 }}>
        {REASONS.map((reason) => (
          <Button
            key={reason}
            kind="ruled"
            label={reason}
            says={`Stop this brew: ${reason}`}
            onPress={() => onGiveUp(reason)}
          />
        ))}
        <Button kind="bare" label="Cancel" onPress={() => setOpen(false)} />
      </Row>
    </View>
  );
}
