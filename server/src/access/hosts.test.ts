/** Who may speak to the server, by name and by page. */
import { hostname } from 'node:os';
import request from 'supertest';
import { http } from '../testing/bar';
import { accessPolicy } from './hosts';

const judge = (headers: Record<string, string>, page = false, extra: string[] = []) => {
  const judged = accessPolicy(extra).judge(headers, page);
  return judged.ok ? 200 : judged.status;
};

test.each<[string, Record<string, string>, boolean, number]>([
  ['loopback', { host: '127.0.0.1:4173' }, false, 200],
  ['loopback of version 6', { host: '[::1]:4173' }, false, 200],
  ['localhost', { host: 'localhost:4173' }, false, 200],
  ['the machine’s own name', { host: `${hostname()}:4173` }, false, 200],
  ['a name that was pointed at this machine', { host: 'evil.example' }, false, 421],
  ['a name that only begins like it', { host: 'localhost.evil.example' }, false, 421],
  ['no name', {}, false, 421],
  ['a name that is none', { host: 'a b' }, false, 421],
  ['a name with more behind it', { host: '127.0.0.1/@evil.example' }, false, 421],
  ['its own page', { host: 'localhost:4173', origin: 'http://localhost:4173' }, false, 200],
  ['a page of another site', { host: 'localhost:4173', origin: 'http://evil.example' }, false, 403],
  ['a page of another port here', { host: 'localhost:4173', origin: 'http://localhost:3000' }, false, 403],
  ['a page without an address', { host: 'localhost:4173', origin: 'null' }, false, 403],
  [
    'a page of a neighbour under the same name',
    { host: 'localhost:4173', 'sec-fetch-site': 'same-site' },
    false,
    403,
  ],
  [
    'its own page, by what the browser says',
    { host: 'localhost:4173', 'sec-fetch-site': 'same-origin' },
    false,
    200,
  ],
  ['an image on another site', { host: 'localhost:4173', 'sec-fetch-site': 'cross-site' }, false, 403],
  [
    'a link on another site, to the app',
    { host: 'localhost:4173', 'sec-fetch-site': 'cross-site' },
    true,
    200,
  ],
])('%s', (_who, headers, page, status) => expect(judge(headers, page)).toBe(status));

test('over HTTPS a page of the same name that came in the clear is another site', () => {
  const asked = (origin: string) => accessPolicy().judge({ host: 'localhost:4173', origin }, false, true).ok;
  expect([asked('https://localhost:4173'), asked('http://localhost:4173')]).toEqual([true, false]);
});

test('a name of the settings is answered too', () => {
  expect(judge({ host: 'bar.example:4173' }, false, ['Bar.Example'])).toBe(200);
});

test('a web page that has rebound its name reaches nothing, neither to read nor to change', async () => {
  for (const path of ['/api/state', '/api/live', '/api/files/archive.json']) {
    const read = await request(http).get(path).set('Host', 'evil.example');
    expect([path, read.status, read.body.type]).toEqual([path, 421, 'urn:even-kettle:problem:not-from-here']);
  }
  for (const path of ['/api/bar', '/API/bar']) {
    const shown = await request(http).get(path).set('Sec-Fetch-Site', 'cross-site');
    expect([path, shown.status]).toEqual([path, 403]);
  }
  const across = await request(http)
    .patch('/api/bar')
    .set('Origin', 'http://evil.example')
    .send({ name: 'Mine now' });
  expect(across.status).toBe(403);
  expect((await request(http).get('/api/bar')).body.name).toBe('Brew bar');
});
