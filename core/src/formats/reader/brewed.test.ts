/** What a text says can be brewed: from the first step to the clean station, by people who do what the agenda says alone. */
import { anchorMs, brewTimeMs, timelineAt } from '../../brew';
import type { Bench } from '../../plan';
import { BREWERS, SCHOOLS, bookOf, brewCard, fitsBrewer, recipeFromPlain, type Recipe } from '../../recipe';
import { liveShift, seededRandom } from '../../rush';
import { BENCH, T0, counter, order } from '../../testing/bench';
import { TEXTS } from '../../testing/recipe-texts';
import { plainFrom, readRecipeText } from './index';

const EVERYTHING: Bench = {
  ...BENCH,
  burners: 2,
  stations: BREWERS.map(({ id, name }) => ({ id: `at-${id}`, name, brewerId: id })),
};

/** Each text that says all of a recipe, with the recipe that is made of it. */
const SAID: Recipe[] = TEXTS.flatMap(({ text }, n) => {
  const read = readRecipeText(text);
  const from = plainFrom(read, `Said ${n}`);
  if (!from.ok || read.asked.length > 0) return [];
  const made = recipeFromPlain(from.plain, `said-${n}`);
  return made.ok ? [made.recipe] : [];
});

/** Near its own dose, where some brewer takes that. */
function sizeOf(recipe: Recipe): number | undefined {
  const ownMl = brewCard(recipe, { doseG: recipe.refDoseG }).beverageG;
  return [ownMl, 250, 200, 150, 75].find((cupMl) => {
    const card = brewCard(recipe, { cupMl });
    return BREWERS.some((brewer) => brewer.method === recipe.method && fitsBrewer(brewer, card));
  });
}

/** A pot and a press come in sizes, and some texts are for one that is not here. */
const BREWED = SAID.filter((recipe) => sizeOf(recipe) !== undefined);

test('of every method there is one, and nearly all have a brewer here', () => {
  expect(new Set(BREWED.map(({ method }) => method)).size).toBe(9);
  expect(BREWED.length).toBeGreaterThan(0.95 * SAID.length);
});

test.each(BREWED.map((recipe) => [`${recipe.name}, ${recipe.method}`, recipe] as const))(
  '%s is brewed as its card says, step by step',
  (_, recipe) => {
    const cupMl = sizeOf(recipe)!;
    const { id, version } = recipe;
    const { state } = liveShift({
      bench: EVERYTHING,
      book: bookOf([...SCHOOLS, recipe]),
      orders: [
        order('O', 0, {
          cupId: 'c',
          recipeId: id,
          recipeVersion: version,
          coffee: 'Saltmarsh',
          roast: 'medium',
          cupMl,
        }),
      ],
      fromMs: T0,
      untilMs: T0 + 3600 * 1000,
      newId: counter(),
      random: seededRandom(3),
    });
    const brew = state.brews['c.1']!;
    expect(brew.status).toBe('cleaned');
    expect(timelineAt(brew, brew.lastMs).every(({ status }) => status === 'done')).toBe(true);
    expect(anchorMs(brew, brew.lastMs)).not.toBeNull();
    const off = Math.abs(brewTimeMs(brew)! / 1000 - brew.card.brewTimeS);
    expect(off).toBeLessThanOrEqual(Math.max(12, 0.15 * brew.card.brewTimeS));
  },
);
