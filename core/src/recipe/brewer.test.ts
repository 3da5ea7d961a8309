import { BREWERS, SCHOOLS, brewCard, brewerById, fitsBrewer } from './index';

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
])('a %s and %s for %d ml: %s', (brewer, recipe, cupMl, expected) => {
  expect(fits(brewer, recipe, cupMl)).toBe(expected);
});

test('every brewer’s range is a range', () => {
  for (const brewer of BREWERS) {
    expect(brewer.minDoseG).toBeLessThan(brewer.maxDoseG);
    expect(brewer.maxWaterG).toBeGreaterThan(brewer.maxDoseG * 5);
  }
});
