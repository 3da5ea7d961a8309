/** What has to stand ready for a rush: the doses that are expected, less what stands there. */
import { EMPTY_BAR, type BarState } from '@even-kettle/core/brew';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import type { Today } from '@even-kettle/core/contract';
import { TEST_BAR } from '../testing/bar';
import { dosesOfBoats, together, wantedOf } from './wanted';
import { usualTasks } from './usual-tasks';

type Dose = Today['rush']['doses'][number];
const recipes = SCHOOLS;
const NOW = Date.parse('2026-11-20T09:00:00Z');
const cone = (brews: number, doseG = 17.6): Dose => ({ coffee: 'Saltmarsh', method: 'cone', doseG, brews });
const withTins = (count: number, atMs = NOW - 60_000): BarState => ({
  ...EMPTY_BAR,
  houseEvents: [
    { id: 'm', type: 'made-ready', atMs, thing: 'tins', coffee: 'Saltmarsh', doseG: 17.6, count },
  ],
});
const linesOf = (state: BarState, doses = [cone(6)]) =>
  wantedOf(doses, TEST_BAR, recipes, state, NOW).map(({ thing, wanted, ready, stale }) => [
    thing,
    wanted,
    ready,
    stale,
  ]);

test('tins, papers, kettles and servers for the cups that are expected, with what stands there', () => {
  expect(linesOf(withTins(2))).toEqual([
    ['tins', 6, 2, 0],
    ['filters', 6, 0, 0],
    ['kettles', TEST_BAR.kettles.length, 0, 0],
    ['servers', Math.min(6, TEST_BAR.stations.length), 0, 0],
  ]);
  // Tins of this morning are told of, though nobody is expected.
  expect(linesOf(withTins(3, NOW - 5 * 3600_000), [])).toEqual([['tins', 0, 0, 3]]);
});

test('a press takes no paper; two recipes of one dose share their tins', () => {
  const press: Dose = { ...cone(2), method: 'press' };
  expect(linesOf(EMPTY_BAR, [press]).map(([thing]) => thing)).not.toContain('filters');
  expect(linesOf(EMPTY_BAR, [cone(3), press])[0]).toEqual(['tins', 5, 0, 0]);
});

test('boats ask for what the menu offers; of two reasons for one dose the larger counts', () => {
  const [coffee] = TEST_BAR.coffees;
  const line = { id: 'm', coffeeId: coffee!.id, recipeId: 'cone-thirds', sizesMl: [250] };
  // One line is sold out, one was for the morning only.
  const bar = {
    ...TEST_BAR,
    menu: [line, { ...line, id: 'n', off: true }, { ...line, id: 'o', before: '09:00' }],
  };
  const { doses, cups } = dosesOfBoats(2, bar, recipes, bookOf(SCHOOLS), EMPTY_BAR, 600);
  expect([cups, doses.map(({ brews }) => brews)]).toEqual([9, [9]]);
  expect(dosesOfBoats(2, TEST_BAR, recipes, bookOf(SCHOOLS), EMPTY_BAR, 600)).toEqual({ doses: [], cups: 0 });
  expect(together([cone(4)], [cone(9), cone(1, 20)]).map(({ brews }) => brews)).toEqual([9, 1]);
});

test('lists are of what stands on the bench: gas and cloths only where there are any', () => {
  const ids = (bar: typeof TEST_BAR) => usualTasks(bar, 'closing').map(({ id }) => id);
  expect(
    ids({ ...TEST_BAR, cloths: [{ id: 'c', name: 'Cloth', stationId: TEST_BAR.stations[0]!.id }] }),
  ).toEqual(expect.arrayContaining(['gas', 'keepCloths', 'presses', 'descale']));
  const plain = ids({
    ...TEST_BAR,
    cloths: [],
    burners: 0,
    stations: [{ id: 's', name: 'S', brewerId: 'cone-m' }],
  });
  expect(plain).not.toEqual(expect.arrayContaining(['gas']));
  expect(plain).toEqual(['kettles', 'grinders', 'milk', 'drain', 'descale']);
});
