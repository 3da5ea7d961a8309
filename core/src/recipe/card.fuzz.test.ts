import fc from 'fast-check';
import { METHODS, RecipeError, SCHOOLS, brewCard, type BrewCard } from './index';

const anyRecipe = fc.constantFrom(...SCHOOLS);
const seed = Number(process.env['FUZZ_SEED'] ?? 20261124);
const runs = { seed, numRuns: 400 };
console.info(`card.fuzz seed ${seed}`);

/** What must hold of every card, whatever the cup. */
function expectSound(card: BrewCard): void {
  const poured = card.steps.filter((step) => step.pourG !== undefined);
  expect(poured.reduce((sum, step) => sum + step.pourG!, 0)).toBe(card.brewWaterG);
  expect(poured.at(-1)!.targetG).toBe(card.brewWaterG);
  expect(card.beverageG).toBe(
    Math.round(
      card.brewWaterG -
        METHODS[card.method].retentionGPerG * card.doseG -
        METHODS[card.method].lossG +
        card.bypassG,
    ),
  );
  let endS = -Infinity;
  for (const step of card.steps) {
    expect(Number.isInteger(step.startS) && Number.isInteger(step.durationS)).toBe(true);
    expect(step.durationS).toBeGreaterThan(0);
    expect(step.startS).toBeGreaterThanOrEqual(endS);
    expect(step.lag.minS).toBeLessThanOrEqual(step.lag.idealS);
    expect(step.lag.maxS ?? Infinity).toBeGreaterThanOrEqual(step.lag.idealS);
    if (step.end === 'clock') expect(step.lag.idealS).toBe(0);
    endS = step.endS;
  }
  expect(card.steps.filter((step) => step.anchor)).toHaveLength(1);
  expect(card.brewWindowS.from).toBeLessThanOrEqual(card.brewTimeS);
  expect(card.brewWindowS.to).toBeGreaterThanOrEqual(card.brewTimeS);
}

test('every card adds up and runs forwards', () => {
  fc.assert(
    fc.property(anyRecipe, fc.integer({ min: 60, max: 1000 }), (recipe, cupMl) => {
      const card = brewCard(recipe, { cupMl });
      expectSound(card);
      expect(Math.abs(card.beverageG - cupMl)).toBeLessThanOrEqual(1 + 0.1 * recipe.ratio);
    }),
    runs,
  );
});

test('any output fed back as the input gives the same brew within rounding', () => {
  fc.assert(
    fc.property(anyRecipe, fc.integer({ min: 80, max: 600 }), (recipe, cupMl) => {
      const card = brewCard(recipe, { cupMl });
      for (const again of [
        { cupMl: card.beverageG },
        { doseG: card.doseG },
        { brewWaterG: card.brewWaterG },
      ]) {
        const other = brewCard(recipe, again);
        expect(Math.abs(other.doseG - card.doseG)).toBeLessThanOrEqual(0.1001);
        expect(Math.abs(other.brewWaterG - card.brewWaterG)).toBeLessThanOrEqual(1 + 0.1 * recipe.ratio);
      }
    }),
    runs,
  );
});

test('what is no cup is refused at its field, whatever the number', () => {
  const wrong = fc.oneof(
    fc.constantFrom(0, -1, 59.9, 1000.1, 5000, NaN, Infinity),
    fc.double({ max: 0, noNaN: true }),
  );
  fc.assert(
    fc.property(anyRecipe, wrong, fc.constantFrom('cupMl', 'doseG', 'brewWaterG'), (recipe, value, field) => {
      fc.pre(!(field !== 'cupMl' && value > 0 && value < 1400));
      try {
        brewCard(recipe, { [field]: value } as { cupMl: number });
        throw new Error('was accepted');
      } catch (error) {
        expect(error).toBeInstanceOf(RecipeError);
        expect((error as RecipeError).field).toBe(field);
      }
    }),
    runs,
  );
});
