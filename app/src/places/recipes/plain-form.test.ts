/** The form for a new recipe: what may stand in its fields, what each says when it is wrong, and what is pasted into it. */
import { readRecipeText } from '@even-kettle/core/formats';
import { METRIC, type Units } from '@even-kettle/core/units';
import { EMPTY_FORM, fillFrom, partsOf, readDose, readForm, type PlainForm } from './plain-form';

const TYPED: PlainForm = {
  ...EMPTY_FORM,
  name: 'From the bag',
  dose: '17.4',
  water: '272',
  temperature: '92',
  pours: '0:00 41, 0:36 +94, 1:12 +76, 1:48 rest',
};
const NONE: ReadonlySet<string> = new Set();
const read = (part: Partial<PlainForm> = {}, units: Units = METRIC, spoonG = 0, taken = NONE) =>
  readForm({ ...TYPED, ...part }, units, spoonG, taken);
const made = (part: Partial<PlainForm> = {}, units: Units = METRIC, spoonG = 0) => {
  const form = read(part, units, spoonG);
  if (!form.made) throw new Error(JSON.stringify(form.faults));
  return form.made;
};

test('a printed recipe becomes one that is relative: a bloom of the dose, shares of the water', () => {
  const { recipe, targetsG } = made();
  expect(targetsG).toEqual([41, 135, 211, 272]);
  expect(recipe).toMatchObject({ id: 'cone-from-the-bag', refDoseG: 17.4, ratio: 15.632, waterC: 92 });
  expect(recipe.steps.flatMap(({ pour }) => (pour ? [pour.amount] : []))).toEqual([
    { timesDose: 2.356 },
    { toShare: 0.4963 },
    { toShare: 0.7757 },
    { toShare: 1 },
  ]);
});

test.each<[string, number | null, number, number | string]>([
  ['17.4', null, 0, 17.4],
  ['1:16', 272, 0, 17],
  ['1 : 15.5', 310, 0, 20],
  ['60 g/l', 500, 0, 30],
  ['62,5 g per litre', 400, 0, 25],
  ['3 spoons', 300, 6.5, 19.5],
  ['2 level tablespoons', null, 9, 18],
  ['1:16', null, 0, 'Say the water first: a ratio makes the dose from it.'],
  ['1:40', 272, 0, 'Ratio: from 6 to 25.'],
  ['3 spoons', 300, 0, 'Weigh one level spoon of coffee first, and say it below.'],
  ['1:16', 5000, 0, 'Dose: from 3 to 120 g.'],
  ['a handful', 272, 0, 'Dose: “a handful” is not a number. Type one like 12.7.'],
])('a dose of %s in %s g of water with a spoon of %s g is %s', (text, waterG, spoonG, expected) => {
  const dose = readDose(text, waterG, METRIC, spoonG);
  expect(dose.ok ? dose.value : dose.reason).toBe(expected);
});

test('what is wrong is told at its field; a field that is still empty is not wrong yet', () => {
  expect(read({ water: '' })).toMatchObject({ faults: {}, made: null });
  expect(read({ pours: '' })).toMatchObject({ faults: {}, made: null });
  expect(read({ water: '9' }).faults.water).toBe('Water: from 40 to 2000 g.');
  expect(read({ temperature: 'hot' }).faults.temperature).toMatch(/is not a number/);
  expect(read({ end: 'soon' }).faults.end).toBe('Say the end like 3:10, or 2:50-3:20.');
  expect(read({ grindBand: '140' }).faults.grindBand).toMatch(/^Grind: from 0 \(coarse\) to 100/);
  expect(read({ grindBand: 'like gravel' }).faults.grindBand).toMatch(/or in words, like “medium-fine”/);
  expect(made({ grindBand: 'a bit finer than table salt' }).recipe.grindBand).toBe(59);
  expect(read({ pours: '0:00 41, 0:36 a splash' }).faults.pours).toMatch(/^“0:36” was not understood/);
  expect(read({ pours: '0:00 41, 0:36 +94' }).faults.pours).toMatch(
    /^Pour 2: The pours come to 135 g of 272 g/,
  );
  // The pace of the pours before it is offered, and not taken for granted.
  expect(read({ pours: '0:00 41, 0:36 +94, 1:12 +76, rest' }).faults.pours).toMatch(
    /^Pour 4: Say when: 1:48/,
  );
  expect(read({ pours: '0:00 60, 0:45 100, 1:15 110, 1:45 rest', water: '320' }).faults.pours).toMatch(
    /what the scale reads, or what is added/,
  );
});

test('in the bar’s own units: ounces and Fahrenheit, figures in pours too', () => {
  const units: Units = { mass: 'oz', temperature: 'F', volume: 'fl oz' };
  const { recipe, targetsG } = made(
    { dose: '0.6', water: '9.6', temperature: '198', pours: '0:00 1.5, 0:40 rest' },
    units,
  );
  expect(recipe.refDoseG).toBeCloseTo(17, 1);
  expect(recipe.waterC).toBeCloseTo(92.2, 1);
  expect(targetsG).toEqual([42.5, 272]);
  // A unit that is typed holds, whatever the bar's own is.
  const other = made(
    { dose: '17 g', water: '272 ml', temperature: '92 °C', pours: '0:00 42.5 g, 0:40 rest' },
    units,
  );
  expect(other.recipe).toMatchObject({ refDoseG: 17, ratio: 16, waterC: 92 });
  expect(other.targetsG).toEqual([42.5, 272]);
  expect(read({ dose: '4 g', water: '9.6' }, units).faults.dose).toBeUndefined();
  expect(made({ dose: '0.6 oz' }).recipe.refDoseG).toBeCloseTo(17, 1);
});

