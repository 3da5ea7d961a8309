/**
 * Coffees, stations, kettles and grinders, each as its list.
 */
import { useState } from 'react';
import { View } from 'react-native';
import type { Bar } from '@even-kettle/core/contract';
import { STATION_SCALES, type StationScale } from '@even-kettle/core/plan';
import { BREWERS, ROAST_LEVELS, USUAL_KEEPS_G, USUAL_PURGE_G, brewerById } from '@even-kettle/core/recipe';
import { inWords, showMass, showVolume } from '@even-kettle/core/units';
import { DEFAULT_COOLING_PER_MIN, coolingPerMinFrom } from '@even-kettle/core/water';
import { Field } from '../../ui/field';
import { Choice, Row, Tap } from '../../ui/parts';
import { Select } from '../../ui/select';
import { Text } from '../../ui/text';
import { DayField } from '../../ui/day-field';
import { NumberField } from '../../ui/number-field';
import { UnitField } from '../../ui/unit-field';
import { ListCard } from './list-card';

export const CoffeesCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title="Coffees"
    setting="coffees"
    bar={bar}
    addLabel="A coffee"
    fresh={(id) => ({ id, name: 'New coffee', roast: 'medium', notes: '', decaf: false })}
    line={({ name, roast, roastedOn, decaf, notes }) => ({
      name,
      detail: [decaf ? 'DECAF' : null, roast, roastedOn ? age(roastedOn) : null, notes]
        .filter(Boolean)
        .join(' · '),
    })}
    form={(coffee, set, wrong) => (
      <>
        <Row style={{ alignItems: 'flex-end' }}>
          <Field
            label="Name"
            value={coffee.name}
            onChangeText={(name) => set({ name })}
            fault={wrong('name')}
            style={{ flex: 1 }}
          />
          <Select
            label="Roast"
            value={coffee.roast}
            options={ROAST_LEVELS.map((value) => ({ value, label: value }))}
            onChange={(roast) => set({ roast })}
            style={{ flex: 1 }}
          />
        </Row>
        <Row style={{ alignItems: 'flex-end' }}>
          <DayField
            label="Roasted on"
            value={coffee.roastedOn ?? ''}
            onChange={(day) => set({ roastedOn: day || undefined })}
            style={{ flex: 1 }}
          />
          <Choice
            name="Caffeine"
            value={coffee.decaf ? 'decaf' : 'usual'}
            onChange={(value) => set({ decaf: value === 'decaf' })}
            options={[
              { value: 'usual', label: 'usual' },
              { value: 'decaf', label: 'decaf' },
            ]}
          />
        </Row>
        <Field
          label="Tastes of"
          value={coffee.notes}
          onChangeText={(notes) => set({ notes })}
          fault={wrong('notes')}
        />
        {bar.grinders.map(({ id, name }) => (
          <NumberField
            key={id}
            label={`Steps off on the ${name}`}
            value={coffee.grindOffsets?.[id] ?? 0}
            onChange={(steps) => set({ grindOffsets: { ...coffee.grindOffsets, [id]: steps } })}
            fault={wrong('grindOffsets')}
            style={{ width: '100%' }}
          />
        ))}
      </>
    )}
  />
);

/** Days since roasting, as it is said at the bar. */
function age(roastedOn: string): string {
  const days = Math.floor((Date.now() - Date.parse(`${roastedOn}T00:00`)) / 86_400_000);
  return days === 0 ? 'roasted today' : days === 1 ? '1 day off roast' : `${days} days off roast`;
}

export const StationsCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title="Stations"
    intro={countsOf(bar)}
    setting="stations"
    bar={bar}
    addLabel="A station"
    fresh={(id) => ({ id, name: 'New station', brewerId: 'cone-m' })}
    line={({ name, brewerId, scale, handHeld }) => ({
      name,
      detail: [
        brewerLine(brewerId),
        scale === undefined || scale === 'read' ? null : SCALE_WORDS[scale],
        handHeld ? 'held in the hand' : null,
      ]
        .filter(Boolean)
        .join(' · '),
    })}
    form={(station, set, wrong) => (
      <>
        <Row style={{ alignItems: 'flex-end' }}>
          <Field
            label="Name"
            value={station.name}
            maxLength={24}
            onChangeText={(name) => set({ name })}
            fault={wrong('name')}
            style={{ flex: 1 }}
          />
          <Select
            label="Brewer"
            value={station.brewerId}
            options={BREWERS.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(brewerId) => set({ brewerId })}
            style={{ flex: 1 }}
          />
        </Row>
        <Select
          label="Scale"
          value={station.scale ?? 'read'}
          options={STATION_SCALES.map((value) => ({ value, label: SCALE_WORDS[value] }))}
          onChange={(scale) => set({ scale })}
        />
        {brewerById(station.brewerId)?.method === 'sock' ? (
          <Choice
            name="How the sock is held"
            value={station.handHeld ? 'held' : 'hung'}
            onChange={(value) => set({ handHeld: value === 'held' })}
            options={[
              { value: 'hung', label: 'hung on a stand' },
              { value: 'held', label: 'held in the hand', hint: 'keeps the hands through the drawdown' },
            ]}
          />
        ) : null}
      </>
    )}
  />
);

const SCALE_WORDS: Record<StationScale, string> = {
  read: 'a scale that you read',
  none: 'none: poured by clock and eye',
  simulated: 'simulated, to try and to train',
  bridge: 'connected through a bridge',
};

