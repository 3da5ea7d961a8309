/**
 * The rush drill: a trainee works the hands card of a bar of its own, with guests who come by a timetable.
 */
import { useCallback, useState } from 'react';
import { router, useLocalSearchParams } from 'expo-router';
import type { Bar } from '@even-kettle/core/contract';
import {
  LESSON_IDS,
  RUSH_LEVELS,
  SURPRISES,
  lessonOf,
  reviewRush,
  rushHappenings,
  type RushLevel,
  type RushReview,
  type Surprise,
} from '@even-kettle/core/practice';
import { askExactWaits } from '../../client/lab';
import { newId, useBar, useHere } from '../../client/bar-context';
import { openPrivateBar } from '../../client/private-bar';
import { useDevice } from '../../device/settings';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Loading, Notice } from '../../ui/notice';
import { Note } from '../../ui/note';
import { Page, Row } from '../../ui/page';
import { Switch } from '../../ui/switch';
import { Heading, Subheading, Text } from '../../ui/text';
import { menuOf } from './bar-menu';
import { RushReviewPage } from './rush-review';
import { RushRun } from './rush-run';
import { openRushShift, type RushShift } from './rush-shift';
import { usePractice } from './use-practice';
import { WORDS } from './words';

const RATES = ['1', '2', '4', '8'] as const;
type Asked = { level: RushLevel; surprises: Surprise[]; rate: (typeof RATES)[number]; colleague: boolean };
type Running = { shift: RushShift; bar: Bar; orders: Parameters<typeof askExactWaits>[0]['orders'] };

export function RushPage() {
  const here = useHere();
  const { bar, recipes, book } = useBar();
  const { person } = useDevice();
  const practice = usePractice();
  const own = bar?.people.find(({ id }) => id === person);
  const lesson = lessonOf(useLocalSearchParams<{ lesson?: string }>().lesson);
  const [asked, setAsked] = useState<Asked>({ level: 'three', surprises: [], rate: '1', colleague: false });
  const shown = LESSON_IDS.find((id) => id === lesson?.id);
  const [running, setRunning] = useState<Running | null>(null);
  const [review, setReview] = useState<RushReview | null>(null);
  const [isReviewing, setReviewing] = useState(false);

  const start = (of: Asked) => {
    if (!bar) return;
    const seed = Math.floor(here.clock.nowMs() % 1_000_000);
    const own = practiceBar(bar, of.colleague);
    const startMs = here.clock.nowMs();
    const happenings = rushHappenings({
      ...of,
      bench: own,
      book,
      menu: menuOf(own, recipes).map(({ share: _share, ...line }) => line),
      startMs,
      seed,
      newId,
    });
    const inner = openPrivateBar(here, { bar: own, events: [], startMs });
    inner.setRate(Number(of.rate));
    setAsked(of);
    setReview(null);
    setRunning({
      shift: openRushShift({ bar: inner, happenings, surprises: of.surprises, hands: own.hands, seed }),
      bar: own,
      orders: happenings.flatMap((each) => ('order' in each ? [each.order] : [])),
    });
  };
  const end = useCallback(async () => {
    if (!running || isReviewing) return;
    const { shift, bar: own, orders } = running;
    setReviewing(true);
    const nowMs = shift.bar.clock.nowMs();
    shift.bar.setRate(0);
    const exactS = orders.length === 0 ? {} : await askExactWaits({ bench: own, saved: recipes, orders });
    setReview(reviewRush(asked, shift.bar.store.view().state, exactS, shift.counts(), nowMs));
    setReviewing(false);
  }, [running, isReviewing, recipes, asked]);

  if (running && review)
    return (
      <Page wide>
        <Head />
        <RushReviewPage
          review={review}
          moments={running.shift.moments()}
          bar={running.bar}
          startMs={running.shift.startMs}
          onRecord={
            own === undefined
              ? null
              : () =>
                  practice.keep({
                    kind: 'rush',
                    id: newId(),
                    atMs: here.clock.nowMs(),
                    person: own.id,
                    level: asked.level,
                    surprises: asked.surprises,
                    isMastered: review.isMastered,
                    idleS: review.idleS,
                  })
          }
          onAgain={() => start(asked)}
          onNext={() => start({ ...asked, ...review.next })}
        />
      </Page>
    );
  if (running)
    return (
      <Page wide>
        {isReviewing ? (
          <Loading what={WORDS.theReview} height={240} />
        ) : (
          <RushRun shift={running.shift} hands={running.bar.hands} onEnd={() => void end()} />
        )}
      </Page>
    );
  return (
    <Page>
      <Head />
      {shown ? <Note>{WORDS.lessonNote(WORDS.lessonNames[shown], WORDS.notice[shown])}</Note> : null}
      {bar && bar.stations.length > 0 && bar.kettles.length > 0 ? (
        <RushSetUp asked={asked} onChange={setAsked} onStart={() => start(asked)} />
      ) : (
        <Notice title={WORDS.noStations}>{WORDS.noStationsIs}</Notice>
      )}
    </Page>
  );
}

const Head = () => (
  <Row style={{ justifyContent: 'space-between' }}>
    <Heading>{WORDS.rushDrill}</Heading>
    <Button icon="back" label={WORDS.back} kind="bare" onPress={() => router.navigate('/practice')} />
  </Row>
);

/** The bar's own bench, with one pair of hands or two, and nothing connected to it. */
const practiceBar = (bar: Bar, colleague: boolean): Bar => ({
  ...bar,
  hands: colleague ? 2 : 1,
  stations: bar.stations.map(({ scale: _scale, ...station }) => station),
  kettles: bar.kettles.map(({ device: _device, ...kettle }) => kettle),
});

function RushSetUp({
  asked,
  onChange,
  onStart,
}: {
  asked: Asked;
  onChange: (asked: Asked) => void;
  onStart: () => void;
}) {
  return (
    <Card style={{ gap: 14 }}>
      <Text>{WORDS.rushDrillHow}</Text>
      <Subheading>{WORDS.howHard}</Subheading>
      <Choice
        name={WORDS.howHard}
        value={asked.level}
        onChange={(level) => onChange({ ...asked, level })}
        options={RUSH_LEVELS.map((value) => ({
          value,
          label: WORDS.levels[value],
          hint: WORDS.levelIs[value],
        }))}
      />
      <Subheading>{WORDS.pace}</Subheading>
      <Choice
        name={WORDS.pace}
        value={asked.rate}
        onChange={(rate) => onChange({ ...asked, rate })}
        options={RATES.map((value) => ({ value, label: `${value} ×` }))}
      />
      <Switch
        label={WORDS.colleague}
        on={asked.colleague}
        onChange={(colleague) => onChange({ ...asked, colleague })}
      />
      <Subheading>{WORDS.whatGoesWrong}</Subheading>
      {SURPRISES.map((surprise) => (
        <Switch
          key={surprise}
          label={WORDS.surprises[surprise]}
          on={asked.surprises.includes(surprise)}
          onChange={(on) =>
            onChange({
              ...asked,
              surprises: on
                ? [...asked.surprises, surprise]
                : asked.surprises.filter((each) => each !== surprise),
            })
          }
        />
      ))}
      <Button kind="main" label={WORDS.startDrill} onPress={onStart} testID="start-rush" />
    </Card>
  );
}
