/**
 * What is practised, in which cup, by whom, on what, and what is followed.
 */
import { useMemo, useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { useLocalSearchParams } from 'expo-router';
import type { PracticeItem } from '@even-kettle/core/contract';
import {
  EXERCISES,
  LESSON_IDS,
  drillKey,
  lessonOf,
  unpackSamples,
  type DrillId,
  type Sample,
} from '@even-kettle/core/practice';
import { METHODS } from '@even-kettle/core/recipe';
import { inWords, showVolume } from '@even-kettle/core/units';
import { useBar, useUnits } from '../../client/bar-context';
import { setDevice, useDevice } from '../../device/settings';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Note } from '../../ui/note';
import { Select } from '../../ui/select';
import { Subheading, Text } from '../../ui/text';
import { bestPour } from './kept-tries';
import { chosenDrill, cupsOf } from './drill-choice';
import type { TiltBy } from './pour-play';
import { WORDS } from './words';

/** In place of a station's id: no scale, but the modelled bed. */
export const MODEL = 'model';

type Follow = 'path' | 'trainer' | 'best' | 'nothing';

export function useSetUp(items: readonly PracticeItem[]) {
  const { bar, recipes } = useBar();
  const { person } = useDevice();
  const asked = lessonOf(useLocalSearchParams<{ lesson?: string }>().lesson);
  const lesson = asked && 'drill' in asked ? asked : undefined;
  const whole = lesson?.drill === 'recipe' ? lesson : undefined;
  const [id, setId] = useState<DrillId>(lesson?.drill ?? 'recipe');
  const [recipeId, setRecipeId] = useState(whole?.recipeId ?? 'cone-thirds');
  const [cup, setCup] = useState(whole?.cupMl ?? 250);
  const [tiltBy, setTiltBy] = useState<TiltBy>('thumb');
  const [follow, setFollow] = useState<Follow>('path');
  const [on, setOn] = useState(MODEL);
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
  return {
    lesson: LESSON_IDS.find((each) => each === lesson?.id),
    drill,
    of,
    pourable,
    recipe,
    cups,
    cupMl,
    tiltBy,
    follow,
    on,
    ghost: ghostOf(follow, of, items),
    setId,
    setRecipeId,
    setCup,
    setTiltBy,
    setFollow,
    setOn,
  };
}

/** Another pour of the same drill to see beside one's own; empty for none. */
function ghostOf(
  follow: Follow,
  of: Parameters<typeof bestPour>[0],
  items: readonly PracticeItem[],
): readonly Sample[] {
  if (follow === 'best') return bestPour(of);
  if (follow !== 'trainer') return [];
  const left = items.findLast((item) => item.kind === 'pour' && drillKey(item) === drillKey(of));
  return left?.kind === 'pour' ? unpackSamples(left.packed) : [];
}

type SetUp = ReturnType<typeof useSetUp>;

export function PourSetUp({ setUp, onStart }: { setUp: SetUp; onStart: () => void }) {
  const units = useUnits();
  const { bar } = useBar();
  const { drill, of, recipe, on, follow, ghost } = setUp;
  const missing = follow === 'trainer' ? WORDS.noTrainersPour : follow === 'best' ? WORDS.noBest : null;
  return (
    <>
      {setUp.lesson ? (
        <Note>{WORDS.lessonNote(WORDS.lessonNames[setUp.lesson], WORDS.notice[setUp.lesson])}</Note>
      ) : null}
      <Card style={{ gap: 14 }}>
        <Subheading>{WORDS.whatToPractise}</Subheading>
        <Choice
          name={WORDS.whatToPractise}
          value={of.drill}
          onChange={setUp.setId}
          options={(['recipe', ...EXERCISES] as const).map((value) => ({
            value,
            label: WORDS.drills[value],
          }))}
        />
        <Text>{WORDS.drillIs[of.drill]}</Text>
        {of.drill === 'recipe' && recipe ? (
          <>
            <Select
              label={WORDS.recipe}
              value={recipe.id}
              onChange={setUp.setRecipeId}
              options={setUp.pourable.map(({ id: value, method, name }) => ({
                value,
                label: `${METHODS[method].name}: ${name}`,
              }))}
            />
            <Choice
              name={WORDS.cup}
              value={String(setUp.cupMl)}
              onChange={(value) => setUp.setCup(Number(value))}
              options={setUp.cups.map((ml) => ({ value: String(ml), label: inWords(showVolume(ml, units)) }))}
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
        <Where on={on} onChange={setUp.setOn} />
        {on === MODEL ? (
          <Named name={WORDS.tiltWith}>
            <Choice
              name={WORDS.tiltWith}
              value={setUp.tiltBy}
              onChange={setUp.setTiltBy}
              options={[
                { value: 'thumb', label: WORDS.tiltBy.thumb, hint: WORDS.tiltBy.thumbHint },
                { value: 'same finger', label: WORDS.tiltBy.same, hint: WORDS.tiltBy.sameHint },
              ]}
            />
          </Named>
        ) : null}
        <Named name={WORDS.follow}>
          <Choice
            name={WORDS.follow}
            value={follow}
            onChange={setUp.setFollow}
            options={(['path', 'trainer', 'best', 'nothing'] as const).map((value) => ({
              value,
              label: WORDS.ghosts[value],
            }))}
          />
        </Named>
        {missing && ghost.length === 0 ? <Text size="small">{missing}</Text> : null}
        {drill ? (
          <Button kind="main" label={WORDS.startPouring} onPress={onStart} testID="start-pouring" />
        ) : (
          <Text role="alert">{WORDS.noPours}</Text>
        )}
      </Card>
      <Text size="small" quiet>
        {on === MODEL
          ? `${WORDS.howTo} ${WORDS.howToMouse} ${WORDS.teachingModel}`
          : `${WORDS.pourOnTheScale} ${WORDS.hot}`}
      </Text>
    </>
  );
}

const Named = ({ name, children }: { name: string; children: ReactNode }) => (
  <View style={{ gap: 4 }}>
    <Text size="small" quiet aria-hidden>
      {name}
    </Text>
    {children}
  </View>
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
