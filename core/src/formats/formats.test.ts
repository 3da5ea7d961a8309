import { runsOf, seedOr } from '../testing/random';
import fc from 'fast-check';
import { SCHOOLS, brewCard, type Recipe } from '../recipe';
import { everyVersion } from '../recipe';
import { EARLIER } from '../recipe/methods/earlier';
import {
  RECIPES_FILE_MAX,
  RECIPES_FORMAT,
  convertJson,
  previewImport,
  readRecipe,
  readRecipes,
  recipeJsonSchema,
  stepTableCsv,
  writeRecipes,
} from './index';

const thirds = SCHOOLS[0]!;
const fileOf = (...recipes: unknown[]) => JSON.stringify({ format: RECIPES_FORMAT, recipes });
const faultsOf = (text: string) => {
  const read = readRecipes(text);
  return read.ok ? [] : read.faults;
};

test('every recipe that ships is written and read back the same', () => {
  expect(readRecipes(writeRecipes(SCHOOLS))).toEqual({ ok: true, recipes: SCHOOLS });
  // Version 1 could not say where the water goes; it is read as it always was.
  const old = EARLIER.filter(({ version, method }) => version === 1 && method !== 'siphon');
  const text = writeRecipes(old).replace('recipes@3', 'recipes@1');
  expect(readRecipes(text)).toEqual({ ok: true, recipes: old });
  // A path was called otherwise once.
  const named = writeRecipes([thirds]).replaceAll('"halo"', '"plume"');
  expect(named).toContain('plume');
  expect(readRecipes(named)).toEqual({ ok: true, recipes: [thirds] });
  // Version 2 could not say ice of its own, nor how many cups it makes.
  const young = { ...thirds, iceTimesDose: 5.5, servings: 2 };
  for (const [version, recipe] of [
    ['2', thirds],
    ['3', young],
  ] as const) {
    const written = writeRecipes([recipe]).replace('recipes@3', `recipes@${version}`);
    expect(readRecipes(written)).toEqual({ ok: true, recipes: [recipe] });
  }
  expect(writeRecipes(SCHOOLS).length).toBeLessThan(RECIPES_FILE_MAX / 4);
});

test.each<[string, string, string, RegExp]>([
  ['no JSON', '{"format"', 'file', /is not JSON/],
  ['a list', '[]', 'file', /must be an object with "format"/],
  ['another format', '{"format":"x"}', 'format', /must be "even-kettle\/recipes@3"/],
  [
    'a later version',
    '{"format":"even-kettle/recipes@7","recipes":[]}',
    'format',
    /is version 7 of the format; this app reads versions 1 to 3/,
  ],
  ['no recipes', fileOf(), 'recipes', /a list of 1 to 500/],
  [
    'more than the format has',
    JSON.stringify({ format: RECIPES_FORMAT, recipes: [thirds], note: 1 }),
    'note',
    /not part of this format/,
  ],
  ['the same twice', fileOf(thirds, thirds), 'recipes.1.id', /in the file twice/],
  [
    'HTML in a name',
    fileOf({ ...thirds, name: '<img src=x onerror=alert(1)>' }),
    'recipes.0.name',
    /plain text, without < or >/,
  ],
  ['a number as text', fileOf({ ...thirds, ratio: '12,5' }), 'recipes.0.ratio', /must be a number/],
  ['a negative dose', fileOf({ ...thirds, refDoseG: -18 }), 'recipes.0.refDoseG', /must be at least 3 g/],
  ['a field too many', fileOf({ ...thirds, price: 3 }), 'recipes.0.price', /is not part of a recipe/],
  ['no such method', fileOf({ ...thirds, method: 'bucket' }), 'recipes.0.method', /"cone"\|"flat"/],
  [
    'an amount of no kind',
    fileOf({ ...thirds, steps: [{ ...thirds.steps[7], pour: { amount: { cups: 1 }, flowGPerS: 5 } }] }),
    'recipes.0.steps.0.pour.amount',
    /must be one of/,
  ],
  [
    'pours of 140 %',
    fileOf({
      ...thirds,
      steps: thirds.steps.map((step) =>
        step.id === 'pour-4' ? { ...step, pour: { amount: { toShare: 1.4 }, flowGPerS: 5 } } : step,
      ),
    }),
    'recipes.0.steps.10.pour.amount',
    /come to 140 %/,
  ],
  [
    'a hold in a circle',
    fileOf({ ...thirds, holds: [{ tool: 'brewer', from: 'clean', to: 'fill' }] }),
    'recipes.0.holds.0.to',
    /held from “clean” back to “fill”/,
  ],
])('a file with %s is told at its field', (_what, text, field, words) => {
  const faults = faultsOf(text);
  expect(faults.map((fault) => fault.field)).toContain(field);
  expect(faults.find((fault) => fault.field === field)!.reason).toMatch(words);
});

