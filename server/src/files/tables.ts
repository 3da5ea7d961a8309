/**
 * The log as tables: a line a brew, a line a point of its weight.
 */
import { SEEN_WORDS, noteWords } from '@even-kettle/core/brew';
import type { BrewRecord } from '@even-kettle/core/contract';
import type { WeightPoint } from '@even-kettle/core/pour';
import type { Cell } from './csv';

type Column = [name: string, of: (record: BrewRecord) => Cell];

const iso = (atMs: number): string => new Date(atMs).toISOString();

/** The columns of the log's table, as docs/formats.md lists them. */
export const LOG_COLUMNS: readonly Column[] = [
  ['brew', ({ brewId }) => brewId],
  ['ended', ({ endedMs }) => iso(endedMs)],
  ['ordered', ({ orderedMs }) => iso(orderedMs)],
  ['promised', ({ promisedMs }) => (promisedMs === null ? null : iso(promisedMs))],
  ['started', ({ startedMs }) => iso(startedMs)],
  ['guest', ({ guest }) => guest],
  ['order', ({ orderId }) => orderId],
  ['outcome', ({ outcome }) => outcome],
  ['reason', ({ reason }) => reason],
  ['coffee', ({ coffee }) => coffee],
  ['roast', ({ roast }) => roast],
  ['age_days', ({ ageDays }) => ageDays],
  ['method', ({ method }) => method],
  ['recipe', ({ recipeId }) => recipeId],
  ['recipe_version', ({ recipeVersion }) => recipeVersion],
  ['station', ({ stationName }) => stationName],
  ['station_id', ({ stationId }) => stationId],
  ['by', ({ by }) => by.join(' ')],
  ['cups', ({ cups }) => cups],
  ['cup_ml', ({ cupMl }) => cupMl],
  ['planned_dose_g', ({ plannedDoseG }) => plannedDoseG],
  ['dose_g', ({ doseG }) => doseG],
  ['brew_water_g', ({ brewWaterG }) => brewWaterG],
  ['poured_g', ({ pouredG }) => pouredG],
  ['bypass_g', ({ bypassG }) => bypassG],
  ['beverage_g', ({ beverageG }) => beverageG],
  ['water_c', ({ waterC }) => waterC],
  ['water', ({ water }) => water],
  ['grinder', ({ grind }) => grind?.grinderId ?? null],
  ['grinder_setting', ({ grind }) => grind?.setting ?? null],
  ['planned_brew_s', ({ plannedBrewS }) => plannedBrewS],
  ['window_from_s', ({ windowFromS }) => windowFromS],
  ['window_to_s', ({ windowToS }) => windowToS],
  ['brew_s', ({ realBrewS }) => realBrewS],
  ['drawdown_s', ({ drawdownS }) => drawdownS],
  ['filled_g', ({ filledG }) => filledG ?? null],
  ['hands_s', ({ handsS }) => handsS],
  ['balance', ({ taste }) => taste?.balance ?? null],
  ['strength', ({ taste }) => taste?.strength ?? null],
  ['seen', ({ taste }) => (taste?.seen ?? []).map((seen) => SEEN_WORDS[seen]).join(', ')],
  ['tasted', ({ taste }) => taste?.words ?? null],
  ['tds_pct', ({ taste }) => taste?.tdsPct ?? null],
  ['yield_pct', ({ yieldPct }) => yieldPct],
  ['notes', ({ notes, method }) => notes.map((note) => noteWords(note, method).name).join(', ')],
];

export const logHead = (): Cell[] => LOG_COLUMNS.map(([name]) => name);
export const logRow = (record: BrewRecord): Cell[] => LOG_COLUMNS.map(([, of]) => of(record));

/** Seconds from the first point, and grams. */
export const traceRows = (points: readonly WeightPoint[]): Cell[][] => [
  ['s', 'g'],
  ...points.map(({ atMs, massG }) => [(atMs - points[0]!.atMs) / 1000, massG]),
];
