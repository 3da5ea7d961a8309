/** What lateness costs, by method: a press forgives, a siphon on its flame does not. */
import { BENCH, T0, book, counter, cup, order } from '../../testing/bench';
import { apply, reduce, type BarState } from '../../brew';
import {
  agenda,
  forHands,
  latenessOf,
  pairOf,
  solve,
  tapEvents,
  type AgendaItem,
  type Bench,
  type Plan,
} from '../index';

const WIDE: Bench = {
  ...BENCH,
  hands: 2,
  stations: [
    ...BENCH.stations,
    { id: 'siphon-1', name: 'Siphon', brewerId: 'siphon-m' },
    { id: 'pot-1', name: 'Pot', brewerId: 'pressure-pot' },
  ],
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
  const plan = planFrom({ starts: { [`a.1/${firstStep(recipeId)}`]: T0 / 1000 } });
  for (let taps = 0; taps < 40; taps += 1) {
    const items = agenda(state, WIDE, book, plan, nowMs);
    const item = items[0]!;
    if (item.step.id === stepId && item.asks !== 'cue' && item.begunMs === null) {
      // What nobody begins with a tap is late once it should be over.
      const doingS = item.asks === 'start' ? 0 : item.step.durationS;
      const atMs = item.dueMs + (doingS + bySeconds) * 1000;
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
/** A plan that says no more than this. */
const planFrom = (part: Partial<Plan>): Plan => ({
  ...solve({
    format: 'even-kettle/plan-problem@1',
    now: 0,
    hands: 1,
    tools: {},
    orders: [],
    brews: [],
    started: {},
    ended: {},
    frozen: {},
  }),
  ...part,
});
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
  [
    'a pressure pot on its flame, ten seconds',
    'pot-pressure',
    150,
    'off',
    10,
    'the cup',
    'off the flame first',
  ],
  ['cleaning', 'cone-thirds', 250, 'clean', 60, 'nothing', 'station'],
  ['a press left on its grounds', 'press-long', 240, 'serve', 40, 'the cup', 'taste'],
  ['prep', 'cone-thirds', 250, 'set-filter', 60, 'nothing', 'later'],
])('%s', (_what, recipeId, cupMl, stepId, byS, cost, words) => {
  const late = latenessAt(recipeId, cupMl, stepId, byS)!;
  expect(late.cost).toBe(cost);
  expect(late.words).toContain(words);
  expect(late.byMs).toBeCloseTo(byS * 1000, -2);
});

test('a pour that is being made on time is not called late in the middle of it', () => {
  const { nowMs: _nowMs, ...item } = lateAt('cone-thirds', 250, 'pour-2', 0);
  expect(latenessOf(item, item.dueMs + 8000)).toBeNull();
  // Where a scale would have told that it began, and has not, it is.
  expect(latenessOf(item, item.dueMs + 8000, true)).toMatchObject({ byMs: expect.closeTo(8000, -2) });
});

test('a bed that was forgotten for minutes is past saving: the cup is started again', () => {
  expect(latenessAt('cone-thirds', 250, 'pour-2', 60)!.startAgain).toBe(false);
  expect(latenessAt('cone-thirds', 250, 'pour-2', 240)).toMatchObject({ startAgain: true, cost: 'the cup' });
  expect(latenessAt('press-long', 240, 'plunge', 400)!.startAgain).toBe(false);
});

test('on time is not late, and what has been begun is not late any more', () => {
  expect(latenessAt('cone-thirds', 250, 'pour-2', 1)).toBeNull();
  const { nowMs, ...item } = lateAt('cone-thirds', 250, 'pour-2', 20);
  expect(latenessOf({ ...item, begunMs: nowMs - 1000 }, nowMs)).toBeNull();
});

test('a step falls to the pair that the plan says, until the other takes it over', () => {
  const { nowMs: _nowMs, ...item } = lateAt('cone-thirds', 250, 'pour-2', 0);
  const plan = planFrom({ hands: { [item.key]: 1 } });
  expect([pairOf(item, plan), forHands([item], plan, 0), forHands([item], plan, 'all')]).toEqual([
    1,
    [],
    [item],
  ]);
  const taken: AgendaItem = { ...item, brew: { ...item.brew!, takenBy: { 'pour-2': 0 } } };
  expect([pairOf(taken, plan), forHands([taken], plan, 0)]).toEqual([0, [taken]]);
});