test('a file of 40 MB is refused before it is parsed', () => {
  const text = ' '.repeat(40_000_000);
  expect(faultsOf(text)).toEqual([{ field: 'file', reason: 'is 40 MB; a file of recipes is at most 1 MB.' }]);
});

test('whatever is in a file, reading it never throws and never takes more than the format', () => {
  fc.assert(
    fc.property(fc.jsonValue(), fc.constantFrom(...Object.keys(thirds)), (value, key) => {
      readRecipes(JSON.stringify(value));
      const read = readRecipe({ ...thirds, [key]: value });
      if (read.ok) expect(Object.keys(read.recipe).every((each) => each in thirds)).toBe(true);
      else expect(read.faults.every(({ field, reason }) => field && reason)).toBe(true);
    }),
    { seed: seedOr(20261125), numRuns: runsOf(200) },
  );
});

test('taking recipes in never overwrites: it shows what is new, the same, or would be the next version', () => {
  const stronger: Recipe = { ...thirds, version: 7, ratio: 15 };
  const mine: Recipe = { ...thirds, id: 'cone-mine', version: 3 };
  expect(
    previewImport([SCHOOLS[1]!, stronger, { ...stronger, version: 6, ratio: 14 }, mine], SCHOOLS),
  ).toEqual([
    { recipe: SCHOOLS[1], what: 'same', version: 2, changes: [] },
    {
      recipe: stronger,
      what: 'next version',
      version: 3,
      changes: [{ field: 'ratio', before: 16.2, after: 15 }],
    },
    { recipe: mine, what: 'new', version: 1, changes: [] },
  ]);
  // A file of an older app does not put its recipes over those that came since.
  const before = previewImport(EARLIER, everyVersion([]));
  expect(before.map(({ what }) => what)).toEqual(EARLIER.map(() => 'earlier'));
});

test('the published schema is made from the one that is checked with', () => {
  const schema = recipeJsonSchema();
  expect(schema).toMatchObject({
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    type: 'object',
    additionalProperties: false,
  });
  expect(schema.required).toEqual(expect.arrayContaining(['id', 'version', 'method', 'steps', 'holds']));
});

test('a step table is CSV that a spreadsheet reads as text, never as a formula', () => {
  const card = brewCard(thirds, { cupMl: 250 });
  const lines = stepTableCsv(card).split('\r\n');
  expect(lines[0]).toBe(
    'step,name,phase,attended,start_s,end_s,pour_g,scale_reads_g,flow_g_per_s,ends_by,cue,path',
  );
  expect(lines).toContain(
    'pour-2,First of three pours,brew,yes,40,58,86,128,5,weight,,"halo wall kept to 86 g, then spiral wall kept"',
  );
  expect(lines).toContain(
    'load,"Throw the rinse, load, tare",prep,yes,-15,0,,,,cue,"rinse water out, tared",',
  );
  const evil = { ...card, steps: [{ ...card.steps[0]!, name: '=SUM(A1)', cue: 'say "hot"' }] };
  expect(stepTableCsv(evil)).toContain("fill,'=SUM(A1),prep");
  expect(stepTableCsv(evil)).toContain('"say ""hot"""');
});

test('a globe’s filling has what it is filled to, and an iced cup its ice', () => {
  const siphon = SCHOOLS.find(({ id }) => id === 'siphon-late')!;
  const json = convertJson(brewCard(siphon, { cupMl: 350, addition: 'ice' }), {
    name: 'Grinder',
    setting: 15.7,
  });
  expect(json.steps.find(({ kind }) => kind === 'fill')!.targetG).toBe(json.brewWaterG);
  expect(json).toMatchObject({ servedC: 6, fills: [], grinder: { setting: 15.7 } });
  expect(json.iceG).toBeGreaterThan(100);
});

test('the card for scripts has the figures of the card and no others', () => {
  const json = convertJson(brewCard(thirds, { cupMl: 250 }));
  expect(Object.keys(json)).toEqual([
    'recipe',
    'doseG',
    'brewWaterG',
    'bypassG',
    'beverageG',
    'ratio',
    'finalRatio',
    'waterC',
    'fills',
    'iceG',
    'servedC',
    'grinder',
    'brewTimeS',
    'steps',
    'notes',
  ]);
  expect(json.steps.find(({ id }) => id === 'pour-2')).toEqual({
    id: 'pour-2',
    kind: 'pour',
    startS: 40,
    endS: 58,
    targetG: 128,
    end: 'weight',
    attended: true,
    paths: [
      { path: 'halo', wall: 'kept', toG: 86 },
      { path: 'spiral', wall: 'kept' },
    ],
  });
  expect(json.steps[0]).not.toHaveProperty('targetG');
});
