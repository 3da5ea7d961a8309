/**
 * The pour drill: what is practised, the try itself, and what it was worth.
 */
import { useMemo, useState } from 'react';
import { router } from 'expo-router';
import {
  EXERCISES,
  drillKey,
  scorePour,
  scoreTrace,
  packSamples,
  unpackSamples,
  type Drill,
  type DrillId,
  type PourScore,
  type PourTry,
  type Sample,
} from '@even-kettle/core/practice';
import { METHODS } from '@even-kettle/core/recipe';
import { inWords, showVolume } from '@even-kettle/core/units';
import { newId, useBar, useHere, useUnits } from '../../client/bar-context';
import { setDevice, useDevice } from '../../device/settings';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Page, Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Heading, Subheading, Text } from '../../ui/text';
import { bestPour, keepTry } from './kept-tries';
import { chosenDrill, cupsOf } from './drill-choice';
import { PourPlay, type TiltBy } from './pour-play';
import { PourResult } from './pour-result';
import { ScalePlay } from './scale-play';
import { usePractice } from './use-practice';
import { WORDS } from './words';

type Follow = 'path' | 'trainer' | 'best' | 'nothing';
type Done = { tried: PourTry; scored: PourScore; samples: readonly Sample[] };
const MODEL = 'model';

export function PourPage() {
  const units = useUnits();
  const { clock } = useHere();
  const { bar, recipes } = useBar();
  const { person, pouringHand } = useDevice();
  const practice = usePractice();
  const [id, setId] = useState<DrillId>('recipe');
  const [recipeId, setRecipeId] = useState('cone-thirds');
  const [cup, setCup] = useState(250);
  const [tiltBy, setTiltBy] = useState<TiltBy>('thumb');
  const [follow, setFollow] = useState<Follow>('path');
  const [on, setOn] = useState(MODEL);
  const [run, setRun] = useState<number | null>(null);
  const [done, setDone] = useState<Done | null>(null);
  const altitudeM = bar?.altitudeM ?? 0;
  const pourable = useMemo(
    () => recipes.filter((each) => cupsOf(each, altitudeM).length > 0),
    [recipes, altitudeM],
  );
  const recipe = pourable.find((each) => each.id === recipeId) ?? pourable[0];
  const cups = useMemo(() => (recipe ? cupsOf(recipe, altitudeM) : []), [recipe, altitudeM]);
  const cupMl = cups.includes(cup) ? cup : (cups[Math.floor(cups.length / 2)] ?? cup);
  const drill = useMemo(() => chosenDrill(id, recipe, cupMl, altitudeM), [id, recipe, cupMl, altitudeM]);
  const of = {
    drill: id,
    ...(id === 'recipe' && recipe ? { recipeId: recipe.id, cupMl } : {}),
    person: bar?.people.some((each) => each.id === person) ? person : null,
  };
  const shownPour = practice.items.findLast(
    (item) => item.kind === 'pour' && drillKey(item) === drillKey(of),
  );
  const ghost =
    follow === 'best'
      ? bestPour(of)
      : follow === 'trainer' && shownPour?.kind === 'pour'
        ? unpackSamples(shownPour.packed)
        : [];

  const finish = (scored: PourScore, samples: readonly Sample[]) => {
    const tried: PourTry = {
      id: newId(),
      atMs: clock.nowMs(),
      ...of,
      score: scored.score,
      ...(on === MODEL ? {} : { onScale: true as const }),
      measures: scored.measures,
    };
    keepTry(tried, samples);
    setDone({ tried, scored, samples });
    setRun(null);
  };
  const again = () => {
    setDone(null);
    setRun((run ?? 0) + 1);
  };

  if (drill && run !== null)
    return (
      <Page wide>
        {on === MODEL ? (
          <PourPlay
            key={run}
            drill={drill}
            hand={pouringHand}
            tiltBy={tiltBy}
            ghost={ghost}
            showsPath={follow !== 'nothing'}
            onDone={(ended) => finish(scorePour(ended, drill), ended.samples)}
            onStop={() => setRun(null)}
          />
        ) : (
          <ScalePlay
            key={run}
            drill={drill}
            stationId={on}
            ghost={ghost}
            onDone={(samples) => finish(scoreTrace(samples, drill), samples)}
            onStop={() => setRun(null)}
          />
        )}
      </Page>
    );
  if (drill && done)
    return (
      <Page>
        <Head />
        <PourResult
          drill={drill}
          {...done}
          ghost={ghost}
          onAgain={again}
          onOther={() => setDone(null)}
          onRecord={
            done.tried.person === null
              ? null
              : () => practice.keep({ kind: 'try', ...done.tried, person: done.tried.person! })
          }
          onFollow={() =>
            practice.keep({
              kind: 'pour',
              id: newId(),
              atMs: done.tried.atMs,
              by: bar?.people.find((each) => each.id === person)?.name ?? WORDS.nobody,
              drill: of.drill,
              ...(of.recipeId === undefined ? {} : { recipeId: of.recipeId, cupMl: of.cupMl }),
              packed: packSamples(done.samples),
            })
          }
        />
      </Page>
    );
  return (
    <Page>
      <Head />
      <Card style={{ gap: 14 }}>
        <Subheading>{WORDS.whatToPractise}</Subheading>
        <Choice
          name={WORDS.whatToPractise}
          value={id}
          onChange={setId}
          options={(['recipe', ...EXERCISES] as const).map((value) => ({
            value,
            label: WORDS.drills[value],
          }))}
        />
        <Text>{WORDS.drillIs[id]}</Text>
        {id === 'recipe' && recipe ? (
          <>
            <Select
              label={WORDS.recipe}
              value={recipe.id}
              onChange={setRecipeId}
              options={pourable.map(({ id: value, method, name }) => ({
                value,
                label: `${METHODS[method].name}: ${name}`,
              }))}
            />
            <Choice
              name={WORDS.cup}
              value={String(cupMl)}
              onChange={(value) => setCup(Number(value))}
              options={cups.map((ml) => ({ value: String(ml), label: inWords(showVolume(ml, units)) }))}
            />
          </>
        ) : null}
        <Select
          label={WORDS.who}
          value={of.person ?? ''}
          onChange={(value) => setDevice({ person: value === '' ? null : value })}
          options={[
            { value: '', label: WORDS.nobody },
            ...(bar?.people ?? []).map(({ id: value, name }) => ({ value, label: name })),
          ]}
        />
        <Where on={on} onChange={setOn} />
        {on === MODEL ? <TiltChoice tiltBy={tiltBy} onChange={setTiltBy} /> : null}
        <FollowChoice
          follow={follow}
          onChange={setFollow}
          missing={
            follow === 'trainer' && ghost.length === 0
              ? WORDS.noTrainersPour
              : follow === 'best' && ghost.length === 0
                ? WORDS.noBest
                : null
          }
        />
        {drill ? (
          <Button kind="main" label={WORDS.startPouring} onPress={() => setRun(0)} testID="start-pouring" />
        ) : (
          <Text role="alert">{WORDS.noPours}</Text>
        )}
      </Card>
      <Text size="small" quiet>
        {on === MODEL
          ? `${WORDS.howTo} ${WORDS.howToMouse} ${WORDS.teachingModel}`
          : `${WORDS.pourOnTheScale} ${WORDS.hot}`}
      </Text>
    </Page>
  );
}

