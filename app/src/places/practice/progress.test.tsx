/** The trainer's view: what was asked of whom, what is done, and what each person has on the record. */
import { screen } from '@testing-library/react-native';
import type { PracticeItem } from '@even-kettle/core/contract';
import { LESSONS, lessonOf } from '@even-kettle/core/practice';
import { EMPTY_BAR } from '@even-kettle/core/brew';
import { TEST_BAR, press } from '../../testing/bar';
import { showLogPage } from '../../testing/log';
import { progressOf } from './progress';
import { TrainerPage } from './trainer-page';
import { WORDS } from './words';

jest.mock('expo-router', () => ({
  router: { push: () => undefined, navigate: () => undefined },
  useLocalSearchParams: () => ({}),
}));

const measures = {
  lineG: 1,
  overshootG: 1,
  flowOff: 0.1,
  uneven: 1,
  pathOff: null,
  wallShare: 0,
  dryShare: 0,
  rhythmS: null,
};
const tried = (id: string, atMs: number, score: number, person = 'imre'): PracticeItem => ({
  kind: 'try',
  id,
  atMs,
  person,
  drill: 'hold',
  score,
  measures,
});
const asked = (id: string, atMs: number, lesson: 'even-flow' | 'two-brewers'): PracticeItem => ({
  kind: 'assignment',
  id,
  atMs,
  person: 'imre',
  lesson,
});
const rushed = (id: string, atMs: number, isMastered: boolean): PracticeItem => ({
  kind: 'rush',
  id,
  atMs,
  person: 'imre',
  level: 'two',
  surprises: [],
  isMastered,
  idleS: 31,
});

test('a lesson is done by a good try after it was asked for, of that person and that drill', () => {
  const items = [
    tried('t0', 50, 95),
    asked('a', 100, 'even-flow'),
    asked('b', 100, 'two-brewers'),
    tried('t1', 200, 70),
    tried('t2', 300, 95, 'noor'),
  ];
  expect(progressOf('imre', items).assigned.map(({ isDone }) => isDone)).toEqual([false, false]);
  const later = [...items, tried('t3', 400, 81), rushed('r', 500, true)];
  const progress = progressOf('imre', later);
  expect(progress.assigned.map(({ isDone }) => isDone)).toEqual([true, true]);
  expect(progress.drills.map(({ key, tries }) => [key, tries.map(({ score }) => score)])).toEqual([
    ['hold', [95, 70, 81]],
  ]);
  expect(progress.ids).toEqual(['t0', 'a', 'b', 't1', 't3', 'r']);
  expect(
    progressOf('imre', [asked('b', 100, 'two-brewers'), rushed('r', 500, false)]).assigned[0]!.isDone,
  ).toBe(false);
});

test('every lesson has its name and what to notice, and there are seven to ten of them', () => {
  expect(LESSONS.length).toBeGreaterThanOrEqual(7);
  expect(LESSONS.length).toBeLessThanOrEqual(10);
  for (const { id } of LESSONS) {
    expect(lessonOf(id)?.id).toBe(id);
    expect(WORDS.notice[id]).toMatch(/^Notice .*\.$/);
    expect(WORDS.lessonNames[id]).toBeTruthy();
  }
});

test('the trainer assigns a lesson to a person of the Bench, sees their tries, and can remove all of a record', async () => {
  const kept: PracticeItem[] = [tried('t1', 200, 70), tried('t2', 300, 88)];
  const removed: string[] = [];
  await showLogPage(
    <TrainerPage />,
    {
      practice: () => Promise.resolve([...kept]),
      keepPractice: (item) => Promise.resolve(void kept.push(item)),
      removePractice: (id) => Promise.resolve(void removed.push(id)),
    },
    EMPTY_BAR,
    'live',
    { ...TEST_BAR, people: [{ id: 'imre', name: 'Imre' }] },
  );
  expect(await screen.findByText('Hold 4 g/s: 2 tries, 88 last, 88 at best.')).toBeTruthy();
  press('Assign');
  expect(await screen.findByText('The first bloom: not done yet')).toBeTruthy();
  expect(kept.at(-1)).toMatchObject({ kind: 'assignment', person: 'imre', lesson: 'first-bloom' });
  press('Remove the record of Imre');
  press('Remove all 3');
  await screen.findByLabelText('Remove the record of Imre');
  expect(removed.slice(0, 2)).toEqual(['t1', 't2']);
});
