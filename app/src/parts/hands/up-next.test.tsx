/** What comes next, from real plans: the countdowns, and what is said of a plan that changed. */
import { act, fireEvent, screen } from '@testing-library/react-native';
import { reduce, type BarEvent } from '@even-kettle/core/brew';
import { buildProblem, movesBetween, solve } from '@even-kettle/core/plan';
import { TEST_BAR, showPage, viewOf } from '../../testing/bar';
import { at, book, done, firstWater, prep, started, taken } from '../../testing/cone';
import { UpNext } from './up-next';

const MOST = 4;
const bar = { ...TEST_BAR, stations: TEST_BAR.stations.slice(0, 1) };
const bloomed = [taken('A'), taken('B'), started('A'), ...prep, firstWater, done('bloom', 107)];

function planned(events: BarEvent[], seconds: number, before?: ReturnType<typeof solve>) {
  const { state } = reduce(events, book);
  const { problem } = buildProblem(state, bar, book, Math.ceil(at(seconds) / 1000), before);
  return { state, problem, plan: solve(problem, { moves: 60, before }) };
}

function show(
  { state, plan }: ReturnType<typeof planned>,
  seconds: number,
  change: object = {},
  keepsHeight = false,
) {
  const taken: string[] = [];
  showPage(
    <UpNext
      hands="all"
      atHand="a1.1/pour-2"
      most={MOST}
      keepsHeight={keepsHeight}
      onTake={(brewId) => void taken.push(brewId)}
    />,
    { view: viewOf({ bar, book, state, plan, ...change }), nowMs: at(seconds) },
  );
  return taken;
}
const rows = () =>
  screen
    .getAllByLabelText(/Take it now/)
    .map(({ props }) => String(props.accessibilityLabel ?? props['aria-label']));

test('the next steps are listed, soonest first, without the one at hand; one is taken to hand by a tap', () => {
  const taken = show(planned(bloomed, 110), 110);
  expect(rows()).toHaveLength(MOST);
  // The first of three pours is at hand.
  expect(rows()[0]).toMatch(/^Cone 1: Second of three pours, to 214 g, in \d:\d\d/);
  expect(rows().some((row) => row.includes('First of three'))).toBe(false);
  const leftS = rows().map((row) => {
    const [, minutes, seconds] = /(\d+):(\d\d)/.exec(row)!;
    return 60 * Number(minutes) + Number(seconds);
  });
  expect(leftS).toEqual([...leftS].sort((a, b) => a - b));
  act(() =>
    fireEvent.press(screen.getByLabelText(rows()[0]!), { button: 0, preventDefault: () => undefined }),
  );
  expect(taken).toEqual(['a1.1']);
});

test('a plan that changed is said with its reason, where nothing may move in the place of one line, and each step with how much later it comes, for twenty seconds', () => {
  const before = planned(bloomed, 110);
  // The second pour comes half a minute late, and all that follows with it.
  const after = planned([...bloomed, done('pour-2', 188)], 190, before.plan);
  const moves = movesBetween(before.plan, after.plan, { ...after.problem, now: after.problem.now - 60 });
  expect(moves.length).toBeGreaterThan(0);
  const change = { change: { moves, because: 'late', atMs: at(190) } };
  show(after, 195, change);
  expect(screen.getByText(/^Plan changed/)).toBeTruthy();
  expect(rows()).toHaveLength(MOST);
  screen.unmount();
  show(after, 195, change, true);
  expect(screen.getByText(/^Plan changed/)).toBeTruthy();
  expect(rows()).toHaveLength(MOST - 1);
  expect(screen.getAllByText(/^0:\d\d later$/).length).toBeGreaterThan(0);
  screen.unmount();
  show(after, 215, change, true);
  expect(screen.queryByText(/^Plan changed/)).toBeNull();
  expect(rows()).toHaveLength(MOST);
});
