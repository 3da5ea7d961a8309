/**
 * Bench: units, altitude, the theme, and what stands on the bar.
 */
import { Fragment, type ReactNode } from 'react';
import { View, useWindowDimensions } from 'react-native';
import { router, useLocalSearchParams } from 'expo-router';
import type { Bar } from '@even-kettle/core/contract';
import { useBar } from '../../client/bar-context';
import { useMay } from '../../client/may';
import { Button } from '../../ui/button';
import { Loading } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Heading, Text } from '../../ui/text';
import { WIDE } from '../../ui/theme';
import { Unreachable } from '../unreachable';
import { AccessCards } from './access-card';
import { DeviceCard } from './device-card';
import { CopiesCard } from './copies-card';
import { CoffeesCard } from './coffees-card';
import { FeedCard } from './feed-card';
import { GrindersCard } from './grinders-card';
import { KettlesCard } from './kettles-card';
import { ClothsCard, PeopleCard, TasksCard } from './people-card';
import { BrewersCard } from './brewers-card';
import { StationsCard } from './stations-card';
import { FirstDayCard, GuestsCard, HandsChoice, LookCard, OneGrindCard, TasteCard } from './choice-cards';
import { MenuCard, QueuesCard } from './menu-cards';
import { PlaceCard, UnitsCard } from './place-cards';
import { PlanFilesCard } from './plan-files-card';
import { WORDS } from './words';

type Section = {
  id: string;
  name: string;
  cards: (bar: Bar) => ReactNode;
  /** Shown to every device; the others to those that may change the bar's settings. */
  own?: true;
};

const SECTIONS: readonly Section[] = [
  {
    id: 'place',
    name: WORDS.placeAndUnits,
    cards: (bar) => (
      <>
        <FirstDayCard />
        <UnitsCard bar={bar} />
        <PlaceCard bar={bar} />
      </>
    ),
  },
  { id: 'coffees', name: WORDS.coffees, cards: (bar) => <CoffeesCard bar={bar} /> },
  {
    id: 'menu',
    name: WORDS.menuAndQueues,
    cards: (bar) => (
      <>
        <MenuCard bar={bar} />
        <QueuesCard bar={bar} />
        <FeedCard />
      </>
    ),
  },
  {
    id: 'tools',
    name: WORDS.stationsAndTools,
    cards: (bar) => (
      <>
        <StationsCard bar={bar} />
        <BrewersCard bar={bar} />
        <GrindersCard bar={bar} />
        <KettlesCard bar={bar} />
      </>
    ),
  },
  {
    id: 'people',
    name: WORDS.peopleAndCloths,
    cards: (bar) => (
      <>
        <HandsChoice bar={bar} />
        <PeopleCard bar={bar} />
        <ClothsCard bar={bar} />
        <TasksCard bar={bar} list="opening" />
        <TasksCard bar={bar} list="closing" />
        <TasteCard bar={bar} />
        <OneGrindCard bar={bar} />
        <GuestsCard bar={bar} />
      </>
    ),
  },
  {
    id: 'device',
    name: WORDS.thisDevice,
    own: true,
    cards: (bar) => (
      <>
        <LookCard />
        <DeviceCard bar={bar} />
      </>
    ),
  },
  { id: 'access', name: WORDS.accessSection, cards: (bar) => <AccessCards bar={bar} /> },
  { id: 'copies', name: WORDS.copies, cards: () => <CopiesCard /> },
  { id: 'plan', name: WORDS.planFiles, cards: () => <PlanFilesCard />, own: true },
];

/** On a phone one page; where there is room a section at a time, beside their names. */
export function BenchPlace() {
  const { bar, status } = useBar();
  const isWide = useWindowDimensions().width >= WIDE;
  const may = useMay();
  const isLead = may('changeBar');
  const sections = SECTIONS.filter(({ own }) => own || isLead);
  if (status === 'unreachable') return <Unreachable />;
  return (
    <Page wide={isWide}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Heading>{WORDS.bench}</Heading>
        <Button label={WORDS.practice} onPress={() => router.push('/practice')} />
      </Row>
      {isLead ? null : <Text quiet>{WORDS.leadChanges}</Text>}
      {!bar ? (
        <Loading what={WORDS.theBench} height={300} />
      ) : isWide ? (
        <Sections bar={bar} sections={sections} />
      ) : (
        sections.map(({ id, cards }) => <Fragment key={id}>{cards(bar)}</Fragment>)
      )}
    </Page>
  );
}

/** Which section is open stands in the address, so that it can be come back to. */
function Sections({ bar, sections }: { bar: Bar; sections: readonly Section[] }) {
  const { section } = useLocalSearchParams<{ section?: string }>();
  const open = sections.find(({ id }) => id === section) ?? sections[0]!;
  return (
    <Row style={{ alignItems: 'flex-start', gap: 20 }}>
      <View role="navigation" aria-label={WORDS.sectionsOfTheBench} style={{ width: 200, gap: 8 }}>
        {sections.map(({ id, name }) => (
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
