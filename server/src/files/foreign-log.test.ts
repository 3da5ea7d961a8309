/** Rows of a log from elsewhere: what was written is read back, what is left out comes from the card, what is wrong is said. */
import fc from 'fast-check';
import { NOTES, SEEN, SEEN_WORDS } from '@even-kettle/core/brew';
import { brewRecordSchema, type BrewRecord } from '@even-kettle/core/contract';
import { ROAST_LEVELS, SCHOOLS, brewCard } from '@even-kettle/core/recipe';
import { csvOf, readCsv } from './csv';
import { LOG_NEEDS, readerOfRows } from './foreign-log';
import { logHead, logRow } from './tables';

const seed = Number(process.env['FUZZ_SEED'] ?? 20261125);
console.info(`elsewhere seed ${seed}`);

const NOW = Date.UTC(2027, 0, 1);
const STATIONS = [{ id: 'cone-1', name: 'Cone 1' }];
const read = readerOfRows({ recipes: SCHOOLS, stations: STATIONS, nowMs: NOW });
const readRow = (cells: Record<string, string>) =>
  read({
    line: 2,
    cells: { ended: '2026-02-01T08:00:00Z', coffee: 'Gull', recipe: 'cone-thirds', dose_g: '18', ...cells },
  });
const reasonOf = (cells: Record<string, string>) => {
  const row = readRow(cells);
  return row.ok ? null : row.reason;
};
const recordOf = (cells: Record<string, string> = {}) => {
  const row = readRow(cells);
  if (!row.ok) throw new Error(row.reason);
  return row.record;
};

const tenths = (least: number, most: number) =>
  fc.integer({ min: least * 10, max: most * 10 }).map((value) => value / 10);
