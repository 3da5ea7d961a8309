/** Files that came to harm: cut off, of wrong types, in wrong encodings, nested without end. Nothing of them is taken, and the server goes on. */
import { rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import request from 'supertest';
import type { ImportKind } from '@even-kettle/core/contract';
import { seededRandom } from '@even-kettle/core/rush';
import { FileFault } from './files/csv';
import { doWork, type WorkPlace } from './imports/work';
import { openDatabase } from './store/database';
import { BrewTraceRow, EventRow } from './store/rows';
import { bar, brewed, folder, http, textOf } from './testing/bar';

const seed = Number(process.env['FUZZ_SEED'] ?? 20261125);
const RUNS = Math.ceil(60 * Number(process.env['FUZZ'] ?? 1));
console.info(`files.fuzz seed ${seed}`);

const ROASTS =
  'coffee,roast,roasted_on,notes,decaf\r\nSaltmarsh,light,2026-11-20,"red, sweet",no\r\nFog,dark,,,yes\r\n';
const ORDERS =
  'order,guest,coffee,recipe,ml\r\n1,pilot,House coffee,cone-thirds,250\r\n1,,House coffee,press-long,240\r\n';

const LOG =
  'ended,coffee,recipe,dose_g,brew_s,seen\r\n2026-01-02T08:00:00Z,Saltmarsh,cone-thirds,18,191,"bed even, it stalled"\r\n2026-01-02T08:10:00Z,Fog,cone-thirds,18,180,\r\n';

const send = (what: string, body: string | Buffer) =>
  request(http).post(`/api/files/${what}`).set('Content-Type', 'text/csv').send(body);

/** As the import's worker does it: looked at, then taken into a bar of its own. */
async function readIn(kind: ImportKind, body: string | Buffer): Promise<'taken' | 'refused'> {
  const file = join(folder, 'came-in');
  writeFileSync(file, body);
  const source = await openDatabase(join(folder, 'other.sqlite'));
  const worker: WorkPlace = {
    source,
    nowMs: Date.UTC(2027, 0, 1),
    onBytes: () => undefined,
    stopped: () => false,
  };
  try {
    const { found } = await doWork({ do: 'look', kind, file }, worker);
    if (found!.faulty > 0) return 'refused';
    await doWork({ do: 'take', kind, file, importId: 'i', leaveOutFaulty: false }, worker);
    return 'taken';
  } catch (error) {
    // Anything else would be told as a fault of the server's.
    expect(error).toBeInstanceOf(FileFault);
    expect([await source.manager.count(EventRow), await source.manager.count(BrewTraceRow)]).toEqual([0, 0]);
    return 'refused';
  } finally {
    await source.destroy();
    for (const end of ['', '-wal', '-shm']) rmSync(join(folder, `other.sqlite${end}`), { force: true });
  }
}

test('a broken archive, log, roast list or list of orders is refused in words, and the bar is as it was', async () => {
  const random = seededRandom(seed);
  const whole = (below: number) => Math.floor(random() * below);
  await brewed(1);
  const archive = await textOf('/api/files/archive.json');
  const before = { seq: bar.log.seq(), bar: JSON.stringify(bar.bar()) };
  const answers = new Map<string, number>();
  for (let run = 0; run < RUNS; run += 1) {
    const [what, text] = (
      [
        ['archive', archive],
        ['roasts', ROASTS],
        ['log', LOG],
        ['orders', ORDERS],
      ] as const
    )[run % 4]!;
    const broken = harm(text, whole, random);
    let came: string;
    if (what === 'archive' || what === 'log') came = await readIn(what, broken);
    else {
      // Looked at, without ?take=1.
      const answer = await send(what, broken);
      came = String(answer.status);
      expect([run, answer.status < 500]).toEqual([run, true]);
      if (answer.status >= 400) expect(answer.body.detail).toBeTruthy();
    }
    answers.set(`${what} ${came}`, (answers.get(`${what} ${came}`) ?? 0) + 1);
    expect({ seq: bar.log.seq(), bar: JSON.stringify(bar.bar()) }).toEqual(before);
  }
  console.info([...answers].map(([what, count]) => `${what}: ${count}`).join(', '));
  expect((await request(http).get('/api/health')).status).toBe(200);
});

test.each([
  ['archive', 'nested arrays', '['.repeat(200_000)],
  ['archive', 'nested objects', '{"format":'.repeat(100_000)],
  [
    'archive',
    'nesting that ends',
    `{"format":"even-kettle/archive@1","bar":${'['.repeat(5000)}${']'.repeat(5000)}}`,
  ],
  [
    'archive',
    'brackets in a text',
    `{"format":"even-kettle/archive@1","bar":{"name":"${'['.repeat(5000)}"}}`,
  ],
  ['archive', 'an item without end', `{"format":"even-kettle/archive@1","events":["${'x'.repeat(5_000_000)}`],
  ['archive', 'a null', 'null'],
  ['archive', 'a list', '[1,2,3]'],
  ['archive', 'a text', '"archive"'],
  ['archive', 'nothing', ''],
  ['log', 'nothing', ''],
  ['log', 'a quote without end', `ended,coffee,recipe,dose_g\n"${'x,\n'.repeat(2_000_000)}`],
  ['log', 'no table', 'PK\u0003\u0004\u0000'],
  ['log', 'only names', 'ended,coffee,recipe,dose_g\n'],
] as const)('%s of %s: told to be none', async (kind, _what, body) => {
  expect(await readIn(kind, body)).toBe('refused');
});

/** Cuts it off, turns letters, writes it in another encoding, swaps types, repeats parts. */
function harm(text: string, whole: (below: number) => number, random: () => number): string | Buffer {
  const at = whole(text.length);
  switch (whole(7)) {
    case 0:
      return text.slice(0, at);
    case 1:
      return Buffer.from(text, 'utf16le');
    case 2: {
      const bytes = Buffer.from(text);
      for (let n = 0; n < 12; n += 1) bytes[whole(bytes.length)] = whole(256);
      return bytes;
    }
    case 3:
      return text.replace(/"[a-z]\w*"/gi, (word) => (random() < 0.2 ? 'null' : word));
    case 4:
      return text.replace(/\d+/g, (figure) => (random() < 0.3 ? '"x"' : random() < 0.3 ? '1e999' : figure));
    case 5:
      return text.slice(0, at) + text.slice(at).repeat(3);
    default:
      return text.replaceAll(',', random() < 0.5 ? ';' : '\u0000');
  }
}
