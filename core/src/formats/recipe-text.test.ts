/** Recipes as people write them: each is read right, or what is doubtful is marked. None is read wrongly in silence. */
import { recipeFromPlain, settlePours, brewCard, checkRecipe, type PlainPour } from '../recipe';
import { readPours, readRecipeText, type ReadText } from './index';

type Expected = {
  doseG?: number;
  waterG?: number;
  waterC?: number;
  /** Readings of the scale after each pour, with their starts: "0 41", "36 135", or "+30" for a wait. */
  pours?: string;
  end?: [number, number];
  grindBand?: number;
  method?: string;
  /** It cannot all be known: something must be marked. */
  marked?: true;
};

// One a line: our own inventions, in the habits and units of many hands.
const TEXTS: [string, Expected][] = [
  [
    '17.4 g, 272 ml, 92 °C, bloom 41 g 36 s, 0:36 +94, 1:12 rest',
    { doseG: 17.4, waterG: 272, waterC: 92, pours: '0 41, 36 135, 72 272' },
  ],
  [
    '17,4 g; 272 g; 92°C; 0:00 41 g; 0:36 135 g; 1:12 272 g',
    { doseG: 17.4, waterG: 272, waterC: 92, pours: '0 41, 36 135, 72 272' },
  ],
  [
    'Coffee 18 g\nWater 290 g\n94 °C\n0:00 bloom 40 g\n0:40 to 130 g\n1:10 to 210 g\n1:40 to 290 g',
    { doseG: 18, waterG: 290, waterC: 94, pours: '0 40, 40 130, 70 210, 100 290' },
  ],
  [
    '18g coffee, 290g water at 94C. Bloom 40g for 40s. Then pour to 290g.',
    { doseG: 18, waterG: 290, waterC: 94, pours: '0 40, 40 290' },
  ],
  [
    '20 g of coffee, 1:15, 93 degrees, bloom 50 g 45 s, then the rest',
    { doseG: 20, waterG: 300, waterC: 93, pours: '0 50, 45 300' },
  ],
  [
    'dose: 22 g\nratio 1:16\n0:00 +50\n0:45 +150\n1:30 +152',
    { doseG: 22, waterG: 352, pours: '0 50, 45 200, 90 352' },
  ],
  ['15 g, 250 ml, 0:00 45, 0:45 100, 1:30 105', { doseG: 15, waterG: 250, pours: '0 45, 45 145, 90 250' }],
  ['15 g, 250 ml, 0:00 45, 0:45 145, 1:30 250', { doseG: 15, waterG: 250, pours: '0 45, 45 145, 90 250' }],
  [
    '30 g coffee\n500 g water\n205 F\n0:00 70 g bloom\n0:45 pour to 300 g\n1:45 pour to 500 g\ndrawdown 3:30',
    { doseG: 30, waterG: 500, waterC: 96.1, pours: '0 70, 45 300, 105 500', end: [200, 220] },
  ],
  ['16 g / 256 g / 91 °C', { doseG: 16, waterG: 256, waterC: 91 }],
  ['16 g, 256 g, 91 °C, 5 pours of 50 g', { marked: true }],
  ['24 g coffee, 380 ml water, 1 min bloom', { marked: true }],
  [
    '60 g/l, 500 ml, 95 °C, 0:00 60 g, 0:40 to 300 g, 1:30 rest',
    { doseG: 30, waterG: 500, waterC: 95, pours: '0 60, 40 300, 90 500' },
  ],
  ['55 grams per litre, 1 l, press', { doseG: 55, waterG: 1000, method: 'press' }],
  [
    'Press. 42 g, 660 g, 95 °C, plunge at 7:20',
    { doseG: 42, waterG: 660, waterC: 95, method: 'press', end: [430, 450] },
  ],
  ['Hourglass, thick paper: 32 g, 525 g, 95 °C', { marked: true }],
  [
    'hourglass\n32 g coffee\n525 g water\n0:00 70 g\n0:45 rest',
    { doseG: 32, waterG: 525, method: 'hourglass', pours: '0 70, 45 525' },
  ],
  [
    'cone, 18 g, 300 g, 90C, medium fine, 0:00 50, 0:30 rest',
    { doseG: 18, waterG: 300, waterC: 90, grindBand: 54, method: 'cone', pours: '0 50, 30 300' },
  ],
  ['18 g, 300 g, grind: 24 clicks, 0:00 50, 0:30 rest', { marked: true }],
  [
    '18 g, 300 g, coarse grind, 0:00 50 g, 0:30 300 g',
    { doseG: 18, waterG: 300, grindBand: 22, pours: '0 50, 30 300' },
  ],
  [
    '18 g coffee\n300 g water\nbloom with 50 g\nwait 30 s\npour to 300 g',
    { doseG: 18, waterG: 300, pours: '0 50, +30 300' },
  ],
  [
    '18 g coffee, 300 g water, bloom 50 g, wait 30 seconds, add 100 g, wait 30 seconds, add 150 g',
    { doseG: 18, waterG: 300, pours: '0 50, +30 150, +30 300' },
  ],
  [
    '18 g coffee. 300 g water. Bloom 3x for 45 s. Pour to 180 g. Wait 40 s. Pour the rest.',
    { doseG: 18, waterG: 300, pours: '0 54, 45 180, +40 300' },
  ],
  [
    '18 g, 300 g, bloom 2x 40 s, 1:10 60 %, 1:40 rest',
    { doseG: 18, waterG: 300, pours: '0 36, 70 180, 100 300' },
  ],
  ['1.000 ml water, 60 g coffee', { marked: true }],
  [
    '0.63 oz coffee, 10 oz water, 200 F, 0:00 1.5 oz, 0:40 to 10 oz',
    { doseG: 17.9, waterG: 283.5, waterC: 93.3, pours: '0 42.5, 40 283.5' },
  ],
  [
    '20 g coffee, 10 fl oz water, 0:00 50 g, 0:40 rest',
    { doseG: 20, waterG: 295.7, pours: '0 50, 40 295.7' },
  ],
  ['20 g, 0:00 60 g, 0:45 160 g, 1:15 260 g, 1:45 320 g', { marked: true }],
  [
    '20 g, 0:00 60 g, 0:45 to 160 g, 1:15 to 260 g, 1:45 to 320 g',
    { doseG: 20, waterG: 320, pours: '0 60, 45 160, 75 260, 105 320' },
  ],
  ['20 g, 320 g, 0:00 60, 0:45 100, 1:15 110, 1:45 rest', { marked: true }],
  [
    '20 g, 320 g, 0:00 60, 0:45 160, 1:15 260, 1:45 rest',
    { doseG: 20, waterG: 320, pours: '0 60, 45 160, 75 260, 105 320' },
  ],
  [
    '20 g, 320 g, 0:00 60, 0:45 50, 1:15 60, 1:45 rest',
    { doseG: 20, waterG: 320, pours: '0 60, 45 110, 75 170, 105 320' },
  ],
  [
    "19 g, 285 g, 93 °C, 0'00 45 g, 0'40 150 g, 1'20 285 g",
    { doseG: 19, waterG: 285, waterC: 93, pours: '0 45, 40 150, 80 285' },
  ],
  [
    '19 g coffee | 285 g water | 93 °C | 0:00 45 g swirl | 0:40 to 150 g | 1:20 to 285 g swirl',
    { doseG: 19, waterG: 285, waterC: 93, pours: '0 45, 40 150, 80 285' },
  ],
  [
    'Morning cup\n19 g coffee\n285 g water\n0:00 45 g\n0:40 rest',
    { doseG: 19, waterG: 285, pours: '0 45, 40 285' },
  ],
  [
    '19 g coffee, 285 g water, 0:00 45 g, 0:40 rest, total 2:50 - 3:20',
    { doseG: 19, waterG: 285, pours: '0 45, 40 285', end: [170, 200] },
  ],
  [
    '19 g coffee, 285 g water, 0:00 45 g, 0:40 rest, brew time 3 min',
    { doseG: 19, waterG: 285, pours: '0 45, 40 285', end: [170, 190] },
  ],
  [
    '19 g coffee, 285 g water, 0:00 45 g, 0:40 rest, finish 3 min 10 s',
    { doseG: 19, waterG: 285, pours: '0 45, 40 285', end: [180, 200] },
  ],
  ['19 g coffee, 285 g water, use a metal spoon', { marked: true }],
  ['19 g coffee and 21 g coffee, 285 g water', { marked: true }],
  ['Water 92 °C, then 85 °C. 19 g coffee, 285 g water', { marked: true }],
  ['19 g coffee, 285 g water, 300 °C', { marked: true }],
  ['1:16 with 19 g and 400 g water', { marked: true }],
  ['19 g coffee, 304 g water, 1:16, 0:00 45 g, 0:40 rest', { doseG: 19, waterG: 304, pours: '0 45, 40 304' }],
  ['a pinch of coffee and a cup of water', { marked: true }],
  ['', {}],
  [
    'Dose 17.4 g. Water 272 g. Temp 92 C. 0:00 pour 41 g. 0:36 pour to 135 g. 1:12 pour to 272 g. Drawdown 2:50 - 3:10.',
    { doseG: 17.4, waterG: 272, waterC: 92, pours: '0 41, 36 135, 72 272', end: [170, 190] },
  ],
  [
    '17.4 g → 272 g\n0:00 41 g\n0:36 +94 g\n1:12 +137 g',
    { doseG: 17.4, waterG: 272, pours: '0 41, 36 135, 72 272' },
  ],
  [
    'beans: 25 g, water: 400 g, 96 °C, fine, 0:00 75 g, 0:45 200 g, 1:30 400 g',
    { doseG: 25, waterG: 400, waterC: 96, grindBand: 64, pours: '0 75, 45 200, 90 400' },
  ],
  ['25 g beans 400 g water', { doseG: 25, waterG: 400 }],
  ['air press, 16 g, 240 g, 88 °C', { doseG: 16, waterG: 240, waterC: 88, method: 'air-press' }],
  ['siphon 26 g, 390 g', { doseG: 26, waterG: 390, method: 'siphon' }],
  [
    'flat-bottom dripper, 20 g, 320 g, 0:00 50, 0:40 rest',
    { doseG: 20, waterG: 320, method: 'flat', pours: '0 50, 40 320' },
  ],
  [
    'cloth sock: 22 g, 340 g, 0:00 48 g, 0:40 to 145, 1:20 to 243, 2:00 rest',
    { doseG: 22, waterG: 340, method: 'sock', pours: '0 48, 40 145, 80 243, 120 340' },
  ],
  [
    '20g coffee, 300g water, bloom 60g, at 0:30 add 120g, at 1:00 add 120g',
    { doseG: 20, waterG: 300, pours: '0 60, 30 180, 60 300' },
  ],
  [
    '20g coffee, 300g water, bloom 60g, at 0:30 pour 120g, at 1:00 pour 120g',
    { doseG: 20, waterG: 300, pours: '0 60, 30 180, 60 300' },
  ],
  [
    '20 g coffee, 300 g water. 0:00 add 60 g and stir. 0:30 rest.',
    { doseG: 20, waterG: 300, pours: '0 60, 30 300' },
  ],
  ['20 g coffee, 300 g water, ice 120 g', { marked: true }],
  ['20 g coffee, 300 g water, sugar', { marked: true }],
  ['20 g coffee, 300 g water, 0:00 60 g, somewhere around the first minute the rest', { marked: true }],
  ['20 g coffee, 300 ml water (boiled, 1 min off), 0:00 60 g, 0:40 rest', { marked: true }],
  ['20 g coffee 300 g water 0:00 60 g 0:40 rest', { marked: true }],
  [
    '18 g coffee, 288 g water, bloom 40 g in the centre, 0:40 to 160 g in spirals, 1:20 rest',
    { doseG: 18, waterG: 288, pours: '0 40 centre, 40 160 spiral, 80 288' },
  ],
  ['18 g coffee, 288 g water, 0:00 40 g, 0:40 centre then spiral to 160 g, 1:20 rest', { marked: true }],
  ['18 g coffee, 288 g water, 0:00 40 g, 0:40 slowly to 160 g, 1:20 rest', { marked: true }],
  ['medium, 18 g, 288 g', { doseG: 18, waterG: 288, grindBand: 46 }],
];

