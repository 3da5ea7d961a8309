/**
 * Bench: units, altitude, the theme, and what stands on the bar.
 */
import { Fragment, useState, type ReactNode } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { router, useLocalSearchParams } from 'expo-router';
import type { Bar } from '@even-kettle/core/contract';
import { inWords, showTemperature, type Units } from '@even-kettle/core/units';
import { ALTITUDE_RANGE_M, boilingPointC } from '@even-kettle/core/water';
import { useBar, useHere } from '../../client/bar-context';
import { Refused } from '../../client/request';
import { Field } from '../../ui/field';
import { saveFile } from '../../ui/files';
import { useThemeChoice, type ThemeChoice } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Loading } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Heading, Subheading, Text } from '../../ui/text';
import { WIDE } from '../../ui/theme';
import { NumberField } from '../../ui/number-field';
import { UnitField } from '../../ui/unit-field';
import { Form } from '../../ui/by-keys';
import { useDraft } from '../../ui/use-draft';
import { Unreachable } from '../unreachable';
import { Failure, useChange } from './list-card';
import { DeviceCard } from './device-card';
import { CoffeesCard } from './coffees-card';
import { GrindersCard } from './grinders-card';
import { KettlesCard } from './kettles-card';
import { ClothsCard, PeopleCard } from './people-card';
import { StationsCard } from './stations-card';

type Section = { id: string; name: string; cards: (bar: Bar) => ReactNode };

const SECTIONS: readonly Section[] = [
  {
    id: 'place',
    name: 'Place and units',
    cards: (bar) => (
      <>
        <UnitsCard bar={bar} />
        <PlaceCard bar={bar} />
      </>
    ),
  },
  { id: 'coffees', name: 'Coffees', cards: (bar) => <CoffeesCard bar={bar} /> },
  {
    id: 'tools',
    name: 'Stations and tools',
    cards: (bar) => (
      <>
        <StationsCard bar={bar} />
        <GrindersCard bar={bar} />
        <KettlesCard bar={bar} />
      </>
    ),
  },
  {
    id: 'people',
    name: 'People and cloths',
    cards: (bar) => (
      <>
        <HandsChoice bar={bar} />
        <PeopleCard bar={bar} />
        <ClothsCard bar={bar} />
        <TasteCard bar={bar} />
      </>
    ),
  },
  {
    id: 'device',
    name: 'This device',
    cards: (bar) => (
      <>
        <LookCard />
        <DeviceCard bar={bar} />
      </>
    ),
  },
  { id: 'plan', name: 'Plan files', cards: () => <TimetableCard /> },
];

/** On a phone one page; where there is room a section at a time, beside their names. */
export function BenchPlace() {
  const { bar, status } = useBar();
  const isWide = useWindowDimensions().width >= WIDE;
  if (status === 'unreachable') return <Unreachable />;
  return (
    <Page wide={isWide}>
      <Heading>Bench</Heading>
      {!bar ? (
        <Loading what="the bench" height={300} />
      ) : isWide ? (
        <Sections bar={bar} />
      ) : (
        SECTIONS.map(({ id, cards }) => <Fragment key={id}>{cards(bar)}</Fragment>)
      )}
    </Page>
  );
}

/** Which section is open stands in the address, so that it can be come back to. */
function Sections({ bar }: { bar: Bar }) {
  const { section } = useLocalSearchParams<{ section?: string }>();
  const open = SECTIONS.find(({ id }) => id === section) ?? SECTIONS[0]!;
  return (
    <Row style={{ alignItems: 'flex-start', gap: 20 }}>
      <View role="navigation" aria-label="Sections of the Bench" style={{ width: 200, gap: 8 }}>
        {SECTIONS.map(({ id, name }) => (
          <Button
            key={id}
            label={name}
            kind={id === open.id ? 'chosen' : 'bare'}
            onPress={() => router.setParams({ section: id })}
          />
        ))}
      </View>
      <View style={{ flex: 1, maxWidth: 760, gap: 12 }}>{open.cards(bar)}</View>
    </Row>
  );
}

