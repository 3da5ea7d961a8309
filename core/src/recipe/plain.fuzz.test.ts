/** Whatever a person can enter: it is refused in words, or it is a recipe that scales over its whole range with its sums exact. */
import { runsOf, seedOr } from '../testing/random';
import fc from 'fast-check';
import {
  METHODS,
  METHOD_IDS,
  RecipeError,
  brewCard,
  checkRecipe,
  recipeFromPlain,
  type PlainPour,
  type PlainRecipe,
} from './index';

const start = fc.oneof(
  fc.record({ atS: fc.integer({ min: 0, max: 300 }) }),
  fc.record({ waitS: fc.integer({ min: 0, max: 60 }) }),
  fc.constant('not said' as const),
);
const amount = fc.oneof(
  fc.record({ toG: fc.integer({ min: 10, max: 600 }) }),
  fc.record({ addG: fc.integer({ min: 5, max: 200 }) }),
  fc.record({ g: fc.integer({ min: 5, max: 600 }) }),
  fc.constant('rest' as const),
);
/** Pours that rise and end with the rest, and pours that anybody might type. */
const orderly = fc
  .array(fc.tuple(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 8, max: 60 })), {
    minLength: 1,
    maxLength: 7,
  })
  .map((parts) => {
    let atS = 0;
    const pours = parts.map(([addG, gapS], n): PlainPour => {
      const pour = { start: { atS }, amount: { addG }, ...(n % 3 === 0 ? { then: 'swirl' as const } : {}) };
      atS += gapS;
      return pour;
    });
    return [...pours, { start: { atS }, amount: 'rest' as const }];
  });
const anything = fc.array(fc.record({ start, amount }, { requiredKeys: ['start', 'amount'] }), {
  maxLength: 12,
}) as fc.Arbitrary<PlainPour[]>;
const plain = fc.record({
  method: fc.constantFrom(...METHOD_IDS),
  name: fc.constant('Typed in'),
  doseG: fc.integer({ min: 80, max: 400 }).map((tenths) => tenths / 10),
  ratio: fc.integer({ min: 90, max: 180 }).map((tenths) => tenths / 10),
  waterC: fc.integer({ min: 80, max: 98 }),
  pours: fc.oneof(orderly, anything),
});
const RUNS = runsOf(200);

test('what is typed is refused at its field or makes a sound recipe, exact at every size', () => {
  const counts = { made: 0, refused: 0, cards: 0 };
  fc.assert(
    fc.property(plain, ({ ratio, ...typed }) => {
      const asked: PlainRecipe = { ...typed, waterG: Math.round(typed.doseG * ratio) };
      const made = recipeFromPlain(asked, 'cone-typed-in');
      if (!made.ok) {
        counts.refused += 1;
        for (const { field, reason } of made.faults)
          expect([field, reason]).toEqual([expect.stringMatching(/^pours/), expect.stringMatching(/\.$/)]);
        return;
      }
      const faults = checkRecipe(made.recipe);
      if (faults.length > 0) {
        // Only times that run backwards are left to the whole to judge.
        expect(faults.every(({ reason }) => /before the step above|end window/.test(reason))).toBe(true);
        counts.refused += 1;
        return;
      }
      counts.made += 1;
      for (const doseG of [8, 12.3, 17.6, 24, 33.3, 41.7, 60]) {
        try {
          const card = brewCard(made.recipe, { doseG });
          counts.cards += 1;
          const pours = card.steps.filter(({ pourG }) => pourG !== undefined);
          if (pours.length === 0) continue;
          expect(pours.reduce((sum, { pourG }) => sum + pourG!, 0)).toBe(card.brewWaterG);
          expect(pours.at(-1)!.targetG).toBe(card.brewWaterG);
          expect(card.beverageG + card.retainedG + card.lossG).toBeCloseTo(card.brewWaterG + card.bypassG, 6);
          for (const [n, { startS }] of pours.entries())
            if (n > 0) expect(startS).toBeGreaterThanOrEqual(pours[n - 1]!.endS);
          // Its own cup is as it was written.
          if (doseG === typed.doseG) expect(card.brewWaterG).toBe(asked.waterG);
        } catch (error) {
          if (!(error instanceof RecipeError)) throw error;
        }
      }
    }),
    { seed: seedOr(20261128), numRuns: RUNS },
  );
  console.info(`${counts.made} recipes with ${counts.cards} cards, ${counts.refused} refused in words.`);
  expect(counts.made).toBeGreaterThan(RUNS / 6);
  expect(counts.refused).toBeGreaterThan(RUNS / 20);
});

test('a method that takes all its water at once keeps its own steps, moved to the end that was written', () => {
  const made = recipeFromPlain(
    {
      method: 'press',
      name: 'Four minutes',
      doseG: 30,
      waterG: 480,
      waterC: 95,
      pours: [],
      endS: { from: 240, to: 260 },
    },
    'press-four-minutes',
  );
  if (!made.ok) throw new Error(JSON.stringify(made.faults));
  expect(checkRecipe(made.recipe)).toEqual([]);
  const card = brewCard(made.recipe, { doseG: 30 });
  expect(card.steps.find(({ kind }) => kind === 'plunge')!.startS).toBe(240);
  expect(METHODS.press.drawdownExponent).toBeNull();
});
