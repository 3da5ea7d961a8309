/**
 * What the record holds of a person: lessons that were assigned, with whether they are done, and tries by drill.
 */
import type { PracticeItem } from '@even-kettle/core/contract';
import { drillKey, isLessonDone, lessonOf, type DrillId, type LessonId } from '@even-kettle/core/practice';

export type Progress = {
  assigned: { id: string; lesson: LessonId; atMs: number; isDone: boolean }[];
  /** Tries of each drill, oldest first. */
  drills: {
    key: string;
    drill: DrillId;
    recipeId?: string | undefined;
    tries: Extract<PracticeItem, { kind: 'try' }>[];
  }[];
  rushes: Extract<PracticeItem, { kind: 'rush' }>[];
  /** All of the person's own: to be removed when it is wished. */
  ids: string[];
};

export function progressOf(person: string, items: readonly PracticeItem[]): Progress {
  const own = items.filter((item) => 'person' in item && item.person === person);
  const practised = own.filter((item) => item.kind === 'try' || item.kind === 'rush');
  const drills = new Map<string, Progress['drills'][number]>();
  for (const item of own) {
    if (item.kind !== 'try') continue;
    const key = drillKey(item);
    const known = drills.get(key);
    if (known) known.tries.push(item);
    else drills.set(key, { key, drill: item.drill, recipeId: item.recipeId, tries: [item] });
  }
  return {
    assigned: own.flatMap((item) => {
      const lesson = item.kind === 'assignment' ? lessonOf(item.lesson) : undefined;
      return item.kind === 'assignment' && lesson
        ? [
            {
              id: item.id,
              lesson: item.lesson,
              atMs: item.atMs,
              isDone: isLessonDone(lesson, practised, item.atMs),
            },
          ]
        : [];
    }),
    drills: [...drills.values()],
    rushes: own.filter((item) => item.kind === 'rush'),
    ids: own.map(({ id }) => id),
  };
}
