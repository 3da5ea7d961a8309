/**
 * The kettles, and how quickly each cools off its base.
 */
import { useState } from 'react';
import { View } from 'react-native';
import type { Bar } from '@even-kettle/core/contract';
import { inWords, showVolume } from '@even-kettle/core/units';
import { COOLING_AT_G, DEFAULT_COOLING_PER_MIN, coolingPerMinFrom } from '@even-kettle/core/water';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Text } from '../../ui/text';
import { NumberField } from '../../ui/number-field';
import { UnitField } from '../../ui/unit-field';
import { ListCard, NameField } from './list-card';
import { WORDS } from './words';

export const KettlesCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title={WORDS.kettles}
    intro={WORDS.plannedWithFirst}
    setting="kettles"
    bar={bar}
    addLabel={WORDS.aKettle}
    fresh={(id) => ({ id, name: WORDS.newKettle, powerW: 1200, sizeMl: 1000 })}
    line={({ name, powerW, sizeMl, maxFlowGPerS }) => ({
      name,
      detail: [
        inWords(showVolume(sizeMl, bar.units)),
        `${powerW} W`,
        maxFlowGPerS ? WORDS.poursUpTo(maxFlowGPerS) : null,
      ]
        .filter(Boolean)
        .join(' · '),
    })}
    form={(kettle, set, wrong) => (
      <>
        <NameField of={kettle} set={set} wrong={wrong} />
        <Row style={{ flexWrap: 'wrap' }}>
          <UnitField
            quantity="volume"
            units={bar.units}
            label={WORDS.size}
            value={kettle.sizeMl}
            onChange={(sizeMl) => set({ sizeMl })}
            fault={wrong('sizeMl')}
          />
          <NumberField
            label={WORDS.watts}
            value={kettle.powerW}
            onChange={(powerW) => set({ powerW })}
            fault={wrong('powerW')}
          />
          <NumberField
            label={WORDS.mostFlowGS}
            value={kettle.maxFlowGPerS ?? 25}
            onChange={(maxFlowGPerS) => set({ maxFlowGPerS })}
            fault={wrong('maxFlowGPerS')}
          />
        </Row>
        <Select
          label={WORDS.whatTellsItsTemperature}
          value={kettle.device ?? 'none'}
          options={[
            { value: 'none', label: WORDS.youReadIt },
            { value: 'simulated', label: WORDS.simulatedDevice },
            { value: 'bridge', label: WORDS.connectedThroughABridge },
          ]}
          onChange={(device) => set({ device })}
        />
        <CoolingOf
          bar={bar}
          perMin={kettle.coolingPerMin}
          onLearn={(coolingPerMin) => set({ coolingPerMin })}
        />
      </>
    )}
  />
);

/** A kettle's own cooling, learnt from two readings of it off its base. */
function CoolingOf({
  bar,
  perMin,
  onLearn,
}: {
  bar: Bar;
  perMin: number | undefined;
  onLearn: (perMin: number) => void;
}) {
  const [firstC, setFirstC] = useState(96);
  const [secondC, setSecondC] = useState(92);
  const [minutes, setMinutes] = useState(4);
  const [massG, setMassG] = useState(COOLING_AT_G);
  const [fault, setFault] = useState('');
  const learn = () => {
    try {
      onLearn(Number(coolingPerMinFrom(firstC, secondC, minutes * 60, bar.roomC, massG).toFixed(4)));
      setFault('');
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      setFault(error.message);
    }
  };
  return (
    <View style={{ gap: 8 }}>
      <Text size="small" quiet>
        {WORDS.coolsBy} {perMin ?? DEFAULT_COOLING_PER_MIN} {WORDS.aMinuteWith} {COOLING_AT_G} {WORDS.gInIt}
        {perMin === undefined ? ' (default)' : ' (learnt)'}
        {WORDS.coolingHint}
      </Text>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-end' }}>
        <UnitField
          quantity="temperature"
          units={bar.units}
          label={WORDS.first}
          value={firstC}
          onChange={setFirstC}
          fault={fault !== ''}
        />
        <UnitField
          quantity="temperature"
          units={bar.units}
          label={WORDS.then}
          value={secondC}
          onChange={setSecondC}
          fault={fault !== ''}
        />
        <UnitField
          quantity="mass"
          units={bar.units}
          label={WORDS.withInIt}
          value={massG}
          onChange={setMassG}
          fault={fault !== ''}
        />
        <NumberField label={WORDS.minutesApart} value={minutes} onChange={setMinutes} fault={fault !== ''} />
        <Button label={WORDS.learnIt} onPress={learn} />
      </Row>
      {fault ? (
        <Text role="alert" bold size="small">
          {fault}
        </Text>
      ) : null}
    </View>
  );
}
