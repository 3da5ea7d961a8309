import {
  SCHOOLS,
  bookOf,
  changesBetween,
  checkRecipe,
  latestOf,
  type Recipe,
  type RecipeStep,
} from './index';

const thirds = SCHOOLS.find(({ id }) => id === 'cone-thirds')!;
const press = SCHOOLS.find(({ id }) => id === 'press-long')!;

/** cone-thirds with one step changed. */
const withStep = (id: string, change: Partial<RecipeStep>): Recipe => ({
  ...thirds,
  steps: thirds.steps.map((step) => (step.id === id ? { ...step, ...change } : step)),
});
const without = (id: string): Recipe => ({ ...thirds, steps: thirds.steps.filter((step) => step.id !== id) });
const pour = (amount: NonNullable<RecipeStep['pour']>['amount']) => ({ pour: { amount, flowGPerS: 5 } });
const at = (id: string) => thirds.steps.findIndex((step) => step.id === id);

test.each<[string, Recipe, string, string]>([
  [
    'pours that come to 140 %',
    withStep('pour-4', pour({ toShare: 1.4 })),
    `steps.${at('pour-4')}.pour.amount`,
    'come to 140 % of the brew water',
  ],
  [
    'pours that stop at 90 %',
    withStep('pour-4', pour({ toShare: 0.9 })),
    `steps.${at('pour-4')}.pour.amount`,
    'come to 90 % of the brew water; the last must bring it to 100 %',
  ],
  [
    'a pour that runs backwards',
    withStep('pour-3', pour({ toShare: 0.3 })),
    `steps.${at('pour-3')}.pour.amount`,
    'This pour adds nothing: 45 % of the brew water is poured before it',
  ],
  [
    'a second timer',
    withStep('pour-2', { anchor: 'start' }),
    `steps.${at('pour-2')}.anchor`,
    'starts the timer already',
  ],
  [
    'no timer',
    { ...thirds, steps: thirds.steps.map(({ anchor: _anchor, ...step }) => step) },
    'steps',
    'One step must start the timer: the one with first water',
  ],
  [
    'two steps of one id',
    withStep('pour-3', { id: 'pour-2' }),
    `steps.${at('pour-3')}.id`,
    'has the id “pour-2” already',
  ],
  [
    'a clock that runs backwards',
    withStep('pour-3', { start: { atS: 35 } }),
    `steps.${at('pour-3')}.start.atS`,
    'before the step above it (40 s)',
  ],
  [
    'a clock time in prep',
    withStep('load', { start: { atS: 5 } }),
    `steps.${at('load')}.start`,
    'The timer has not started yet',
  ],
  [
    'a wait until a time in prep',
    withStep('heat', { lasts: { untilS: 5 } }),
    `steps.${at('heat')}.lasts`,
    'The timer has not started yet',
  ],
  [
    'a wait that ends before it begins',
    withStep('drawdown', { lasts: { untilS: 90 } }),
    `steps.${at('drawdown')}.lasts.untilS`,
    'starts no sooner than 100 s',
  ],
  [
    'a hold of no step',
    { ...thirds, holds: [{ tool: 'brewer', from: 'fill', to: 'moon' }] },
    'holds.0.to',
    'There is no step “moon”; the steps are fill, heat, set-filter',
  ],
  [
    'a hold that goes round in a circle',
    { ...thirds, holds: [{ tool: 'brewer', from: 'clean', to: 'fill' }] },
    'holds.0.to',
    'held from “clean” back to “fill”',
  ],
  ['no hold of the brewer', { ...thirds, holds: [] }, 'holds', 'Some step must hold the brewer'],
  [
    'no serving',
    without('serve'),
    'steps',
    'Exactly one step hands the cup over (kind “serve”); there is none',
  ],
  ['no cleaning', without('clean'), 'steps', 'Exactly one step cleans the station'],
  [
    'prep after the brew',
    withStep('swirl-end', { phase: 'prep' }),
    `steps.${at('swirl-end')}.phase`,
    'Prep comes before the brew',
  ],
  [
    'an end window that ends first',
    { ...thirds, endWindowS: { from: 205, to: 170 } },
    'endWindowS.to',
    'must end after it begins',
  ],
  [
    'a ratio that leaves nothing',
    { ...thirds, ratio: 1.9 },
    'ratio',
    'the coffee keeps all the water (2 g each gram)',
  ],
  [
    'a pour of nothing',
    withStep('pour-2', { pour: undefined }),
    `steps.${at('pour-2')}.pour`,
    'A pour needs an amount and a flow',
  ],
  [
    'a swirl that pours',
    withStep('swirl-end', pour({ g: 5 })),
    `steps.${at('swirl-end')}.pour`,
    'Only a step of kind “pour” pours',
  ],
  [
    'a pour by the clock',
    withStep('pour-2', { lasts: { s: 5 } }),
    `steps.${at('pour-2')}.lasts`,
    'lasts as long as its amount and flow',
  ],
  [
    'a clock step after a wait',
    withStep('swirl-end', { start: { afterS: 4 } }),
    `steps.${at('swirl-end')}.end`,
    'must follow straight on',
  ],
  [
    'a drawdown in a press',
    {
      ...press,
      steps: press.steps.map((step) => (step.id === 'sink' ? { ...step, lasts: 'drawdown' as const } : step)),
    },
    `steps.${press.steps.findIndex(({ id }) => id === 'sink')}.lasts`,
    'Nothing drains by itself',
  ],
  [
    'a timer step that waits for its own timer',
    withStep('bloom', { start: { atS: 0 } }),
    `steps.${at('bloom')}.start`,
    'The timer has not started yet',
  ],
  [
    'a step that lasts as its pour but pours nothing',
    withStep('swirl-end', { lasts: 'pour' }),
    `steps.${at('swirl-end')}.lasts`,
    'Lasts as long as its pour, but pours nothing',
  ],
  [
    'a brew with no step of its own',
    {
      ...thirds,
      steps: thirds.steps.map((step) => (step.phase === 'brew' ? { ...step, phase: 'prep' as const } : step)),
    },
    'steps',
    'At least one step must belong to the brew itself',
  ],
  [
    'cleaning before serving',
    {
      ...thirds,
      steps: [
        ...thirds.steps.slice(0, -2),
        thirds.steps.at(-1)!,
        { ...thirds.steps.at(-2)!, phase: 'clean' as const },
      ],
    },
    `steps.${thirds.steps.length - 1}.kind`,
    'The last step is cleaning',
  ],
  [
    'two servings',
    {
      ...thirds,
      steps: thirds.steps.flatMap((step) =>
        step.id === 'serve' ? [step, { ...step, id: 'serve-2' }] : [step],
      ),
    },
    'steps',
    'there are 2',
  ],
  [
    'a step of the same id as the first',
    withStep('pour-4', { id: 'fill' }),
    `steps.${at('pour-4')}.id`,
    'Step 1 has the id “fill” already',
  ],
  [
    'a wait that ends as it begins',
    withStep('drawdown', { lasts: { untilS: 100 } }),
    `steps.${at('drawdown')}.lasts.untilS`,
    'starts no sooner than 100 s',
  ],
  [
    'an end window of no length',
    { ...thirds, endWindowS: { from: 200, to: 200 } },
    'endWindowS.to',
    'must end after it begins',
  ],
  [
    'a pour of exactly nothing',
    withStep('pour-3', pour({ toShare: 0.45 })),
    `steps.${at('pour-3')}.pour.amount`,
    'This pour adds nothing',
  ],
  ['no steps at all', { ...thirds, steps: [] }, 'steps', 'One step must start the timer'],
])('%s is found at its field', (_what, recipe, field, words) => {
  const faults = checkRecipe(recipe);
  const fault = faults.find((each) => each.field === field);
  expect([faults.map((each) => each.field), fault?.reason]).toEqual([
    expect.arrayContaining([field]),
    expect.stringContaining(words),
  ]);
});

