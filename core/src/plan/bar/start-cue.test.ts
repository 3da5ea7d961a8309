/** A pour that waits for what is seen: it is expected at a time, and begins when a person says so. */
import { EMPTY_BAR, reduce } from '../../brew';
import { SCHOOLS, bookOf, brewCard, checkRecipe, type Recipe } from '../../recipe';
import { readRecipe } from '../../formats';
import { BENCH, T0, begun, counter, cup, done, order, started } from '../../testing/bench';
import { agenda, buildProblem, latenessOf, solve, tapEvents } from '../index';

const thirds = SCHOOLS.find(({ id }) => id === 'cone-thirds')!;
const seen: Recipe = {
  ...thirds,
  id: 'cone-seen',
  version: 1,
  steps: thirds.steps.map((step) =>
    step.id === 'pour-3' ? { ...step, start: { when: 'bed about to show', aboutS: 70 } } : step,
  ),
};
const book = bookOf([seen]);

test('it is a recipe like any other, with a wider window and its cue on the card', () => {
  expect(checkRecipe(seen)).toEqual([]);
  expect(readRecipe(JSON.parse(JSON.stringify(seen)))).toEqual({ ok: true, recipe: seen });
  const step = brewCard(seen, { cupMl: 250 }).steps.find(({ id }) => id === 'pour-3')!;
  expect(step).toMatchObject({ startCue: 'bed about to show', startS: 70 });
  expect(step.lag).toMatchObject({ minS: 2, idealS: 12, maxS: 24 });
  const swirled = seen.steps.map((each) =>
    each.id === 'swirl-end' ? { ...each, start: { when: 'stream thins' as const, aboutS: 120 } } : each,
  );
  expect(checkRecipe({ ...seen, steps: swirled })).toEqual(
    expect.arrayContaining([
      { field: 'steps.11.start', reason: 'Only a pour waits for the bed or the stream.' },
    ]),
  );
});

test('the card asks for its beginning first and for its end after that; late is told from the one that was expected', () => {
  const events = [
    order('A', 0, { ...cup('a1', 'cone-seen'), recipeVersion: 1 }),
    started('a1', 'A', 'cone-1', 0),
    ...[12, 24, 64, 94].map((s, n) => done('a1.1', ['fill', 'set-filter', 'weigh', 'load'][n]!, s)),
    begun('a1.1', 'bloom', 100),
    done('a1.1', 'bloom', 107),
    done('a1.1', 'pour-2', 158),
  ];
  const { state } = reduce(events, book, EMPTY_BAR);
  const plan = solve(buildProblem(state, BENCH, book, T0 / 1000 + 160).problem);
  const [item] = agenda(state, BENCH, book, plan, T0 + 165_000);
  expect([item!.step.id, item!.asks]).toEqual(['pour-3', 'start']);
  expect(latenessOf(item!, T0 + 190_000)!.byMs).toBe(20_000);
  const [tap] = tapEvents(item!, BENCH, T0 + 168_000, counter());
  expect(tap).toMatchObject({ type: 'step-begun', stepId: 'pour-3' });
  const pouring = reduce([tap!], book, state);
  expect(pouring.refused).toEqual([]);
  const [next] = agenda(pouring.state, BENCH, book, plan, T0 + 170_000);
  expect([next!.step.id, next!.asks, next!.begunMs]).toEqual(['pour-3', 'finish', T0 + 168_000]);
});