/** The bar's own planning problem and its plan, as the open files that `ek plan` and `ek check` read. */
function TimetableCard() {
  const { api } = useHere();
  const [words, setWords] = useState<string | null>(null);
  const save = async (name: string, read: () => Promise<unknown>) => {
    setWords(null);
    try {
      const value = await read();
      if (value) return saveFile(name, `${JSON.stringify(value, null, 1)}\n`, 'application/json');
      return setWords('Nothing is planned just now: no cup waits and no brew runs.');
    } catch (error) {
      const detail = error instanceof Refused ? error.message : 'The server cannot be reached just now.';
      return setWords(detail);
    }
  };
  return (
    <Card>
      <Subheading>The timetable as files</Subheading>
      <Row style={{ flexWrap: 'wrap' }}>
        <Button
          label="Problem"
          says="Save the planning problem"
          onPress={() => void save('problem.json', api.planProblem)}
        />
        <Button
          label="Plan"
          says="Save the plan"
          onPress={() => void save('plan.json', async () => (await api.plan()).plan)}
        />
      </Row>
      {words ? <Text role="alert">{words}</Text> : null}
    </Card>
  );
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

/** When a cup is asked after: it has to cool before it can be judged. */
function TasteCard({ bar }: { bar: Bar }) {
  const change = useChange();
  return (
    <Card>
      <Subheading>Tasting</Subheading>
      <Text quiet size="small">
        A cup is asked after once it has cooled for so long.
      </Text>
      <Choice
        name="Minutes to cool"
        value={String(bar.tasteAfterMin)}
        onChange={(minutes) => change.mutate({ tasteAfterMin: Number(minutes) })}
        options={['5', '7', '10', '15'].map((value) => ({ value, label: `${value} min` }))}
      />
      <Failure error={change.error} />
    </Card>
  );
}

/** Where the bar stands and what its water is. */
function PlaceCard({ bar }: { bar: Bar }) {
  const change = useChange();
  const [draft, setDraft, forgetDraft] = useDraft<Partial<Bar>>(
    'bench.place',
    () => ({}),
    (kept): kept is Partial<Bar> => typeof kept === 'object' && kept !== null && !Array.isArray(kept),
  );
  const now = { ...bar, ...draft };
  const errors = change.error instanceof Refused ? (change.error.problem.errors ?? []) : [];
  const set = (part: Partial<Bar>) => {
    change.reset();
    setDraft({ ...draft, ...part });
  };
  const altitudeRight = now.altitudeM >= ALTITUDE_RANGE_M.min && now.altitudeM <= ALTITUDE_RANGE_M.max;
  const wrong = (field: string) => errors.some((error) => error.field.startsWith(field));
  const changed = Object.keys(draft).length > 0;
  const save = () => {
    if (changed && altitudeRight) change.mutate(draft, { onSuccess: () => (setDraft({}), forgetDraft()) });
  };
  return (
    <Card ruled={!altitudeRight || change.isError}>
      <Form onSubmit={save} style={{ gap: 10 }}>
        <Subheading>Place and water</Subheading>
        <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
          <NumberField
            label="Altitude, m"
            value={now.altitudeM}
            onChange={(altitudeM) => set({ altitudeM })}
            fault={!altitudeRight}
            testID="altitude"
          />
          <UnitField
            quantity="temperature"
            units={bar.units}
            label="Room"
            value={now.roomC}
            onChange={(roomC) => set({ roomC })}
            fault={wrong('roomC')}
          />
          <UnitField
            quantity="temperature"
            units={bar.units}
            label="Filled at"
            value={now.tapC}
            onChange={(tapC) => set({ tapC })}
            fault={wrong('tapC')}
          />
          <NumberField
            label="Burners"
            value={now.burners}
            onChange={(burners) => set({ burners })}
            fault={wrong('burners')}
          />
        </Row>
        <Row style={{ alignItems: 'flex-start' }}>
          <Field
            label="Water"
            value={now.water.name}
            maxLength={40}
            onChangeText={(name) => set({ water: { ...now.water, name } })}
            fault={wrong('water')}
            style={{ flex: 2 }}
          />
          <NumberField
            label="Hardness, ppm"
            value={now.water.hardnessPpm ?? 0}
            onChange={(hardnessPpm) => set({ water: { ...now.water, hardnessPpm } })}
            fault={wrong('water.hardnessPpm')}
            style={{ flex: 1 }}
          />
        </Row>
        {altitudeRight ? (
          <Text quiet>
            Water boils at {inWords(showTemperature(boilingPointC(now.altitudeM), bar.units, true))} here.
          </Text>
        ) : (
          <Text role="alert" bold>
            Altitude: from {ALTITUDE_RANGE_M.min} to {ALTITUDE_RANGE_M.max} m.
          </Text>
        )}
        <Button
          label="Save"
          says="Save place and water"
          kind={changed && altitudeRight ? 'main' : 'plain'}
          disabled={!changed || !altitudeRight}
          onPress={save}
          style={{ alignSelf: 'flex-start' }}
        />
        {errors.map(({ field, reason }) => (
          <Text key={field} role="alert" bold size="small">
            {reason}
          </Text>
        ))}
        <Failure error={change.error} shown={errors.length > 0} />
      </Form>
    </Card>
  );
}

/** How many pairs of hands the bar is planned for. */
function HandsChoice({ bar }: { bar: Bar }) {
  const change = useChange();
  return (
    <Card>
      <Subheading>Hands</Subheading>
      <Choice
        name="Pairs of hands"
        value={String(bar.hands)}
        onChange={(hands) => change.mutate({ hands: Number(hands) })}
        options={[
          { value: '1', label: 'One pair' },
          { value: '2', label: 'Two pairs' },
        ]}
      />
      <Failure error={change.error} />
    </Card>
  );
}

function LookCard() {
  const { choice, choose } = useThemeChoice();
  const options: { value: ThemeChoice; label: string }[] = [
    { value: 'auto', label: 'As the device' },
    { value: 'day', label: 'Day' },
    { value: 'evening', label: 'Evening' },
    { value: 'sun', label: 'Strong sun' },
  ];
  return (
    <Card>
      <Subheading>Look of this device</Subheading>
      <Choice name="Look" value={choice} onChange={choose} options={options} />
    </Card>
  );
}
