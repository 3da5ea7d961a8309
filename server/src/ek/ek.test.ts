/** The command line, as scripts call it. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { SCHOOLS } from '@even-kettle/core/recipe';
import { writeRecipes } from '@even-kettle/core/formats';
import { runEk } from './program';

const files: Record<string, { size?: number; text: string }> = {
  'all.json': { text: writeRecipes(SCHOOLS) },
  'one.json': { text: writeRecipes([{ ...SCHOOLS[0]!, id: 'cone-mine', ratio: 15 }]) },
  'old.json': { text: '{"format":"even-kettle/recipes@0","recipes":[]}' },
  'huge.json': { size: 40_000_000, text: '' },
  'problem.json': {
    text: readFileSync(join(__dirname, '../../bench/plan-instances/small-31-H1.json'), 'utf8'),
  },
  'no-press.json': {
    text: readFileSync(join(__dirname, '../../bench/plan-instances/small-31-H1.json'), 'utf8').replace(
      /"press":\d+/,
      '"press":0',
    ),
  },
  'half.json': { text: '{"format":"even-kettle/plan-problem@1","now":0.5}' },
};
let ticks = 0;
function ek(line: string) {
  let [out, err] = ['', ''];
  const code = runEk(
    line.match(/"[^"]*"|\S+/g)!.map((word) => word.replaceAll('"', '')),
    {
      out: (text) => (out += text),
      err: (text) => (err += text),
      readFile: (path) => {
        const file = files[path];
        if (!file) throw new Error(`no such file, ${path}`);
        return { size: file.size ?? file.text.length, text: () => file.text };
      },
      nowMs: () => (ticks += 1),
    },
  );
  return { code, out, err };
}

test('convert prints the card, and as JSON the figures that scripts read', () => {
  const { code, out, err } = ek('convert --recipe cone-thirds --beverage-ml 250 --json');
  expect([code, err]).toEqual([0, '']);
  expect(JSON.parse(out)).toMatchObject({
    recipe: 'cone-thirds',
    doseG: 17.6,
    brewWaterG: 285,
    bypassG: 0,
    beverageG: 250,
    finalRatio: 16.19,
    waterC: 94,
    brewTimeS: 187,
    notes: [],
  });
  expect(ek('convert --recipe cone-thirds --beverage-ml 250').out).toContain(
    '0:40  • First of three pours, to 128 g',
  );
  expect(ek('convert --recipe cone-thirds --beverage-ml 250 --csv').out).toMatch(/^step,name/);
});

test.each([
  ['--beverage-floz 8.4535', { doseG: 17.6 }],
  ['--dose-g 20 --ratio 15.5', { doseG: 20, brewWaterG: 310 }],
  ['--water-g 300', { brewWaterG: 300, doseG: 18.5 }],
  ['--cups 2', { beverageG: 500 }],
  ['--drink-g 300 --with milk', { doseG: 21.1, brewWaterG: 308 }],
  ['--dose-g 18 --roast dark --altitude-m 2150', { waterC: 88 }],
  ['--dose-g 18 --roast "very light" --altitude-m 2150', { waterC: 92.8 }],
])('convert %s', (asked, expected) => {
  expect(JSON.parse(ek(`convert --recipe cone-thirds ${asked} --json`).out)).toMatchObject(expected);
});

test('a recipe file can be converted, shown and checked', () => {
  expect(JSON.parse(ek('convert --recipe one.json --dose-g 20 --json').out)).toMatchObject({
    recipe: 'cone-mine',
    brewWaterG: 300,
  });
  expect(ek('recipe check all.json').out).toBe(`all.json: ${SCHOOLS.length} recipes, all sound.\n`);
  expect(ek('recipe show one.json').out).toContain('cone-mine, version 2: Cone');
  expect(JSON.parse(ek('recipe show cone-thirds --json').out)[0]).toEqual(SCHOOLS[0]);
  expect(ek('recipe list').out.split('\n')).toHaveLength(SCHOOLS.length + 1);
});

test('a recipe is read out of a text as JSON, or as the card that it makes; what contradicts itself makes none', () => {
  files['said.txt'] = {
    text: 'Siphon: 24 g medium, 360 g in the globe. Stir 8. Flame off at 1:05, stir 4. Down by 2:00.',
  };
  const { code, out } = ek('recipe read said.txt');
  expect([code, JSON.parse(out)]).toMatchObject([
    0,
    {
      method: 'siphon',
      doseG: 24,
      waterG: 360,
      flameOffS: 65,
      stirs: [{ times: 8 }, { times: 4 }],
      usual: ['waterC'],
      unread: [],
    },
  ]);
  expect(ek('recipe read said.txt --card').out).toMatch(/Coffee in, stir 8[^]*Flame off, stir 4/);
  files['said.txt'] = { text: 'Siphon: 24 g, then 27 g of coffee, 360 g of water.' };
  expect(ek('recipe read said.txt --card')).toEqual({
    code: 2,
    out: '',
    err: 'There is no card before these are said, once each: doseG.\n',
  });
});

test('methods stand side by side, and a brewer that is too small offers ways out', () => {
  expect(ek('methods').out.split('\n')).toHaveLength(11);
  expect(JSON.parse(ek('methods --beverage-ml 350 --json').out)).toHaveLength(9);
  const { out } = ek('convert --recipe cone-thirds --beverage-ml 300 --brewer cone-s --json');
  expect(JSON.parse(out).notes).toContain('2 equal brews of 150 ml in the Cone S.');
});

test.each([
  ['water boil --altitude-m 2150', '92.9 °C\n'],
  ['water blend --of 48@18 217@96', '81.9 °C\n'],
  ['water blend --mass-g 300 --to-c 80 --hot-c 96 --cold-c 18', '238 g of 96 °C and 62 g of 18 °C\n'],
  ['water cool --from-c 100 --to-c 92 --room-c 22', '6:46\n'],
  ['water cool --from-c 100 --to-c 92 --room-c 22 --mass-g 900', '13:32\n'],
  ['water cool --from-c 96 --to-c 92 --room-c 20 --apart-s 240', 'k = 0.0135 per minute\n'],
  // 0.5 x 4186 x 74 / (1200 x 0.85) = 151.8 s
  ['water heat --mass-g 500 --from-c 20 --to-c 94', '2:32\n'],
])('%s', (line, out) => {
  expect(ek(line)).toEqual({ code: 0, out, err: '' });
});

test('a problem is planned, and the plan checked; what breaks a rule is told, with exit code 1', () => {
  const { code, out } = ek('plan problem.json --budget-ms 40 --seed 3');
  const plan = JSON.parse(out) as { cost: number; bound: number; starts: Record<string, number> };
  expect([code, plan.bound <= plan.cost]).toEqual([0, true]);
  files['plan.json'] = { text: out };
  expect(ek('check problem.json plan.json')).toEqual({
    code: 0,
    out: `All rules are kept. Cost ${plan.cost}.\n`,
    err: '',
  });
  const [first] = Object.keys(plan.starts);
  files['bad.json'] = { text: JSON.stringify({ ...plan, starts: { ...plan.starts, [first!]: 5000 } }) };
  const broken = ek('check problem.json bad.json');
  expect([broken.code, broken.out]).toEqual([1, '']);
  expect(broken.err).toMatch(/cost is .*, stated/);
});

test('the schema in docs/formats.md is the one that recipes are checked with', () => {
  const docs = readFileSync(join(__dirname, '../../../docs/formats.md'), 'utf8');
  const [, written] = /```json schema\n([\s\S]*?)```/.exec(docs) ?? [];
  expect(JSON.parse(written ?? '')).toEqual(JSON.parse(ek('recipe schema').out));
});

test.each<[string, RegExp]>([
  ['convert --recipe cone-thirds', /one of --beverage-ml, --beverage-floz/],
  ['convert --recipe cone-thirds --dose-g 18 --water-g 300', /--dose-g and --water-g say the same twice/],
  ['convert --recipe cone-thirds --dose-g=-3', /Dose must be from 3 to 120 g, not -3/],
  ['convert --recipe cone-thirds --dose-g plenty', /“plenty” is not a number. Type one like 12.7/],
  ['convert --recipe cone-thirds --cups 0', /Cups must be from 1 to 12, not 0/],
  ['convert --recipe no-such --dose-g 18', /There is no recipe “no-such”; there are cone-thirds/],
  [
    'convert --recipe cone-thirds --dose-g 18 --brewer press-350',
    /The Press 350 ml does not brew cone-thirds; give one of: cone-s, cone-m/,
  ],
  ['convert --recipe cone-thirds --dose-g 18 --roast burnt', /one of: very light, light/],
  ['convert --recipe cone-thirds --dose-g 18 --altitude-m 9000', /altitudeM must lie from -400 to 5000/],
  ['convert --recipe cone-thirds --dose-g 18 --each-ml 200', /--each-ml goes with --cups/],
  ['convert --recipe all.json --dose-g 18', /holds \d+ recipes; give a file with one/],
  ['recipe check old.json', /format: is version 0 of the format; this app reads versions 1 to 3/],
  ['recipe check huge.json', /is 40 MB; a file of recipes is at most 1 MB/],
  ['recipe check none.json', /cannot be read: no such file/],
  ['water blend --mass-g 300', /Give --of 48@18 217@96, or all of/],
  ['water blend --of 48', /must be grams@degrees/],
  ['water cool --from-c 90 --to-c 10', /does not cool to 10/],
  ['water heat --mass-g 0 --to-c 90', /more than 0 g/],
  ['stir', /unknown command/],
  ['plan no-press.json', /needs a press, and the bar has none/],
  ['plan half.json', /now: .*expected int/],
  ['plan problem.json --budget-ms -5', /from 0 to 3600000/],
  ['check problem.json half.json', /format: /],
])('%s is refused on stderr with exit code 2', (line, words) => {
  const { code, out, err } = ek(line);
  expect([code, out]).toEqual([2, '']);
  expect(err).toMatch(words);
});
