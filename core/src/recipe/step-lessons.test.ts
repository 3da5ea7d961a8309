/** What a learner is told: every step of every school has a lesson, and none names what the brewer has not. */
import { brewerFor } from './capacity';
import { DEFAULT_PLACE, brewCard, type BrewCard } from './card';
import type { CardStep } from './lay-out';
import { BREWERS, METHODS, SCHOOLS } from './methods';
import type { Recipe } from './recipe';
import { lessonKeyOf, stepLessonOf } from './step-lessons';

const cardOf = (recipe: Recipe): BrewCard => {
  const own = brewCard(recipe, { doseG: recipe.refDoseG });
  const brewer = brewerFor(own, BREWERS);
  return brewCard(recipe, { doseG: recipe.refDoseG }, { ...DEFAULT_PLACE, ...(brewer ? { brewer } : {}) });
};
const ALL = SCHOOLS.flatMap((recipe) => {
  const card = cardOf(recipe);
  return card.steps.map((step) => ({ recipe, card, step, title: `${recipe.id}, ${step.id}` }));
});
const told = (step: CardStep, card: BrewCard) => {
  const lesson = stepLessonOf(step, card);
  return lesson ? [lesson.why, lesson.how, lesson.mistake].filter(Boolean).join(' ') : '';
};

test('every step of every school has a reason and a way, and what hands do has its commonest mistake', () => {
  const SENTENCES = /^[A-Z].*\.$/;
  for (const { title, card, step } of ALL) {
    const lesson = stepLessonOf(step, card);
    expect([title, lesson]).toEqual([
      title,
      {
        why: expect.stringMatching(SENTENCES),
        how: expect.stringMatching(SENTENCES),
        ...(step.attended || lesson?.mistake ? { mistake: expect.stringMatching(SENTENCES) } : {}),
      },
    ]);
  }
});

/** A word of a lesson, and the brews that have such a thing. */
const THINGS: readonly [RegExp, (card: BrewCard) => boolean][] = [
  [/\bkettle/i, ({ method }) => METHODS[method].heatedIn === 'kettle'],
  [/\bpaper/i, ({ filter }) => /paper/.test(filter)],
  [/\bcloth\b/i, ({ filter, method }) => /cloth/.test(filter) || method === 'pressure-pot'],
  [/\bfilter/i, ({ method }) => method !== 'foam-pot'],
  [
    /\b(?:three|single) layers?\b|\blayered\b/i,
    ({ method, filter }) => method === 'hourglass' && /paper/.test(filter),
  ],
  [/\bflutes?\b/i, ({ method }) => method === 'flat'],
  [/\b(?:seam|ribs?)\b/i, ({ method }) => method === 'cone'],
  [/\b(?:carafe|collar|neck)\b/i, ({ method }) => method === 'hourglass'],
  [/\bserver\b/i, ({ method }) => ['cone', 'flat', 'sock', 'hourglass'].includes(method)],
  [/\b(?:globe|tube|hook|chain)\b/i, ({ method }) => method === 'siphon'],
  [/\b(?:plunger|mesh)\b/i, ({ method }) => method === 'press'],
  [/\b(?:flame|burner)\b/i, ({ method }) => METHODS[method].heatedIn !== 'kettle'],
  [/\b(?:basket|valve|joint)\b/i, ({ method }) => method === 'pressure-pot'],
  [/\bhandle\b/i, ({ method }) => method === 'pressure-pot' || method === 'siphon'],
  [/\bglass\b/i, ({ method }) => ['press', 'siphon', 'hourglass'].includes(method)],
  [/\bhiss\b/i, ({ method }) => method === 'air-press'],
  [/\bbloom/i, ({ steps }) => steps.filter(({ kind }) => kind === 'pour').length > 0],
];

test('no lesson names a tool, filter or vessel that its brewer has not', () => {
  const wrong = ALL.flatMap(({ title, card, step }) =>
    THINGS.filter(([word, has]) => word.test(told(step, card)) && !has(card)).map(
      ([word]) => `${title}: ${word}`,
    ),
  );
  expect(wrong).toEqual([]);
  // And the list is one that could find something.
  for (const [word] of THINGS)
    expect([word, ALL.some(({ card, step }) => word.test(told(step, card)))]).toEqual([word, true]);
});

test('a pour of quick steeping is told of no thin stream, and what runs by itself over a flame of no other brew', () => {
  for (const { title, card, step } of ALL) {
    const words = told(step, card);
    if (METHODS[card.method].steeps && step.kind === 'pour')
      expect([title, words]).toEqual([title, expect.not.stringMatching(/thin stream|spiral/)]);
    if (METHODS[card.method].heatedIn !== 'kettle')
      expect([title, words]).toEqual([title, expect.not.stringMatching(/another brew/)]);
  }
});

test.each<[string, string, RegExp]>([
  [
    'cone-thirds',
    'bloom',
    /Gas leaves.*all is wet matters more than the grams.*fresh.*roast.*dull and cracked/,
  ],
  ['cone-thirds', 'set-filter', /taste of paper.*warms/],
  ['cone-steady', 'settle', /sunk.*still shines.*dried out/],
  ['cone-thirds', 'off', /never squeezed/],
  ['sock-fours', 'off', /never wrung out/],
  ['cone-thirds', 'load', /level bed every ground/],
  ['sock-dense', 'load', /deep well leads the first water/],
  ['siphon-late', 'rise', /pressure lifts the water/],
  ['siphon-late', 'flame-off', /turns to water again, its pressure falls.*second stir/],
  ['siphon-late', 'down', /collapsed/],
  ['press-short', 'decant', /goes on brewing/],
  ['press-long', 'clean', /in one go, never into the sink.*mesh apart/],
  ['press-long', 'weigh', /tenth of a gram matters\. Coarse: it steeps for minutes/],
  ['air-stirred', 'grind', /^Fine/],
  ['pot-foam', 'share', /spoon the foam into each cup/],
  ['cone-onepour', 'stir-end', /One stir through all of it/],
  ['hourglass-cloth', 'set-filter', /reusable filter/],
])('%s says at “%s” what practitioners say', (recipeId, stepId, words) => {
  const { card, step } = ALL.find(({ recipe, step: each }) => recipe.id === recipeId && each.id === stepId)!;
  expect(told(step, card)).toMatch(words);
});

test('a person’s own mistake at a step goes before the common one', () => {
  const thirds = SCHOOLS.find(({ id }) => id === 'cone-thirds')!;
  const steps = thirds.steps.map((step) => ({ ...step, mistake: 'Forgetting the jug.' }));
  const card = brewCard({ ...thirds, id: 'ours', steps }, { doseG: 18 });
  expect(stepLessonOf(card.steps[0]!, card)!.mistake).toBe('Forgetting the jug.');
});

test('a recipe that people wrote is taught by what its steps do, whatever they are called', () => {
  const thirds = SCHOOLS.find(({ id }) => id === 'cone-thirds')!;
  const own = {
    ...thirds,
    id: 'ours',
    steps: thirds.steps.map((step, n) => ({ ...step, id: `s${n}`, name: `Step ${n}` })),
    holds: [],
  };
  const card = brewCard(own, { doseG: 18 });
  const theirs = cardOf(thirds);
  expect(card.steps.map((step) => lessonKeyOf(step, card))).toEqual(
    theirs.steps.map((step) => lessonKeyOf(step, theirs)),
  );
});
