/** A bar that holds as much as it can: every route of the API's description that answers, asked for the most that it takes. */
import request from 'supertest';
import { ANSWER_MAX, PRACTICE_MAX, type PracticeItem } from '@even-kettle/core/contract';
import { ADDRESSES, addressOf, type RouteId } from '@even-kettle/core/contract/addresses';
import { SCHOOLS } from '@even-kettle/core/recipe';
import { bar, brewed, cup, http, newId, now, open, close, order, post, source } from '../testing/bar';

const DAY_MS = 86_400_000;
const pour = (n: number): PracticeItem => ({
  kind: 'pour',
  id: newId(),
  atMs: Math.round(now()) - 1000 + n,
  by: 'Noor',
  drill: 'recipe',
  packed: Array.from({ length: 30_000 }, () => -99_999),
});
const keep = (item: PracticeItem) => request(http).post('/api/practice').send(item);
const stored = (item: PracticeItem, bytes = JSON.stringify(item).length) =>
  source.query('INSERT INTO practice_item (id, at_ms, kind, bytes, body) VALUES (?, ?, ?, ?, ?)', [
    item.id,
    item.atMs,
    item.kind,
    bytes,
    JSON.stringify(item),
  ]);
const of = (id: RouteId): string => {
  const query: Partial<Record<RouteId, string>> = {
    getLog: '?limit=200',
    getLearnt: '?recipeId=cone-thirds&coffee=Saltmarsh',
    getDay: `?fromMs=${Math.round(now()) - DAY_MS}&toMs=${Math.round(now())}`,
    getToday: `?fromMs=${Math.round(now())}&toMs=${Math.round(now()) + DAY_MS}`,
  };
  const name = /Recipe/.test(id) ? 'house-1' : 'c1.1';
  return addressOf(id).path.replace('{id}', name) + (query[id] ?? '');
};

test('practice is kept by items and by bytes of each kind, and comes in pages that lose and double nothing', async () => {
  const many = Math.floor(PRACTICE_MAX.pour.bytes / JSON.stringify(pour(0)).length);
  const pours = Array.from({ length: many }, (_, n) => pour(n));
  for (const each of pours) await stored(each);
  expect((await keep(pour(0))).status).toBe(409);
  const assigned = {
    kind: 'assignment',
    id: newId(),
    atMs: Math.round(now()),
    person: 'imre',
    lesson: 'first-bloom',
  } as const;
  expect((await keep(assigned)).status).toBe(204);
  // One in the place of another of its id still fits.
  expect((await keep({ ...pours[3]!, by: 'Tavi' } as PracticeItem)).status).toBe(204);
  const ids: string[] = [];
  for (let after = ''; ;) {
    const { body, text } = await request(http).get(`/api/practice${after}`);
    expect(text.length).toBeLessThan(ANSWER_MAX.getPractice as number);
    ids.push(...(body.items as PracticeItem[]).map(({ id }) => id));
    if (body.next === null) break;
    after = `?after=${encodeURIComponent(body.next)}`;
  }
  expect(ids).toEqual([...pours.map(({ id }) => id), assigned.id]);
});

test('no answer is larger than the table of answers says, whatever the bar holds', async () => {
  await brewed(1);
  const long = 'x'.repeat(38);
  for (let n = 0; n < 40; n += 1) await stored(pour(n));
  const recipe = { ...SCHOOLS[0]!, id: 'house-1', notes: 'n'.repeat(2000) };
  const body = (version: number) => JSON.stringify({ ...recipe, version });
  const versions = Math.ceil(8e6 / body(100).length);
  for (let n = 1; n <= versions; n += 1)
    await source.query('INSERT INTO recipe_version VALUES (?, ?, 0, ?)', [recipe.id, n, body(n)]);
  for (let n = 0; n < 200; n += 1)
    await source.query(`INSERT INTO file_import VALUES (?, ?, 'kept', 1, 0)`, [
      `import-${n}`,
      'n'.repeat(120),
    ]);
  await close();
  await open();
  expect(await bar.saveRecipe({ recipe: { ...SCHOOLS[0]!, id: 'one-more' }, basedOn: null })).toMatchObject({
    why: 'full',
  });
  const weighed = (n: number) => ({
    id: newId(),
    type: 'coffee-weighed',
    atMs: now(),
    coffee: `${long}${n % 10}`,
    stockG: n,
  });
  for (let n = 0; n < 10_000; n += 500)
    await bar.log.append(Array.from({ length: 500 }, (_, k) => weighed(n + k)));
  expect((await post(weighed(1))).body.errors[0].code).toBe('too-many');
  const wordy = (n: number) => ({ allergy: 'a'.repeat(80), note: 'n'.repeat(120), cupMl: 200 + n });
  await post(
    ...Array.from({ length: 100 }, (_, n) => ({
      ...order(`full-${n}`, ...[1, 2, 3, 4, 5, 6].map((k) => cup(`full-${n}-${k}`, wordy(k)))),
      name: long,
    })),
  );
  const renamed = () => ({ id: newId(), type: 'order-renamed', atMs: now(), orderId: 'full-0', name: long });
  await post(...Array.from({ length: 199 }, renamed));
  expect((await post(renamed())).body.errors[0].code).toBe('too-many');
  // What ends something is taken all the same.
  const left = (n: number) => ({ id: newId(), type: 'guest-left', atMs: now(), orderId: `full-${n}` });
  expect((await post(left(0))).status).toBe(200);
  const asked = (Object.keys(ADDRESSES) as RouteId[]).filter(
    (id) => addressOf(id).method === 'GET' && ANSWER_MAX[id] !== 'streamed',
  );
  for (const id of asked) {
    const { status, text } = await request(http).get(of(id)).buffer(true);
    expect([id, status < 500, text.length <= (ANSWER_MAX[id] as number)]).toEqual([id, true, true]);
  }
});
