/**
 * What has to stand ready for the rush that is expected: from the log's own hours, and from the order feed's timetable.
 */
import { readyNow, type BarState, type ReadyAhead, type ReadyThing } from '@even-kettle/core/brew';
import type { Bar, Today } from '@even-kettle/core/contract';
import { pieces } from '@even-kettle/core/learn';
import { cardFor, menuNow } from '@even-kettle/core/plan';
import { METHODS, takesPaper, type MethodId, type Recipe, type RecipeBook } from '@even-kettle/core/recipe';

export type Wanted = Pick<ReadyAhead, 'thing' | 'coffee' | 'doseG' | 'method'> & {
  wanted: number;
  ready: number;
  stale: number;
};

type Dose = Today['rush']['doses'][number];

/** A boat's guests order so many cups in the middle: two to five orders, every third for two. */
export const CUPS_OF_A_BOAT = 4.5;

/** What the boats of some hours will ask for: the lines that the menu offers now, alike, in their usual sizes. */
export function dosesOfBoats(
  boats: number,
  bar: Bar,
  recipes: readonly Recipe[],
  book: RecipeBook,
  state: BarState,
  minuteOfDay: number,
): { doses: Dose[]; cups: number } {
  const lines = menuNow(bar, recipes, book, state, minuteOfDay).filter(({ off }) => off === null);
  const cups = lines.length === 0 ? 0 : Math.round(boats * CUPS_OF_A_BOAT);
  if (cups === 0) return { doses: [], cups };
  const brews = pieces(
    cups,
    lines.map(() => 1),
  );
  const doses = lines.flatMap(({ line, coffee, recipe }, n) => {
    if (brews[n] === 0) return [];
    const roast = bar.coffees.find(({ name }) => name === coffee)?.roast ?? 'medium';
    const ask = {
      recipeId: recipe.id,
      recipeVersion: recipe.version,
      coffee,
      roast,
      cupMl: line.sizesMl[0]!,
    };
    const found = cardFor(bar, { cupId: line.id, ...ask }, book);
    if (!found.ok) return [];
    const { doseG, method } = found.card;
    return [{ coffee, method, doseG, brews: brews[n]! }];
  });
  return { doses, cups };
}

/** Of two reasons to expect the same dose the larger counts. */
export function together(a: readonly Dose[], b: readonly Dose[]): Dose[] {
  const doses = new Map<string, Dose>();
  for (const dose of [...a, ...b]) {
    const key = `${dose.coffee} ${dose.method} ${dose.doseG.toFixed(1)}`;
    const known = doses.get(key);
    if (!known || known.brews < dose.brews) doses.set(key, dose);
  }
  return [...doses.values()].sort((x, y) => y.brews - x.brews);
}

const sum = (doses: readonly Dose[]): number => doses.reduce((total, { brews }) => total + brews, 0);

/** A line for each thing that is wanted or stands ready. */
export function wantedOf(
  doses: readonly Dose[],
  bar: Bar,
  recipes: readonly Recipe[],
  state: BarState,
  nowMs: number,
): Wanted[] {
  const tins = new Map<string, Dose>();
  for (const dose of doses) {
    const key = `${dose.coffee} ${dose.doseG.toFixed(1)}`;
    tins.set(key, { ...dose, brews: dose.brews + (tins.get(key)?.brews ?? 0) });
  }
  const paper = (method: MethodId) =>
    takesPaper(recipes.find((recipe) => recipe.method === method) ?? { method, filter: 'paper' });
  const methods = [...new Set(doses.map(({ method }) => method))].filter(
    (method) => METHODS[method].papers !== null && paper(method),
  );
  const brews = sum(doses);
  const lines: Omit<Wanted, 'ready' | 'stale'>[] = [
    ...[...tins.values()].map(({ coffee, doseG, brews: wanted }) => ({
      thing: 'tins' as const,
      coffee,
      doseG,
      wanted,
    })),
    ...methods.map((method) => ({
      thing: 'filters' as const,
      method,
      wanted: sum(doses.filter((dose) => dose.method === method)),
    })),
    { thing: 'kettles', wanted: Math.min(brews, bar.kettles.length) },
    { thing: 'servers', wanted: Math.min(brews, bar.stations.filter(({ out }) => !out).length) },
  ];
  const ready = readyNow(state, nowMs);
  const isOf = (line: Pick<Wanted, 'thing' | 'coffee' | 'doseG' | 'method'>) => (each: ReadyAhead) =>
    each.thing === line.thing &&
    each.coffee === line.coffee &&
    each.doseG === line.doseG &&
    each.method === line.method;
  const known = lines.map((line) => {
    const of = ready.find(isOf(line));
    return { ...line, ready: of?.count ?? 0, stale: of?.stale ?? 0 };
  });
  // What stands there and is wanted by nobody is shown as well.
  const others = ready
    .filter((each) => !lines.some((line) => isOf(line)(each)))
    .map(({ count, stale, thing, coffee, doseG, method }) => ({
      thing,
      ...(coffee === undefined ? {} : { coffee }),
      ...(doseG === undefined ? {} : { doseG }),
      ...(method === undefined ? {} : { method }),
      wanted: 0,
      ready: count,
      stale,
    }));
  const turn: readonly ReadyThing[] = ['tins', 'filters', 'kettles', 'servers'];
  return [...known, ...others]
    .filter(({ wanted, ready: there, stale }) => wanted > 0 || there > 0 || stale > 0)
    .sort((a, b) => turn.indexOf(a.thing) - turn.indexOf(b.thing));
}
