/**
 * Coffees, papers and cloths: how old, how much is left, how they tasted; how often used, and what is due.
 */
import { useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { BALANCE_WORDS, BODY_WORDS, STRENGTH_WORDS } from '@even-kettle/core/brew';
import type { Coffee, House } from '@even-kettle/core/contract';
import { METHODS } from '@even-kettle/core/recipe';
import { CLOTH_BREWS, CLOTH_CARE, restInWords, restOf } from '@even-kettle/core/learn';
import { inWords, showMass } from '@even-kettle/core/units';
import { useBar, useHere, useUnits } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { dayAndTime } from '../../words/hands-words';
import { Field } from '../../ui/field';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Notice } from '../../ui/notice';
import { Halves, Page, Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { Loaded, PageHead } from '../../parts/loaded';
import { ProgressBar } from '../../parts/progress-bar';
import { readTyped } from '../../ui/typed';
import { WORDS } from './words';

export function HousePage() {
  const { api } = useHere();
  const { state, bar, waiting } = useBar();
  // What was weighed, boiled or replaced is in the state at once; the sums are asked anew once it is stored.
  const house = useQuery({
    queryKey: [
      'log',
      'house',
      state.houseEvents?.length ?? 0,
      bar?.cloths.length,
      bar?.coffees.length,
      waiting,
    ],
    queryFn: api.house,
    placeholderData: keepPreviousData,
  });
  return (
    <Page wide>
      <PageHead title={WORDS.stockAndCare} />
      <Loaded of={house} what={WORDS.stockAndCareLabel}>
        {(of) => <HouseDetails house={of} />}
      </Loaded>
    </Page>
  );
}

function HouseDetails({ house }: { house: House }) {
  const { bar } = useBar();
  return (
    <Halves
      first={house.coffees.map((of) => {
        const coffee = bar?.coffees.find(({ name }) => name === of.name);
        return coffee ? <CoffeeCard key={of.name} of={of} coffee={coffee} /> : null;
      })}
      second={
        <>
          {house.papers.length > 0 ? <PapersCard papers={house.papers} /> : null}
          <Card>
            <Subheading>{WORDS.careOfCloths}</Subheading>
            {CLOTH_CARE.map(({ when, words }) => (
              <Text key={when}>
                <Text bold>{when.charAt(0).toUpperCase() + when.slice(1)}: </Text>
                {words}
              </Text>
            ))}
            <Text size="small" quiet>
              {WORDS.boilingCaution}
            </Text>
          </Card>
          {house.cloths.length === 0 ? <Notice title={WORDS.noCloth}>{WORDS.nameClothsHint}</Notice> : null}
          {house.cloths.map((cloth) => (
            <ClothCard key={cloth.id} cloth={cloth} />
          ))}
        </>
      }
    />
  );
}

function CoffeeCard({ of, coffee }: { of: House['coffees'][number]; coffee: Coffee }) {
  const { clock } = useHere();
  const act = useAct();
  const units = useUnits();
  const rest = coffee.roastedOn ? restOf(coffee.roastedOn, coffee.roast, clock.nowMs()) : null;
  const keep = (stockG: number) =>
    act([{ type: 'coffee-weighed', coffee: of.name, stockG }], WORDS.weigh(of.name));
  const taste = of.tasted
    ? WORDS.inStrengthFromCups(
        BALANCE_WORDS[Math.round(of.tasted.balance) + 2]!,
        STRENGTH_WORDS[Math.round(of.tasted.strength) + 2]!,
        of.tasted.cups,
        of.tasted.body === null ? null : BODY_WORDS[Math.round(of.tasted.body) + 2]!,
      )
    : WORDS.notTastedYet;
  return (
    <Card ruled={coffee.decaf} style={{ gap: 6 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Text bold style={{ flexShrink: 1 }}>
          {coffee.name}
          {coffee.decaf ? WORDS.decaf : ''}
        </Text>
        <Text size="clock">
          {of.stockG === null ? WORDS.notWeighed : inWords(showMass(of.stockG, units, 'water'))}
        </Text>
      </Row>
      <Text>
        {coffee.roast}
        {rest ? `, ${restInWords(rest)}` : WORDS.noRoastingDay}
      </Text>
      <Counted
        ask={WORDS.weighIt}
        name={of.name}
        label={WORDS.inStockG}
        says={WORDS.inStockGrams(of.name)}
        most={1_000_000}
        onKeep={keep}
      >
        <Text size="small" quiet>
          {taste}
          {of.stockG === null ? '' : WORDS.brewsSinceWeighed(of.brews)}
        </Text>
      </Counted>
    </Card>
  );
}

/** Papers run out in mid-service unless somebody counts. */
function PapersCard({ papers }: { papers: House['papers'] }) {
  const act = useAct();
  return (
    <Card style={{ gap: 12 }}>
      <Subheading>{WORDS.paperFilters}</Subheading>
      {papers.map(({ method, sheets, perDay }) => {
        const name = METHODS[method].papers ?? METHODS[method].name;
        const days = sheets === null || perDay === 0 ? null : sheets / perDay;
        const low = days !== null && days <= PAPERS_LOW_DAYS;
        return (
          <View key={method} style={{ gap: 4 }}>
            <Row style={{ justifyContent: 'space-between' }}>
              <Text bold style={{ flexShrink: 1 }}>
                {name}
              </Text>
              <Text size="clock">{sheets === null ? WORDS.notCounted : sheets}</Text>
            </Row>
            <Counted
              ask={WORDS.countThem}
              name={name}
              label={WORDS.inStock}
              says={WORDS.inStockForName(name)}
              most={100_000}
              whole
              onKeep={(counted) =>
                act([{ type: 'papers-counted', method, sheets: counted }], WORDS.count(name.toLowerCase()))
              }
            >
              <Text size="small" quiet={!low} bold={low}>
                {WORDS.perDayLastWeek(
                  low ? WORDS.orderMore : '',
                  days === null ? '' : WORDS.forAbout(inDays(days)),
                  perDay,
                )}
              </Text>
            </Counted>
          </View>
        );
      })}
    </Card>
  );
}
/** An order takes about this long to come. */
const PAPERS_LOW_DAYS = 3;
const inDays = (days: number): string =>
  days < 1 ? WORDS.lessThanADay : WORDS.day(Math.floor(days), days < 2 ? '' : 's');

type CountedProps = {
  ask: string;
  name: string;
  label: string;
  says: string;
  most: number;
  whole?: boolean;
  onKeep: (value: number) => void;
  /** What is said of it, beside. */
  children: ReactNode;
};

/** A figure that is taken anew now and then: asked for, typed, kept. */
function Counted({ ask, name, label, says, most, whole = false, onKeep, children }: CountedProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const read = readTyped(typed ?? '', WORDS.theStock);
  const right = read.ok && read.value >= 0 && read.value <= most && (!whole || Number.isInteger(read.value));
  if (typed === null)
    return (
      <Row>
        <View style={{ flex: 1 }}>{children}</View>
        <Button label={ask} says={`${ask.split(' ')[0]} ${name}`} onPress={() => setTyped('')} />
      </Row>
    );
  const keep = () => {
    if (read.ok) onKeep(read.value);
    setTyped(null);
  };
  return (
    <>
      {children}
      <Row style={{ alignItems: 'flex-end' }}>
        <Field
          label={label}
          says={says}
          inputMode={whole ? 'numeric' : 'decimal'}
          value={typed}
          onChangeText={setTyped}
          fault={typed !== '' && !right}
          style={{ flex: 1 }}
        />
        <Button label={WORDS.save} kind="main" disabled={!right} onPress={keep} style={{ height: 56 }} />
        <Button label={WORDS.cancel} kind="bare" onPress={() => setTyped(null)} style={{ height: 56 }} />
      </Row>
    </>
  );
}

function ClothCard({ cloth }: { cloth: House['cloths'][number] }) {
  const { clock } = useHere();
  const act = useAct();
  const [sure, setSure] = useState(false);
  const tell = (type: 'cloth-boiled' | 'cloth-replaced', label: string) => {
    setSure(false);
    act([{ type, clothId: cloth.id }], label);
  };
  return (
    <Card ruled={cloth.due.length > 0} style={{ gap: 6 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Text bold style={{ flexShrink: 1 }}>
          {cloth.name} · {cloth.stationName}
        </Text>
        <Text size="clock">{WORDS.of(cloth.uses, CLOTH_BREWS)}</Text>
      </Row>
      <ProgressBar share={cloth.uses / CLOTH_BREWS} />
      <Text>
        {cloth.lastBoiledMs === null
          ? WORDS.neverBoiled
          : WORDS.boiled(dayAndTime(cloth.lastBoiledMs, clock.nowMs()))}
        {cloth.creep === null
          ? ''
          : WORDS.drawdownSinceFirstWeek(
              cloth.creep >= 0 ? '+' : '−',
              Math.abs(Math.round(100 * cloth.creep)),
            )}
      </Text>
      {cloth.due.map((due) => (
        <Text key={due} bold>
          {due.charAt(0).toUpperCase() + due.slice(1)}
        </Text>
      ))}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          label={WORDS.boiledLabel}
          says={WORDS.wasBoiled(cloth.name)}
          onPress={() => tell('cloth-boiled', WORDS.boil(cloth.name))}
        />
        {sure ? (
          <Button
            kind="ruled"
            label={WORDS.newCloth}
            onPress={() => tell('cloth-replaced', WORDS.replace(cloth.name))}
          />
        ) : (
          <Button
            kind="bare"
            label={WORDS.replaced}
            says={WORDS.wasReplaced(cloth.name)}
            onPress={() => setSure(true)}
          />
        )}
      </View>
    </Card>
  );
}
