/**
 * A method is its folder and its drawing: a slow metal drip cup is added to a copy of the house, by four files, and the
 * copy's own checks brew it.
 */
const { spawnSync } = require('node:child_process');
const {
  cpSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} = require('node:fs');
const { tmpdir } = require('node:os');
const { dirname, join } = require('node:path');

const root = join(__dirname, '..');
let copy;
const touched = new Set();

const write = (file, text) => {
  touched.add(file);
  mkdirSync(dirname(join(copy, file)), { recursive: true });
  writeFileSync(join(copy, file), text);
};
const edit = (file, before, after) => {
  const text = readFileSync(join(copy, file), 'utf8');
  expect(text).toContain(before);
  write(file, text.replace(before, after));
};
const run = (what, ...args) =>
  spawnSync(process.execPath, [join(root, 'node_modules', what), ...args], { cwd: copy, encoding: 'utf8' });

beforeAll(() => {
  copy = mkdtempSync(join(tmpdir(), 'even-kettle-method-'));
  for (const part of ['core', 'app/src/vessels', 'tsconfig.base.json'])
    cpSync(join(root, part), join(copy, part), {
      recursive: true,
      filter: (path) => !path.includes('node_modules'),
    });
  symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
});
afterAll(() => rmSync(copy, { recursive: true, force: true }));

const DRIP_CUP = `import { POURED_LESSONS, SHARED } from '../lessons';
import { POURED, type MethodEntry } from '../method';
import { BURNS, KETTLE, bloom, drawdown, handStep, kettleHolds, offFirst, passive, pourStep, pressPrep } from '../parts';

export const dripCup: MethodEntry = {
  method: {
    ...POURED,
    id: 'drip-cup',
    name: 'Metal drip cup',
    character: 'slow, syrupy',
    body: 4,
    clarity: 2,
    suits: ['heavy'],
    retentionGPerG: 1.8,
    rinseG: 40,
    rinsed: 'Warm',
    drawdownExponent: 0.8,
    usualCupMl: 90,
    checklist: ['Coffee in, level', 'Press on it, not forced'],
    stall: {
      now: 'Give the press half a turn back, or lift it a little.',
      next: 'One step coarser.',
      advice: 'Lay the press on more loosely; then one step coarser.',
    },
  },
  lessons: { lessons: { ...SHARED, ...POURED_LESSONS } },
  brewers: [{ id: 'drip-cup', method: 'drip-cup', name: 'Drip cup', minDoseG: 10, maxDoseG: 18, maxWaterG: 120 }],
  schools: [
    {
      id: 'drip-cup-slow',
      version: 1,
      method: 'drip-cup',
      name: 'Slow, under a press',
      why: 'Small and syrupy, and it asks for nobody for five minutes.',
      suits: ['heavy'],
      filter: 'small metal filter',
      bed: 'level',
      refDoseG: 14,
      ratio: 8,
      bypassTimesDose: 0,
      grindBand: 40,
      waterC: 95,
      waterIs: 'in the kettle',
      endWindowS: { from: 280, to: 320 },
      steps: [
        ...pressPrep.map((step) => (step.kind === 'set-filter' ? { ...step, name: 'Warm the cup' } : step)),
        bloom(1.5, 4),
        pourStep('fill-up', 'Fill it up', { atS: 30 }, { amount: { toShare: 1 }, flowGPerS: 5 }),
        drawdown,
        ...offFirst('Take the filter off', 'filter off'),
        handStep('clean', 'clean', 'Rinse, reset', 20, 'station ready', { phase: 'clean' }),
      ],
      holds: kettleHolds('fill-up'),
      cautions: [BURNS, KETTLE],
    },
  ],
};
`;

