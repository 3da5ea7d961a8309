/**
 * Ready lessons, each with what to notice. What was asked of this device's person is marked, and marked again when it is done.
 */
import { View } from 'react-native';
import { router } from 'expo-router';
import { LESSONS, type LessonId } from '@even-kettle/core/practice';
import { useBar } from '../../client/bar-context';
import { useDevice } from '../../device/settings';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { progressOf } from './progress';
import { usePractice } from './use-practice';
import { WORDS } from './words';

export function LessonsCard() {
  const { bar } = useBar();
  const { person } = useDevice();
  const { items } = usePractice();
  const own = bar?.people.find(({ id }) => id === person);
  const asked = own ? progressOf(own.id, items).assigned : [];
  return (
    <Card style={{ gap: 14 }}>
      <Subheading>{WORDS.lessons}</Subheading>
      <Text size="small" quiet>
        {WORDS.lessonsAre}
      </Text>
      {LESSONS.map((lesson, n) => {
        const asks = asked.find((each) => each.lesson === lesson.id);
        return (
          <Row key={lesson.id} style={{ alignItems: 'flex-start', gap: 12 }}>
            <View style={{ flex: 1, gap: 2 }}>
              <Text bold>{WORDS.numbered(n + 1, WORDS.lessonNames[lesson.id])}</Text>
              <Text size="small">{WORDS.notice[lesson.id]}</Text>
              {asks ? (
                <Text size="small" bold>
                  {asks.isDone ? WORDS.lessonDone : WORDS.lessonAsked(own!.name)}
                </Text>
              ) : null}
            </View>
            <Button
              label={WORDS.start}
              says={WORDS.startLesson(WORDS.lessonNames[lesson.id])}
              onPress={() => router.push(lessonHref(lesson.id))}
            />
          </Row>
        );
      })}
      <Row style={{ flexWrap: 'wrap' }}>
        <Button label={WORDS.trainersView} onPress={() => router.push('/practice/trainer')} />
        <Button label={WORDS.printLessons} onPress={() => router.push('/practice/print')} />
      </Row>
    </Card>
  );
}

function lessonHref(id: LessonId) {
  const lesson = LESSONS.find((each) => each.id === id)!;
  return {
    pathname: 'rush' in lesson ? ('/practice/rush' as const) : ('/practice/pour' as const),
    params: { lesson: id },
  };
}
