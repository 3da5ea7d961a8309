/**
 * Putting a brew right as a whole: its real dose, its station, its cup, or giving it up with a reason.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import { brewAt, type BrewState } from '@even-kettle/core/brew';
import { brewerOf } from '@even-kettle/core/plan';
import { fitsBrewer } from '@even-kettle/core/recipe';
import { useBar } from '../../client/bar-context';
import { useAct, type NewEvent } from '../../device/use-act';
import { Dose } from './dose';
import { OtherCup } from '../../parts/hands/other-cup';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Subheading, Text } from '../../ui/text';
import { WORDS } from '../../parts/hands/words';

const GUEST_LEFT = WORDS.guestHasLeft;
const REASONS = [
  'spilt',
  WORDS.wrongCoffee,
  'stalled',
  WORDS.tooLateToServe,
  GUEST_LEFT,
  WORDS.somethingElse,
];

export function BrewActions({ brew }: { brew: BrewState }) {
  const act = useAct();
  if (brew.status !== 'running') return null;
  return (
    <Card style={{ gap: 14 }}>
      <Subheading>{WORDS.correct}</Subheading>
      <Dose brew={brew} />
      <Elsewhere
        brew={brew}
        onMove={(to) => act([{ type: 'brew-moved', brewId: brew.id, ...to }], WORDS.station)}
      />
      <OtherCup brew={brew} />
      <GiveUp
        onGiveUp={(reason) => {
          const ends: NewEvent = { type: 'brew-abandoned', brewId: brew.id, reason };
          const { orderId, cupId } = brew;
          // Nobody waits for the cup any more: it is not brewed again.
          const cancels: NewEvent[] =
            reason === GUEST_LEFT ? [{ type: 'cup-cancelled', orderId, cupId }] : [];
          if (act([ends, ...cancels], WORDS.stopThisBrew)) router.navigate('/');
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
    ({ id, brewerId }) => !brewAt(state, id) && brewerOf(bar ?? {}, brewerId)?.method === brew.card.method,
  );
  if (free.length === 0) return null;
  const chosen = free.find(({ id }) => id === to);
  const brewer = chosen && brewerOf(bar ?? {}, chosen.brewerId);
  return (
    <View style={{ gap: 4 }}>
      <Row style={{ alignItems: 'flex-end' }}>
        <Select
          label={WORDS.itStandsAt}
          value={chosen ? to : ''}
          options={[
            { value: '', label: WORDS.asSaid(brew.stationName) },
            ...free.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={setTo}
          style={{ flex: 1 }}
          testID="moved-to"
        />
        <Button
          label={WORDS.move}
          says={WORDS.saveStation}
          disabled={!chosen}
          onPress={() =>
            chosen && onMove({ stationId: chosen.id, stationName: chosen.name, brewerId: chosen.brewerId })
          }
        />
      </Row>
      {brewer && !fitsBrewer(brewer, brew.card) ? (
        <Text size="small" bold>
          {WORDS.doseLimits(brewer.name, brewer.minDoseG, brewer.maxDoseG, brewer.maxWaterG)}
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
        label={WORDS.stopThisBrewLabel}
        onPress={() => setOpen(true)}
        style={{ alignSelf: 'flex-start' }}
      />
    );
  return (
    <View style={{ gap: 6 }}>
      <Text bold>{WORDS.stopReasonHint}</Text>
      <Row style={{ flexWrap: 'wrap', gap: 6 }}>
        {REASONS.map((reason) => (
          <Button
            key={reason}
            kind="ruled"
            label={reason}
            says={WORDS.stopBrewFor(reason)}
            onPress={() => onGiveUp(reason)}
          />
        ))}
        <Button kind="bare" label={WORDS.cancel} onPress={() => setOpen(false)} />
      </Row>
    </View>
  );
}