const startWords = ({ start }: PlainPour) =>
  start === 'not said' ? '?' : 'atS' in start ? String(start.atS) : `+${start.waitS}`;

/** What was read, in the words of the table. */
function asExpected(read: ReadText): Expected & { pours?: string } {
  const settled = settlePours(read.pours, read.waterG ?? 0);
  const pours = settled.ok
    ? read.pours
        .map((pour, n) =>
          [startWords(pour), Math.round(settled.targetsG[n]! * 10) / 10, pour.path]
            .filter((each) => each !== undefined)
            .join(' '),
        )
        .join(', ')
    : 'doubtful';
  return {
    ...(read.doseG === undefined ? {} : { doseG: read.doseG }),
    ...(read.waterG === undefined ? {} : { waterG: read.waterG }),
    ...(read.waterC === undefined ? {} : { waterC: read.waterC }),
    ...(read.grindBand === undefined ? {} : { grindBand: read.grindBand }),
    ...(read.method === undefined ? {} : { method: read.method }),
    ...(read.endS === undefined ? {} : { end: [read.endS.from, read.endS.to] }),
    ...(read.pours.length === 0 ? {} : { pours }),
  };
}

test('sixty texts are read right or marked, and none wrongly in silence', () => {
  const counts = { right: 0, marked: 0 };
  const wrong: unknown[] = [];
  for (const [text, expected] of TEXTS) {
    const read = readRecipeText(text);
    const found = asExpected(read);
    const marked = read.unread.length > 0 || found.pours === 'doubtful' || found.pours?.includes('?');
    const { marked: mustMark, ...figures } = expected;
    if (marked) counts.marked += 1;
    else if (mustMark) wrong.push({ text, 'read in silence': found });
    else if (JSON.stringify(sorted(found)) === JSON.stringify(sorted(figures))) counts.right += 1;
    else wrong.push({ text, expected: figures, found });
    if (marked && !mustMark) wrong.push({ text, 'marked without need': read.unread, found });
  }
  console.info(`Of ${TEXTS.length} texts ${counts.right} were read right and ${counts.marked} were marked.`);
  expect(wrong).toEqual([]);
  expect(TEXTS.length).toBeGreaterThanOrEqual(60);
});
const sorted = (value: object) =>
  Object.fromEntries(Object.entries(value).sort(([a], [b]) => a.localeCompare(b)));

