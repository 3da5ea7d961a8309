/**
 * The pour drill: what is practised, the try itself, and what it was worth.
 */
import { useState } from 'react';
import { router } from 'expo-router';
import {
  scorePour,
  scoreTrace,
  packSamples,
  type PourScore,
  type PourTry,
  type Sample,
} from '@even-kettle/core/practice';
import type { PracticeItem } from '@even-kettle/core/contract';
import { newId, useBar, useHere } from '../../client/bar-context';
import { useDevice } from '../../device/settings';
import { Button } from '../../ui/button';
import { Page, Row } from '../../ui/page';
import { Heading } from '../../ui/text';
import { keepTry } from './kept-tries';
import { PourPlay } from './pour-play';
import { PourResult } from './pour-result';
import { MODEL, PourSetUp, useSetUp } from './pour-set-up';
import { ScalePlay } from './scale-play';
import { usePractice } from './use-practice';
import { WORDS } from './words';

type Done = { tried: PourTry; scored: PourScore; samples: readonly Sample[] };

export function PourPage() {
  const { clock } = useHere();
  const { bar } = useBar();
  const { pouringHand } = useDevice();
  const practice = usePractice();
  const setUp = useSetUp(practice.items);
  const [run, setRun] = useState<number | null>(null);
  const [done, setDone] = useState<Done | null>(null);
  const { drill, of, on, ghost } = setUp;

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
  const followed = ({ tried, samples }: Done): PracticeItem => ({
    kind: 'pour',
    id: newId(),
    atMs: tried.atMs,
    by: bar?.people.find(({ id }) => id === tried.person)?.name ?? WORDS.nobody,
    drill: tried.drill,
    ...(tried.recipeId === undefined ? {} : { recipeId: tried.recipeId, cupMl: tried.cupMl }),
    packed: packSamples(samples),
  });

  if (drill && run !== null)
    return (
      <Page wide>
        {on === MODEL ? (
          <PourPlay
            key={run}
            drill={drill}
            hand={pouringHand}
            tiltBy={setUp.tiltBy}
            ghost={ghost}
            showsPath={setUp.follow !== 'nothing'}
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
  if (drill && done) {
    const { person } = done.tried;
    return (
      <Page>
        <Head />
        <PourResult
          drill={drill}
          {...done}
          ghost={ghost}
          onAgain={() => {
            setDone(null);
            setRun((run ?? 0) + 1);
          }}
          onOther={() => setDone(null)}
          onRecord={person === null ? null : () => practice.keep({ kind: 'try', ...done.tried, person })}
          onFollow={() => practice.keep(followed(done))}
        />
      </Page>
    );
  }
  return (
    <Page>
      <Head />
      <PourSetUp setUp={setUp} onStart={() => setRun(0)} />
    </Page>
  );
}

const Head = () => (
  <Row style={{ justifyContent: 'space-between' }}>
    <Heading>{WORDS.pourDrill}</Heading>
    <Button icon="back" label={WORDS.back} kind="bare" onPress={() => router.navigate('/practice')} />
  </Row>
);
