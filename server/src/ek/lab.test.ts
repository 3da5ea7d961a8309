/** `ek lab`: a file from the rush lab runs at the command line. */
import { lanternPier } from '@even-kettle/core/demo';
import { LAB_FORMAT, variantOf } from '@even-kettle/core/practice';
import { runLab } from './lab';

const bar = lanternPier(Date.UTC(2026, 0, 5, 8));
const menu = [
  {
    recipeId: 'cone-thirds',
    recipeVersion: 2,
    coffee: 'Saltmarsh',
    roast: 'light' as const,
    cupMl: 250,
    share: 1,
  },
];
const variant = {
  ...variantOf(bar, menu, { cupsAnHour: 6, curve: Array<number>(12).fill(1) }, 'As it is'),
  hands: 1,
};
const file = (change: object = {}) =>
  JSON.stringify({
    format: LAB_FORMAT,
    bar,
    recipes: [],
    shifts: 2,
    variants: [variant, { ...variant, id: 'b', name: 'Two pairs', hands: 2 }],
    ...change,
  });

async function lab(text: string, ...options: string[]) {
  let [out, err] = ['', ''];
  const code = await runLab(['lab.json', ...options], {
    out: (more) => (out += more),
    err: (more) => (err += more),
    readFile: () => ({ size: text.length, text: () => text }),
    nowMs: () => 0,
  });
  return { code, out, err };
}

test('each variant is written in a line, with how it differs from the first; the same file gives the same figures', async () => {
  const { code, out } = await lab(file());
  const lines = out.trim().split('\n');
  expect([code, lines.length]).toEqual([0, 2]);
  expect(lines[0]).toMatch(
    /^As it is: \d+\.\d cups an hour; wait median \d+:\d\d, .*busiest: [a-z-]+; 2 shifts$/,
  );
  expect(lines[1]).toMatch(/^Two pairs: .*against As it is/);
  expect((await lab(file())).out).toBe(out);
  const json = JSON.parse((await lab(file(), '--json')).out) as {
    figures: { shifts: number; cupsAnHour: number };
  }[];
  expect(json.map(({ figures }) => figures.shifts)).toEqual([2, 2]);
  const told = lines.map((line) => /: (\d+\.\d) cups an hour/.exec(line)![1]);
  expect(json.map(({ figures }) => figures.cupsAnHour.toFixed(1))).toEqual(told);
});

test.each([
  ['no JSON', 'so long', /no JSON/],
  ['another format', file({ format: 'other' }), /^format must be even-kettle\/lab@1/],
  ['too many shifts', file({ shifts: 5000 }), /^shifts must be at most 200/],
  [
    'five pairs of hands',
    file({ variants: [{ ...variant, hands: 5 }] }),
    /^variants\.0\.hands must be at most 4/,
  ],
  ['no kettle', file({ variants: [{ ...variant, kettles: 0 }] }), /^As it is: This recipe needs a kettle/],
])('%s is refused in words, with exit code 2', async (_what, text, words) => {
  const { code, out, err } = await lab(text);
  expect([code, out]).toEqual([2, '']);
  expect(err).toMatch(words);
});