const word = fc
  .string({ minLength: 1, maxLength: 20, unit: 'grapheme-ascii' })
  .filter((text) => text === text.trim() && !/^'[=+\-@]/.test(text));
const notch = fc.constantFrom(-2, -1, 0, 1, 2) as fc.Arbitrary<-2 | -1 | 0 | 1 | 2>;

const record = fc
  .record({
    recipe: fc.constantFrom(...SCHOOLS),
    doseG: tenths(12, 30),
    endedMs: fc.integer({ min: Date.UTC(2020, 0, 1), max: NOW }),
    longMs: fc.integer({ min: 60_000, max: 1_800_000 }),
    coffee: word,
    guest: fc.option(word),
    reason: fc.option(word),
    roast: fc.constantFrom(...ROAST_LEVELS),
    ageDays: fc.option(fc.integer({ min: 0, max: 90 })),
    beverageG: fc.option(tenths(50, 500)),
    setting: fc.option(tenths(-5, 40)),
    brewS: fc.option(tenths(60, 600)),
    drawdownS: fc.option(tenths(10, 200)),
    by: fc.subarray(['imre', 'noor', 'tavi']),
    notes: fc.subarray([...NOTES]),
    taste: fc.option(
      fc.record(
        { balance: notch, strength: notch, seen: fc.subarray([...SEEN], { minLength: 1 }), words: word },
        { requiredKeys: ['balance'] },
      ),
    ),
  })
  .map((of): BrewRecord => {
    const card = brewCard(of.recipe, { doseG: of.doseG });
    return {
      brewId: 'theirs-1',
      badge: 0,
      orderId: 'order-1',
      guest: of.guest,
      attempt: 1,
      cups: 1,
      coffee: of.coffee,
      roast: of.roast,
      ageDays: of.ageDays,
      recipeId: of.recipe.id,
      recipeVersion: of.recipe.version,
      method: of.recipe.method,
      stationId: 'cone-1',
      stationName: 'Cone 1',
      by: of.by,
      outcome: of.reason === null ? 'served' : 'abandoned',
      reason: of.reason,
      cupMl: card.beverageG,
      plannedDoseG: of.doseG,
      doseG: of.doseG,
      brewWaterG: card.brewWaterG,
      bypassG: card.bypassG,
      lossG: card.lossG,
      ratio: Math.round((card.brewWaterG / of.doseG) * 100) / 100,
      plannedBeverageG: card.beverageG,
      beverageG: of.beverageG,
      waterC: card.waterC,
      water: null,
      grind: of.setting === null ? null : { grinderId: 'grinder-1', setting: of.setting },
      drawdownS: of.drawdownS,
      handsS: card.handsTimeS,
      notes: of.notes,
      taste: of.taste === null ? null : { ...of.taste, atMs: of.endedMs },
      yieldPct: null,
      pouredG: null,
      plannedBrewS: card.brewTimeS,
      windowFromS: card.brewWindowS.from,
      windowToS: card.brewWindowS.to,
      realBrewS: of.brewS,
      zeroMs: null,
      orderedMs: of.endedMs - of.longMs,
      promisedMs: null,
      startedMs: of.endedMs - Math.round(of.longMs / 2),
      endedMs: of.endedMs,
      steps: [],
      fromFile: true,
    };
  });

test('any brew that the log’s own table can hold is read back from it as it was, to the last figure', () => {
  fc.assert(
    fc.property(record, (given) => {
      const [row] = readCsv(csvOf([logHead(), logRow(given)]), LOG_NEEDS);
      const back = read(row!);
      expect(back).toEqual({ ok: true, record: given });
      expect(brewRecordSchema.safeParse(given).success).toBe(true);
    }),
    { numRuns: 300, seed },
  );
});

test('what a row leaves out is as the recipe’s card has it for that dose', () => {
  const card = brewCard(
    SCHOOLS.find(({ id }) => id === 'siphon-late')!,
    { doseG: 24 },
  );
  expect(recordOf({ recipe: 'Siphon-Late', dose_g: '24' })).toMatchObject({
    method: 'siphon',
    brewWaterG: card.brewWaterG,
    lossG: 18,
    plannedBrewS: card.brewTimeS,
    windowToS: card.brewWindowS.to,
    waterC: card.waterC,
    handsS: card.handsTimeS,
    stationName: 'Siphon',
    stationId: 'siphon',
    outcome: 'served',
    orderedMs: Date.UTC(2026, 1, 1, 8),
  });
  expect(recordOf({ brew_s: '200' }).orderedMs).toBe(Date.UTC(2026, 1, 1, 8) - 200_000);
  // A station of this bench is known by its name; yield follows from strength.
  expect(recordOf({ station: 'Cone 1' }).stationId).toBe('cone-1');
  expect(recordOf({ tds_pct: '1.4', beverage_g: '255' }).yieldPct).toBeCloseTo((1.4 * 255) / 18, 1);
});

test('a row without a name has one by what it says: the same row the same, another another', () => {
  expect(recordOf().brewId).toBe(recordOf().brewId);
  expect(recordOf().brewId).not.toBe(recordOf({ coffee: 'Fog' }).brewId);
  expect(recordOf({ brew: 'b7' }).brewId).toBe('b7');
});

test('a recipe that this bar does not have comes along where the row says enough of it', () => {
  const theirs = { recipe: 'Grandmother’s way', method: 'cone' };
  expect(reasonOf({ recipe: 'Grandmother’s way' })).toMatch(/is not on the bar, so the row must say method/);
  expect(reasonOf(theirs)).toMatch(/must say brew_water_g, planned_brew_s, window_from_s and window_to_s/);
  const told = { brew_water_g: '290', planned_brew_s: '180', window_from_s: '160', window_to_s: '200' };
  expect(recordOf({ ...theirs, ...told })).toMatchObject({
    recipeId: 'grandmother-s-way',
    method: 'cone',
    ratio: 16.11,
    windowToS: 200,
  });
});

test.each([
  [{ ended: 'last Tuesday' }, 'ended must be a time such as 2026-11-20T08:15:00Z.'],
  [{ ended: '2031-01-01T00:00:00Z' }, 'ended must not lie ahead of the bar’s clock.'],
  [{ started: '2026-02-01T03:00:00Z' }, 'ended must come after ordered and started, within four hours.'],
  [{ ordered: '2026-02-01T09:00:00Z' }, 'ended must come after ordered and started, within four hours.'],
  [{ dose_g: '18,5' }, 'dose_g must be a number from 1 to 200.'],
  [{ dose_g: '' }, 'dose_g must be a number from 1 to 200.'],
  [{ brew_s: '-4' }, 'brew_s must be a number from 0 to 14400.'],
  [{ coffee: '' }, 'coffee must not be empty.'],
  [{ balance: '1.5' }, 'balance must be a whole number from -2 to 2.'],
  [{ outcome: 'drunk' }, 'outcome must be one of served, abandoned.'],
  [{ seen: 'bed even, ghosts' }, `seen has “ghosts”; known are ${Object.values(SEEN_WORDS).join(', ')}.`],
])('%j is no such row, in words', (cells, words) => {
  expect(reasonOf(cells as unknown as Record<string, string>)).toBe(words);
});
