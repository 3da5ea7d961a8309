/**
 * A sheet of lessons for paper: what to notice, and room for dates and scores; with what is done, where it is a person's.
 */
import { View } from 'react-native';
import { router, useLocalSearchParams } from 'expo-router';
import { LESSONS } from '@even-kettle/core/practice';
import { useBar } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Heading, Text } from '../../ui/text';
import { PAPER } from '../../ui/theme';
import { usePrintPage } from '../../ui/use-print-page';
import { WithTheme } from '../../ui/use-theme';
import { progressOf } from './progress';
import { usePractice } from './use-practice';
import { WORDS } from './words';

/** Empty boxes for a date and a score each. */
const BOXES = 3;

export function PracticeSheet() {
  usePrintPage();
  const { person: id } = useLocalSearchParams<{ person?: string }>();
  const { bar } = useBar();
  const { items } = usePractice();
  const person = bar?.people.find((each) => each.id === id);
  const assigned = person ? progressOf(person.id, items).assigned : [];
  return (
    <WithTheme theme={PAPER}>
      <View role="main" style={{ backgroundColor: PAPER.bg, flexGrow: 1 }}>
        <View testID="print-bar">
          <Row style={{ padding: 12 }}>
            <Button kind="main" label={WORDS.print} onPress={() => window.print()} />
            <Button kind="bare" label={WORDS.back} onPress={() => router.replace('/practice')} />
          </Row>
        </View>
        <View style={{ width: '100%', maxWidth: 700, alignSelf: 'center', paddingHorizontal: 16, gap: 10 }}>
          <Heading>{person ? WORDS.lessonsOf(person.name) : WORDS.lessons}</Heading>
          <Text size="small">{WORDS.sheetIs}</Text>
          {LESSONS.map((lesson, n) => {
            const asks = assigned.find((each) => each.lesson === lesson.id);
            return (
              <View
                key={lesson.id}
                style={{ borderTopWidth: 1, borderColor: PAPER.rim, paddingTop: 6, gap: 4 }}
              >
                <Text bold>
                  {WORDS.numbered(n + 1, WORDS.lessonNames[lesson.id])}
                  {asks ? ` (${asks.isDone ? WORDS.done : WORDS.isAsked})` : ''}
                </Text>
                <Text size="small">{WORDS.notice[lesson.id]}</Text>
                <Row style={{ gap: 16 }}>
                  {Array.from({ length: BOXES }, (_, box) => (
                    <Text key={box} size="small" quiet>
                      {WORDS.dateAndScore}
                    </Text>
                  ))}
                </Row>
              </View>
            );
          })}
        </View>
      </View>
    </WithTheme>
  );
}
