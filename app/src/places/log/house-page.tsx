/**
 * Coffees and cloths: how old, how much is left, how they tasted; how often used, and what is due.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { BALANCE_WORDS, STRENGTH_WORDS } from '@even-kettle/core/brew';
import type { Coffee, House } from '@even-kettle/core/contract';
import { CLOTH_BREWS, CLOTH_CARE, restInWords, restOf } from '@even-kettle/core/learn';
import { inWords, readNumber, showMass } from '@even-kettle/core/units';
import { newId, useBar, useHere, useUnits } from '../../bar/bar-context';
import { clockTime } from '../../bar/words';
import { Field } from '../../ui/field';
import { Card, Notice, Page, Row, Tap } from '../../ui/parts';
import { Subheading, Text } from '../../ui/text';
import { Answer, Head } from './answer';
import { Bar } from './bar-of';

export function HousePage() {
  const { api } = useHere();
  const { state, bar, waiting } = useBar();
  // What was weighed, boiled or replaced is in the state at once; the sums are asked anew once it is stored.
  const house = useQuery({
    queryKey: ['log', 'house', state.things?.length ?? 0, bar?.cloths.length, bar?.coffees.length, waiting],
    queryFn: api.house,
    placeholderData: keepPreviousData,
  });
  return (
    <Page>
      <Head title="Coffees and cloths" />
      <Answer of={house} what="coffees and cloths">
        {(of) => <Whole house={of} />}
      </Answer>
    </Page>
  );
}

function Whole({ house }: { house: House }) {
  const { bar } = useBar();
  return (
    <>
      {house.coffees.map((of) => {
        const coffee = bar?.coffees.find(({ name }) => name === of.name);
        return coffee ? <CoffeeCard key={of.name} of={of} coffee={coffee} /> : null;
      })}
      <Card>
        <Subheading>Care of cloths</Subheading>
        {CLOTH_CARE.map(({ when, words }) => (
          <Text key={when}>
            <Text bold>{when.charAt(0).toUpperCase() + when.slice(1)}: </Text>
            {words}
          </Text>
        ))}
        <Text size="small" quiet>
          Boiling water scalds: tongs, and a pot that stands firm.
        </Text>
      </Card>
      {house.cloths.length === 0 ? (
        <Notice title="No cloth on the bench">
          Name each cloth and its station on the Bench; its uses and boilings are counted from then on.
        </Notice>
      ) : null}
      {house.cloths.map((cloth) => (
        <ClothCard key={cloth.id} cloth={cloth} />
      ))}
    </>
  );
}

function CoffeeCard({ of, coffee }: { of: House['coffees'][number]; coffee: Coffee }) {
  const { store, clock } = useHere();
  const units = useUnits();
  const [weighing, setWeighing] = useState<string | null>(null);
  const rest = coffee.roastedOn ? restOf(coffee.roastedOn, coffee.roast, clock.nowMs()) : null;
  const read = readNumber(weighing ?? '', 'The stock');
  const right = read.ok && read.value >= 0 && read.value <= 1_000_000;
  const keep = () => {
    if (!read.ok) return;
    store.act(
      [{ id: newId(), type: 'coffee-weighed', atMs: clock.nowMs(), coffee: of.name, stockG: read.value }],
      `Weigh ${of.name}`,
    );
    setWeighing(null);
  };
  const taste = of.tasted
    ? `${BALANCE_WORDS[Math.round(of.tasted.balance) + 2]}, ${STRENGTH_WORDS[Math.round(of.tasted.strength) + 2]} in strength, from ${of.tasted.cups} cups`
    : 'not tasted yet';
  return (
    <Card ruled={coffee.decaf} style={{ gap: 6 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Text bold style={{ flexShrink: 1 }}>
          {coffee.name}
          {coffee.decaf ? ' · DECAF' : ''}
        </Text>
        <Text size="clock">
          {of.stockG === null ? 'not weighed' : inWords(showMass(of.stockG, units, 'water'))}
        </Text>
      </Row>
      <Text>
        {coffee.roast}
        {rest ? `, ${restInWords(rest)}` : ', no roasting day'}
      </Text>
      <Text size="small" quiet>
        {taste}
        {of.stockG === null ? '' : ` · ${of.brews} brews since it was weighed`}
      </Text>
      {weighing === null ? (
        <Tap
          label="Weigh it"
          says={`Weigh ${of.name}`}
          onPress={() => setWeighing('')}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : (
        <Row style={{ alignItems: 'flex-end' }}>
          <Field
            label="In the house, g"
            says={`${of.name} in the house, grams`}
            inputMode="decimal"
            value={weighing}
            onChangeText={setWeighing}
            fault={weighing !== '' && !right}
            style={{ flex: 1 }}
          />
          <Tap label="Keep" kind="main" disabled={!right} onPress={keep} style={{ height: 56 }} />
          <Tap label="Leave" kind="bare" onPress={() => setWeighing(null)} style={{ height: 56 }} />
        </Row>
      )}
    </Card>
  );
}

function ClothCard({ cloth }: { cloth: House['cloths'][number] }) {
  const { store, clock } = useHere();
  const [sure, setSure] = useState(false);
  const tell = (type: 'cloth-boiled' | 'cloth-replaced', label: string) => {
    setSure(false);
    store.act([{ id: newId(), type, atMs: clock.nowMs(), clothId: cloth.id }], label);
  };
  return (
    <Card ruled={cloth.due.length > 0} style={{ gap: 6 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Text bold style={{ flexShrink: 1 }}>
          {cloth.name} · {cloth.stationName}
        </Text>
        <Text size="clock">
          {cloth.uses} of {CLOTH_BREWS}
        </Text>
      </Row>
      <Bar share={cloth.uses / CLOTH_BREWS} />
      <Text>
        {cloth.lastBoiledMs === null
          ? 'never boiled'
          : `boiled ${new Date(cloth.lastBoiledMs).toLocaleDateString()} ${clockTime(cloth.lastBoiledMs)}`}
        {cloth.creep === null
          ? ''
          : `, drawdown ${cloth.creep >= 0 ? '+' : '−'}${Math.abs(Math.round(100 * cloth.creep))} % on its first week`}
      </Text>
      {cloth.due.map((due) => (
        <Text key={due} bold>
          {due.charAt(0).toUpperCase() + due.slice(1)}
        </Text>
      ))}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Tap
          label="Boiled"
          says={`${cloth.name} was boiled`}
          onPress={() => tell('cloth-boiled', `Boil ${cloth.name}`)}
        />
        {sure ? (
          <Tap
            kind="ruled"
            label="A new cloth, from nought"
            onPress={() => tell('cloth-replaced', `Replace ${cloth.name}`)}
          />
        ) : (
          <Tap
            kind="bare"
            label="Replaced"
            says={`${cloth.name} was replaced`}
            onPress={() => setSure(true)}
          />
        )}
      </View>
    </Card>
  );
}
