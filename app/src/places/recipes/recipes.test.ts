/** What stands behind Recipes' screens: the converter's reasoning, the editor's acts, the code that is handed on. */
import { SCHOOLS, checkRecipe, type Recipe } from '@even-kettle/core/recipe';
import { readRecipe } from '@even-kettle/core/formats';
import { METRIC, type Units } from '@even-kettle/core/units';
import type { Bar } from '@even-kettle/core/contract';
import { OUNCES, TEST_BAR } from '../../testing/bar';
import { NOTHING_ASKED, type ConverterInput } from './asked';
import { readCode, recipeCode } from './code';
import { convert } from './conversion';
import { amountOf, idFor, ofKind, withStep, withStepAfter, withStepMoved, withoutStep } from './draft';

const thirds = SCHOOLS.find(({ id }) => id === 'cone-thirds')!;
const press = SCHOOLS.find(({ id }) => id === 'press-long')!;
const BAR: Bar = {
  ...TEST_BAR,
  altitudeM: 2150,
  stations: [
    { id: 'c', name: 'Cone', brewerId: 'cone-m' },
    { id: 'p', name: 'Press', brewerId: 'press-1l' },
  ],
  coffees: [...TEST_BAR.coffees, { id: 'low', name: 'Low', roast: 'dark', notes: '', decaf: false }],
};
const ASKED: ConverterInput = { ...NOTHING_ASKED, text: '250' };
const made = (part: Partial<ConverterInput>, recipe = thirds, units: Units = METRIC) =>
  convert(recipe, { ...ASKED, ...part }, BAR, units);

test('coffee, altitude, brewer and grinder come from the bench, and each can be another', () => {
  // 52 is 32 bands from 20: 30 - 32 x 0.4 = 17.2, a step off for this coffee.
  expect(made({})).toMatchObject({
    ok: true,
    card: { doseG: 17.6, waterC: 92.8 },
    brewer: { id: 'cone-m' },
    grind: { ok: true, setting: 16.2 },
    beansG: 17.6,
    place: { altitudeM: 2150, setBy: 'bar' },
  });
  expect(made({ coffeeId: 'low', altitude: '0', brewerId: 'cone-s' })).toMatchObject({
    ok: true,
    card: { waterC: 88 },
    brewer: { id: 'cone-s' },
    grind: { ok: true, setting: 17.2 },
    place: { altitudeM: 0, setBy: 'asked' },
  });
  // 250 ml is too little for the one press that stands here; nothing elsewhere is taken unasked.
  expect(made({}, press)).toMatchObject({
    ok: true,
    brewer: { id: 'press-1l' },
    capacity: { fit: { fits: false, why: 'too little' } },
  });
});

test('what is asked can lead from any side, in the bar’s units', () => {
  expect(made({ text: '8.45' }, thirds, OUNCES)).toMatchObject({ ok: true, card: { doseG: 17.6 } });
  expect(made({ lead: 'dose', text: '0.7055' }, thirds, OUNCES)).toMatchObject({
    ok: true,
    card: { doseG: 20 },
  });
  expect(made({ cups: '3', text: '100' })).toMatchObject({
    ok: true,
    perCupG: [100, 100, 100],
    card: { doseG: 21.1 },
  });
  expect(made({ lead: 'dose', text: '20', cups: '2' })).toMatchObject({ ok: true, perCupG: [142, 142] });
  expect(made({ ratio: '15.5', lead: 'dose', text: '20' })).toMatchObject({
    ok: true,
    card: { brewWaterG: 310 },
  });
});

test.each<[Partial<ConverterInput>, string, string]>([
  [{ text: 'large' }, 'cup', 'Cup: “large” is not a number. Type one like 12.7.'],
  [{ text: '0' }, 'cup', 'Cup must be from 43 to 1704 ml, not 0.'],
  [{ lead: 'water', text: '9000' }, 'water', 'Brew water must be from 49 to 1944 g, not 9000.'],
  [{ cups: '1.5' }, 'cups', 'Cups: a whole number from 1 to 12.'],
  [{ ratio: '3' }, 'ratio', 'Ratio: from 6 to 25.'],
  [{ altitude: '9000' }, 'altitude', 'Altitude: from -400 to 5000 m.'],
])('what is wrong is told at its field: %j', (part, field, reason) => {
  expect(made(part)).toMatchObject({ ok: false, field, reason });
});

