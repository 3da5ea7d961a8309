/**
 * A bar of version 0.1 with a recipe of its own, iced brews, a log from elsewhere, and guests of forty days ago: its database is
 * upgraded, and its archive restored, with nothing lost. The fixture was made by that version (`fixtures/version-0.1-life`).
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import type { BarState, BrewState } from '@even-kettle/core/brew';
import type { BrewCard } from '@even-kettle/core/recipe';
import type { Bar, BrewRecord, House } from '@even-kettle/core/contract';
import type { BarServer } from '../server';
import { buildImportWorker, folder, openOver, restoreInto, warned } from '../testing/bar';
import { openDatabase } from './database';

type Before = {
  seq: number;
  latestMs: number;
  state: BarState;
  records: { records: BrewRecord[] };
  recipes: unknown[];
  bar: Bar;
  imports: object[];
  house: House;
};
const fixture = (name: string) =>
  gunzipSync(readFileSync(join(__dirname, 'fixtures', `version-0.1-life.${name}.gz`)));
const before = JSON.parse(fixture('json').toString()) as Before;
beforeAll(buildImportWorker);

/** The bar as it was, a moment after its last event. */
const AT = { realNow: () => before.latestMs + 1000, steadyNow: () => performance.now() };
const opened = async (name: string, content?: Buffer): Promise<BarServer> => {
  const file = join(folder, name);
  if (content) writeFileSync(file, content);
  return openOver(await openDatabase(file), { clockSources: AT });
};

/**
 * What is brewed by: figures, and when which step asks for what. Taking the filter off has a step of its own since, before
 * serving; the two take as long as the one did.
 */
const figuresOf = ({
  doseG,
  brewWaterG,
  bypassG,
  beverageG,
  additionG,
  ratio,
  grindBand,
  waterC,
  steps,
}: BrewCard) => ({
  figures: { doseG, brewWaterG, bypassG, beverageG, additionG, ratio, grindBand, waterC },
  steps: steps
    .filter(({ phase }) => phase !== 'finish' && phase !== 'clean')
    .map(({ id, startS, durationS, targetG }) => ({ id, startS, durationS, targetG })),
});
const brewOf = ({ id, orderId, cupId, status, marks, planned, card }: BrewState) => ({
  ...{ id, orderId, cupId, status, marks },
  planned: figuresOf(planned),
  card: figuresOf(card),
});
const untilServed = ({ steps, ...record }: BrewRecord) => ({
  ...record,
  steps: steps.filter(({ phase }) => phase !== 'finish'),
});
/** All that the earlier version knew, by what it called it. */
const only = <Old extends object>(old: Old, now: object): object =>
  Object.fromEntries(Object.keys(old).map((key) => [key, (now as Record<string, unknown>)[key]]));

async function expectNothingLost(bar: BarServer): Promise<void> {
  expect([bar.log.seq(), bar.log.damage()]).toEqual([before.seq, []]);
  const { orders, brews, settled = [] } = bar.log.state();
  const everyOrder = [...Object.values(orders), ...settled.flatMap((each) => each.orders)];
  for (const old of Object.values(before.state.orders)) {
    const now = everyOrder.find(({ id }) => id === old.id)!;
    expect(now).toMatchObject({
      badge: old.badge,
      takenMs: old.takenMs,
      cups: old.cups.map(({ cupId, cupMl, status }) => ({ cupId, cupMl, status })),
    });
  }
  const everyBrew = [...Object.values(brews), ...settled.flatMap((each) => each.brews)];
  expect(everyBrew.map(brewOf).toSorted(byId)).toEqual(
    Object.values(before.state.brews).map(brewOf).toSorted(byId),
  );
  const { records } = await bar.records.page({ limit: 200 });
  expect(records.map(({ brewId }) => brewId)).toEqual(before.records.records.map(({ brewId }) => brewId));
  for (const [n, old] of before.records.records.entries())
    expect(untilServed(only(old, records[n]!) as BrewRecord)).toEqual(untilServed(old));
  expect(bar.recipes.saved()).toEqual(before.recipes);
  expect((await bar.imports.shown()).kept).toEqual(before.imports);
  const { pace: _pace, beds: _beds, version: _version, ...settings } = before.bar;
  expect(only(settings, bar.bar())).toEqual(settings);
  const house = await bar.learning.house();
  expect(house.coffees).toEqual(before.house.coffees);
  const bodies = JSON.stringify(await bar.log.after(0));
  expect(bodies).toMatch(/pilot of long ago.*rucksack of long ago/);
  expect(bar.bar().guestsDue).toMatchObject({ orders: 2 });
}
const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1);

test('its database is upgraded: every order, brew, record, recipe and setting is there, and iced brews keep their card', async () => {
  const bar = await opened('old.sqlite', fixture('sqlite'));
  await expectNothingLost(bar);
  const iced = bar.log.state().brews['ic1.1']!;
  // By today's rules it would be another.
  expect([iced.status, iced.card.brewWaterG, iced.card.grindBand]).toEqual(['running', 273, 52]);
  // Made anew from the log, the records are the same again; so is all of it after the next start.
  await bar.log.rebuildRecords();
  await expectNothingLost(bar);
  await bar.close();
  const again = await opened('old.sqlite');
  await expectNothingLost(again);
  await again.close();
  expect(warned.filter((words) => !/will be forgotten in a day|planning/.test(words))).toEqual([]);
});

test('its archive is restored into a new bar: all of it is there, with the orders by the bar’s own recipe', async () => {
  const bar = await opened('new.sqlite');
  await restoreInto(bar, fixture('archive.json').toString());
  await expectNothingLost(bar);
  expect(bar.log.state().orders['waits']!.cups.map(({ recipeId }) => recipeId)).toEqual([
    'house-cone',
    'cone-thirds',
  ]);
  await bar.close();
});

test('a bench that nobody ever changed stays, though nothing was brewed there: a saved recipe, a log from elsewhere', async () => {
  const source = await openDatabase(join(folder, 'unchanged.sqlite'));
  await source.query(`INSERT INTO recipe_version VALUES ('house-cone', 1, 0, ?)`, [
    JSON.stringify(before.recipes[0]),
  ]);
  const bar = await openOver(source, { clockSources: AT });
  expect(bar.bar().stations).toHaveLength(6);
  await bar.close();
  const fresh = await opened('fresh.sqlite');
  expect(fresh.bar()).toMatchObject({ name: 'New bar', stations: [] });
  await fresh.saveRecipe({ recipe: before.recipes[0] as never, basedOn: null });
  await fresh.close();
  const again = await opened('fresh.sqlite');
  expect(again.bar().name).toBe('New bar');
  await again.close();
});