const ITS_TEST = `
import { notesFor, noteWords } from '../../../brew';
import { METHODS, SCHOOLS, brewCard, brewerById, capacityOf, checkRecipe, fitsBrewer, takesPaper, wayOutInWords } from '../../index';

const recipe = SCHOOLS.find(({ id }) => id === 'drip-cup-slow')!;

test('a 14 g drip cup: 112 g of water, of which the bed keeps a quarter, in five minutes', () => {
  const card = brewCard(recipe, { doseG: 14 });
  expect(checkRecipe(recipe)).toEqual([]);
  expect([card.brewWaterG, Math.round(card.beverageG), takesPaper(recipe)]).toEqual([112, 87, false]);
  expect(card.steps.flatMap(({ kind, targetG }) => (kind === 'pour' ? [targetG] : []))).toEqual([21, 112]);
  expect(card.brewTimeS).toBeGreaterThanOrEqual(280);
  expect(card.brewTimeS).toBeLessThanOrEqual(320);
});

test('a drip cup is a station like another: what fits, what is said of a stall, what may be told', () => {
  const cup = brewerById('drip-cup')!;
  expect(fitsBrewer(cup, brewCard(recipe, { doseG: 14 }))).toBe(true);
  expect(capacityOf(cup, brewCard(recipe, { doseG: 24 })).waysOut.map(wayOutInWords)).toContain('2 equal brews of 75 ml in the Drip cup.');
  expect(noteWords('stalled', 'drip-cup').now).toMatch(/half a turn back/);
  const card = brewCard(recipe, { doseG: 14 });
  expect(notesFor('drip-cup', card.steps.find(({ kind }) => kind === 'drawdown')!)).toEqual(['stalled', 'ran-fast']);
  expect(METHODS['drip-cup'].papers).toBeNull();
});
`;

const DRAWING = `  'drip-cup': {
    inside: 'M20 14 H44 V36 H20 Z',
    topY: 14,
    bottomY: 36,
    midX: 32,
    lines: 'M18 14 H46 M20 14 V36 H44 V14 M12 36 H52 M28 36 V40 H36 V36 M18 44 L21 66 H43 L46 44 Z',
    halfWidthAt: () => 12,
  },
};
`;

test('a new method is four files: its folder, its id, its line in the list, its drawing', () => {
  write('core/src/recipe/methods/drip-cup/index.ts', DRIP_CUP);
  edit('core/src/recipe/recipe.ts', "  'foam-pot',\n", "  'foam-pot',\n  'drip-cup',\n");
  edit(
    'core/src/recipe/methods/index.ts',
    'import { flat }',
    "import { dripCup } from './drip-cup';\nimport { flat }",
  );
  edit(
    'core/src/recipe/methods/index.ts',
    "  'foam-pot': foamPot,\n",
    "  'foam-pot': foamPot,\n  'drip-cup': dripCup,\n",
  );
  const drawings = readFileSync(join(copy, 'app/src/vessels/drawings.ts'), 'utf8');
  write('app/src/vessels/drawings.ts', drawings.replace(/\};\n$/, DRAWING));
  expect(touched.size).toBe(4);

  // The compiler finds nothing missing in the core, nor in the drawings, which ask for every method.
  const alias = { '@even-kettle/core/*': ['../../../core/src/*'] };
  writeFileSync(
    join(copy, 'app/src/vessels/tsconfig.json'),
    JSON.stringify({
      extends: '../../../tsconfig.base.json',
      compilerOptions: { paths: alias },
      files: ['drawings.ts'],
    }),
  );
  expect(run('typescript/bin/tsc', '-p', 'core').stdout).toBe('');
  expect(run('typescript/bin/tsc', '-p', 'app/src/vessels').stdout).toBe('');

  // What every method's recipes go through, and figures worked out by hand.
  writeFileSync(join(copy, 'core/src/recipe/methods/drip-cup/index.test.ts'), ITS_TEST);
  const config = {
    rootDir: join(copy, 'core'),
    testEnvironment: 'node',
    testTimeout: 90_000,
    transform: core().transform,
  };
  const tests = run(
    'jest/bin/jest.js',
    '--config',
    JSON.stringify(config),
    '--ci',
    '--verbose',
    '-t',
    'drip',
    // What goes through every method.
    'src/recipe/',
    'src/rush/schools',
  );
  expect(tests.stderr).toContain('drip-cup-slow is brewed from the first step to the clean station');
  // What failed is told, and not only that something did: without the hundreds of tests that the pattern leaves out.
  const told = tests.stderr.split('\n').filter((line) => !line.includes('○ skipped'));
  expect(tests.status === 0 ? '' : told.slice(-120).join('\n')).toBe('');
});

const core = () => require('../jest.config.cjs').projects.find(({ displayName }) => displayName === 'core');
