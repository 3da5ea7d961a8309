/** What beds teach: a brew that goes exactly as its card says teaches that the card is right. */
import { lanternPier } from '@even-kettle/core/demo';
import { liveShift } from '@even-kettle/core/rush';
import { BREWERS, METHODS, SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { recordOf } from '../record';
import { drawdownOf } from './beds';

const T0 = Date.UTC(2026, 0, 5, 8);
const book = bookOf(SCHOOLS);
const BEDS = SCHOOLS.filter(
  ({ method, steps }) =>
    METHODS[method].drawdownExponent !== null && steps.some(({ kind }) => kind === 'drawdown'),
);

test.each(BEDS.map(({ id }) => id))('%s, brewed exactly by its card, teaches a level of 1.00', (recipeId) => {
  const recipe = BEDS.find(({ id }) => id === recipeId)!;
  let count = 0;
  const { state } = liveShift({
    bench: {
      ...lanternPier(T0),
      hands: 1,
      stations: BREWERS.filter(({ method }) => method === recipe.method).map(({ id }) => ({
        id,
        name: id,
        brewerId: id,
      })),
    },
    book,
    orders: [
      {
        id: 'taken',
        type: 'order-taken',
        atMs: T0,
        orderId: 'o',
        cups: [
          {
            cupId: 'c',
            recipeId,
            recipeVersion: recipe.version,
            coffee: 'Saltmarsh',
            roast: 'light',
            cupMl: 300,
          },
        ],
      },
    ],
    fromMs: T0,
    untilMs: T0 + 3_600_000,
    newId: () => `e${(count += 1)}`,
    // Every step as long as it should be.
    random: () => 1 / 3,
    plannedOnce: true,
  });
  const record = recordOf(state, Object.values(state.brews)[0]!)!;
  const learnt = drawdownOf(Array.from({ length: 20 }, (_, n) => ({ ...record, brewId: `b${n}` })))!;
  expect(learnt.level).toBeGreaterThanOrEqual(0.98);
  expect(learnt.level).toBeLessThanOrEqual(1.02);
});
