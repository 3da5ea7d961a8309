/**
 * Bench: units, altitude, the look, and what stands on the bar.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { useMutation } from '@tanstack/react-query';
import type { Bar, BarChange } from '@even-kettle/core/contract';
import { brewerById } from '@even-kettle/core/recipe';
import { inWords, readNumber, showTemperature, type Units } from '@even-kettle/core/units';
import { ALTITUDE_RANGE_M, boilingPointC } from '@even-kettle/core/water';
import { useBar, useHere } from '../../bar/bar-context';
import { Refused } from '../../bar/api';
import { Field } from '../../ui/field';
import { useLook, useLookChoice, type LookChoice } from '../../ui/look';
import { Card, Choice, Loading, Page, Row, Tap } from '../../ui/parts';
import { Heading, Subheading, Text } from '../../ui/text';
import { Unreachable } from '../unreachable';

export function BenchPlace() {
  const { bar, status, link, waiting } = useBar();
  if (status === 'unreachable') return <Unreachable />;
  return (
    <Page>
      <Heading>Bench</Heading>
      {bar ? (
        <>
          <UnitsCard bar={bar} />
          <AltitudeCard key={bar.altitudeM} bar={bar} />
          <LookCard />
          <StationsCard bar={bar} />
          <Card>
            <Subheading>This device</Subheading>
            <Text quiet>
              {link === 'live'
                ? 'In touch with the bar.'
                : 'Out of touch with the bar; taps are kept here until it is back.'}
            </Text>
            <Text quiet>
              {waiting === 0
                ? 'Every tap is stored.'
                : `${waiting} ${waiting === 1 ? 'tap waits' : 'taps wait'} to be stored.`}
            </Text>
          </Card>
        </>
      ) : (
        <Loading what="the bench" height={300} />
      )}
    </Page>
  );
}

function useChange() {
  const { api, store } = useHere();
  return useMutation({ mutationFn: (change: BarChange) => api.changeBar(change), onSuccess: store.tookBar });
}

function UnitsCard({ bar }: { bar: Bar }) {
  const change = useChange();
  const set = (part: Partial<Units>) => change.mutate({ units: { ...bar.units, ...part } });
  return (
    <Card>
      <Subheading>Units</Subheading>
      <Text quiet size="small">
        For every device on this bar.
      </Text>
      <Row style={{ flexWrap: 'wrap', rowGap: 10, columnGap: 20 }}>
        <Choice
          name="Mass"
          value={bar.units.mass}
          onChange={(mass) => set({ mass })}
          options={[
            { value: 'g', label: 'g' },
            { value: 'oz', label: 'oz' },
          ]}
        />
        <Choice
          name="Temperature"
          value={bar.units.temperature}
          onChange={(temperature) => set({ temperature })}
          options={[
            { value: 'C', label: '°C' },
            { value: 'F', label: '°F' },
          ]}
        />
        <Choice
          name="Volume"
          value={bar.units.volume}
          onChange={(volume) => set({ volume })}
          options={[
            { value: 'ml', label: 'ml' },
            { value: 'fl oz', label: 'fl oz' },
          ]}
        />
      </Row>
      <Failure error={change.error} />
    </Card>
  );
}

function AltitudeCard({ bar }: { bar: Bar }) {
  const change = useChange();
  const [text, setText] = useState(String(bar.altitudeM));
  const read = readNumber(text, 'Altitude');
  const inRange = read.ok && read.value >= ALTITUDE_RANGE_M.min && read.value <= ALTITUDE_RANGE_M.max;
  const reason = read.ok
    ? `Altitude: from ${ALTITUDE_RANGE_M.min} to ${ALTITUDE_RANGE_M.max} m.`
    : read.reason;
  const changed = read.ok && read.value !== bar.altitudeM;
  return (
    <Card ruled={!inRange}>
      <Subheading>Altitude</Subheading>
      <Row style={{ alignItems: 'flex-end' }}>
        <Field
          label="Metres"
          says="Altitude in metres"
          inputMode="numeric"
          value={text}
          onChangeText={setText}
          fault={!inRange}
          style={{ width: 130 }}
        />
        <Tap
          label="Set"
          kind={changed && inRange ? 'main' : 'plain'}
          disabled={!changed || !inRange}
          onPress={() => read.ok && change.mutate({ altitudeM: read.value })}
          says="Set the altitude"
        />
      </Row>
      {inRange ? (
        <Text quiet>
          Water boils at {inWords(showTemperature(boilingPointC(read.value), bar.units, true))} here.
        </Text>
      ) : (
        <Text role="alert" bold>
          {reason}
        </Text>
      )}
      <Failure error={change.error} />
    </Card>
  );
}

function LookCard() {
  const { choice, choose } = useLookChoice();
  const options: { value: LookChoice; label: string }[] = [
    { value: 'auto', label: 'As the device' },
    { value: 'day', label: 'Day' },
    { value: 'evening', label: 'Evening' },
  ];
  return (
    <Card>
      <Subheading>Look of this device</Subheading>
      <Choice name="Look" value={choice} onChange={choose} options={options} />
    </Card>
  );
}

function StationsCard({ bar }: { bar: Bar }) {
  const look = useLook();
  return (
    <Card>
      <Subheading>Stations and tools</Subheading>
      <View>
        {bar.stations.map(({ id, name, brewerId }) => {
          const brewer = brewerById(brewerId);
          return (
            <Row
              key={id}
              style={{
                justifyContent: 'space-between',
                paddingVertical: 8,
                borderTopWidth: 1,
                borderColor: look.rim,
              }}
            >
              <Text>{name}</Text>
              <Text quiet>
                {brewer ? `${brewer.name}, ${brewer.minDoseG}–${brewer.maxDoseG} g` : brewerId}
              </Text>
            </Row>
          );
        })}
      </View>
      <Text quiet>
        {bar.kettles.length} kettles · {bar.grinders.length} grinders
      </Text>
    </Card>
  );
}

function Failure({ error }: { error: Error | null }) {
  if (!error) return null;
  return (
    <Text role="alert" bold>
      {error instanceof Refused ? error.message : 'Not stored: the server cannot be reached just now.'}
    </Text>
  );
}
