/** The live stream over real connections: none missed, none twice, none out of order. */
import express from 'express';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import type { LiveEvent } from '@even-kettle/core/contract';
import { openBroadcaster, type Broadcaster } from './broadcaster';

const eventAt = (seq: number): LiveEvent => ({
  seq,
  event: { id: `e${seq}`, type: 'guest-left', atMs: seq, orderId: 'o' },
});

let broadcaster: Broadcaster;
let server: Server;
afterEach(() => {
  broadcaster.close();
  server.closeAllConnections();
  server.close();
});

/** A log of so many events, read in pages of ten, and a server that streams it. */
async function stand(length: number, onPage: (page: number) => void = () => undefined) {
  const log = Array.from({ length }, (_, n) => eventAt(n + 1));
  let pages = 0;
  broadcaster = openBroadcaster(
    async (seq) => {
      const page = log.filter((event) => event.seq > seq).slice(0, 10);
      onPage((pages += 1));
      return page;
    },
    () => [{ name: 'recipes', data: { recipes: [] } }],
  );
  const app = express();
  app.get('/live', (request, response) =>
    broadcaster.join(request, response, Number(request.query['after'] ?? 0)),
  );
  server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  return { log, url: `http://127.0.0.1:${port}/live` };
}

/** Reads a stream until a line of it is there; gives its messages. */
async function readUntil(url: string, last: string): Promise<{ name: string; seq: number | null }[]> {
  const leaving = new AbortController();
  const answer = await fetch(url, { signal: leaving.signal });
  expect(answer.headers.get('content-type')).toMatch(/^text\/event-stream/);
  let text = '';
  const decoder = new TextDecoder();
  for await (const chunk of answer.body!) {
    text += decoder.decode(chunk as Uint8Array, { stream: true });
    if (text.includes(last)) break;
  }
  leaving.abort();
  return text
    .split('\n\n')
    .filter((block) => block.includes('event: '))
    .map((block) => ({
      name: /^event: (.+)$/m.exec(block)![1]!,
      seq: Number(/^id: (\d+)$/m.exec(block)?.[1] ?? NaN) || null,
    }));
}
const seqs = (messages: { seq: number | null }[]) => messages.flatMap(({ seq }) => seq ?? []);

test('who comes back hears everything after the last that it has, recipes before all', async () => {
  const { url } = await stand(35);
  const messages = await readUntil(`${url}?after=12`, 'id: 35\n');
  expect(messages[0]!.name).toBe('recipes');
  expect(seqs(messages)).toEqual(Array.from({ length: 23 }, (_, n) => n + 13));
});

test('what happens while the past is still being read comes after it, once', async () => {
  const { log, url } = await stand(25, (page) => {
    // Between two pages the bar goes on: three events, of which the next page of the log has two already.
    if (page !== 2) return;
    const fresh = [26, 27, 28].map(eventAt);
    log.push(...fresh.slice(0, 2));
    broadcaster.broadcastEvents(fresh);
    log.push(fresh[2]!);
    broadcaster.broadcast('bar', { name: 'Lantern Pier' });
    broadcaster.broadcastEvents([eventAt(29)]);
  });
  const messages = await readUntil(url, 'id: 29\n');
  expect(seqs(messages)).toEqual(Array.from({ length: 29 }, (_, n) => n + 1));
  expect(messages.map(({ name }) => name)).toContain('bar');
});

test('a page that catches up more slowly than the bar goes on is cut off, and resumes when it can', async () => {
  let cut: boolean | null = null;
  const { url } = await stand(25, (page) => {
    if (page !== 2) return;
    for (let n = 0; n < 50 && broadcaster.listeners() > 0; n += 1)
      broadcaster.broadcast('bar', { name: 'x'.repeat(200_000) });
    cut = true;
  });
  const answer = await fetch(url);
  await expect(answer.text()).rejects.toThrow();
  expect([cut, broadcaster.listeners()]).toEqual([true, 0]);
});

test('a page that leaves is forgotten, and one address may have only so many', async () => {
  const { url } = await stand(1);
  const leaving = new AbortController();
  for (let n = 0; n < 40; n += 1) {
    expect(broadcaster.hasRoomFor('127.0.0.1')).toBe(true);
    await fetch(url, { signal: leaving.signal });
  }
  expect([broadcaster.listeners(), broadcaster.hasRoomFor('127.0.0.1')]).toEqual([40, false]);
  expect(broadcaster.hasRoomFor('10.0.0.9')).toBe(true);
  leaving.abort();
  for (let waits = 0; waits < 200 && broadcaster.listeners() > 0; waits += 1)
    await new Promise((resolve) => setTimeout(resolve, 10));
  expect([broadcaster.listeners(), broadcaster.hasRoomFor('127.0.0.1')]).toEqual([0, true]);
});
