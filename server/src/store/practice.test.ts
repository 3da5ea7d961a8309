/** What Practice keeps, over the API and in the file: apart from the log, and through a restart. */
import request from 'supertest';
import { bar, close, http, newId, open, source, stored, warned } from '../testing/bar';

const tried = (more: object = {}) => ({
  kind: 'try',
  id: newId(),
  atMs: bar.clock.nowMs(),
  person: 'imre',
  drill: 'hold',
  score: 82,
  measures: {
    lineG: 1.4,
    overshootG: 0.2,
    flowOff: 0.21,
    uneven: 1.2,
    pathOff: null,
    wallShare: 0,
    dryShare: 0.1,
    rhythmS: null,
  },
  ...more,
});
const keep = (item: object) => request(http).post('/api/practice').send(item);
const items = async () =>
  (await request(http).get('/api/practice')).body.items as { id: string; score?: number }[];

test('a try on the record is there after a restart, and is no event of the log', async () => {
  const [before, first] = [await stored(), tried()];
  expect((await keep(first)).status).toBe(204);
  const pour = {
    kind: 'pour',
    id: newId(),
    atMs: bar.clock.nowMs(),
    by: 'Noor',
    drill: 'recipe',
    recipeId: 'cone-thirds',
    cupMl: 250,
    packed: [1, 2, 3, 999, 999],
  };
  expect((await keep(pour)).status).toBe(204);
  await close();
  await open();
  expect(await items()).toEqual([first, pour]);
  expect(await stored()).toBe(before);
});

test('an item of the same id takes its place; one is removed by its id, once', async () => {
  const first = tried();
  await keep(first);
  await keep({ ...first, score: 90 });
  expect((await items()).map(({ score }) => score)).toEqual([90]);
  expect((await request(http).delete(`/api/practice/${first.id}`)).status).toBe(204);
  expect((await request(http).delete(`/api/practice/${first.id}`)).status).toBe(404);
  expect(await items()).toEqual([]);
});

test.each([
  ['a score over a hundred', { score: 101 }, 'score'],
  ['nobody', { person: undefined }, 'person'],
  ['a drill that there is not', { drill: 'juggling' }, 'drill'],
  ['a measure that is left out', { measures: { lineG: 1 } }, 'measures'],
  ['a field that is not known', { secret: 1 }, ''],
])('%s is refused at its field, and nothing is kept', async (_what, wrong, field) => {
  const { status, body } = await keep(tried(wrong));
  expect(status).toBe(422);
  expect(body.errors[0].field).toContain(field);
  expect(await items()).toEqual([]);
});

test('rush drills, lessons and variants are kept beside tries, each by its own rules', async () => {
  const at = { id: newId(), atMs: bar.clock.nowMs() };
  const rush = {
    ...at,
    kind: 'rush',
    person: 'imre',
    level: 'six',
    surprises: ['spilt'],
    isMastered: true,
    idleS: 12,
  };
  const lesson = { ...at, id: newId(), kind: 'assignment', person: 'imre', lesson: 'first-bloom' };
  for (const item of [rush, lesson]) expect((await keep(item)).status).toBe(204);
  expect(await items()).toHaveLength(2);
  expect((await keep({ ...rush, surprises: ['earthquake'] })).status).toBe(422);
  expect((await keep({ ...lesson, lesson: 'juggling' })).status).toBe(422);
  expect((await keep({ ...at, kind: 'variant', variant: { name: 'half of one' } })).status).toBe(422);
});

test('a row that cannot be read is left out and told', async () => {
  await keep(tried());
  await source.query(`UPDATE "practice_item" SET "body" = '{"kind":"try"'`);
  expect(await items()).toEqual([]);
  expect(warned.some((words) => words.includes('cannot be read'))).toBe(true);
});
