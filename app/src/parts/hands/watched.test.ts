/** When a cue is known to have come, and when it is not. */
import { EMPTY_BAR, reduce, type BarEvent } from '@even-kettle/core/brew';
import { agenda, buildProblem, solve, type AgendaItem } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { TEST_BAR } from '../../testing/bar';
import { T0, at, done, firstWater, prep, started, taken } from '../../testing/cone';
import { inSight, notOverMs } from './watched';

const book = bookOf(SCHOOLS);

/** Drops only, asked for at a moment, of a brew of its own. */
function cueAt(cup: string, seconds: number): AgendaItem {
  const events = [
    taken('A'),
    started('A'),
    ...prep,
    firstWater,
    done('bloom', 107),
    done('pour-2', 158),
    done('pour-3', 188),
    done('pour-4', 215),
  ];
  const own = JSON.parse(JSON.stringify(events).replaceAll('a1', cup)) as BarEvent[];
  const { state } = reduce(own, book, EMPTY_BAR);
  const plan = solve(buildProblem(state, TEST_BAR, book, Math.ceil(at(seconds) / 1000)).problem);
  return agenda(state, TEST_BAR, book, plan, at(seconds)).find(({ asks }) => asks === 'cue')!;
}
const watch = (item: AgendaItem, fromS: number, toS: number) => {
  for (let s = fromS; s <= toS; s += 0.5) inSight(item, at(s));
};

test('what was watched until it came ended with the tap', () => {
  const item = cueAt('w1', 220);
  watch(item, 220, 288);
  expect(notOverMs(item, at(288))).toBeUndefined();
});

test('what had come while the hands were elsewhere ended between when it was last seen and the tap', () => {
  const item = cueAt('w2', 220);
  watch(item, 220, 240);
  watch(item, 300, 301);
  expect(notOverMs(item, at(301.5))).toBe(at(240));
});

test('what was first asked for long after its last pour ended at any time since', () => {
  const item = cueAt('w3', 220);
  watch(item, 300, 301);
  expect(notOverMs(item, at(301.5))).toBe(item.brew!.lastMs);
  expect(item.brew!.lastMs).toBeGreaterThan(T0);
});

test('what was asked for late, and was still to come, was seen to come', () => {
  const item = cueAt('w4', 220);
  watch(item, 300, 312);
  expect(notOverMs(item, at(312))).toBeUndefined();
});
