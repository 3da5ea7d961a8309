/**
 * Ready lessons, each of about five minutes, from the first bloom to two brewers at once.
 */
import type { Exercise } from './drill';
import type { RushLevel, Surprise } from './rush-drill';
import { drillKey, type PourTry } from './tries';

export type Lesson = { id: string } & (
  | { drill: Exercise }
  | { drill: 'recipe'; recipeId: string; cupMl: number }
  | { rush: RushLevel; surprises: readonly Surprise[] }
);

export const LESSONS = [
  { id: 'first-bloom', drill: 'bloom' },
  { id: 'even-flow', drill: 'hold' },
  { id: 'clean-stop', drill: 'stop' },
  { id: 'on-the-beat', drill: 'beat' },
  { id: 'three-pours', drill: 'recipe', recipeId: 'cone-thirds', cupMl: 250 },
  { id: 'one-long-pour', drill: 'recipe', recipeId: 'cone-steady', cupMl: 250 },
  { id: 'small-pulses', drill: 'recipe', recipeId: 'flat-small', cupMl: 250 },
  { id: 'one-cup', rush: 'one', surprises: [] },
  { id: 'two-brewers', rush: 'two', surprises: [] },
] as const satisfies readonly Lesson[];
export type LessonId = (typeof LESSONS)[number]['id'];
export const LESSON_IDS = LESSONS.map(({ id }) => id);

export const lessonOf = (id: string | undefined): Lesson | undefined =>
  LESSONS.find((lesson) => lesson.id === id);

/** What a person's record holds of pours and of rushes. */
export type Practised =
  | (Pick<PourTry, 'drill' | 'recipeId' | 'cupMl' | 'score' | 'atMs'> & { kind: 'try' })
  | { kind: 'rush'; level: RushLevel; isMastered: boolean; atMs: number };

/** From this score on a lesson's pour is done. */
export const DONE_SCORE = 80;

/** Whether what was practised since a moment does a lesson. */
export const isLessonDone = (lesson: Lesson, practised: readonly Practised[], sinceMs: number): boolean =>
  practised.some((each) => {
    if (each.atMs < sinceMs) return false;
    if (each.kind === 'rush') return 'rush' in lesson && each.level === lesson.rush && each.isMastered;
    return 'drill' in lesson && drillKey(each) === drillKey(lesson) && each.score >= DONE_SCORE;
  });
