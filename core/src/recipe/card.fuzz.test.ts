import { runsOf, seedOr } from '../testing/random';
import fc from 'fast-check';
import {
  ADDITIONS,
  BREWERS,
  DOSE_RANGE_G,
  METHODS,
  ROAST_LEVELS,
  RecipeError,
  SCHOOLS,
  WHY_OF,
  brewCard,
  checkRecipe,
  fitsBrewer,
  why,
  type Ask,
  type BrewCard,
  type Derivation,
  type BrewSite,
} from './index';

const seed = seedOr(20261124);
const runs = { seed, numRuns: runsOf(150) };
console.info(`card.fuzz seed ${seed}`);

const anyRecipe = fc
  .constantFrom(...SCHOOLS)
  .map((recipe) => Object.assign(recipe, { toJSON: () => recipe.id }));
const anyDose = fc
  .integer({ min: DOSE_RANGE_G.min * 10, max: DOSE_RANGE_G.max * 10 })
  .map((tenths) => tenths / 10);
const anyPlace: fc.Arbitrary<BrewSite> = fc.record({
  altitudeM: fc.integer({ min: -400, max: 5000 }),
  roast: fc.constantFrom(...ROAST_LEVELS),
  kettle: fc.record({
    powerW: fc.integer({ min: 500, max: 3000 }),
    filledAtC: fc.integer({ min: 5, max: 95 }),
  }),
});
const extras = fc.record(
  {
    ratio: fc.integer({ min: 75, max: 250 }).map((tenths) => tenths / 10),
    addition: fc.constantFrom(...ADDITIONS),
  },
  { requiredKeys: [] },
);

/** At another ratio a siphon's losses can be all that a few grams of coffee brew. */
const enough = (doseG: number, more: object): number =>
  Object.keys(more).length > 0 ? Math.max(7, doseG) : doseG;

/** What must hold of every card, whatever the cup. */
function expectSound(card: BrewCard): void {
  const poured = card.steps.filter((step) => step.pourG !== undefined);
  if (poured.length > 0) {
    expect(poured.reduce((sum, step) => sum + step.pourG!, 0)).toBe(card.brewWaterG);
    expect(poured.at(-1)!.targetG).toBe(card.brewWaterG);
  }
  expect(card.beverageG + card.retainedG + card.lossG).toBe(card.brewWaterG + card.bypassG);
  expect(card.perCupG.reduce((sum, each) => sum + each, 0)).toBe(card.beverageG);
  for (const figure of [
    card.doseG,
    card.brewWaterG,
    card.waterC,
    // A cold start of an iced drink takes nothing from a kettle.
    card.kettleFillG + 1,
    card.brewTimeS,
    card.retainedG + 1,
  ])
    expect(figure).toBeGreaterThan(0);
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
  // Moves after a very short drawdown may outlast it by their own few seconds.
  expect(card.brewWindowS.from).toBeLessThanOrEqual(card.brewTimeS);
  expect(card.brewWindowS.to + 5).toBeGreaterThanOrEqual(card.brewTimeS);
}

test('every card adds up and runs forwards, over all recipes, doses, places and additions', () => {
  fc.assert(
    fc.property(anyRecipe, anyDose, anyPlace, extras, (recipe, doseG, place, more) => {
      expectSound(brewCard(recipe, { doseG: enough(doseG, more), ...more }, place));
    }),
    runs,
  );
});

test('any output fed back as the input gives the same brew within rounding', () => {
  fc.assert(
    // With a ratio far below its own, a gram of rounding is more than a tenth of a gram of coffee.
    fc.property(anyRecipe, anyDose, extras, (recipe, doseG, { ratio, ...more }) => {
      if (ratio !== undefined && ratio >= 12) Object.assign(more, { ratio });
      const card = brewCard(recipe, { doseG: enough(doseG, more), ...more });
      const again: Ask[] = [
        { cupMl: card.beverageG },
        { drinkG: card.drinkG },
        { doseG: card.doseG },
        { brewWaterG: card.brewWaterG },
        { cups: 2, eachMl: card.beverageG / 2 },
      ];
      for (const ask of again) {
        const other = brewCard(recipe, { ...ask, ...more });
        expect(Math.abs(other.doseG - card.doseG)).toBeLessThanOrEqual(0.1001);
        expect(Math.abs(other.brewWaterG - card.brewWaterG)).toBeLessThanOrEqual(1 + 0.1 * card.ratio);
      }
    }),
    runs,
  );
});

test('in the brewer that it fits no pour is lost, whether it has to be split or not', () => {
  fc.assert(
    fc.property(fc.constantFrom(...BREWERS), fc.nat(4), fc.nat(100), (brewer, which, percent) => {
      const ofMethod = SCHOOLS.filter(({ method }) => method === brewer.method);
      const recipe = ofMethod[which % ofMethod.length]!;
      const rangeG = brewer.maxDoseG - brewer.minDoseG;
      const doseG = Math.round((brewer.minDoseG + (rangeG * percent) / 100) * 10) / 10;
      fc.pre(fitsBrewer(brewer, brewCard(recipe, { doseG })));
      const card = brewCard(
        recipe,
        { doseG },
        { altitudeM: 0, roast: 'medium', kettle: { powerW: 1200, filledAtC: 90 }, brewer },
      );
      expectSound(card);
      expect(new Set(card.steps.map(({ id }) => id)).size).toBe(card.steps.length);
      for (const hold of card.holds)
        expect(card.steps.map(({ id }) => id)).toEqual(expect.arrayContaining([hold.from, hold.to]));
    }),
    runs,
  );
});

