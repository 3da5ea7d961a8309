/**
 * What is in stock: coffees, papers and cloths, how much is left and what care is due.
 */
import type { Bar, House } from '@even-kettle/core/contract';
import { clothState } from '@even-kettle/core/learn';
import { brewerOf } from '@even-kettle/core/plan';
import { PAPER_METHODS, takesPaper, type MethodId } from '@even-kettle/core/recipe';
import { tenth, houseEventsOf, type Sources } from './sources';

const WEEK_MS = 7 * 86_400_000;

export async function houseOf(sources: Sources): Promise<House> {
  const { bar } = sources;
  return {
    coffees: await Promise.all(bar().coffees.map(({ name }) => coffeeOf(name, sources))),
    papers: await Promise.all(papersOf(bar()).map((method) => paperStock(method, sources))),
    cloths: await Promise.all(bar().cloths.map((cloth) => clothOf(cloth, sources))),
  };
}

/** What is left of each coffee that was ever weighed, by its name, grams. */
export async function stockOf(sources: Sources): Promise<Record<string, number>> {
  const coffees = await Promise.all(sources.bar().coffees.map(({ name }) => coffeeOf(name, sources)));
  return Object.fromEntries(coffees.flatMap(({ name, stockG }) => (stockG === null ? [] : [[name, stockG]])));
}

async function coffeeOf(name: string, { records, state }: Sources): Promise<House['coffees'][number]> {
  const last = houseEventsOf(state(), 'coffee-weighed').findLast(({ coffee }) => coffee === name);
  const { brews, doseG, tasted } = await records.ofCoffee(name, last?.atMs ?? 0);
  return { name, stockG: last ? Math.max(0, Math.round(last.stockG - doseG)) : null, brews, tasted };
}

/** How many papers of a method are left, and how quickly they are used. */
async function paperStock(
  method: MethodId,
  { records, state, recipe, nowMs }: Sources,
): Promise<House['papers'][number]> {
  const used = async (sinceMs: number) =>
    (await records.byRecipe(method, sinceMs))
      .filter(({ recipeId }) => takesPaper(recipe(recipeId) ?? { method, filter: 'paper' }))
      .reduce((sum, { brews }) => sum + brews, 0);
  const counted = houseEventsOf(state(), 'papers-counted').findLast((event) => event.method === method);
  return {
    method,
    sheets: counted ? Math.max(0, counted.sheets - (await used(counted.atMs))) : null,
    perDay: tenth((await used(nowMs() - WEEK_MS)) / 7),
  };
}

async function clothOf(
  { id, name, stationId }: Bar['cloths'][number],
  { records, state, bar, nowMs }: Sources,
): Promise<House['cloths'][number]> {
  const sinceMs =
    houseEventsOf(state(), 'cloth-replaced').findLast(({ clothId }) => clothId === id)?.atMs ?? 0;
  const brews = await records.atStation(stationId, sinceMs);
  const boiledMs = houseEventsOf(state(), 'cloth-boiled')
    .filter(({ clothId, atMs }) => clothId === id && atMs >= sinceMs)
    .map(({ atMs }) => atMs);
  const now = new Date(nowMs());
  const dayStartMs = new Date(now.getFullYear(), now.getMonth(), now.getDate()).getTime();
  return {
    id,
    name,
    stationName: bar().stations.find((station) => station.id === stationId)?.name ?? stationId,
    ...clothState({ sinceMs: sinceMs || (brews[0]?.atMs ?? 0), boiledMs, brews }, dayStartMs),
  };
}

/** Methods of this bench that use paper. */
const papersOf = (bar: Bar): MethodId[] =>
  PAPER_METHODS.filter((method) =>
    bar.stations.some(({ brewerId }) => brewerOf(bar, brewerId)?.method === method),
  );
