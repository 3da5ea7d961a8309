/**
 * The trainer's view: lessons are assigned, and progress is seen of those who keep their tries on the record.
 */
import { useState } from 'react';
import { router } from 'expo-router';
import type { Person } from '@even-kettle/core/contract';
import { LESSONS, type LessonId } from '@even-kettle/core/practice';
import { showClock } from '@even-kettle/core/units';
import { newId, useBar, useHere } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Loading, Notice } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Heading, Subheading, Text } from '../../ui/text';
import { progressOf, type Progress } from './progress';
import { TriesChart } from './tries-chart';
import { usePractice } from './use-practice';
import { WORDS } from './words';

export function TrainerPage() {
  const { bar } = useBar();
  const practice = usePractice();
  const people = bar?.people ?? [];
  return (
    <Page>
      <Row style={{ justifyContent: 'space-between' }}>
        <Heading>{WORDS.trainersView}</Heading>
        <Button icon="back" label={WORDS.back} kind="bare" onPress={() => router.navigate('/practice')} />
      </Row>
      <Text>{WORDS.trainersViewIs}</Text>
      {practice.isPending || !bar ? (
        <Loading what={WORDS.theRecord} height={240} />
      ) : practice.isAway ? (
        <Notice title={WORDS.noServer}>{WORDS.couldNotAsk}</Notice>
      ) : people.length === 0 ? (
        <Notice title={WORDS.nobodyYet}>{WORDS.nobodyYetIs}</Notice>
      ) : (
        <>
          <Assign people={people} practice={practice} />
          {people.map((person) => (
            <PersonCard
              key={person.id}
              person={person}
              progress={progressOf(person.id, practice.items)}
              practice={practice}
            />
          ))}
        </>
      )}
    </Page>
  );
}

type Practice = ReturnType<typeof usePractice>;

function Assign({ people, practice }: { people: readonly Person[]; practice: Practice }) {
  const { clock } = useHere();
  const [person, setPerson] = useState(people[0]!.id);
  const [lesson, setLesson] = useState<LessonId>('first-bloom');
  const [failed, setFailed] = useState(false);
  const assign = () =>
    void practice.keep({ kind: 'assignment', id: newId(), atMs: clock.nowMs(), person, lesson }).then(
      () => setFailed(false),
      () => setFailed(true),
    );
  return (
    <Card style={{ gap: 12 }}>
      <Subheading>{WORDS.assign}</Subheading>
      <Select
        label={WORDS.toWhom}
        value={person}
        onChange={setPerson}
        options={people.map(({ id, name }) => ({ value: id, label: name }))}
      />
      <Select
        label={WORDS.lesson}
        value={lesson}
        onChange={setLesson}
        options={LESSONS.map(({ id }, n) => ({
          value: id,
          label: WORDS.numbered(n + 1, WORDS.lessonNames[id]),
        }))}
      />
      <Button kind="main" label={WORDS.assign} onPress={assign} testID="assign" />
      {failed ? <Text role="alert">{WORDS.couldNotKeep}</Text> : null}
    </Card>
  );
}

function PersonCard({
  person,
  progress,
  practice,
}: {
  person: Person;
  progress: Progress;
  practice: Practice;
}) {
  const [isAsking, setAsking] = useState(false);
  const { assigned, drills, rushes, ids } = progress;
  const forget = async () => {
    for (const id of ids) await practice.remove(id).catch(() => undefined);
    setAsking(false);
  };
  return (
    <Card style={{ gap: 10 }}>
      <Subheading>{person.name}</Subheading>
      {assigned.map(({ id, lesson, isDone }) => (
        <Row key={id} style={{ justifyContent: 'space-between' }}>
          <Text style={{ flex: 1 }}>{WORDS.assignedLine(WORDS.lessonNames[lesson], isDone)}</Text>
          <Button
            label={WORDS.remove}
            says={WORDS.removeLesson(WORDS.lessonNames[lesson], person.name)}
            kind="bare"
            onPress={() => void practice.remove(id).catch(() => undefined)}
          />
        </Row>
      ))}
      {drills.map(({ key, drill, recipeId, tries }) => (
        <DrillOf key={key} name={recipeId ?? WORDS.drills[drill]} tries={tries} />
      ))}
      {rushes.map(({ id, level, isMastered, idleS }) => (
        <Text key={id}>{WORDS.rushLine(WORDS.levels[level], isMastered, showClock(Math.round(idleS)))}</Text>
      ))}
      {drills.length === 0 && rushes.length === 0 ? <Text quiet>{WORDS.nothingOnRecord}</Text> : null}
      <Row style={{ flexWrap: 'wrap' }}>
        <Button
          label={WORDS.printSheet}
          says={WORDS.printSheetOf(person.name)}
          onPress={() => router.push({ pathname: '/practice/print', params: { person: person.id } })}
        />
        {ids.length === 0 ? null : isAsking ? (
          <>
            <Button kind="ruled" label={WORDS.removeAll(ids.length)} onPress={() => void forget()} />
            <Button label={WORDS.cancel} onPress={() => setAsking(false)} />
          </>
        ) : (
          <Button
            kind="bare"
            label={WORDS.removeRecord}
            says={WORDS.removeRecordOf(person.name)}
            onPress={() => setAsking(true)}
          />
        )}
      </Row>
    </Card>
  );
}

function DrillOf({ name, tries }: { name: string; tries: Progress['drills'][number]['tries'] }) {
  const { recipes } = useBar();
  const shown = recipes.find(({ id }) => id === name)?.name ?? name;
  const scores = tries.map(({ score }) => score);
  return (
    <>
      <Text>{WORDS.drillLine(shown, tries.length, scores.at(-1)!, Math.max(...scores))}</Text>
      <TriesChart tries={tries} />
    </>
  );
}