const Head = () => (
  <Row style={{ justifyContent: 'space-between' }}>
    <Heading>{WORDS.pourDrill}</Heading>
    <Button icon="back" label={WORDS.back} kind="bare" onPress={() => router.navigate('/practice')} />
  </Row>
);

/** The modelled bed, or one of the bar's scales that nothing is brewed on. */
function Where({ on, onChange }: { on: string; onChange: (on: string) => void }) {
  const { bar, state } = useBar();
  const brewing = new Set(
    Object.values(state.brews).flatMap(({ status, stationId }) => (status === 'running' ? [stationId] : [])),
  );
  const scales = (bar?.stations ?? []).filter(({ id, scale }) => scale && !brewing.has(id));
  if (scales.length === 0) return null;
  return (
    <Select
      label={WORDS.pourOn}
      value={on}
      onChange={onChange}
      options={[
        { value: MODEL, label: WORDS.modelledBed },
        ...scales.map(({ id, name }) => ({ value: id, label: WORDS.scaleAt(name) })),
      ]}
    />
  );
}

const TiltChoice = ({ tiltBy, onChange }: { tiltBy: TiltBy; onChange: (tiltBy: TiltBy) => void }) => (
  <>
    <Text size="small" quiet>
      {WORDS.tiltWith}
    </Text>
    <Choice
      name={WORDS.tiltWith}
      value={tiltBy}
      onChange={onChange}
      options={[
        { value: 'thumb', label: WORDS.tiltBy.thumb, hint: WORDS.tiltBy.thumbHint },
        { value: 'same finger', label: WORDS.tiltBy.same, hint: WORDS.tiltBy.sameHint },
      ]}
    />
  </>
);

function FollowChoice({
  follow,
  onChange,
  missing,
}: {
  follow: Follow;
  onChange: (follow: Follow) => void;
  missing: string | null;
}) {
  return (
    <>
      <Text size="small" quiet>
        {WORDS.follow}
      </Text>
      <Choice
        name={WORDS.follow}
        value={follow}
        onChange={onChange}
        options={(['path', 'trainer', 'best', 'nothing'] as const).map((value) => ({
          value,
          label: WORDS.ghosts[value],
        }))}
      />
      {missing ? <Text size="small">{missing}</Text> : null}
    </>
  );
}
