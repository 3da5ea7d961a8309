/** The built app as browsers get it: compressed by the build where they can read that, and kept for good. */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import express from 'express';
import request from 'supertest';
import { serveBuiltApp } from './built-app';

const SCRIPT = 'console.log("a script of the app");\n'.repeat(200);
let folder: string;
const served = () => {
  const app = express();
  serveBuiltApp(app, folder);
  return app;
};

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'even-kettle-app-'));
  mkdirSync(join(folder, '_expo'));
  mkdirSync(join(folder, 'assets'));
  writeFileSync(join(folder, 'index.html'), '<title>Even Kettle</title>');
  writeFileSync(join(folder, '_expo/entry-1.js'), SCRIPT);
  writeFileSync(join(folder, '_expo/entry-1.js.br'), brotliCompressSync(SCRIPT));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('a script comes as the build compressed it to a browser that reads that, and as it is to another', async () => {
  const small = await request(served())
    .get('/_expo/entry-1.js')
    .set('Accept-Encoding', 'br, gzip')
    .buffer(false);
  expect(small.headers).toMatchObject({
    'content-encoding': 'br',
    'content-type': expect.stringMatching(/javascript/),
    'cache-control': 'public, max-age=31536000, immutable',
    vary: expect.stringMatching(/accept-encoding/i),
  });
  expect(Number(small.headers['content-length'])).toBeLessThan(SCRIPT.length / 10);
  const plain = await request(served()).get('/_expo/entry-1.js').set('Accept-Encoding', 'identity');
  expect(plain.headers['content-encoding']).toBeUndefined();
  expect(plain.text).toBe(SCRIPT);
});

test('a script that is not there is missing; any other address is the app’s own page, asked for anew each time', async () => {
  expect((await request(served()).get('/_expo/entry-2.js')).status).toBe(404);
  const page = await request(served()).get('/recipes/cone-thirds');
  expect([page.status, page.text, page.headers['cache-control']]).toEqual([
    200,
    '<title>Even Kettle</title>',
    'no-cache',
  ]);
});

test('an app that is not built is said to be missing, with what to do', () => {
  expect(() => serveBuiltApp(express(), join(folder, 'assets'))).toThrow(/Run npm run build/);
});