test('pours may be said in doses and in shares of the water that stands in its own field', () => {
  expect(made({ pours: 'bloom 2x, 0:40 60 %, 1:20 rest' }).targetsG).toEqual([34.8, 163.2, 272]);
  expect(read({ pours: '0:00 41, 0:36 +94, 17.4 g coffee' }).faults.pours).toMatch(/^“17.4 g” was not/);
  const { recipe } = made({ pours: '0:00 41 centre, 0:36 to 135 spiral, 1:12 rest' });
  expect(recipe.steps.flatMap(({ pour }) => (pour ? [pour.paths?.map(({ path }) => path)] : []))).toEqual([
    ['centre'],
    ['spiral'],
    undefined,
  ]);
});

test('ice, cups and the brewer’s size are read out of a text, kept by the recipe, and refused where they cannot be', () => {
  const text =
    '350 ml press. 24 g coarse, 330 g water at 94, 90 g ice in the glass. Plunge 4:00. Makes 2 cups.';
  const form = { ...fillFrom(readRecipeText(text), EMPTY_FORM, METRIC), name: 'Iced' };
  expect(form).toMatchObject({ method: 'press', water: '330', ice: '90', servings: '2', brewer: '350' });
  expect(made(form).recipe).toMatchObject({ iceTimesDose: 3.75, servings: 2, ratio: 13.75 });
  expect(read({ ...form, water: '500' }).faults.water).toMatch(
    /^500 g of water are more than a brewer of 350 ml holds/,
  );
  expect(read({ ...form, servings: '1.5' }).faults.servings).toBe(
    'Cups it makes: a whole number from 1 to 12.',
  );
});

test('a name that is taken gets a number; a press needs no pours and moves to its end', () => {
  expect(read({}, METRIC, 0, new Set(['cone-from-the-bag'])).made!.recipe.id).toBe('cone-from-the-bag-2');
  const press = made({ method: 'press', pours: '', dose: '30', water: '480', end: '4:00' });
  expect(press.recipe.steps.find(({ kind }) => kind === 'plunge')!.start).toEqual({ atS: 230 });
});

test('what was pasted stands in the fields as a person would type it, and reads the same again', () => {
  const text =
    'Harbour\n17.4 g\n272 ml\n92 °C\nbloom 41 g 36 s\nadd 94 g\nwait 20 s\npour to 272 g in spirals and swirl\ntotal 2:50-3:10';
  const found = readRecipeText(text);
  expect(found.unread).toEqual([]);
  const form = fillFrom(found, EMPTY_FORM, METRIC);
  expect(form).toMatchObject({
    name: 'Harbour',
    dose: '17.4',
    water: '272',
    temperature: '92',
    end: '2:50 - 3:10',
  });
  expect(form.pours).toBe('0:00 to 41, 0:36 to 135, wait 20 s, pour to 272 spiral swirl');
  const again = readForm(form, METRIC, 0, NONE);
  expect(again.faults).toEqual({});
  expect(again.made!.targetsG).toEqual([41, 135, 272]);
  expect(again.made!.recipe.steps.some(({ kind }) => kind === 'swirl')).toBe(true);
  expect(again.made!.recipe.endWindowS).toEqual({ from: 170, to: 190 });
});

test.each([
  [
    'Siphon, cloth. 26 g medium, 390 g of water, 92 °C in the top. Stir 8 times. Flame off at 1:05, stir 4. Down by 2:00.',
    {
      method: 'siphon',
      filter: 'cloth',
      pours: 'stir 8 times, flame off at 1:05, stir 4 times',
      end: '2:00',
    },
    ['Coffee in, stir 8', 'Flame off, stir 4'],
  ],
  [
    'Press, 30 g coarse, 480 g off the boil. Stir 6 times. At 4:00 break the crust. Plunge at 8:00 for 20 s.',
    { method: 'press', temperature: '98', pours: 'stir 6 times, 4:00 stir, press at 8:00 for 20 s' },
    ['Stir 6', 'Stir', 'Plunge slowly'],
  ],
  [
    'Air press for dark roasts: 16 g, 230 g at 84 °C, stir 10 s, press at 1:20, 30 s. Top up with 40 g.',
    { method: 'air-press', roast: 'dark', bypass: '40', pours: 'stir for 10 s, press at 1:20 for 30 s' },
    ['Stir for 10 s', 'Press to the hiss', 'Add water to the server'],
  ],
])(
  'what a text says of stirs, flame and plunge stands in the form, reads the same again, and is in the steps: %s',
  (text, fields, steps) => {
    const form = fillFrom(readRecipeText(text), { ...EMPTY_FORM, name: 'Said' }, METRIC);
    expect(form).toMatchObject(fields);
    const again = readForm(form, METRIC, 0, NONE);
    expect(again.faults).toEqual({});
    const names = again.made!.recipe.steps.map(({ name }) => name);
    expect(names.filter((name) => steps.includes(name))).toEqual(steps);
  },
);

test('a corrected field stays when the text is read again; the text is shown in parts, each with its field or its mark', () => {
  const text = 'cone, 18 g, 24 clicks, 300 g';
  const found = readRecipeText(text);
  expect(fillFrom(found, { ...EMPTY_FORM, dose: '19' }, METRIC, new Set(['dose']))).toMatchObject({
    dose: '19',
    water: '300',
  });
  const parts = partsOf(text, found);
  expect(parts.map(({ words }) => words).join('')).toBe(text);
  expect(
    parts.flatMap(({ words, field, isUnread }) =>
      field ? [[words, field]] : isUnread ? [[words, 'unread']] : [],
    ),
  ).toEqual([
    ['cone', 'method'],
    ['18 g', 'dose'],
    ['24 clicks', 'unread'],
    ['300 g', 'water'],
  ]);
});
