/** What the hands card asks, tick by tick, and what its one button says happened. */
import { act, fireEvent, render, screen } from '@testing-library/react-native';
import { EMPTY_BAR, reduce, type BarEvent } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { agenda, buildProblem, solve } from '@even-kettle/core/plan';
import { METRIC, type Units } from '@even-kettle/core/units';
import { BarContext, type BarHere } from '../../client/bar-context';
import { openDeviceReadings } from '../../client/device-board';
import { setDevice } from '../../device/settings';
import { TEST_BAR } from '../../testing/bar';
import { T0, at, book, done, firstWater, prep, started, taken } from '../../testing/cone';
import { HandsCard } from './hands-card';

const pushed: unknown[] = [];
// Keys are the browser's, and are tried there.
jest.mock('../../device/shortcuts', () => ({ useShortcuts: () => undefined }));
jest.mock('expo-router', () => ({ router: { push: (to: unknown) => mockPushed(to) } }));
const mockPushed = (to: unknown) => pushed.push(to);
const BAR: Bar = { ...TEST_BAR, stations: TEST_BAR.stations.slice(0, 1) };

const order = taken('A');
const prepared = [order, started('A'), ...prep];
const blooming = [...prepared, firstWater];
const poured = [...blooming, done('bloom', 107), done('pour-2', 158), done('pour-3', 188)];
const drawing = [...poured, done('pour-4', 215)];

function show(events: BarEvent[], seconds: number, units: Units = METRIC) {
  const { state } = reduce(events, book, EMPTY_BAR);
  const bar = { ...BAR, units };
  const plan = solve(buildProblem(state, bar, book, Math.ceil(at(seconds) / 1000)).problem);
  const tapped: BarEvent[] = [];
  const view = { status: 'ready', link: 'live', state, bar, plan, waiting: 0, refusals: [], undoable: null };
  const store = {
    view: () => view,
    subscribe: () => () => undefined,
    act: (events: BarEvent[]) => tapped.push(...events),
    undo: () => undefined,
  };
  const here = {
    store,
    devices: openDeviceReadings(),
    clock: { nowMs: () => at(seconds), rate: () => 1, onSet: () => () => undefined },
  } as unknown as BarHere;
  const item = agenda(state, bar, book, plan, at(seconds))[0]!;
  render(
    <BarContext.Provider value={here}>
      <HandsCard item={item} />
    </BarContext.Provider>,
  );
  return { tapped, press: () => act(() => fireEvent.press(screen.getByTestId('main-button'))) };
}
const texts = () => ({
  verb: screen.getByTestId('verb').props.children,
  figure: screen.getByTestId('figure', { includeHiddenElements: true }).props.children,
});

test('a cup that waits is begun by its first step: one tap starts the brew and ends the step', () => {
  const { tapped, press } = show([order], 20);
  expect(texts()).toEqual({ verb: 'Fill the kettle to', figure: '446' });
  press();
  expect(tapped.map(({ type, atMs }) => [type, (atMs - T0) / 1000])).toEqual([
    ['brew-started', 8],
    ['step-done', 20],
  ]);
});

test('the first water starts the timer, and only then is the pour to be ended', () => {
  const first = show(prepared, 95);
  expect(screen.getByText('First water')).toBeTruthy();
  first.press();
  expect(first.tapped).toMatchObject([{ type: 'step-begun', stepId: 'bloom' }]);
  screen.unmount();
  const second = show(blooming, 103);
  expect([texts().figure, screen.getByText('scale should read 18 g')]).toEqual(['42', expect.anything()]);
  second.press();
  expect(second.tapped).toMatchObject([{ type: 'step-done', stepId: 'bloom' }]);
});

test('between pours the card counts down to the next and shows its target, in the bar’s own units', () => {
  show([...blooming, done('bloom', 107)], 120, { mass: 'oz', temperature: 'F', volume: 'fl oz' });
  expect(texts()).toEqual({ verb: 'Pour to', figure: '4.5' });
  expect(screen.getByLabelText(/^Next, in 0:20/)).toBeTruthy();
});

test('a pour that is said to be made before its time is asked after once', () => {
  const { tapped, press } = show([...blooming, done('bloom', 107)], 116);
  press();
  expect(tapped).toEqual([]);
  expect(screen.getByTestId('main-button').props.accessibilityLabel).toBe('0:24 early: poured already?');
  press();
  expect(tapped).toMatchObject([{ type: 'step-done', stepId: 'pour-2' }]);
});

test('a pour that cannot be over yet is asked after: nothing is reckoned with a tap by mistake', () => {
  const { tapped, press } = show([...blooming, done('bloom', 107)], 142);
  press();
  expect(tapped).toEqual([]);
  expect(screen.getByTestId('main-button').props.accessibilityLabel).toMatch(/early: poured already\?$/);
  press();
  expect(tapped).toMatchObject([{ type: 'step-done', stepId: 'pour-2' }]);
});

