/**
 * Reads a log that another program wrote: each row of a table with the log's own columns (docs/formats.md) becomes a
 * record. Values that a row leaves out are taken from the recipe's card.
 */
import { createHash } from 'node:crypto';
import { z } from 'zod';
import { NOTES, SEEN, SEEN_WORDS, noteWords, type Taste } from '@even-kettle/core/brew';
import { line, thingId, type BrewRecord } from '@even-kettle/core/contract';
import { extractionYieldPct } from '@even-kettle/core/learn';
import {
  METHODS,
  METHOD_IDS,
  ROAST_LEVELS,
  brewCard,
  latestOf,
  type BrewCard,
  type MethodId,
  type Recipe,
} from '@even-kettle/core/recipe';
import type { CsvRow } from './csv';

export const LOG_NEEDS = ['ended', 'coffee', 'recipe', 'dose_g'] as const;

export type RowRead = { ok: true; record: BrewRecord } | { ok: false; reason: string };

/** The longest possible brew, seconds; a longer one is a typing error. */
const LONGEST_S = 4 * 3600;

const left = <Schema extends z.ZodType>(schema: Schema) =>
  z.preprocess((cell) => (cell === '' ? undefined : cell), schema.optional());
const figure = (least: number, most: number) =>
  z.coerce
    .number(`must be a number from ${least} to ${most}`)
    .min(least, `must be a number from ${least} to ${most}`)
    .max(most, `must be a number from ${least} to ${most}`);
const time = z
  .string()
  .transform((text) => Date.parse(text))
  .pipe(z.number('must be a time such as 2026-11-20T08:15:00Z').int());
const oneOf = <Word extends string>(words: readonly Word[]) =>
  z
    .string()
    .transform((cell) => cell.toLowerCase() as Word)
    .refine((cell) => words.includes(cell), `must be one of ${words.join(', ')}`);
const notch = z.coerce
  .number('must be a whole number from -2 to 2')
  .refine((value) => [-2, -1, 0, 1, 2].includes(value), 'must be a whole number from -2 to 2')
  .transform((value) => value as NonNullable<Taste['balance']>);
const seconds = figure(0, LONGEST_S);

const rowSchema = z.object({
  brew: left(line(64)),
  ended: time,
  ordered: left(time),
  promised: left(time),
  started: left(time),
  guest: left(line(40)),
  order: left(line(64)),
  outcome: left(oneOf(['served', 'abandoned'] as const)),
  reason: left(line(80)),
  coffee: line(40),
  roast: left(oneOf(ROAST_LEVELS)),
  age_days: left(figure(0, 3650)),
  method: left(oneOf(METHOD_IDS)),
  recipe: line(64),
  recipe_version: left(figure(1, 1_000_000)),
  station: left(line(40)),
  station_id: left(thingId),
  by: left(line(200)),
  cups: left(figure(1, 12)),
  cup_ml: left(figure(10, 3000)),
  planned_dose_g: left(figure(1, 200)),
  dose_g: figure(1, 200),
  brew_water_g: left(figure(5, 3000)),
  poured_g: left(figure(0, 5000)),
  bypass_g: left(figure(0, 3000)),
  beverage_g: left(figure(0, 3000)),
  water_c: left(figure(0, 100)),
  water: left(line(40)),
  grinder: left(thingId),
  grinder_setting: left(figure(-1000, 10_000)),
  planned_brew_s: left(seconds),
  window_from_s: left(seconds),
  window_to_s: left(seconds),
  brew_s: left(seconds),
  drawdown_s: left(seconds),
  filled_g: left(figure(0, 20_000)),
  hands_s: left(seconds),
  balance: left(notch),
  strength: left(notch),
  seen: left(z.string()),
  tasted: left(line(200)),
  tds_pct: left(figure(0.1, 25)),
  notes: left(z.string()),
});
type Row = z.infer<typeof rowSchema>;

type Bench = { recipes: readonly Recipe[]; stations: readonly { id: string; name: string }[]; nowMs: number };

