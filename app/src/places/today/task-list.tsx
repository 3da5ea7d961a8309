/**
 * The opening and the closing list: a line is ticked off with a tap, and says who did it and when.
 */
import { View } from 'react-native';
import { router } from 'expo-router';
import { tasksDone, type DayList } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { useBar } from '../../client/bar-context';
import { useAct } from '../../device/use-act';
import { clockTime } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Icon } from '../../ui/icons';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { RADIUS, TOUCH } from '../../ui/theme';
import { Touch } from '../../ui/touch';
import { useTheme } from '../../ui/use-theme';
import { tasksOf } from '../../parts/usual-tasks';
import { WORDS } from './words';

type Props = {
  bar: Bar;
  list: DayList;
  /** Since when something counts as done today, bar milliseconds. */
  sinceMs: number;
  /** What is said of a line besides its name, by its id. */
  details?: Record<string, string>;
};

export function TaskList({ bar, list, sinceMs, details = {} }: Props) {
  const { state } = useBar();
  const act = useAct();
  const tasks = tasksOf(bar, list);
  const done = tasksDone(state, list, sinceMs);
  const many = tasks.filter(({ id }) => done.has(id)).length;
  const nameOf = (by: string | undefined) => bar.people.find(({ id }) => id === by)?.name ?? WORDS.somebody;
  return (
    <Card style={{ gap: 2 }}>
      <Row style={{ justifyContent: 'space-between' }}>
        <Subheading>{WORDS[list]}</Subheading>
        <Text size="small" quiet>
          {many === tasks.length ? WORDS.allDone : WORDS.doneOf(many, tasks.length)}
        </Text>
      </Row>
      <View role="group" aria-label={WORDS[list]}>
        {tasks.map(({ id, name }) => {
          const by = done.get(id);
          return (
            <TaskLine
              key={id}
              name={name}
              detail={details[id]}
              done={by ? WORDS.doneBy(nameOf(by.by), clockTime(by.atMs)) : null}
              onPress={() =>
                act(
                  [by ? { type: 'event-undone', eventId: by.id } : { type: 'task-done', list, taskId: id }],
                  by ? undefined : name,
                )
              }
            />
          );
        })}
      </View>
      <Button
        kind="bare"
        icon="pencil"
        label={WORDS.editTheList}
        says={`${WORDS.editTheList}: ${WORDS[list]}`}
        onPress={() => router.navigate('/bench?section=people')}
        style={{ alignSelf: 'flex-start' }}
      />
    </Card>
  );
}

type LineProps = { name: string; detail?: string | undefined; done: string | null; onPress: () => void };

function TaskLine({ name, detail, done, onPress }: LineProps) {
  const theme = useTheme();
  const isDone = done !== null;
  return (
    <Touch
      role="checkbox"
      aria-checked={isDone}
      aria-label={name}
      onPress={onPress}
      style={{
        minHeight: TOUCH,
        flexDirection: 'row',
        alignItems: 'center',
        gap: 12,
        paddingVertical: 6,
        borderTopWidth: 1,
        borderColor: theme.rim,
      }}
    >
      <View
        style={{
          width: 26,
          height: 26,
          borderWidth: 2,
          borderRadius: RADIUS,
          borderColor: isDone ? theme.ink2 : theme.ink,
          backgroundColor: isDone ? theme.coolPale : theme.surface,
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        {isDone ? <Icon name="check" size={18} color={theme.ink} /> : null}
      </View>
      <View style={{ flex: 1 }}>
        <Text quiet={isDone}>{name}</Text>
        {detail && !isDone ? (
          <Text size="small" quiet>
            {detail}
          </Text>
        ) : null}
      </View>
      {isDone ? (
        <Text size="small" quiet>
          {done}
        </Text>
      ) : null}
    </Touch>
  );
}
