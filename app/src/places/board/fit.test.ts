/** The board is written as large as all of it fits, and never larger. */
import fc from 'fast-check';
import type { Board, BoardOrder } from '@even-kettle/core/plan';
import { badgeOf } from '@even-kettle/core/brew';
import { ROW, fitOf } from './fit';

const QUEUES = [
  { id: 'counter', name: 'Counter' },
  { id: 'orders', name: 'Orders' },
];
const orderOf = (badgeNumber: number, queueId: string, name?: string): BoardOrder => ({
  badge: badgeOf(badgeNumber),
  badgeNumber,
  ...(name === undefined ? {} : { name }),
  queueId,
  cups: 1,
  ready: 0,
  readyMs: null,
});
const orders = fc
  .array(
    fc.record({
      isCounter: fc.boolean(),
      name: fc.option(fc.string({ minLength: 1, maxLength: 40 }), { nil: undefined }),
    }),
    { maxLength: 60 },
  )
  .map((all) => all.map(({ isCounter, name }, n) => orderOf(n, isCounter ? 'counter' : 'orders', name)));
const boards = fc.record({
  barName: fc.constant('Bar'),
  queues: fc.constantFrom([], QUEUES.slice(0, 1), QUEUES),
  ready: orders,
  coming: orders,
}) as fc.Arbitrary<Board>;
const windows = fc.record({
  width: fc.integer({ min: 900, max: 3840 }),
  height: fc.integer({ min: 500, max: 2160 }),
});

test('whatever is on it, the rows of a part are no higher than it, or those that are left out are counted', () => {
  fc.assert(
    fc.property(boards, windows, (board, { width, height }) => {
      const part = { width: width / 2 - 50, height: height - 150 };
      const { line, most } = fitOf(board, part.width, part.height, Math.min(width, height));
      expect(line).toBeLessThanOrEqual(Math.min(width, height) / 6);
      expect(line).toBeGreaterThanOrEqual(Math.min(width, height) / 17 - 1e-9);
      expect(most).toBeGreaterThanOrEqual(1);
      // At least one order stands in a row; so this many rows are the least that is needed.
      for (const shown of [board.ready.slice(0, most), board.coming.slice(0, most)]) {
        const widest = Math.max(1.6, ...shown.map(({ name = '' }) => 0.3 * name.length));
        const perRow = Math.max(1, Math.floor(part.width / line / (1.75 + widest)));
        if (most === Infinity)
          expect(Math.ceil(shown.length / perRow) * ROW * line).toBeLessThanOrEqual(part.height);
      }
    }),
  );
});

test('a quiet bar is written large, a full one smaller', () => {
  const of = (many: number) => {
    const board: Board = {
      barName: 'Bar',
      queues: [],
      ready: [],
      coming: Array.from({ length: many }, (_, n) => orderOf(n, 'counter')),
    };
    return fitOf(board, 900, 900, 1080);
  };
  const lines = [1, 4, 8, 20, 40].map((many) => of(many).line);
  expect(lines[0]).toBe(180);
  expect(lines).toEqual(lines.toSorted((a, b) => b - a));
  expect(of(20).most).toBe(Infinity);
  expect(of(200).most).toBeLessThan(200);
});
