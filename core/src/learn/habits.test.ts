/** Whose hands stop late, by how much, and who comes late; from brews as they were tapped. */
import { T0, book, begun, cup, done, order, started } from '../testing/bench';
import { reduce, type BarEvent } from '../brew';
import { habitOf } from './index';

/** A cone brewed with every pour so many grams over its target, and every pour so many seconds late. */
function brewed(name: string, atS: number, overG: number, lateS: number, by?: string, leadG = 0): BarEvent[] {
  const brewId = `${name}1.1`;
  const whose = (event: BarEvent): BarEvent => ({
    ...event,
    id: `${name}-${event.id}`,
    ...(by ? { by } : {}),
  });
  const pour = (stepId: string, endS: number, targetG: number) =>
    whose({
      ...done(brewId, stepId, atS + endS, targetG + overG - leadG),
      ...(leadG ? { leadG } : {}),
    } as BarEvent);
  return [
    order(name, atS, cup(`${name}1`)),
    started(`${name}1`, name, 'cone-1', atS),
    ...(['fill', 'set-filter', 'weigh', 'load'] as const).map((stepId, index) =>
      whose(done(brewId, stepId, atS + [12, 24, 64, 94][index]!)),
    ),
    whose(begun(brewId, 'bloom', atS + 100)),
    pour('bloom', 107, 42),
    pour('pour-2', 140 + 18 + lateS, 128),
    pour('pour-3', 170 + 18 + 2 * lateS, 214),
    pour('pour-4', 200 + 15 + 3 * lateS, 285),
    whose(done(brewId, 'drawdown', atS + 300)),
    { id: `${name}-out`, type: 'brew-served', atMs: T0 + (atS + 320) * 1000, brewId },
    whose(done(brewId, 'clean', atS + 345)),
  ];
}
const brewsOf = (...events: BarEvent[]) => Object.values(reduce(events, book).state.brews);

test('four pours that end 4 g over make a lead of 4 g; three say nothing yet', () => {
  expect(habitOf(brewsOf(...brewed('A', 0, 4, 0)), undefined, 'cone-1')).toMatchObject({
    leadG: 4,
    pours: 4,
  });
  expect(habitOf(brewsOf(...brewed('A', 0, 4, 0).slice(0, 10)), undefined, 'cone-1')).toMatchObject({
    leadG: 0,
  });
});

test('a lead that is followed does not unlearn itself: what was called is added to what was read', () => {
  expect(habitOf(brewsOf(...brewed('A', 0, 4, 0, undefined, 4)), undefined, 'cone-1').leadG).toBe(4);
});

test('the last ten pours count, so a new habit takes over; one slip does not', () => {
  const long = [...brewed('A', 0, 9, 0), ...brewed('B', 400, 2, 0), ...brewed('C', 800, 2, 0)];
  expect(habitOf(brewsOf(...long), undefined, 'cone-1')).toMatchObject({ leadG: 2, pours: 10 });
});

test('people and scales are told apart, and hands that stop short have no lead', () => {
  const two = [...brewed('A', 0, 5, 0, 'imre'), ...brewed('B', 400, -3, 6, 'noor')];
  expect(habitOf(brewsOf(...two), 'imre', 'cone-1').leadG).toBe(5);
  expect(habitOf(brewsOf(...two), 'noor', 'cone-1').leadG).toBe(0);
  expect(habitOf(brewsOf(...two), 'imre', 'cone-2').leadG).toBe(0);
  expect(habitOf(brewsOf(...two), 'tavi', 'cone-1')).toEqual({ leadG: 0, pours: 0, lateS: 0, steps: 0 });
});

test('pours that come six seconds late make a habit of six seconds', () => {
  const late = brewsOf(...brewed('A', 0, 0, 6, 'noor'), ...brewed('B', 400, 0, 6, 'noor'));
  expect(habitOf(late, 'noor', 'cone-1').lateS).toBe(6);
});