test('with counting on and no scale the first tap begins a pour; before its time that is asked after, too', () => {
  setDevice({ countTones: true });
  try {
    const bloomed = [...blooming, done('bloom', 107)];
    const early = show(bloomed, 116);
    early.press();
    expect(early.tapped).toEqual([]);
    expect(screen.getByTestId('main-button').props.accessibilityLabel).toBe('0:24 early: pouring already?');
    screen.unmount();
    const due = show(bloomed, 140);
    due.press();
    expect(due.tapped).toMatchObject([{ type: 'step-begun', stepId: 'pour-2' }]);
    screen.unmount();
    const pouring = show([...bloomed, ...due.tapped], 150);
    pouring.press();
    expect(pouring.tapped).toMatchObject([{ type: 'step-done', stepId: 'pour-2' }]);
  } finally {
    act(() => setDevice({ countTones: false }));
  }
});

test('what the step needs stays in sight after a tap, with the way back beside it', () => {
  show(prepared.slice(0, 2), 20);
  expect(screen.getByTestId('detail')).toHaveTextContent(/Set it to/);
});

test('a bed that was forgotten is started again in one tap', () => {
  const { tapped } = show([...blooming, done('bloom', 107)], 400);
  act(() => fireEvent.press(screen.getByTestId('start-again')));
  expect(tapped).toMatchObject([{ type: 'brew-abandoned', reason: 'the bed ran dry' }]);
});

test('a reading other than the target is told with the tap', () => {
  const { tapped, press } = show([...blooming, done('bloom', 107)], 141);
  act(() => fireEvent.press(screen.getByLabelText('Scale reads one gram more')));
  press();
  expect(tapped).toMatchObject([{ type: 'step-done', stepId: 'pour-2', readingG: 129 }]);
});

test('a pour past its window says how late it is, and a step that runs by the clock asks for nothing', () => {
  // It is being made on time, as far as anybody has said.
  show([...blooming, done('bloom', 107)], 150);
  expect(screen.queryByText(/late/)).toBeNull();
  screen.unmount();
  show([...blooming, done('bloom', 107)], 178);
  expect(screen.getByText('0:20 late')).toBeTruthy();
  expect(screen.getByTestId('late-cost')).toHaveTextContent(/pour gently first/);
  screen.unmount();
  show([...blooming, done('bloom', 107)], 109);
  expect(texts().verb).toBe('Swirl the bloom');
  expect(screen.queryByTestId('main-button')).toBeNull();
});

test('the end of the drawdown is a cue: the card shows the brew’s own timer and waits', () => {
  const { tapped, press } = show(
    [...blooming, done('bloom', 107), done('pour-2', 158), done('pour-3', 188), done('pour-4', 215)],
    286,
  );
  expect(texts()).toEqual({ verb: 'Watch for “drops only”', figure: '3:06' });
  press();
  expect(tapped).toMatchObject([{ type: 'step-done', stepId: 'drawdown' }]);
});

test('the filter comes off in a step of its own; then the guest is named, with badge and grams', () => {
  const out = [
    ...[taken('A', 'window'), started('A'), ...prep, firstWater],
    ...[
      done('bloom', 107),
      done('pour-2', 158),
      done('pour-3', 188),
      done('pour-4', 215),
      done('drawdown', 286),
    ],
  ];
  const { tapped, press } = show(out, 288);
  expect(texts()).toEqual({ verb: 'Take the filter off', figure: '3' });
  expect(screen.queryByLabelText('Handed over to')).toBeNull();
  press();
  expect(tapped).toMatchObject([{ type: 'step-done', stepId: 'off' }]);

  show([...out, done('off', 291)], 292);
  expect(texts().verb).toBe('Swirl, cup, hand over');
  expect(screen.getByText('window')).toBeTruthy();
  expect(screen.getByTestId('share-A')).toHaveTextContent('250 g');
});

test('the true dose is asked for after grinding, before it is loaded, and the recipe follows it', () => {
  const before = taken('B');
  const other: BarEvent[] = [
    {
      ...before,
      atMs: at(-100),
      cups: 'cups' in before ? [{ ...before.cups[0]!, coffee: 'Slack Tide decaf' }] : [],
    } as BarEvent,
    { ...started('B'), atMs: at(-90) } as BarEvent,
    ...['fill', 'set-filter', 'weigh'].map((stepId, n): BarEvent => ({
      id: `b-${stepId}`,
      type: 'step-done',
      atMs: at(n * 15 - 80),
      brewId: 'b1.1',
      stepId,
    })),
    { id: 'b-off', type: 'brew-abandoned', atMs: at(-40), brewId: 'b1.1', reason: 'guest has left' },
    { id: 'b-clean', type: 'step-done', atMs: at(-39), brewId: 'b1.1', stepId: 'clean' },
    { id: 'b-gone', type: 'cup-cancelled', atMs: at(-39), orderId: 'B', cupId: 'b1' },
  ];
  const { tapped, press } = show([...other, ...prepared.slice(0, -1)], 70);
  expect(texts().verb).toBe('Throw the rinse, load, tare');
  act(() => fireEvent.press(screen.getByLabelText('17.6 g came out of the grinder; type another dose')));
  act(() => fireEvent.changeText(screen.getByTestId('real-dose'), '17.2'));
  press();
  expect(tapped).toMatchObject([
    { type: 'dose-corrected', brewId: 'a1.1', doseG: 17.2 },
    { type: 'step-done', stepId: 'load' },
  ]);
});

