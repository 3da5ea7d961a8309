/**
 * A bar of version 0.1 in the middle of a shift: its database opens, and the bar, its brews and its records are what they
 * were. The fixture was made by that version, with one event of nearly every type in it; what it said of itself lies beside it.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { withoutGuest, type BarState } from '@even-kettle/core/brew';
import { barEventSchema, upgradedEvent, type Bar, type LogPage } from '@even-kettle/core/contract';
import type { Recipe } from '@even-kettle/core/recipe';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { readBar } from '../bench';
import { folder } from '../testing/bar';
import { openDatabase } from './database';
import { openLog } from './log';
import { openRecipes } from './recipes';
import { openRecords } from './records';

type Before = {
  seq: number;
  latestMs: number;
  state: BarState;
  records: LogPage;
  bar: Bar;
  recipes: Recipe[];
};
const fixture = (name: string) => gunzipSync(readFileSync(join(__dirname, 'fixtures', name)));
const before: Before = JSON.parse(fixture('version-0.1.json.gz').toString());

async function opened(warn: (message: string) => void) {
  const file = join(folder, 'before.sqlite');
  writeFileSync(file, fixture('version-0.1.sqlite.gz'));
  const source = await openDatabase(file);
  const recipes = await openRecipes(source, warn);
  const log = await openLog(source, recipes.book, { warn, rules: 'this version' });
  return { source, recipes, log };
}

test('the state, the settings, the recipes and the records of before are read the same', async () => {
  const warned: string[] = [];
  const { source, recipes, log } = await opened((message) => warned.push(message));
  expect([log.seq(), log.latestMs(), log.damage(), warned]).toEqual([before.seq, before.latestMs, [], []]);
  expect(withoutWindows(withoutGuests(log.state()))).toEqual(withoutWindows(withoutGuests(before.state)));
  expect(recipes.saved()).toEqual(before.recipes);
  expect(await readBar(source.manager)).toEqual(before.bar);
  const page = async () =>
    asJson((await openRecords(source).page({ limit: 200 })).records) as LogPage['records'];
  const records = await page();
  // Drawdowns count from the last pour now, and not from the end of the swirl after it; what was filled, and what came back, is new.
  const others = (of: typeof records) =>
    of.map(({ drawdownS: _, filledG: _filledG, isSentBack: _isSentBack, ...rest }) => rest);
  expect(others(records)).toEqual(others(before.records.records));
  const longerS = records.flatMap(({ drawdownS }, n) =>
    drawdownS === null ? [] : [Math.round(drawdownS - before.records.records[n]!.drawdownS!)],
  );
  expect([longerS.length > 5, new Set(longerS)]).toEqual([true, new Set([4])]);
  // Made anew from the log, they are the same again.
  await log.rebuildRecords();
  expect(await page()).toEqual(records);
  await log.settled();
  await source.destroy();
});

test('the shift goes on: what is told next is taken', async () => {
  const { source, log } = await opened(() => undefined);
  const brew = Object.values(log.state().brews).find(({ status }) => status === 'running')!;
  const id = '00000000-0000-7000-8000-00000000ffff';
  const noted = { id, type: 'brew-noted', atMs: log.latestMs() + 1000, brewId: brew.id, note: 'stalled' };
  expect(await log.append([noted])).toMatchObject({ ok: true, seq: before.seq + 1 });
  await log.settled();
  await source.destroy();
});

test('what a device of before kept while the server was upgraded is taken: every event as it wrote it', async () => {
  const { source } = await opened(() => undefined);
  const rows = await source.query<{ body: string }[]>('SELECT body FROM event');
  const refused = rows
    .map(({ body }) => barEventSchema.safeParse(upgradedEvent(JSON.parse(body))))
    .flatMap((read) => read.error?.issues ?? []);
  expect([rows.length > 100, refused]).toEqual([true, []]);
  await source.destroy();
});

test('the fixture holds most of the types of events that there were', async () => {
  const { source, log } = await opened(() => undefined);
  const types = new Set<string>();
  for (let seq = 0; seq < before.seq;) {
    const page = await log.after(seq);
    for (const { event } of page) types.add(event.type);
    seq = page.at(-1)!.seq;
  }
  expect(types.size).toBeGreaterThanOrEqual(18);
  expect(bookOf(SCHOOLS)({ recipeId: 'siphon-late', recipeVersion: 1 })).toBeDefined();
  await source.destroy();
});

/** Two fields of the state have other names since; they are not stored. */
const NOW_CALLED: Record<string, string> = { things: 'houseEvents', tried: 'attempts' };
/** Names of guests were kept for as long as their orders, and orders that were closed an hour ago stood among the others. */
const withoutGuests = ({ orders, brews, settled = [], ...rest }: BarState) => ({
  ...rest,
  brews: {
    ...brews,
    ...Object.fromEntries(settled.flatMap((each) => each.brews.map((brew) => [brew.id, brew]))),
  },
  orders: byId([...Object.values(orders), ...settled.flatMap((each) => each.orders)]).map(
    ({ name: _name, ...order }) => ({
      ...order,
      events: order.events.map((event) => withoutGuest(event)),
    }),
  ),
});

const byId = <Item extends { id: string }>(items: Item[]): Item[] =>
  items.sort((a, b) => (a.id < b.id ? -1 : 1));

/** How long a step may wait is the planner's, worked out anew and since narrowed; what is brewed is not. */
const withoutWindows = (state: object): unknown =>
  JSON.parse(
    JSON.stringify(state, (key, value: unknown) => (key === 'lag' ? undefined : value)).replace(
      /"(things|tried)":/g,
      (_all, name: string) => `"${NOW_CALLED[name]!}":`,
    ),
  );
const asJson = (value: unknown): unknown => JSON.parse(JSON.stringify(value));