/** Reads rows with the present bench; each size's card is worked out once. */
export function readerOfRows({ recipes, stations, nowMs }: Bench): (row: CsvRow) => RowRead {
  const latest = latestOf(recipes);
  const byName = new Map(
    latest.flatMap((recipe) => [recipe.id, recipe.name.toLowerCase()].map((name) => [name, recipe])),
  );
  const cards = new Map<string, BrewCard | null>();
  const cardOf = (recipe: Recipe, doseG: number): BrewCard | null => {
    const key = `${recipe.id} ${doseG}`;
    if (!cards.has(key)) {
      if (cards.size >= CARDS_HELD) cards.clear();
      cards.set(key, cardFor(recipe, doseG));
    }
    return cards.get(key)!;
  };

  return ({ cells }) => {
    const read = rowSchema.safeParse(cells);
    if (!read.success) {
      const [issue] = read.error.issues;
      return refused(String(issue!.path[0]), issue!.message);
    }
    const row = read.data;
    if (row.ended > nowMs) return refused('ended', 'must not lie ahead of the bar’s clock');
    const recipe = byName.get(row.recipe.toLowerCase());
    const method = row.method ?? recipe?.method;
    const card = recipe ? cardOf(recipe, row.dose_g) : null;
    if (!method)
      return refused(
        'recipe',
        `“${row.recipe}” is not on the bar, so the row must say method: ${METHOD_IDS.join(', ')}`,
      );
    const planned = plannedOf(row, card);
    if (!planned)
      return refused(
        'recipe',
        `“${row.recipe}” has no card for ${row.dose_g} g here, so the row must say brew_water_g, planned_brew_s, window_from_s and window_to_s`,
      );
    const seen = wordsIn(row.seen, SEEN, (each) => SEEN_WORDS[each]);
    if ('unknown' in seen)
      return refused('seen', `has “${seen.unknown}”; known are ${Object.values(SEEN_WORDS).join(', ')}`);
    const notes = wordsIn(row.notes, NOTES, (each) => noteWords(each, method).name);
    if ('unknown' in notes)
      return refused(
        'notes',
        `has “${notes.unknown}”; known are ${NOTES.map((each) => noteWords(each, method).name).join(', ')}`,
      );
    const ordered = row.ordered ?? row.started ?? row.ended - (row.brew_s ?? 0) * 1000;
    const started = row.started ?? ordered;
    if (!(ordered <= row.ended && started <= row.ended && row.ended - started <= LONGEST_S * 1000))
      return refused('ended', 'must come after ordered and started, within four hours');
    return {
      ok: true,
      record: recordOf(cells, row, {
        method,
        recipe,
        planned,
        seen: seen.found,
        notes: notes.found,
        ordered,
        started,
        stations,
      }),
    };
  };
}
const CARDS_HELD = 2000;

const refused = (column: string, reason: string): RowRead => ({ ok: false, reason: `${column} ${reason}.` });

function cardFor(recipe: Recipe, doseG: number): BrewCard | null {
  try {
    return brewCard(recipe, { doseG });
  } catch {
    return null;
  }
}

type Planned = Pick<
  BrewRecord,
  | 'brewWaterG'
  | 'plannedBrewS'
  | 'windowFromS'
  | 'windowToS'
  | 'lossG'
  | 'plannedBeverageG'
  | 'bypassG'
  | 'waterC'
  | 'handsS'
>;

/** The value of the row or, if it is empty, of the card; null if neither has one. */
function plannedOf(row: Row, card: BrewCard | null): Planned | null {
  const brewWaterG = row.brew_water_g ?? card?.brewWaterG;
  const plannedBrewS = row.planned_brew_s ?? card?.brewTimeS;
  const windowFromS = row.window_from_s ?? card?.brewWindowS.from;
  const windowToS = row.window_to_s ?? card?.brewWindowS.to;
  if (
    brewWaterG === undefined ||
    plannedBrewS === undefined ||
    windowFromS === undefined ||
    windowToS === undefined
  )
    return null;
  const bypassG = row.bypass_g ?? card?.bypassG ?? 0;
  return {
    brewWaterG,
    plannedBrewS,
    windowFromS,
    windowToS,
    bypassG,
    lossG: card?.lossG ?? 0,
    plannedBeverageG: card?.beverageG ?? row.beverage_g ?? brewWaterG,
    waterC: row.water_c ?? card?.waterC ?? 0,
    handsS: row.hands_s ?? card?.handsTimeS ?? 0,
  };
}

