import {
  BREWERS,
  SCHOOLS,
  bookOf,
  brewCard,
  brewerById,
  capacityOf,
  fitsBrewer,
  wayOutInWords,
} from './index';

const fits = (brewerId: string, recipeId: string, cupMl: number) => {
  const card = brewCard(
    SCHOOLS.find(({ id }) => id === recipeId)!,
    { cupMl },
  );
  return fitsBrewer(brewerById(brewerId)!, card);
};

test.each([
  ['cone-m', 'cone-thirds', 190, false],
  ['cone-m', 'cone-thirds', 200, true],
  ['cone-m', 'cone-thirds', 450, true],
  ['cone-m', 'cone-thirds', 460, false],
  ['cone-s', 'cone-thirds', 150, true],
  ['cone-s', 'cone-thirds', 300, false],
  ['press-350', 'press-long', 250, true],
  ['press-350', 'press-long', 260, false],
  ['press-1l', 'press-long', 470, false],
  ['press-1l', 'press-long', 600, true],
  // A pressure pot comes in sizes, and nothing scales inside one.
  ['pressure-pot-90', 'pot-pressure', 90, true],
  ['pressure-pot', 'pot-pressure', 150, true],
  ['pressure-pot-300', 'pot-pressure', 300, true],
  ['pressure-pot', 'pot-pressure', 140, false],
  ['pressure-pot-300', 'pot-pressure', 250, false],
])('a %s and %s for %d ml: %s', (brewer, recipe, cupMl, expected) => {
  expect(fits(brewer, recipe, cupMl)).toBe(expected);
});

test('every brewer’s range is a range', () => {
  for (const brewer of BREWERS) {
    expect(brewer.minDoseG).toBeLessThan(brewer.maxDoseG);
    expect(brewer.maxWaterG).toBeGreaterThan(brewer.maxDoseG * 5);
  }
});

test('a pressure pot that is asked for another cup than its own says that it is always filled whole, and what pots make', () => {
  const card = brewCard(
    SCHOOLS.find(({ id }) => id === 'pot-pressure')!,
    { cupMl: 120 },
  );
  const { words, waysOut } = capacityOf(brewerById('pressure-pot')!, card);
  expect(words).toBe(
    'The Pressure pot 150 ml is always filled whole, with 18.8 g: its basket sets the dose.',
  );
  expect(waysOut.map(wayOutInWords)).toEqual([
    'The Pressure pot 90 ml makes 90 ml.',
    'The Pressure pot 150 ml makes 150 ml.',
    'The Pressure pot 300 ml makes 300 ml.',
  ]);
});

test('a pot’s cup with no size is the pot’s own, its water is weighed in, and a foam pot’s comes cool', () => {
  const card = (id: string) =>
    brewCard(
      SCHOOLS.find((school) => school.id === id)!,
      { cups: 1 },
    );
  expect([card('pot-pressure').beverageG, card('pot-foam').beverageG, card('cone-thirds').beverageG]).toEqual(
    [151, 75, 250],
  );
  // Only the cup is warmed from the kettle.
  expect([card('pot-foam').waterC, card('pot-foam').kettleFillG]).toEqual([20, 66]);
  expect(card('pot-foam').steps.map(({ kind }) => kind)).toContain('fill');
  const pressure = card('pot-pressure').steps.map(({ id, phase }) => `${phase} ${id}`);
  expect(pressure.slice(-2)).toEqual(['clean cool', 'clean clean']);
});

test('brews of the log that were made by a shipped recipe’s earlier version still find it', () => {
  const book = bookOf(SCHOOLS);
  const steps = (recipeVersion: number) =>
    book({ recipeId: 'pot-pressure', recipeVersion })!.steps.map(({ id }) => id);
  expect(steps(1)).toEqual(steps(2).filter((id) => id !== 'fill' && id !== 'cool'));
  expect(brewCard(book({ recipeId: 'pot-foam', recipeVersion: 1 })!, { cupMl: 75 }).brewTimeS).toBe(210);
});