test('what is no cup is refused at its field, whatever the number', () => {
  const wrong = fc.oneof(
    fc.constantFrom(0, -1, 4000, NaN, Infinity, -Infinity),
    fc.double({ max: 0, noNaN: true }),
    fc.double({ min: 4000, noNaN: true }),
  );
  fc.assert(
    fc.property(
      anyRecipe,
      wrong,
      fc.constantFrom('cupMl', 'drinkG', 'doseG', 'brewWaterG', 'cups'),
      (recipe, value, field) => {
        try {
          brewCard(recipe, { [field]: value } as unknown as Ask);
          throw new Error('was accepted');
        } catch (error) {
          expect(error).toBeInstanceOf(RecipeError);
          expect((error as RecipeError).field).toBe(field);
          expect((error as RecipeError).message).toMatch(/must be/);
        }
      },
    ),
    runs,
  );
  expect(() => brewCard(SCHOOLS[0]!, { cups: 2.5 })).toThrow('Cups must be a whole number, not 2.5.');
  expect(() => brewCard(SCHOOLS[0]!, { doseG: 200 })).toThrow('Dose must be from 3 to 120 g, not 200.');
  expect(() => brewCard(SCHOOLS[0]!, { cupMl: 5000 })).toThrow('Cup must be from 43 to 1704 ml, not 5000.');
  expect(() => brewCard(SCHOOLS[0]!, { cupMl: 250, ratio: 3 })).toThrow('Ratio must be from 6 to 25, not 3.');
});

/** Works a formula out with its own inputs, as a person with a calculator would. */
function worksOut({ formula, inputs }: Derivation): number {
  if (formula === 'given') return inputs[0]!.value;
  const names = inputs.map(({ symbol }) => symbol);
  const body = formula.replaceAll('×', '*').replaceAll('÷', '/').replaceAll('−', '-').replaceAll('^', '**');
  const round = (x: number, n: number) => (n === 0 ? Math.floor(x + 0.5 + 1e-9) : Number(x.toFixed(n)));
  const floor = (x: number, n: number) => Math.floor(x * 10 ** n + 1e-6) / 10 ** n;
  const ceil = (x: number) => Math.ceil(x - 1e-6);
  const work = new Function('round', 'floor', 'ceil', 'min', 'max', ...names, `return ${body};`);
  return work(round, floor, ceil, Math.min, Math.max, ...inputs.map(({ value }) => value)) as number;
}

test('every “why?” works out to the number that it explains', () => {
  const grinder = {
    id: 'g',
    name: 'Grinder',
    points: [
      { band: 0, setting: 40 },
      { band: 60, setting: 12 },
      { band: 100, setting: 2 },
    ],
  };
  fc.assert(
    fc.property(anyRecipe, anyDose, anyPlace, extras, fc.nat(4), (recipe, anyDoseG, place, more, lead) => {
      const dose = enough(anyDoseG, more);
      const card = brewCard(recipe, { doseG: dose, ...more }, place);
      const asks: Ask[] = [
        { doseG: dose },
        { cupMl: card.beverageG },
        { drinkG: card.drinkG },
        { brewWaterG: card.brewWaterG },
        { cups: 2, eachMl: card.beverageG / 2 },
      ];
      const ask = { ...asks[lead]!, ...more };
      const targets = brewCard(recipe, ask, place).steps.filter(({ targetG }) => targetG !== undefined);
      let told = 0;
      for (const of of [...WHY_OF, ...targets.map(({ id }) => `target:${id}` as const)]) {
        const derivation = why(of, recipe, ask, place, { grinder, offsetSteps: 1 });
        if (!derivation) continue;
        told += 1;
        // A pour that took what rounding left is off by as many grams as there are pours.
        const slack = of.startsWith('target:')
          ? targets.length
          : of === 'beverageG' || of === 'bypassG'
            ? 0
            : // A tie may round either way.
              0.1001;
        expect(Math.abs(worksOut(derivation) - derivation.value)).toBeLessThanOrEqual(slack);
        expect(derivation.inputs.length).toBeGreaterThan(0);
      }
      expect(told).toBeGreaterThanOrEqual(10);
    }),
    runs,
  );
});

test('every school that ships is sound by our own check, has its reasons, and its cautions', () => {
  for (const recipe of SCHOOLS) {
    expect([recipe.id, checkRecipe(recipe)]).toEqual([recipe.id, []]);
    expect(recipe.why.length).toBeGreaterThan(20);
    expect(recipe.cautions.length).toBeGreaterThan(0);
    expect(recipe.suits.length).toBeGreaterThan(0);
    for (const phase of ['prep', 'brew', 'finish', 'clean'] as const)
      expect(recipe.steps.some((step) => step.phase === phase)).toBe(true);
  }
  expect(new Set(SCHOOLS.map(({ method }) => method)).size).toBe(Object.keys(METHODS).length);
});
