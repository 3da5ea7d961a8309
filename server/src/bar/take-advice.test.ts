/** Advice is taken up whole or not at all: what is kept for the coffee, and what the log says of it. */
import request from 'supertest';
import type { Bar } from '@even-kettle/core/contract';
import { bar, brewed, close, get, http, newId, now, open, stored, taste } from '../testing/bar';

const GRINDER = {
  id: 'grinder-1',
  name: 'Grinder',
  points: [
    { band: 20, setting: 30 },
    { band: 80, setting: 6 },
  ],
};
const SALTMARSH = { id: 'saltmarsh', name: 'Saltmarsh', roast: 'light', notes: '', decaf: false };

/** A slow, bitter brew, and what its record advises. */
async function advised() {
  await request(http)
    .patch('/api/bar')
    .send({ grinders: [GRINDER], coffees: [SALTMARSH] })
    .expect(200);
  const brewId = await brewed(1, { brewS: 240, setting: 20 });
  await taste(brewId, { balance: 1 });
  const { advice } = await get(`/api/brews/${brewId}`);
  return { brewId, words: advice.words as string };
}
const take = (brewId: string, words: string, change: object = {}) =>
  request(http)
    .post(`/api/brews/${brewId}/take-advice`)
    .send({ id: newId(), atMs: Math.round(now()), words, ...change });
const kept = () => bar.bar().coffees.map(({ recipeChanges }) => recipeChanges);
const tried = () => (bar.log.state().houseEvents ?? []).filter(({ type }) => type === 'change-tried');

test('what is kept and what the log says come together, and once, however often it is sent', async () => {
  const { brewId, words } = await advised();
  expect(words).toMatch(/steps? coarser/);
  const asked = { id: newId(), atMs: Math.round(now()), by: 'noor' };
  const first = await take(brewId, words, asked).expect(200);
  const answer = first.body as Bar;
  const steps = answer.coffees[0]!.recipeChanges!['cone-thirds']!.grindBy!['grinder-1']!;
  expect(steps).toBeGreaterThan(0);
  expect(tried()).toMatchObject([
    { ...asked, words, fromBrewId: brewId, recipeId: 'cone-thirds', coffee: 'Saltmarsh' },
  ]);
  const seq = await stored();
  await take(brewId, words, asked).expect(200);
  expect([kept()[0]!['cone-thirds']!.grindBy, await stored()]).toEqual([{ 'grinder-1': steps }, seq]);
  // Both are there after a start.
  await close();
  await open();
  expect([kept()[0]!['cone-thirds']!.grindBy, tried().length]).toEqual([{ 'grinder-1': steps }, 1]);
});

test('nothing of it is stored where the advice is another by now, the bench cannot keep it, or the log refuses it', async () => {
  const { brewId, words } = await advised();
  const before = await stored();
  const stale = await take(brewId, 'two steps finer');
  expect([stale.status, stale.body.detail]).toEqual([
    409,
    'The record advises something else by now. Look at the brew again.',
  ]);
  const ahead = await take(brewId, words, { atMs: Math.round(now()) + 3 * 86_400_000 });
  expect(ahead.status).toBe(422);
  expect((await take('nobody.1', words)).status).toBe(404);
  await request(http)
    .patch('/api/bar')
    .send({ coffees: [{ ...SALTMARSH, id: 'ebb', name: 'Ebb' }] })
    .expect(200);
  const gone = await take(brewId, words);
  expect([gone.status, gone.body.detail]).toEqual([
    409,
    'This coffee or its grinder is not on the bench now. Set it by hand.',
  ]);
  await request(http)
    .patch('/api/bar')
    .send({ coffees: [SALTMARSH] })
    .expect(200);
  expect([kept(), tried(), await stored()]).toEqual([[undefined], [], before]);
});