test('what only the sums can tell is told too: a bypass lets a low ratio stand, two steps may start at one time', () => {
  // 2.0 is all that the coffee keeps; with bypass there is something in the cup, but no card at so low a ratio.
  const low = { ...thirds, ratio: 2, bypassTimesDose: 1 };
  expect(checkRecipe(low).map(({ field }) => field)).not.toContain('ratio');
  expect(checkRecipe({ ...thirds, ratio: 2 }).map(({ field }) => field)).toContain('ratio');
  const first = {
    ...press,
    steps: press.steps.slice(press.steps.findIndex(({ id }) => id === 'pour')),
    holds: [{ tool: 'brewer' as const, from: 'pour', to: 'clean' }],
  };
  expect(checkRecipe(first)).toEqual([]);
  const together = withStep('swirl-end', { start: { atS: 100 }, end: { by: 'cue', cue: 'done' } });
  expect(checkRecipe(together)).toEqual([]);
  // Faults that nobody foresaw come from the card itself, at its own field.
  const broken = { ...thirds, refDoseG: 500 };
  expect(checkRecipe(broken)).toEqual([{ field: 'doseG', reason: 'Dose must be from 3 to 120 g, not 500.' }]);
});

test('amounts may be shares, multiples of the dose, equal parts or grams', () => {
  const mixed = [pour({ toShare: 0.45 }), pour({ g: 80 }), pour({ restParts: 1 })];
  const steps = thirds.steps.map((step) => {
    const place = ['pour-2', 'pour-3', 'pour-4'].indexOf(step.id);
    return place < 0 ? step : { ...step, ...mixed[place]! };
  });
  expect(checkRecipe({ ...thirds, steps })).toEqual([]);
});

