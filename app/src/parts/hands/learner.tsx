/**
 * For whoever learns: why and how, with a drawing, and the commonest mistake; below the button, so that nothing that the
 * step needs is moved by it.
 */
import { View } from 'react-native';
import { router } from 'expo-router';
import type { AgendaItem } from '@even-kettle/core/plan';
import { stepLessonOf } from '@even-kettle/core/recipe/step-lessons';
import { useHere } from '../../client/bar-context';
import { useDevice } from '../../device/settings';
import { Button } from '../../ui/button';
import { Text } from '../../ui/text';
import { useTheme } from '../../ui/use-theme';
import { LessonDrawing, bedsAfter, lessonDrawing } from '../../vessels/lesson-drawings';
import { WORDS } from './words';

export function Learner({ item }: { item: AgendaItem }) {
  const theme = useTheme();
  const { pouringHand } = useDevice();
  const { silent = false } = useHere();
  // While something is watched, that is what there is to learn.
  const step = item.awaited ?? item.step;
  const lesson = stepLessonOf(step, item.card);
  const drawing = lessonDrawing(step, item.card);
  const beds = bedsAfter(step, item.card.method);
  return (
    <View
      role="note"
      aria-label={WORDS.whyAndHow}
      testID="learner"
      style={{ borderTopWidth: 1, borderColor: theme.rim, marginTop: 8, paddingTop: 8, gap: 6 }}
    >
      <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
        {drawing ? <LessonDrawing drawing={drawing} hand={pouringHand} /> : null}
        <View style={{ flex: 1, gap: 4 }}>
          {lesson ? <Told what={WORDS.why} words={lesson.why} /> : null}
          {lesson ? <Told what={WORDS.how} words={lesson.how} /> : null}
          {lesson?.mistake ? <Told what={WORDS.commonestMistake} words={lesson.mistake} /> : null}
        </View>
      </View>
      {item.brew === null && !silent ? (
        <Button
          label={WORDS.showWholeMethod}
          onPress={() => router.push({ pathname: '/recipes/[id]/show', params: { id: item.cup.recipeId } })}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
      {beds.length > 0 ? (
        <View style={{ flexDirection: 'row', gap: 6 }}>
          {beds.map(({ name, means, drawing: bed }) => (
            <View key={name} style={{ flex: 1, alignItems: 'center', gap: 2 }}>
              <LessonDrawing drawing={bed} hand={pouringHand} size={64} />
              <Text size="small" bold>
                {name}
              </Text>
              <Text size="small" style={{ textAlign: 'center' }}>
                {means}
              </Text>
            </View>
          ))}
        </View>
      ) : null}
    </View>
  );
}

function Told({ what, words }: { what: string; words: string }) {
  return (
    <Text size="small">
      <Text size="small" bold>
        {what}
      </Text>{' '}
      {words}
    </Text>
  );
}
