/** No fill ever goes over what its kettle takes, and together they hold what the brew needs. */
import fc from 'fast-check';
import { fillsOf, heatingTimeS, kettleLimitG } from '../water';
import { DEFAULT_PLACE, METHODS, SCHOOLS, brewCard } from './index';

test('a brew that fits is one fill; one that does not is rinsed from a hot tap, else first; what still does not fit is said in grams', () => {
  const cup = { hotG: 285, rinseG: 60, cupG: 60 };
  const one = { shortG: 0, isRinsedFromTap: false };
  expect(fillsOf(cup, 94, 577, 90)).toEqual({ ...one, fills: [{ g: 446, atC: 94, for: 'both' }] });
  // There is room for half of what is usually spare, so nobody fills twice.
  expect(fillsOf(cup, 94, 430, 15)).toEqual({ ...one, fills: [{ g: 430, atC: 94, for: 'both' }] });
  // Thirty-two grams in an hourglass, in a kettle of a litre.
  const large = { hotG: 525, rinseG: 120, cupG: 60 };
  const brewed = { g: 577, atC: 95, for: 'brew' };
  expect(fillsOf(large, 95, 577, 90)).toEqual({ shortG: 0, isRinsedFromTap: true, fills: [brewed] });
  expect(fillsOf(large, 95, 577, 84)).toEqual({
    ...one,
    fills: [{ g: 198, atC: 95, for: 'rinse' }, brewed],
  });
  expect(fillsOf({ hotG: 850, rinseG: 100, cupG: 60 }, 95, 577, 15).shortG).toBe(273);
});

test('whatever is brewed in whatever kettle, no fill is over its limit', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...SCHOOLS.filter(({ method }) => METHODS[method].heatedIn === 'kettle')),
      fc.integer({ min: 100, max: 900 }),
      fc.integer({ min: 300, max: 2000 }),
      (recipe, cupMl, sizeMl) => {
        let card;
        try {
          card = brewCard(
            recipe,
            { cupMl },
            { ...DEFAULT_PLACE, kettle: { powerW: 1200, filledAtC: 90, sizeMl } },
          );
        } catch {
          return;
        }
        const limitG = kettleLimitG(sizeMl, card.waterC, METHODS[recipe.method].drawdownExponent !== null);
        for (const { g } of card.fills) expect(g).toBeLessThanOrEqual(limitG);
        const short = card.notes.some((note) => note.includes('larger kettle'));
        const coolG = card.steps.reduce(
          (sum, step) => sum + (step.waterC === undefined ? 0 : step.pourG!),
          0,
        );
        if (!short)
          expect(card.fills.at(-1)!.g).toBeGreaterThanOrEqual(card.brewWaterG + card.bypassG - coolG);
      },
    ),
    { numRuns: 300, seed: 20261127 },
  );
});

test.each(['cone-coolbloom', 'sock-dense'])('%s heats as long as the fill that is shown takes', (id) => {
  const recipe = SCHOOLS.find((school) => school.id === id)!;
  const kettle = { powerW: 1200, filledAtC: 20 };
  const card = brewCard(recipe, { cupMl: 250 }, { ...DEFAULT_PLACE, kettle });
  expect(card.steps.map(({ kind }) => kind)).toContain('heat');
  const covered = card.steps
    .slice(
      card.steps.findIndex(({ id: step }) => step === 'fill') + 1,
      card.steps.findIndex(({ id: step }) => step === 'set-filter'),
    )
    .reduce((sum, { durationS }) => sum + durationS, 0);
  expect(covered).toBeCloseTo(heatingTimeS(card.fills[0]!.g, card.waterC, kettle), -1);
});
