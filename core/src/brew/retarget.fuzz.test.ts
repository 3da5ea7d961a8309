/** Re-targeting under whatever is poured, skipped and re-weighed: targets never run backwards, and always sum. */
import { runsOf, seedOr } from '../testing/random';
import fc from 'fast-check';
import { SCHOOLS, brewCard } from '../recipe';
import { retargetedCard, pourOutcome, type PourFacts } from './retarget';
import type { StepMark } from './state';

const poured = SCHOOLS.filter((recipe) => recipe.steps.some((step) => step.pour));

/** A brew in the middle: pours done at readings, some left out, perhaps another dose than was said. */
const inTheMiddle = fc
  .record({
    recipe: fc.constantFrom(...poured),
    cupMl: fc.integer({ min: 150, max: 400 }),
    deeds: fc.array(
      fc.record({
        // Of what the card asks for just then; far beyond as well.
        factor: fc.double({ min: 0.3, max: 2.2, noNaN: true }),
        told: fc.boolean(),
        skip: fc.boolean(),
      }),
      { maxLength: 12 },
    ),
    dose: fc.option(fc.double({ min: 0.7, max: 1.4, noNaN: true })),
    doseAt: fc.integer({ min: 0, max: 8 }),
  })
  .map(({ recipe, cupMl, deeds, dose, doseAt }) => {
    const planned = brewCard(recipe, { cupMl });
    const marks: Record<string, StepMark> = {};
    const skipped = new Set<string>();
    let facts: PourFacts = { marks, skipped };
    let atMs = 1000;
    let readingG = 0;
    deeds.forEach(({ factor, told, skip }, index) => {
      if (dose !== null && index === doseAt)
        facts = { ...facts, doseG: Math.round(planned.doseG * dose * 10) / 10 };
      const card = retargetedCard(planned, facts);
      const step = card.steps.find((each) => each.targetG !== undefined && !marks[each.id]);
      if (!step) return;
      if (skip && step.anchor === undefined) return void skipped.add(step.id);
      // The scale never reads less than it did.
      readingG = told ? Math.round(Math.max(readingG, step.targetG! * factor) * 10) / 10 : step.targetG!;
      marks[step.id] = {
        doneMs: (atMs += 1000),
        targetG: step.targetG!,
        ...(told ? { readingG } : {}),
      };
    });
    return { planned, facts, readingG };
  });

test('targets ahead rise, ask for nothing negative, and reach the brew water, or the brew is over', () => {
  fc.assert(
    fc.property(inTheMiddle, ({ planned, facts, readingG }) => {
      const card = retargetedCard(planned, facts);
      const scale = (facts.doseG ?? planned.doseG) / planned.doseG;
      const waterG = Math.round(planned.brewWaterG * scale);
      const ahead = card.steps.filter((step) => step.targetG !== undefined && !facts.marks[step.id]);
      let fromG = readingG;
      for (const step of ahead) {
        expect(step.pourG).toBeGreaterThan(0);
        expect(step.targetG!).toBeGreaterThan(fromG);
        expect(Math.abs(step.targetG! - fromG - step.pourG!)).toBeLessThan(0.06);
        expect(Number.isInteger(step.durationS) && step.durationS > 0).toBe(true);
        fromG = step.targetG!;
      }
      const last = planned.steps.findLast((step) => step.targetG !== undefined)!;
      if (ahead.length > 0 && !facts.skipped.has(last.id)) expect(fromG).toBe(waterG);
      if (ahead.length > 0) expect(card.brewWaterG).toBe(waterG);
      // Whatever is left out, nothing is added, and the masses balance.
      expect(ahead.every((step) => planned.steps.some(({ id }) => id === step.id))).toBe(true);
      expect(card.beverageG + card.retainedG + card.lossG).toBeCloseTo(card.brewWaterG + card.bypassG, 6);
      expect(card.perCupG.reduce((sum, grams) => sum + grams, 0)).toBe(card.beverageG);
      // Steps follow one another, and holds hold to steps that there are.
      card.steps.slice(1).forEach((step, index) => {
        expect(step.startS).toBeGreaterThanOrEqual(card.steps[index]!.endS);
        expect(step.endS - step.startS).toBe(step.durationS);
      });
      const ids = card.steps.map(({ id }) => id);
      for (const { from, to } of card.holds)
        expect([ids.includes(from), ids.includes(to)]).toEqual([true, true]);
      const outcome = pourOutcome(planned, card, facts);
      if (outcome) expect(outcome.nextTargetG ?? Infinity).toBeGreaterThan(readingG);
    }),
    { numRuns: runsOf(300), seed: seedOr(20261125) },
  );
});

test('where every pour reads what was asked for, the card stays the very one that was planned', () => {
  fc.assert(
    fc.property(fc.constantFrom(...poured), fc.integer({ min: 150, max: 400 }), (recipe, cupMl) => {
      const planned = brewCard(recipe, { cupMl });
      const marks: Record<string, StepMark> = {};
      for (const step of planned.steps) {
        if (step.targetG === undefined) continue;
        marks[step.id] = { doneMs: 1, readingG: step.targetG, targetG: step.targetG };
        expect(retargetedCard(planned, { marks, skipped: new Set() })).toBe(planned);
      }
    }),
    { numRuns: 100 },
  );
});