export const PeopleCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title="People"
    intro="Whose hands a device is for, so that cues and leads are their own."
    setting="people"
    bar={bar}
    addLabel="A person"
    fresh={(id) => ({ id, name: 'New person' })}
    line={({ name }) => ({ name, detail: '' })}
    form={(person, set, wrong) => (
      <Field
        label="Name"
        value={person.name}
        maxLength={24}
        onChangeText={(name) => set({ name })}
        fault={wrong('name')}
      />
    )}
  />
);

/** Methods that brew through a cloth. */
const CLOTHED = new Set(['sock', 'siphon']);

export const ClothsCard = ({ bar }: { bar: Bar }) => {
  const stations = bar.stations.filter(({ brewerId }) => CLOTHED.has(brewerById(brewerId)?.method ?? ''));
  if (stations.length === 0 && bar.cloths.length === 0) return null;
  return (
    <ListCard
      title="Cloths"
      intro="Their uses and boilings are counted in the Log."
      setting="cloths"
      bar={bar}
      addLabel="A cloth"
      fresh={(id) => ({ id, name: 'New cloth', stationId: stations[0]?.id ?? bar.stations[0]!.id })}
      line={({ name, stationId }) => ({
        name,
        detail: bar.stations.find(({ id }) => id === stationId)?.name ?? '',
      })}
      form={(cloth, set, wrong) => (
        <Row style={{ alignItems: 'flex-end' }}>
          <Field
            label="Name"
            value={cloth.name}
            maxLength={24}
            onChangeText={(name) => set({ name })}
            fault={wrong('name')}
            style={{ flex: 1 }}
          />
          <Select
            label="At"
            value={cloth.stationId}
            options={stations.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(stationId) => set({ stationId })}
            style={{ flex: 1 }}
          />
        </Row>
      )}
    />
  );
};

function brewerLine(brewerId: string): string {
  const brewer = brewerById(brewerId);
  return brewer ? `${brewer.name}, ${brewer.minDoseG}–${brewer.maxDoseG} g` : brewerId;
}

/** Brewers and how many of each. */
const countsOf = ({ stations }: Bar): string =>
  BREWERS.map(({ id, name }) => ({ name, many: stations.filter(({ brewerId }) => brewerId === id).length }))
    .filter(({ many }) => many > 0)
    .map(({ name, many }) => `${many} × ${name}`)
    .join(', ');

export const KettlesCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title="Kettles"
    intro="Brews are planned with the first."
    setting="kettles"
    bar={bar}
    addLabel="A kettle"
    fresh={(id) => ({ id, name: 'New kettle', powerW: 1200, sizeMl: 1000 })}
    line={({ name, powerW, sizeMl, maxFlowGPerS }) => ({
      name,
      detail: [
        inWords(showVolume(sizeMl, bar.units)),
        `${powerW} W`,
        maxFlowGPerS ? `pours up to ${maxFlowGPerS} g/s` : null,
      ]
        .filter(Boolean)
        .join(' · '),
    })}
    form={(kettle, set, wrong) => (
      <>
        <Field
          label="Name"
          value={kettle.name}
          maxLength={24}
          onChangeText={(name) => set({ name })}
          fault={wrong('name')}
        />
        <Row style={{ flexWrap: 'wrap' }}>
          <UnitField
            quantity="volume"
            units={bar.units}
            label="Size"
            value={kettle.sizeMl}
            onChange={(sizeMl) => set({ sizeMl })}
            fault={wrong('sizeMl')}
          />
          <NumberField
            label="Watts"
            value={kettle.powerW}
            onChange={(powerW) => set({ powerW })}
            fault={wrong('powerW')}
          />
          <NumberField
            label="Most flow, g/s"
            value={kettle.maxFlowGPerS ?? 25}
            onChange={(maxFlowGPerS) => set({ maxFlowGPerS })}
            fault={wrong('maxFlowGPerS')}
          />
        </Row>
        <Select
          label="What tells its temperature"
          value={kettle.device ?? 'none'}
          options={[
            { value: 'none', label: 'you read it' },
            { value: 'simulated', label: 'simulated, to try and to train' },
            { value: 'bridge', label: 'connected through a bridge' },
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
  const [fault, setFault] = useState('');
  const learn = () => {
    try {
      onLearn(Number(coolingPerMinFrom(firstC, secondC, minutes * 60, bar.roomC).toFixed(4)));
      setFault('');
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      setFault(error.message);
    }
  };
  return (
    <View style={{ gap: 8 }}>
      <Text size="small" quiet>
        Off its base it cools by k = {perMin ?? DEFAULT_COOLING_PER_MIN} a minute
        {perMin === undefined ? ' (default)' : ' (learnt)'}. Two readings of it teach its own:
      </Text>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-end' }}>
        <UnitField
          quantity="temperature"
          units={bar.units}
          label="First"
          value={firstC}
          onChange={setFirstC}
          fault={fault !== ''}
        />
        <UnitField
          quantity="temperature"
          units={bar.units}
          label="Then"
          value={secondC}
          onChange={setSecondC}
          fault={fault !== ''}
        />
        <NumberField label="Minutes apart" value={minutes} onChange={setMinutes} fault={fault !== ''} />
        <Tap label="Learn it" onPress={learn} />
      </Row>
      {fault ? (
        <Text role="alert" bold size="small">
          {fault}
        </Text>
      ) : null}
    </View>
  );
}

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
        <Field
          label="Name"
          value={grinder.name}
          maxLength={24}
          onChangeText={(name) => set({ name })}
          fault={wrong('name')}
        />
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
              <Tap
                kind="bare"
                icon="close"
                label=""
                says={`Take point ${index + 1} out`}
                disabled={grinder.points.length <= 2}
                onPress={() => set({ points: grinder.points.toSpliced(index, 1) })}
              />
            </Row>
          ))}
          <Tap
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
