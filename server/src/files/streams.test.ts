/** Files read piece by piece: nothing is lost where the pieces meet, and what has no end is told before memory runs out. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FileFault } from './csv';
import { itemsOfFile, rowsOfFile, type ArchiveItem } from './streams';

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'even-kettle-streams-'))));
afterEach(() => rmSync(folder, { recursive: true }));

/** Pieces are 64 KB: letters of several bytes and cells of several lines fall on their edges. */
const MANY = 6000;

async function rows(body: string | Buffer, needs: string[] = ['coffee', 'said']) {
  const file = join(folder, 'table.csv');
  writeFileSync(file, body);
  let bytes = 0;
  const all = [];
  for await (const row of rowsOfFile(file, needs, (read) => (bytes = read))) all.push(row);
  return { all, bytes };
}
async function items(body: string) {
  const file = join(folder, 'archive.json');
  writeFileSync(file, body);
  const all: ArchiveItem[] = [];
  for await (const item of itemsOfFile(file, () => undefined)) all.push(item);
  return all;
}

test('rows of a long table come one after another, letters and lines whole, with their place and how far it is', async () => {
  const said = (n: number) => `“größer”, ☕ ${n}\nand ""so""`;
  const body = `\uFEFFCoffee,SAID\r\n${Array.from({ length: MANY }, (_, n) => `Röst ${n},"${said(n)}"\r\n`).join('')}`;
  const { all, bytes } = await rows(body);
  expect(bytes).toBe(Buffer.byteLength(body));
  expect(all).toHaveLength(MANY);
  for (const n of [0, 1, 2999, MANY - 1])
    expect(all[n]).toEqual({
      line: n + 2,
      cells: { coffee: `Röst ${n}`, said: said(n).replaceAll('""', '"') },
    });
});

test('a table with semicolons is one too; the mark before a formula is taken off', async () => {
  const { all } = await rows("coffee;said\nGull;'=1+1\nFog;'quoted\n");
  expect(all.map(({ cells }) => cells['said'])).toEqual(['=1+1', "'quoted"]);
});

test.each([
  ['coffee\nGull\n', /must name the columns coffee, said; said is missing/],
  ['coffee,said\nGull,a,b\n', /^Line 2: it has more cells than the first line names/],
  [Buffer.from('coffee,said\nGull,gr\u00f6\n', 'latin1'), /is not UTF-8 text/],
  [Buffer.from('coffee,said\nGull,a\n', 'utf16le'), /UTF-8|must name/],
  [`coffee,said\nGull,"${'no end, '.repeat(600_000)}`, /^After line 1: no row ends/],
])('what is no table is told in words (%#)', async (body, words) => {
  const read = rows(body);
  await expect(read).rejects.toBeInstanceOf(FileFault);
  await expect(read).rejects.toThrow(words);
});

test('items of an archive come one by one, however it is laid out, with their list and place', async () => {
  const events = Array.from({ length: MANY }, (_, n) => ({ id: `e${n}`, said: `[{"} ☕ ${n}`, of: [{ n }] }));
  const archive = { format: 'x@1', bar: { name: 'Quay', units: { mass: 'g' } }, events, empty: [] };
  for (const body of [JSON.stringify(archive), JSON.stringify(archive, null, 2)]) {
    const all = await items(body);
    expect(all[0]).toEqual({ part: 'format', at: '', value: 'x@1' });
    expect(all.slice(1, 3)).toEqual([
      { part: 'bar', at: 'name', value: 'Quay' },
      { part: 'bar', at: 'units', value: { mass: 'g' } },
    ]);
    expect(all).toHaveLength(3 + MANY);
    expect(all.at(-1)).toEqual({ part: 'events', at: String(MANY - 1), value: events.at(-1) });
  }
});

test.each([
  ['{"events":[{"id":"e1"}', /ends too soon/],
  ['{"events":[{"id":"e1"},]}', /is no JSON/],
  ['{"events":[] "bar":{}}', /is no JSON/],
  ['[]', /begins with \{/],
  ['', /ends too soon/],
  [`{"bar":${'{"a":'.repeat(30)}1${'}'.repeat(30)}}`, /nested deeper than 24 levels/],
  [`{"bar":{"name":"${'x'.repeat(5_000_000)}"}}`, /does not end/],
])('what is no archive is told in words (%#)', async (body, words) => {
  const read = items(body);
  await expect(read).rejects.toBeInstanceOf(FileFault);
  await expect(read).rejects.toThrow(words);
});