test('every recipe goes through its code and comes out the same; a damaged code is refused in words', () => {
  for (const recipe of SCHOOLS) {
    const code = recipeCode(recipe, 'http://192.168.1.20:4173');
    expect(code.length).toBeLessThan(950);
    expect(readCode(code)).toEqual({ ok: true, recipe });
  }
  // As an earlier version of the app printed it, on paper that hangs on a wall.
  const printed =
    '/recipes/import#ek1=7ZtBDoJADEUvxF08gQujxJWGRMedd_f9TgqyJCTQAjtCgJROoJ15b6bDx79Va0ZCd1juay1Ce_sgxZvX-JBT3d7uGHO8p4Qbs2EoJnBXkEp5t6xjjovXScea_dOJvGgJnn6hmYS1FDGh1fQXyQpqq9P47MqVzPTS6Yl5-SiL9F3tMlIwRxqWSMzRwwnNHD3IJEa5hxvJKPeYdo5JPQ35MWn_4a6HSYcQomDSfngPTDoDk3oWt4NJhyqXD5N67DkwKY1jPGHteim2U1T9bZp9q810C7NZ9D9x_v4A';
  expect(readCode(printed)).toMatchObject({ ok: true, recipe: { id: 'press-short', version: 1 } });
  const code = recipeCode(thirds, '');
  expect(readCode('hello')).toMatchObject({
    ok: false,
    reason: expect.stringContaining('not a recipe’s code'),
  });
  expect(readCode(code.slice(0, -20))).toMatchObject({
    ok: false,
    reason: expect.stringContaining('damaged'),
  });
  expect(readCode(`ek1=${'A'.repeat(9000)}`)).toMatchObject({
    ok: false,
    reason: expect.stringContaining('too long'),
  });
  const evil = recipeCode({ ...thirds, name: '<script>' }, '');
  expect(readCode(evil)).toMatchObject({ ok: false, reason: expect.stringContaining('without < or >') });
});

test('the editor’s acts keep a recipe whole', () => {
  const at = (recipe: Recipe, id: string) => recipe.steps.findIndex((step) => step.id === id);
  const added = withStepAfter(thirds, at(thirds, 'pour-2'));
  expect(added.steps[at(thirds, 'pour-2') + 1]).toMatchObject({ id: 'step-1', phase: 'brew', kind: 'stir' });
  expect(checkRecipe(added)).toEqual([]);
  expect(withStepAfter(added, 0).steps[1]!.id).toBe('step-2');
  expect(withoutStep(added, at(added, 'step-1'))).toEqual({ recipe: thirds, mended: [] });
  expect(withStepMoved(withStepMoved(thirds, 3, 6), 6, 3)).toEqual(thirds);
  expect(withStepMoved(thirds, 0, -1)).toBe(thirds);

  const last = at(thirds, 'pour-4');
  const swirl = ofKind(thirds.steps[last]!, 'swirl');
  expect([swirl.pour, swirl.lasts, swirl.end]).toEqual([undefined, { s: 5 }, { by: 'clock' }]);
  const again = ofKind(swirl, 'pour');
  const whole = withStep(thirds, last, { ...again, pour: { amount: amountOf('toShare'), flowGPerS: 5 } });
  expect(readRecipe(whole).ok).toBe(true);
  expect(idFor('cone', 'Mornings, très fort!')).toBe('cone-mornings-tre-s-fort');
});

test('a step that others lean on is removed with its leanings mended and said; the recipe stays sound', () => {
  const at = (id: string) => thirds.steps.findIndex((step) => step.id === id);
  expect(withoutStep(thirds, at('bloom')).mended).toEqual(['“First of three pours” now starts the timer.']);
  expect(withoutStep(thirds, at('pour-4')).mended).toEqual([
    '“Second of three pours” now goes to all of the water.',
  ]);
  expect(withoutStep(thirds, at('warm-cup')).mended).toEqual([
    'The kettle is now held from “Fill the kettle” to “Swirl”.',
  ]);
  expect(withoutStep(thirds, at('grind')).mended).toEqual(['The grinder is held for it no more.']);
  // What every recipe needs is told when it is missing; nothing else is left leaning on air.
  const needed =
    /^(Exactly one step|The last step|One step must start|At least one step|Some step must hold|Prep comes)/;
  for (const recipe of SCHOOLS)
    for (const [index, step] of recipe.steps.entries()) {
      const faults = checkRecipe(withoutStep(recipe, index).recipe).filter(
        ({ reason }) => !needed.test(reason),
      );
      expect([recipe.id, step.id, faults]).toEqual([recipe.id, step.id, []]);
    }
});