/** Turns words like "wall, bed even" back into ids. */
function wordsIn<Id extends string>(
  text: string | undefined,
  ids: readonly Id[],
  words: (id: Id) => string,
): { found: Id[] } | { unknown: string } {
  const found: Id[] = [];
  for (const said of (text ?? '')
    .split(',')
    .map((part) => part.trim().toLowerCase())
    .filter(Boolean)) {
    const id = ids.find((each) => each === said || words(each).toLowerCase() === said);
    if (!id) return { unknown: said };
    found.push(id);
  }
  return { found };
}

type Known = {
  method: MethodId;
  recipe: Recipe | undefined;
  planned: Planned;
  seen: NonNullable<Taste['seen']>;
  notes: BrewRecord['notes'];
  ordered: number;
  started: number;
  stations: Bench['stations'];
};

function recordOf(
  cells: CsvRow['cells'],
  row: Row,
  { method, recipe, planned, seen, notes, ordered, started, stations }: Known,
): BrewRecord {
  const stationName = row.station ?? METHODS[method].name;
  const taste: Taste = {
    ...(row.balance === undefined ? {} : { balance: row.balance }),
    ...(row.strength === undefined ? {} : { strength: row.strength }),
    ...(seen.length === 0 ? {} : { seen }),
    ...(row.tasted === undefined ? {} : { words: row.tasted }),
    ...(row.tds_pct === undefined ? {} : { tdsPct: row.tds_pct }),
  };
  // A row without an id gets one made from its content, so that the same file imported twice gives the same brews.
  const brewId =
    row.brew ?? `row-${createHash('sha256').update(JSON.stringify(cells)).digest('hex').slice(0, 24)}`;
  return {
    brewId,
    badge: 0,
    orderId: row.order ?? brewId,
    guest: row.guest ?? null,
    attempt: 1,
    cups: Math.round(row.cups ?? 1),
    coffee: row.coffee,
    roast: row.roast ?? 'medium',
    ageDays: row.age_days ?? null,
    recipeId: recipe?.id ?? slug(row.recipe),
    recipeVersion: Math.round(row.recipe_version ?? recipe?.version ?? 1),
    method,
    stationId: row.station_id ?? stations.find(({ name }) => name === row.station)?.id ?? slug(stationName),
    stationName,
    by: (row.by ?? '').split(/[\s,]+/).filter(Boolean),
    outcome: row.outcome ?? 'served',
    reason: row.reason ?? null,
    cupMl: row.cup_ml ?? planned.plannedBeverageG,
    plannedDoseG: row.planned_dose_g ?? row.dose_g,
    doseG: row.dose_g,
    ...planned,
    ratio: Math.round((planned.brewWaterG / row.dose_g) * 100) / 100,
    beverageG: row.beverage_g ?? null,
    water: row.water ?? null,
    grind:
      row.grinder === undefined || row.grinder_setting === undefined
        ? null
        : { grinderId: row.grinder, setting: row.grinder_setting },
    drawdownS: row.drawdown_s ?? null,
    ...(row.filled_g === undefined ? {} : { filledG: row.filled_g }),
    notes,
    taste: Object.keys(taste).length === 0 ? null : { ...taste, atMs: row.ended },
    yieldPct:
      row.tds_pct === undefined
        ? null
        : Math.round(
            10 *
              extractionYieldPct(method, row.tds_pct, {
                doseG: row.dose_g,
                brewWaterG: planned.brewWaterG,
                beverageG: row.beverage_g ?? planned.plannedBeverageG,
              }),
          ) / 10,
    pouredG: row.poured_g ?? null,
    realBrewS: row.brew_s ?? null,
    zeroMs: null,
    orderedMs: ordered,
    promisedMs: row.promised ?? null,
    startedMs: started,
    endedMs: row.ended,
    steps: [],
    fromFile: true,
  };
}

const slug = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 64) || 'elsewhere';