test('versions stand beside each other in the book, the latest for new cups', () => {
  const first = { ...thirds, version: 1 };
  const second = { ...withStep('pour-2', pour({ toShare: 0.5 })), version: 2, ratio: 16 };
  const book = bookOf([first, second]);
  expect(book({ recipeId: thirds.id, recipeVersion: 1 })!.ratio).toBe(16.2);
  expect(book({ recipeId: thirds.id, recipeVersion: 2 })!.ratio).toBe(16);
  expect(book({ recipeId: thirds.id, recipeVersion: 3 })).toBeUndefined();
  expect(latestOf([first, second]).map(({ version }) => version)).toEqual([2]);
  expect(latestOf([thirds, { ...thirds, name: 'Same version again' }])[0]!.name).toBe(thirds.name);
  expect(latestOf([second, press, first]).map(({ id, version }) => [id, version])).toEqual([
    ['cone-thirds', 2],
    ['press-long', 2],
  ]);
});

test('what changed between two versions is told field by field, steps by their name', () => {
  const next: Recipe = {
    ...without('swirl-end'),
    version: 2,
    ratio: 16,
    steps: without('swirl-end').steps.map((step) =>
      step.id === 'pour-2' ? { ...step, ...pour({ g: 120 }), hint: 'Slowly.' } : step,
    ),
  };
  const changes = changesBetween(thirds, next);
  expect(changes).toContainEqual({ field: 'ratio', before: 16.2, after: 16 });
  expect(changes).toContainEqual({ field: 'steps.pour-2.pour.amount.toShare', before: 0.45 });
  expect(changes).toContainEqual({ field: 'steps.pour-2.pour.amount.g', after: 120 });
  expect(changes).toContainEqual({ field: 'steps.pour-2.hint', after: 'Slowly.' });
  expect(changes.find(({ field }) => field === 'steps')!.after).not.toContain('swirl-end');
  expect(changesBetween(thirds, { ...thirds, version: 9 })).toEqual([]);
  const added = changes.find(({ field }) => field === 'steps.pour-2.hint')!;
  expect([Object.keys(added), Object.keys(changes.find(({ field }) => field.endsWith('toShare'))!)]).toEqual([
    ['field', 'after'],
    ['field', 'before'],
  ]);
  const patient = withStep('pour-2', { window: { earlyS: 0, lateS: null, penalty: 1 } });
  expect(changesBetween(thirds, patient)).toContainEqual({
    field: 'steps.pour-2.window.lateS',
    after: 'none',
  });
  const order = { ...thirds, steps: [thirds.steps[1]!, thirds.steps[0]!, ...thirds.steps.slice(2)] };
  expect(changesBetween(thirds, order).map(({ field }) => field)).toEqual(['steps']);
});

test('a step whose name says another count than the step is told so', () => {
  const late = SCHOOLS.find(({ id }) => id === 'siphon-late')!;
  const index = late.steps.findIndex(({ id }) => id === 'coffee-in');
  const renamed = (name: string) =>
    checkRecipe({ ...late, steps: late.steps.with(index, { ...late.steps[index]!, name }) });
  expect(renamed('Coffee in, stir 10')).toEqual([
    {
      field: `steps.${index}.name`,
      reason: 'Says 10 stirs, and the step counts 6. Let the name say 6, or no number.',
    },
  ]);
  expect(renamed('Coffee in, all under')).toEqual([]);
});
