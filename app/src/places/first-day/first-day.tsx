/**
 * The first day: a short way from an empty database to the first order. Each step can be left out and found again, and
 * nothing stands on the bench that was not put there.
 */
import { useEffect, useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import type { Bar } from '@even-kettle/core/contract';
import { useBar, useMadeUpBar } from '../../client/bar-context';
import { useMay } from '../../client/may';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Loading, Notice } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Heading, Subheading, Text } from '../../ui/text';
import { useChange } from '../../parts/use-change';
import { lacks, type Save } from './bench-of';
import { openMadeUpBar } from './made-up-bar';
import { Practice } from './practice';
import { SaveFault, Step, type StepId } from './step';
import {
  BrewersForm,
  CoffeesForm,
  GrindersForm,
  KettlesForm,
  PeopleForm,
  PlaceForm,
  boilsAt,
  type FormProps,
} from './steps';
import { WORDS } from './words';

const STEPS: readonly StepId[] = ['place', 'brewers', 'kettles', 'grinders', 'coffees', 'people', 'practice'];
/** Until a word is on the screen, milliseconds. */
const SAID_MS = 80;
/** What was done and cannot be seen on the bench. */
const NAMED = 'named';
const PRACTISED = 'practised';

export function FirstDay() {
  const { bar } = useBar();
  const may = useMay();
  if (!may('changeBar'))
    return (
      <Page>
        <Notice title={WORDS.welcome}>{WORDS.leadSetsUp}</Notice>
      </Page>
    );
  return (
    <Page>
      <Heading>{WORDS.welcome}</Heading>
      {bar ? <Steps bar={bar} /> : <Loading what={WORDS.welcome} height={300} />}
      <OtherDevices />
    </Page>
  );
}

/** How phones and tablets come to the bar. */
function OtherDevices() {
  const { me } = useBar();
  return (
    <Card style={{ gap: 8 }}>
      <Subheading>{WORDS.otherDevices}</Subheading>
      <Text>{me?.pairs ? WORDS.pairThem : WORDS.openToNetwork}</Text>
      {me?.pairs ? (
        <Button
          label={WORDS.devicesOnBench}
          onPress={() => router.push({ pathname: '/bench', params: { section: 'access' } })}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
    </Card>
  );
}

function Steps({ bar }: { bar: Bar }) {
  const change = useChange();
  const setUp = bar.setUp ?? { open: true, steps: [] };
  const [chosen, setChosen] = useState<StepId | null>(null);
  const marked = (id: string) => setUp.steps.includes(id);
  const isNamed = marked(NAMED) || bar.setUp === undefined;
  const done = doneOf(bar, isNamed, marked(PRACTISED));
  const next = STEPS.find((id) => done[id] === null && !marked(id));
  const open = chosen ?? next;
  const mark = (id: string, part: Parameters<Save>[0] = {}, onSaved: () => void = () => undefined) =>
    change.mutate(
      { ...part, setUp: { ...setUp, steps: [...new Set([...setUp.steps, id])] } },
      { onSuccess: onSaved },
    );
  const save: Save = (part, onSaved) =>
    'name' in part ? mark(NAMED, part, onSaved) : change.mutate(part, { onSuccess: onSaved });
  // A list stays open for the next of it.
  const saveOne: Save = (part, onSaved) => {
    setChosen(open ?? null);
    save(part, onSaved);
  };
  const props: FormProps = { bar, save, saving: change.isPending, onDone: () => setChosen(null) };
  const missing = lacks(bar);
  const forms: Record<StepId, ReactNode> = {
    place: <PlaceForm {...props} isNamed={isNamed} />,
    brewers: <BrewersForm {...props} />,
    kettles: <KettlesForm {...props} />,
    grinders: <GrindersForm {...props} />,
    coffees: <CoffeesForm {...props} save={saveOne} />,
    people: <PeopleForm {...props} save={saveOne} />,
    practice: <Practice bar={bar} onDone={() => mark(PRACTISED, {}, () => setChosen(null))} />,
  };
  return (
    <>
      <Text quiet>{WORDS.intro}</Text>
      {STEPS.map((id) => (
        <Step
          key={id}
          id={id}
          isOpen={open === id}
          done={done[id]}
          isSkipped={marked(id)}
          onOpen={() => setChosen(id)}
          onSkip={() => (done[id] === null ? mark(id, {}, () => setChosen(null)) : setChosen(null))}
        >
          {forms[id]}
          <SaveFault error={change.error} />
        </Step>
      ))}
      <Card style={{ gap: 10 }}>
        <Text>
          {missing.length === 0
            ? WORDS.readyForOrders
            : WORDS.missing(missing.map((thing) => WORDS[thing]).join(', '))}
        </Text>
        <Row style={{ flexWrap: 'wrap' }}>
          <Button
            kind={missing.length === 0 ? 'main' : 'plain'}
            label={missing.length === 0 ? WORDS.openTheBar : WORDS.openTheBarAnyway}
            disabled={change.isPending}
            onPress={() =>
              change.mutate({ setUp: { ...setUp, open: false } }, { onSuccess: () => router.navigate('/') })
            }
            testID="open-the-bar"
          />
        </Row>
      </Card>
      <LookAtABar />
    </>
  );
}

function LookAtABar() {
  const { look } = useMadeUpBar();
  const [opening, setOpening] = useState(false);
  // Its morning is lived through in this page, which takes some seconds: first it is said.
  useEffect(() => {
    if (!opening) return undefined;
    const timer = setTimeout(() => {
      look(openMadeUpBar);
      router.navigate('/');
    }, SAID_MS);
    return () => clearTimeout(timer);
  }, [opening, look]);
  return (
    <Card style={{ gap: 10 }}>
      <Text quiet>{WORDS.lookAtBarHint}</Text>
      <View style={{ flexDirection: 'row' }}>
        <Button
          label={opening ? WORDS.opening : WORDS.lookAtABar}
          disabled={opening}
          onPress={() => setOpening(true)}
        />
      </View>
    </Card>
  );
}

/** What each step has come to, in a line; null where nothing was done. */
function doneOf(bar: Bar, isNamed: boolean, hasPractised: boolean): Record<StepId, string | null> {
  const listed = (things: readonly { name: string }[]) =>
    things.length === 0 ? null : things.map(({ name }) => name).join(', ');
  return {
    place: isNamed ? WORDS.placeDone(bar.name, boilsAt(bar.altitudeM, bar.units)) : null,
    brewers: listed(bar.stations),
    kettles: bar.kettles.length === 0 ? null : WORDS.kettlesDone(bar.kettles.length),
    grinders: listed(bar.grinders),
    coffees: listed(bar.coffees),
    people: bar.people.length === 0 ? null : WORDS.peopleDone(listed(bar.people) ?? '', bar.hands),
    practice: hasPractised ? WORDS.done : null,
  };
}
