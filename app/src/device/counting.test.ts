/** "Twenty, ten, stop": by grams that are left, for hands that stop late as much earlier, and never from before a pour. */
import fc from 'fast-check';
import { SCHOOLS, brewCard } from '@even-kettle/core/recipe';
import { COUNTS, countAt, pouringOf } from './counting';
import { panOf } from './pan';

const pour = { stopAtG: 128, fromG: 42, flowGPerS: 5 };

test('each count comes with its grams left, and the lead moves them all', () => {
  const at = (inG: number, leadG = 0) => countAt({ ...pour, inG, stopAtG: pour.stopAtG - leadG });
  expect([at(100), at(107.9), at(108), at(117.9), at(118), at(127.9), at(128)]).toEqual([
    null,
    null,
    'twenty',
    'twenty',
    'ten',
    'ten',
    'stop',
  ]);
  expect([at(104, 4), at(114, 4), at(124, 4)]).toEqual(['twenty', 'ten', 'stop']);
});

test('what a pour is too small or too quick for is not counted; “stop” always is, and counts never go back', () => {
  expect(countAt({ inG: 9, fromG: 0, stopAtG: 15, flowGPerS: 5 })).toBe('ten');
  expect(countAt({ inG: 1, fromG: 0, stopAtG: 15, flowGPerS: 5 })).toBeNull();
  expect(countAt({ inG: 640, fromG: 0, stopAtG: 659, flowGPerS: 20 })).toBeNull();
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 100, noNaN: true }),
      fc.double({ min: 1, max: 400, noNaN: true }),
      fc.double({ min: 1, max: 20, noNaN: true }),
      (fromG, pourG, flowGPerS) => {
        let last = -1;
        for (let share = 0; share <= 1.05; share += 0.01) {
          const count = countAt({ inG: fromG + share * pourG, fromG, stopAtG: fromG + pourG, flowGPerS });
          const now = count === null ? -1 : COUNTS.indexOf(count);
          expect(now).toBeGreaterThanOrEqual(last);
          last = now;
        }
        expect(last).toBe(COUNTS.indexOf('stop'));
      },
    ),
  );
});

test('with a scale it counts by the reading; without, by the recipe’s flow from the tap; and not at all before it', () => {
  const card = brewCard(SCHOOLS[0]!, { cupMl: 250 });
  const step = card.steps.find(({ id }) => id === 'pour-2')!;
  const item = { step, asks: 'finish' as const, begunMs: 1000 };
  // 42 g at the start and 5 g a second.
  expect(pouringOf(item, 11_000, null, 0)).toEqual({ inG: 92, stopAtG: 128, fromG: 42, flowGPerS: 5 });
  expect(pouringOf(item, 11_000, 110, 3)).toMatchObject({ inG: 110, stopAtG: 125 });
  expect(pouringOf({ ...item, begunMs: null }, 11_000, 110, 0)).toBeNull();
  expect(pouringOf({ ...item, asks: 'start' }, 11_000, null, 0)).toBeNull();
});

test('stations are heard from left to right as they stand; a single one from the middle', () => {
  const stations = ['a', 'b', 'c'].map((id) => ({ id }));
  expect(stations.map(({ id }) => panOf(id, stations))).toEqual([-0.8, 0, 0.8]);
  expect([panOf('a', stations.slice(0, 1)), panOf('elsewhere', stations)]).toEqual([0, 0]);
});
