/**
 * The forms of the first day.
 */
import { useState } from 'react';
import { View } from 'react-native';
import type { Bar } from '@even-kettle/core/contract';
import { BREWERS, ROAST_LEVELS, feelOfBand, type RoastLevel } from '@even-kettle/core/recipe';
import { METRIC, inWords, showTemperature, type Units } from '@even-kettle/core/units';
import { ALTITUDE_RANGE_M, boilingPointC } from '@even-kettle/core/water';
import { newId } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Form } from '../../ui/by-keys';
import { Choice } from '../../ui/choice';
import { Counter } from '../../ui/counter';
import { DayField } from '../../ui/day-field';
import { Field } from '../../ui/field';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Text } from '../../ui/text';
import { Vessel } from '../../vessels/vessel';
import {
  CONE_BAND,
  KETTLES,
  PRESS_BAND,
  kettlesFor,
  kindOfKettle,
  needsFlame,
  stationsFor,
  type KettleKind,
  type Save,
} from './bench-of';
import { dosesInWords } from '../../words/hands-words';
import { WORDS } from './words';

export type FormProps = { bar: Bar; save: Save; saving: boolean; onDone: () => void };

const AMERICAN: Units = { mass: 'oz', temperature: 'F', volume: 'fl oz' };
const HEIGHTS_M = { sea: 0, hills: 500, high: 1500, very: 2500 } as const;
type Height = keyof typeof HEIGHTS_M;

export const boilsAt = (altitudeM: number, units: Units): string =>
  inWords(showTemperature(boilingPointC(altitudeM), units, true));

/** What a choice is about. */
const Label = ({ children }: { children: string }) => (
  <Text size="small" quiet style={{ marginBottom: -6 }}>
    {children}
  </Text>
);

const SaveButton = ({ step, saving, onPress }: { step: string; saving: boolean; onPress: () => void }) => (
  <Button
    kind="main"
    label={WORDS.save}
    says={WORDS.saveOf(step)}
    disabled={saving}
    onPress={onPress}
    style={{ alignSelf: 'flex-start' }}
  />
);

/** @param isNamed whether the bar has a name of its own already */
export function PlaceForm({ bar, save, saving, onDone, isNamed }: FormProps & { isNamed: boolean }) {
  const [name, setName] = useState(isNamed ? bar.name : '');
  const [altitude, setAltitude] = useState(String(bar.altitudeM));
  const [units, setUnits] = useState(bar.units);
  const [said, setSaid] = useState(false);
  const altitudeM = Number(altitude.replace(',', '.'));
  const isRight =
    altitude.trim() !== '' && altitudeM >= ALTITUDE_RANGE_M.min && altitudeM <= ALTITUDE_RANGE_M.max;
  const height = (Object.keys(HEIGHTS_M) as Height[]).find((each) => HEIGHTS_M[each] === altitudeM) ?? '';
  const store = () => {
    setSaid(true);
    if (name.trim() === '' || !isRight) return;
    save({ name: name.trim(), altitudeM, units }, onDone);
  };
  return (
    <Form onSubmit={store} style={{ gap: 12 }}>
      <Field
        label={WORDS.nameOfTheBar}
        value={name}
        maxLength={40}
        onChangeText={setName}
        fault={said && name.trim() === ''}
      />
      {said && name.trim() === '' ? <Text role="alert">{WORDS.nameItFirst}</Text> : null}
      <Label>{WORDS.unitsOfTheBar}</Label>
      <Choice
        name={WORDS.unitsOfTheBar}
        value={units.mass === 'g' ? 'metric' : 'american'}
        onChange={(value) => setUnits(value === 'metric' ? METRIC : AMERICAN)}
        options={[
          { value: 'metric', label: WORDS.metric },
          { value: 'american', label: WORDS.american },
        ]}
      />
      <Label>{WORDS.whereItStands}</Label>
      <Choice
        name={WORDS.whereItStands}
        value={height as Height}
        onChange={(chosen) => setAltitude(String(HEIGHTS_M[chosen]))}
        options={(Object.keys(HEIGHTS_M) as Height[]).map((value) => ({
          value,
          label: WORDS.heights[value],
          hint: WORDS.boilsAt(boilsAt(HEIGHTS_M[value], units)),
        }))}
      />
      <Field
        label={WORDS.altitudeIfKnown}
        value={altitude}
        inputMode="decimal"
        maxLength={7}
        onChangeText={setAltitude}
        fault={!isRight}
      />
      {isRight ? <Text quiet>{WORDS.waterBoilsAt(boilsAt(altitudeM, units))}</Text> : null}
      <SaveButton step={WORDS.stepNames.place} saving={saving} onPress={store} />
    </Form>
  );
}

