/** What lateness costs, by method: a press forgives, a siphon on its flame does not. */
import { BENCH, T0, book, counter, cup, order } from '../testing/bench';
import { apply, reduce, type BarState } from '../brew';
import { agenda, forHands, handsOf, latenessOf, tapEvents, type AgendaItem, type Bench } from './index';

const WIDE: Bench = {
  ...BENCH,
  hands: 2,
  stations: [...BENCH.stations, { id: 'siphon-1', name: 'Siphon', brewerId: 'siphon-m' }],
};

/** Does what is asked until a step is next, then gives its item a while after it was due. */
function lateAt(
  recipeId: string,
  cupMl: number,
  stepId: string,
  bySeconds: number,
): AgendaItem & { nowMs: number } {
  const newId = counter();
  let state: BarState = reduce([order('A', 0, cup('a', recipeId, cupMl))], book).state;
  let nowMs = T0;
  for (let taps = 0; taps < 40; taps += 1) {
    const plan = { starts: { [`a.1/${firstStep(recipeId)}`]: T0 / 1000 }, hands: {} } as never;
    const items = agenda(state, WIDE, book, plan, nowMs);
    const item = items[0]!;
    if (item.step.id === stepId && item.asks !== 'cue' && item.begunMs === null) {
      const atMs = item.dueMs + bySeconds * 1000;
      return { ...agenda(state, WIDE, book, plan, atMs)[0]!, nowMs: atMs };
    }
    nowMs = Math.max(nowMs + 100, item.dueMs + item.step.durationS * 1000 + 50);
    for (const event of tapEvents(item, WIDE, nowMs, newId)) {
      const applied = apply(state, event, book);
      if (applied.ok) state = applied.state;
    }
  }
  throw new Error(`${stepId} never came`);
}
const firstStep = (recipeId: string) => book({ recipeId, recipeVersion: 1 })!.steps[0]!.id;
const latenessAt = (recipeId: string, cupMl: number, stepId: string, bySeconds: number) => {
  const { nowMs, ...item } = lateAt(recipeId, cupMl, stepId, bySeconds);
  return latenessOf(item, nowMs);
};

test.each([
  ['a press’s plunge, half a minute', 'press-long', 240, 'plunge', 30, 'little', 'forgives'],
  ['a siphon’s flame, ten seconds', 'siphon-late', 350, 'flame-off', 10, 'the cup', 'flame off first'],
  ['a siphon’s coffee, well past its window', 'siphon-late', 350, 'coffee-in', 45, 'the cup', 'temperature'],
  ['a cone’s pour, within its window', 'cone-thirds', 250, 'pour-2', 6, 'nothing', 'still wet'],
  ['a cone’s pour, past it', 'cone-thirds', 250, 'pour-2', 15, 'little', 'pour gently first'],
  ['cleaning', 'cone-thirds', 250, 'clean', 60, 'nothing', 'station'],
  ['a press left on its grounds', 'press-long', 240, 'serve', 40, 'the cup', 'taste'],
  ['prep', 'cone-thirds', 250, 'set-filter', 60, 'nothing', 'later'],
])('%s', (_what, recipeId, cupMl, stepId, byS, cost, words) => {
  const late = latenessAt(recipeId, cupMl, stepId, byS)!;
  expect(late.cost).toBe(cost);
  expect(late.words).toContain(words);
  expect(late.byMs).toBeCloseTo(byS * 1000, -2);
});

test('on time is not late, and what has been begun is not late any more', () => {
  expect(latenessAt('cone-thirds', 250, 'pour-2', 1)).toBeNull();
  const { nowMs, ...item } = lateAt('cone-thirds', 250, 'pour-2', 20);
  expect(latenessOf({ ...item, begunMs: nowMs - 1000 }, nowMs)).toBeNull();
});

test('a step falls to the pair that the plan says, until the other takes it over', () => {
  const { nowMs: _nowMs, ...item } = lateAt('cone-thirds', 250, 'pour-2', 0);
  const plan = { hands: { [item.key]: 2 } } as never;
  expect([handsOf(item, plan), forHands([item], plan, 1), forHands([item], plan, 'all')]).toEqual([
    2,
    [],
    [item],
  ]);
  const taken = { ...item, brew: { ...item.brew!, takenBy: { 'pour-2': 1 } } };
  expect([handsOf(taken, plan), forHands([taken], plan, 1)]).toEqual([1, [taken]]);
});
