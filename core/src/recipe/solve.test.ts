/** The edges of what can be asked, to the gram, and the words that say so. */
import { RecipeError, SCHOOLS, brewCard, type Ask, type Recipe } from './index';

const recipe = (id: string): Recipe => SCHOOLS.find((school) => school.id === id)!;
const thirds = recipe('cone-thirds');
const refusal = (ask: Ask, of: Recipe = thirds) => {
  try {
    brewCard(of, ask);
    return null;
  } catch (error) {
    if (!(error instanceof RecipeError)) throw error;
    return [error.code, error.field, error.message];
  }
};

test('the smallest and the largest dose are taken, and so is what rounding makes of them', () => {
  for (const ask of [
    { doseG: 3 },
    { doseG: 120 },
    { doseG: 2.8 },
    { doseG: 120.2 },
    { cupMl: 43 },
    { cupMl: 1704 },
    { cupMl: 39.1 },
  ])
    expect(refusal(ask)).toBeNull();
  expect(refusal({ doseG: 2.7 })).toEqual([
    'out-of-range',
    'doseG',
    'Dose must be from 3 to 120 g, not 2.7.',
  ]);
  expect(refusal({ doseG: 120.3 })).toEqual([
    'out-of-range',
    'doseG',
    'Dose must be from 3 to 120 g, not 120.3.',
  ]);
  expect(refusal({ cupMl: 39 })).toEqual([
    'out-of-range',
    'cupMl',
    'Cup must be from 43 to 1704 ml, not 39.',
  ]);
  expect(refusal({ brewWaterG: 44 })).toEqual([
    'out-of-range',
    'brewWaterG',
    'Brew water must be from 49 to 1944 g, not 44.',
  ]);
  // 3 x 13.1 - 18 to 120 x 13.1 - 18: what a siphon loses counts.
  expect(refusal({ cupMl: 1600 }, recipe('siphon-late'))![2]).toBe(
    'Cup must be from 22 to 1554 ml, not 1600.',
  );
  expect(refusal({ drinkG: 1600 }, recipe('siphon-late'))![2]).toBe(
    'Drink must be from 22 to 1554 g, not 1600.',
  );
  expect(refusal({ cups: 2, eachMl: 900 }, recipe('siphon-late'))![2]).toBe(
    'Each cup must be from 11 to 777 ml, not 900.',
  );
});

test('what is no number is told as such, with its unit where it has one', () => {
  expect(refusal({ doseG: NaN })).toEqual(['not-a-quantity', 'doseG', 'Dose must be a number of g.']);
  expect(refusal({ cupMl: Infinity })![2]).toBe('Cup must be a number of ml.');
  expect(refusal({ cupMl: 250, ratio: NaN })).toEqual(['not-a-quantity', 'ratio', 'Ratio must be a number.']);
  expect(refusal({ cups: NaN })).toEqual(['not-a-quantity', 'cups', 'Cups must be a number.']);
  expect(refusal({ cups: 13 })![2]).toBe('Cups must be from 1 to 12, not 13.');
  expect([refusal({ cups: 1 }), refusal({ cups: 12, eachMl: 100 })]).toEqual([null, null]);
});

test('a ratio may be as low as six of brew water; milk asks for more', () => {
  expect([refusal({ doseG: 18, ratio: 6 }), refusal({ doseG: 18, ratio: 25 })]).toEqual([null, null]);
  expect(refusal({ doseG: 18, ratio: 25.1 })![2]).toBe('Ratio must be from 6 to 25, not 25.1.');
  expect(refusal({ doseG: 18, ratio: 6.6, addition: 'milk' })![2]).toBe(
    'Ratio must be from 6.7 to 25, not 6.6.',
  );
});

test('a brew that leaves nothing for the cup is refused at what led to it', () => {
  // 4 x (6 - 1.9) - 18 is less than nothing.
  expect(refusal({ doseG: 4, ratio: 6 }, recipe('siphon-late'))).toEqual([
    'out-of-range',
    'doseG',
    '4 g of coffee in 24 g of water leaves nothing for the cup; ask for more.',
  ]);
  expect(refusal({ brewWaterG: 25, ratio: 6 }, recipe('siphon-late'))![1]).toBe('brewWaterG');
  expect(refusal({ doseG: 5, ratio: 6 }, recipe('siphon-late'))).toBeNull();
  // A recipe that keeps all of its water can be nobody's, but a file may hold one.
  const greedy = { ...thirds, retentionGPerG: 6.5, ratio: 6.5 };
  expect(refusal({ doseG: 18 }, greedy)).toEqual([
    'recipe-broken',
    'ratio',
    'At 1:6.5 the coffee keeps all the water. Ask for a higher ratio.',
  ]);
  expect(refusal({ doseG: 18 }, { ...greedy, bypassTimesDose: 1 })).toBeNull();
});
