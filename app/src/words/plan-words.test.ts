/** The plan in words: a chain that a person can follow, and help that says what it brings. */
import { EMPTY_BAR, reduce, type BarEvent } from '@even-kettle/core/brew';
import { buildProblem, chainOf, solve } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { TEST_BAR } from '../testing/bar';
import { becauseInWords, helpInWords, linkInWords } from './plan-words';

const book = bookOf(SCHOOLS);
const T0 = Date.UTC(2026, 0, 5, 8);
const events = ['A', 'B'].map((orderId, n): BarEvent => ({
  id: orderId,
  type: 'order-taken',
  atMs: T0 + n * 1000,
  orderId,
  cups: [
    {
      cupId: `cup-${orderId}`,
      recipeId: 'cone-thirds',
      recipeVersion: 1,
      coffee: 'Saltmarsh',
      roast: 'light',
      cupMl: 250,
    },
  ],
}));

test('the second cup of a bar with one cone waits for it, and the line says who frees it', () => {
  const { state } = reduce(events, book, EMPTY_BAR);
  const plan = solve(buildProblem(state, TEST_BAR, book, T0 / 1000 + 5).problem);
  const [later] = Object.keys(plan.why).filter((id) => plan.why[id]!.tool === 'cone-m');
  const [link] = chainOf(plan, later!);
  const words = linkInWords(link!, { state, bench: TEST_BAR, book });
  const [first, second] = later === 'cup-B.1' ? ['A', 'B'] : ['B', 'A'];
  expect(words).toMatch(
    new RegExp(`^${second}’s cup waits for a Cone M until \\d\\d:\\d\\d.*: ${first}’s cup, knock out`),
  );
});

test('a long cleaning that waits for a flame says so, and no keeper of a flame is offered as help', () => {
  const { state } = reduce(events, book, EMPTY_BAR);
  const link = {
    brewId: 'cup-A.1',
    for: 'tool' as const,
    tool: 'keeper of flame 1',
    until: T0 / 1000,
    step: null,
  };
  expect(linkInWords(link, { state, bench: TEST_BAR, book })).toMatch(
    /^A’s cup waits until \d\d:\d\d.*, since a flame is never left alone\.$/,
  );
});

test('help and changes are told with what they bring, and why', () => {
  const { state } = reduce(events, book, EMPTY_BAR);
  const order = state.orders['A']!;
  expect(helpInWords({ what: 'hands', gainS: 95 }, order, TEST_BAR)).toBe(
    'One more pair of hands: 1:35 sooner.',
  );
  expect(helpInWords({ what: 'tool', tool: 'cone-m', gainS: 40 }, order, TEST_BAR)).toBe(
    'One more Cone M: 0:40 sooner.',
  );
  expect(helpInWords({ what: 'method', cupId: 'cup-A', method: 'press', gainS: 60 }, order, TEST_BAR)).toBe(
    'Saltmarsh by press: 1:00 sooner.',
  );
  expect(becauseInWords({ because: 'late', moves: [], atMs: 0 })).toBe('Plan changed because a step is late');
});