test('the rinse water and the tare are asked for by name, ticked off or not', () => {
  const { tapped, press } = show(prepared.slice(0, -1), 70);
  expect(texts().verb).toBe('Throw the rinse, load, tare');
  for (const part of ['Rinse water out', 'Coffee in, level', 'Tared'])
    expect(screen.getByRole('checkbox', { name: part }).props.accessibilityState?.checked ?? false).toBe(
      false,
    );
  act(() => fireEvent.press(screen.getByLabelText('Rinse water out')));
  expect(screen.getByRole('checkbox', { name: /Rinse/ }).props.accessibilityState?.checked ?? false).toBe(
    true,
  );
  press();
  expect(tapped).toMatchObject([{ type: 'step-done', stepId: 'load' }]);
});

test('after an overshoot the card says what it makes of it, and a short last pour can be poured on', () => {
  show([...blooming, { ...done('bloom', 107), readingG: 140 } as BarEvent], 120);
  expect(screen.getByTestId('outcome')).toHaveTextContent(
    '98 g over, past “First of three pours”, which is left out. Go on to 219 g.',
  );
  expect(texts().figure).toBe('219');
  screen.unmount();
  const { tapped } = show([...poured, { ...done('pour-4', 215), readingG: 262 } as BarEvent], 222);
  expect(screen.getByTestId('outcome')).toHaveTextContent(/23 g short: 1:14.9, about 10 % stronger/);
  act(() => fireEvent.press(screen.getByLabelText('Poured on to 285 g')));
  expect(tapped).toMatchObject([{ type: 'step-corrected', stepId: 'pour-4', readingG: 285 }]);
});

test('a drawdown can be noted as stalled in one tap, and the card says what to do', () => {
  const { tapped } = show(drawing, 290);
  act(() => fireEvent.press(screen.getByLabelText('Stalled')));
  expect(tapped).toMatchObject([{ type: 'brew-noted', note: 'stalled' }]);
  screen.unmount();
  show([...drawing, { id: 'n', type: 'brew-noted', atMs: at(288), brewId: 'a1.1', note: 'stalled' }], 290);
  expect(screen.getByTestId('rescue')).toHaveTextContent(/Lift the filter’s edge once.*: about 0:14 sooner/);
});

test('between pours the card says how long the bed stays covered', () => {
  show([...blooming, done('bloom', 107)], 112);
  expect(screen.getByLabelText(/; the bed shows/)).toBeTruthy();
});

test('past its window a drawdown is helped; a collapsed filter is begun again in one tap, with the beans to weigh', () => {
  const { tapped } = show(drawing, 310);
  expect(screen.getByTestId('rescue')).toHaveTextContent(/It runs long/);
  screen.unmount();
  const now = show(drawing, 280);
  act(() => fireEvent.press(screen.getByLabelText('Other…')));
  act(() => fireEvent.press(screen.getByLabelText('Filter collapsed')));
  expect(now.tapped).toMatchObject([
    { type: 'brew-noted', note: 'collapsed' },
    { type: 'brew-abandoned', reason: 'filter collapsed' },
  ]);
  expect(tapped).toEqual([]);
  screen.unmount();
  show([...drawing, ...now.tapped], 282);
  expect(screen.getByTestId('remedy')).toHaveTextContent(
    'This cup is brewed again: 17.6 g of beans to weigh now.',
  );
});

test('rinse water left in is told in figures, with how long brewing again takes', () => {
  const noted: BarEvent = { id: 'n', type: 'brew-noted', atMs: at(238), brewId: 'a1.1', note: 'rinse-left' };
  const { tapped } = show([...drawing, noted], 240);
  expect(screen.getByTestId('remedy')).toHaveTextContent(
    /all 60 g of it the cup is about 19 % weaker, 1:19\.6/,
  );
  act(() => fireEvent.press(screen.getByLabelText(/^Brew again, \d:\d\d$/)));
  expect(tapped).toMatchObject([{ type: 'brew-abandoned', reason: 'rinse water was left in' }]);
});