export function BrewersForm({ bar, save, saving, onDone }: FormProps) {
  const [counts, setCounts] = useState<Record<string, number>>(() => {
    const there: Record<string, number> = {};
    for (const { brewerId } of bar.stations) there[brewerId] = (there[brewerId] ?? 0) + 1;
    return there;
  });
  const many = Object.values(counts).reduce((sum, count) => sum + count, 0);
  const store = () => {
    const stations = stationsFor(bar.stations, counts, newId);
    const flames = needsFlame({ ...bar, stations });
    save({ stations, ...(flames && bar.burners === 0 ? { burners: 1 } : {}) }, onDone);
  };
  return (
    <View style={{ gap: 8 }}>
      <Text quiet>{WORDS.brewersIntro}</Text>
      {BREWERS.map(({ id, name, method, ...doses }) => (
        <Counter
          key={id}
          name={name}
          detail={dosesInWords(doses, bar.units)}
          count={counts[id] ?? 0}
          onCount={(count) => setCounts({ ...counts, [id]: count })}
        >
          <Vessel method={method} level={counts[id] ? 0.6 : 0} target={null} size={48} />
        </Counter>
      ))}
      <Text bold>{WORDS.stations(many)}</Text>
      <SaveButton step={WORDS.stepNames.brewers} saving={saving} onPress={store} />
    </View>
  );
}

const COLD_C = 15;
const BOILER_C = 90;

export function KettlesForm({ bar, save, saving, onDone }: FormProps) {
  const kinds = Object.keys(KETTLES) as KettleKind[];
  const [counts, setCounts] = useState(
    () =>
      Object.fromEntries(
        kinds.map((kind) => [kind, bar.kettles.filter(({ sizeMl }) => kindOfKettle(sizeMl) === kind).length]),
      ) as Record<KettleKind, number>,
  );
  const [tapC, setTapC] = useState(bar.tapC >= 60 ? BOILER_C : COLD_C);
  const [burners, setBurners] = useState(bar.burners);
  return (
    <View style={{ gap: 8 }}>
      <Text quiet>{WORDS.kettlesIntro}</Text>
      {kinds.map((kind) => (
        <Counter
          key={kind}
          name={WORDS.kettleKinds[kind]}
          detail=""
          count={counts[kind]}
          onCount={(count) => setCounts({ ...counts, [kind]: count })}
        />
      ))}
      {needsFlame(bar) ? (
        <Counter name={WORDS.burnersHere} detail="" count={burners} onCount={setBurners} />
      ) : null}
      <Label>{WORDS.filledFrom}</Label>
      <Choice
        name={WORDS.filledFrom}
        value={tapC === COLD_C ? 'cold' : 'boiler'}
        onChange={(value) => setTapC(value === 'cold' ? COLD_C : BOILER_C)}
        options={[
          { value: 'cold', label: WORDS.coldTap },
          { value: 'boiler', label: WORDS.boiler },
        ]}
      />
      <SaveButton
        step={WORDS.stepNames.kettles}
        saving={saving}
        onPress={() =>
          save({ kettles: kettlesFor(bar.kettles, counts, newId, WORDS.kettleNamed), tapC, burners }, onDone)
        }
      />
    </View>
  );
}

export function GrindersForm({ bar, save, saving, onDone }: FormProps) {
  const [name, setName] = useState('');
  const [how, setHow] = useState<'feel' | 'settings'>('feel');
  const [cone, setCone] = useState('');
  const [press, setPress] = useState('');
  const [said, setSaid] = useState(false);
  const settings = [cone, press].map((text) => (text.trim() === '' ? NaN : Number(text.replace(',', '.'))));
  const isRight = how === 'feel' || (settings.every(Number.isFinite) && settings[0] !== settings[1]);
  const store = () => {
    setSaid(true);
    if (!isRight) return;
    const points =
      how === 'feel'
        ? []
        : [
            { band: PRESS_BAND, setting: settings[1]! },
            { band: CONE_BAND, setting: settings[0]! },
          ];
    save(
      { grinders: [...bar.grinders, { id: newId(), name: name.trim() || WORDS.grinderItself, points }] },
      onDone,
    );
  };
  return (
    <Form onSubmit={store} style={{ gap: 10 }}>
      <Text quiet>{WORDS.grindersIntro}</Text>
      <Field label={WORDS.nameOfTheGrinder} value={name} maxLength={24} onChangeText={setName} />
      <Label>{WORDS.howItIsSet}</Label>
      <Choice
        name={WORDS.howItIsSet}
        value={how}
        onChange={setHow}
        options={[
          { value: 'feel', label: WORDS.byFeel },
          { value: 'settings', label: WORDS.bySettings },
        ]}
      />
      {how === 'feel' ? (
        <Text>{WORDS.feels(feelOfBand(CONE_BAND), feelOfBand(PRESS_BAND))}</Text>
      ) : (
        <Row style={{ alignItems: 'flex-start' }}>
          <Field
            label={WORDS.settingForACone}
            value={cone}
            inputMode="decimal"
            onChangeText={setCone}
            fault={said && !isRight}
            style={{ flex: 1 }}
          />
          <Field
            label={WORDS.settingForAPress}
            value={press}
            inputMode="decimal"
            onChangeText={setPress}
            fault={said && !isRight}
            style={{ flex: 1 }}
          />
        </Row>
      )}
      {said && !isRight ? <Text role="alert">{WORDS.settingsAreNumbers}</Text> : null}
      <SaveButton step={WORDS.stepNames.grinders} saving={saving} onPress={store} />
    </Form>
  );
}