test('what was read is a recipe that scales, with its sums exact', () => {
  const read = readRecipeText(TEXTS[0]![0]);
  const made = recipeFromPlain(
    {
      method: 'cone',
      name: 'From a bag',
      doseG: read.doseG!,
      waterG: read.waterG!,
      waterC: read.waterC!,
      pours: read.pours,
    },
    'cone-from-a-bag',
  );
  if (!made.ok) throw new Error(JSON.stringify(made.faults));
  expect(checkRecipe(made.recipe)).toEqual([]);
  const own = brewCard(made.recipe, { doseG: 17.4 });
  expect(own.steps.filter(({ pourG }) => pourG).map(({ startS, targetG }) => [startS, targetG])).toEqual([
    [0, 41],
    [36, 135],
    [72, 272],
  ]);
  // Half as much again: 61.5, 202.5 and 408 g, a gram being what a scale is read to.
  const large = brewCard(made.recipe, { doseG: 26.1 });
  expect(large.steps.filter(({ pourG }) => pourG).map(({ targetG }) => targetG)).toEqual([61, 202, 408]);
});

test('in a field for pours alone the first figure is a pour, and what is no pour is marked', () => {
  const pours = (text: string, bareG = 1) => {
    const { pours: found, unread } = readPours(text, { bareG, doseG: 18, waterG: 288 });
    return [found.map(({ start, amount }) => [start, amount]), unread];
  };
  expect(pours('41, 0:36 +94, rest')).toEqual([
    [
      [{ atS: 0 }, { g: 41 }],
      [{ atS: 36 }, { addG: 94 }],
      ['not said', 'rest'],
    ],
    [],
  ]);
  expect(pours('bloom 2x, wait 30 s, 50 %')[0]).toEqual([
    [{ atS: 0 }, { toG: 36 }],
    [{ waitS: 30 }, { toG: 144 }],
  ]);
  expect(pours('0:00 1.5', 28.3495)[0]).toEqual([[{ atS: 0 }, { g: 42.5 }]]);
  expect(pours('swirl, 0:36 +94')[1]).toEqual(['swirl']);
  expect(pours('18 g coffee, 0:36 +94')[1]).toEqual(['18 g coffee']);
  expect(pours('93 °C')[1]).toEqual(['93 °C']);
});

test('a gap of any length is one space, and takes no time', () => {
  const gap = ' '.repeat(300_000);
  expect(readRecipeText(`15${gap}g, 250${gap}ml`)).toEqual(readRecipeText('15 g, 250 ml'));
});