export function CoffeesForm({ bar, save, saving }: FormProps) {
  const [name, setName] = useState('');
  const [roast, setRoast] = useState<RoastLevel>('medium');
  const [day, setDay] = useState('');
  const [said, setSaid] = useState(false);
  const trimmed = name.trim();
  const isRight = trimmed !== '' && !bar.coffees.some((coffee) => coffee.name === trimmed);
  const add = () => {
    setSaid(true);
    if (!isRight) return;
    const coffee = {
      id: newId(),
      name: trimmed,
      roast,
      ...(day === '' ? {} : { roastedOn: day }),
      notes: '',
      decaf: /decaf/i.test(trimmed),
    };
    save({ coffees: [...bar.coffees, coffee] }, () => {
      setName('');
      setDay('');
      setSaid(false);
    });
  };
  return (
    <Form onSubmit={add} style={{ gap: 10 }}>
      <Text quiet>{WORDS.coffeesIntro}</Text>
      {bar.coffees.map((coffee) => (
        <Listed
          key={coffee.id}
          name={coffee.name}
          detail={coffee.roast}
          onRemove={() =>
            save({ coffees: bar.coffees.filter(({ id }) => id !== coffee.id) }, () => undefined)
          }
        />
      ))}
      <Field
        label={WORDS.nameOfTheCoffee}
        value={name}
        maxLength={40}
        onChangeText={setName}
        fault={said && !isRight}
      />
      {said && !isRight ? <Text role="alert">{WORDS.nameTheCoffee}</Text> : null}
      <Row style={{ alignItems: 'flex-end', flexWrap: 'wrap' }}>
        <Select
          label={WORDS.roast}
          value={roast}
          options={ROAST_LEVELS.map((value) => ({ value, label: value }))}
          onChange={setRoast}
          style={{ flexGrow: 1, flexBasis: 130 }}
        />
        <DayField
          label={WORDS.roastedOn}
          value={day}
          onChange={setDay}
          style={{ flexGrow: 1, flexBasis: 190 }}
        />
      </Row>
      <AddButton step={WORDS.stepNames.coffees} saving={saving} onPress={add} />
    </Form>
  );
}

export function PeopleForm({ bar, save, saving }: FormProps) {
  const [name, setName] = useState('');
  const add = () => {
    if (name.trim() === '') return;
    save({ people: [...bar.people, { id: newId(), name: name.trim() }] }, () => setName(''));
  };
  return (
    <Form onSubmit={add} style={{ gap: 10 }}>
      <Text quiet>{WORDS.peopleIntro}</Text>
      {bar.people.map((person) => (
        <Listed
          key={person.id}
          name={person.name}
          detail=""
          onRemove={() => save({ people: bar.people.filter(({ id }) => id !== person.id) }, () => undefined)}
        />
      ))}
      <Field label={WORDS.nameOfThePerson} value={name} maxLength={24} onChangeText={setName} />
      <AddButton step={WORDS.stepNames.people} saving={saving} onPress={add} />
      <Label>{WORDS.pairsOfHands}</Label>
      <Choice
        name={WORDS.pairsOfHands}
        value={String(bar.hands)}
        onChange={(hands) => save({ hands: Number(hands) }, () => undefined)}
        options={[
          { value: '1', label: WORDS.onePair },
          { value: '2', label: WORDS.twoPairs },
        ]}
      />
    </Form>
  );
}

const AddButton = ({ step, saving, onPress }: { step: string; saving: boolean; onPress: () => void }) => (
  <Button
    icon="plus"
    label={WORDS.add}
    says={`${WORDS.add}: ${step}`}
    disabled={saving}
    onPress={onPress}
    style={{ alignSelf: 'flex-start' }}
  />
);

const Listed = ({ name, detail, onRemove }: { name: string; detail: string; onRemove: () => void }) => (
  <Row style={{ minHeight: 48 }}>
    <Text bold style={{ flex: 1 }}>
      {name}
    </Text>
    <Text quiet>{detail}</Text>
    <Button kind="bare" icon="close" label="" says={WORDS.removeOf(name)} onPress={onRemove} />
  </Row>
);
