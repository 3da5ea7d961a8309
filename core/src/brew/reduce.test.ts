import { T0, begun, book, cup, done, order, started } from '../testing/bench';
import {
  anchorMs,
  apply,
  badgeOf,
  brewAt,
  brewTimeMs,
  brewTimeOf,
  forgetClosed,
  holdsStation,
  reduce,
  timelineAt,
  type BarEvent,
} from './index';

const prep = (brewId: string, fromS: number): BarEvent[] => [
  done(brewId, 'fill', fromS + 12),
  done(brewId, 'set-filter', fromS + 24),
  done(brewId, 'weigh', fromS + 64),
  done(brewId, 'load', fromS + 94),
];
/** A cone brewed to its end: first water at 100 s, drops only at 290 s. */
const coneBrewed: BarEvent[] = [
  order('A', 0, cup('a1')),
  started('a1', 'A', 'cone-1', 0),
  ...prep('a1.1', 0),
  begun('a1.1', 'bloom', 100),
  done('a1.1', 'bloom', 107),
  done('a1.1', 'pour-2', 158, 130),
  done('a1.1', 'pour-3', 188),
  done('a1.1', 'pour-4', 215),
  done('a1.1', 'drawdown', 290),
];
const served: BarEvent = { id: 'served', type: 'brew-served', atMs: T0 + 310_000, brewId: 'a1.1' };
const stateOf = (...events: BarEvent[]) => {
  const { state, refused } = reduce(events, book);
  expect(refused).toEqual([]);
  return state;
};
const refusalOf = (events: BarEvent[], last: BarEvent) => {
  const applied = apply(stateOf(...events), last, book);
  return applied.ok ? null : applied.refusal;
};

test('a cone runs from order to clean, and its brew time is from first water to drops only', () => {
  const state = stateOf(...coneBrewed, served, done('a1.1', 'clean', 340));
  const brew = state.brews['a1.1']!;
  expect([brew.status, state.orders['A']!.cups[0]!.status, brewAt(state, 'cone-1')]).toEqual([
    'cleaned',
    'served',
    undefined,
  ]);
  expect([brewTimeMs(brew), anchorMs(brew, T0)]).toEqual([190_000, T0 + 100_000]);
  expect(brew.marks['pour-2']).toEqual({ doneMs: T0 + 158_000, readingG: 130, targetG: 128 });
});

test('steps that end by the clock close by themselves, at their own time, with nobody tapping', () => {
  const state = stateOf(...coneBrewed.slice(0, 8));
  const at = (seconds: number) =>
    timelineAt(state.brews['a1.1']!, T0 + seconds * 1000).find(({ step }) => step.id === 'swirl-bloom')!;
  expect([at(108).status, at(112).status, at(112).endMs]).toEqual(['running', 'done', T0 + 111_000]);
});

test('a cue step waits for its tap, however long that takes', () => {
  const state = stateOf(...coneBrewed.slice(0, -1));
  const drawdown = timelineAt(state.brews['a1.1']!, T0 + 5000_000).find(
    ({ step }) => step.id === 'drawdown',
  )!;
  expect(drawdown.status).toBe('running');
});

test('handing over without saying “drops only” ends the drawdown, and nobody knows how long it took', () => {
  const state = stateOf(...coneBrewed.slice(0, -1), served);
  expect(state.brews['a1.1']!.status).toBe('served');
  expect(brewTimeOf(state.brews['a1.1']!)).toBeNull();
});

test('an end that was asked for late lies between when it was surely not over and the tap; too unsure, it measures nothing', () => {
  const late = (notOverS: number): BarEvent[] => [
    ...coneBrewed.slice(0, -1),
    {
      id: 'late',
      type: 'step-done',
      atMs: T0 + 290_000,
      brewId: 'a1.1',
      stepId: 'drawdown',
      notOverMs: T0 + notOverS * 1000,
    },
  ];
  const timeOf = (notOverS: number) => {
    const brew = stateOf(...late(notOverS)).brews['a1.1']!;
    return [brewTimeOf(brew), brewTimeMs(brew)];
  };
  expect(timeOf(256)).toEqual([{ ms: 173_000, plusMinusMs: 17_000 }, null]);
  expect(timeOf(282)).toEqual([{ ms: 186_000, plusMinusMs: 4000 }, 186_000]);
});

test.each<[string, BarEvent[], BarEvent, string, string]>([
  [
    'a step before the one that comes first',
    coneBrewed.slice(0, 4),
    done('a1.1', 'pour-2', 60),
    'step-not-next',
    'stepId',
  ],
  [
    'a step that is done already',
    coneBrewed,
    { ...done('a1.1', 'pour-2', 300), id: 'again' },
    'already-done',
    'stepId',
  ],
  ['a step of another recipe', coneBrewed, done('a1.1', 'plunge', 300), 'unknown', 'stepId'],
  ['a step long before what was last recorded', coneBrewed, done('a1.1', 'clean', 20), 'out-of-time', 'atMs'],
  ['serving told as a step', coneBrewed, done('a1.1', 'serve', 300), 'step-not-next', 'stepId'],
  ['serving before the last pour', coneBrewed.slice(0, 9), served, 'step-not-next', 'brewId'],
  ['a brew that is not there', coneBrewed, done('b1.1', 'fill', 300), 'unknown', 'brewId'],
  [
    'a station that another brew holds',
    [...coneBrewed, order('B', 5, cup('b1'))],
    started('b1', 'B', 'cone-1', 300),
    'station-busy',
    'stationId',
  ],
  [
    'a cup that is being brewed',
    coneBrewed,
    { ...started('a1', 'A', 'cone-2', 300, 2) },
    'cup-not-ready',
    'cupId',
  ],
  [
    'a second start of the same brew',
    coneBrewed,
    { ...started('a1', 'A', 'cone-2', 300), id: 'x' },
    'already-done',
    'brewId',
  ],
  [
    'an order with a recipe that is not there',
    [],
    order('A', 0, cup('a1', 'cone-of-legend')),
    'unknown-recipe',
    'cups.0.recipeId',
  ],
  [
    'an order for a cup of 5 l',
    [],
    order('A', 0, cup('a1', 'cone-thirds', 5000)),
    'does-not-make-a-cup',
    'cups.0.cupMl',
  ],
  [
    'an order taken twice',
    [order('A', 0, cup('a1'))],
    { ...order('A', 9, cup('a9')), id: 'x' },
    'already-exists',
    'orderId',
  ],
  [
    'cancelling a cup that brews',
    coneBrewed,
    { id: 'x', type: 'cup-cancelled', atMs: T0, orderId: 'A', cupId: 'a1' },
    'cup-not-ready',
    'cupId',
  ],
  [
    'remaking a cup that is not out',
    coneBrewed,
    { id: 'x', type: 'cup-remade', atMs: T0, orderId: 'A', cupId: 'a1', brewId: 'a1.1', reason: 'cold' },
    'cup-not-ready',
    'cupId',
  ],
  [
    'undoing what is not the latest',
    coneBrewed,
    { id: 'x', type: 'event-undone', atMs: T0, eventId: 'done-a1.1-pour-2' },
    'not-undoable',
    'eventId',
  ],
  [
    'an event of the future’s kind',
    coneBrewed,
    { id: 'x', type: 'brew-levitated', atMs: T0 } as unknown as BarEvent,
    'unknown',
    'type',
  ],
])('refuses %s', (_what, before, event, code, field) => {
  expect(refusalOf(before, event)).toMatchObject({ code, field });
});

test('a given-up brew sends its cup back to wait, and keeps its station until it is cleaned', () => {
  const givenUp = stateOf(...coneBrewed.slice(0, 9), {
    id: 'x',
    type: 'brew-abandoned',
    atMs: T0 + 200_000,
    brewId: 'a1.1',
    reason: 'knocked over',
  });
  expect([givenUp.orders['A']!.cups[0]!.status, holdsStation(givenUp.brews['a1.1']!)]).toEqual([
    'waiting',
    true,
  ]);
  const cleaned = reduce([done('a1.1', 'clean', 230), started('a1', 'A', 'cone-1', 240, 2)], book, givenUp);
  expect(cleaned.refused).toEqual([]);
  expect([cleaned.state.orders['A']!.cups[0]!.status, brewAt(cleaned.state, 'cone-1')?.id]).toEqual([
    'brewing',
    'a1.2',
  ]);
});

test('a served cup can be sent back and is brewed again; undo of the serving is then refused', () => {
  const back = stateOf(...coneBrewed, served, {
    id: 'back',
    type: 'cup-remade',
    atMs: T0 + 320_000,
    orderId: 'A',
    cupId: 'a1',
    brewId: 'a1.1',
    reason: 'dropped',
  });
  expect(back.orders['A']!.cups[0]!.status).toBe('waiting');
  expect(apply(back, { id: 'x', type: 'event-undone', atMs: T0, eventId: 'served' }, book)).toMatchObject({
    ok: false,
    refusal: { code: 'not-undoable' },
  });
});

test('cleaning cannot be undone once the station has been taken again', () => {
  const taken = stateOf(
    ...coneBrewed,
    served,
    done('a1.1', 'clean', 340),
    order('B', 345, cup('b1')),
    started('b1', 'B', 'cone-1', 350),
  );
  expect(
    apply(taken, { id: 'x', type: 'event-undone', atMs: T0, eventId: 'done-a1.1-clean' }, book),
  ).toMatchObject({ ok: false, refusal: { code: 'not-undoable' } });
});

test('closed orders are forgotten after a while, open ones and stations to be cleaned never', () => {
  const open = stateOf(...coneBrewed, served);
  expect(forgetClosed(open, T0 + 9e9)).toBe(open);
  const closed = stateOf(...coneBrewed, served, done('a1.1', 'clean', 340));
  expect(forgetClosed(closed, T0 + 9e9)).toMatchObject({ orders: {}, brews: {}, lastBadge: 0 });
});

test('badges go round the alphabet and pass over those still on the bar', () => {
  const orders = Array.from({ length: 27 }, (_, index) => order(`o${index}`, index, cup(`c${index}`)));
  const badges = Object.values(stateOf(...orders).orders).map(({ badge }) => badgeOf(badge));
  expect([badges[0], badges[1], badges[25], badges[26]]).toEqual([
    { letter: 'A', stroke: 'solid' },
    { letter: 'B', stroke: 'dashed' },
    { letter: 'Z', stroke: 'dashed' },
    { letter: 'AA', stroke: 'dotted' },
  ]);
});

test('of the bar’s things the latest stays, and the one before it while the latest may be taken back', () => {
  const H = 3_600_000;
  const boiled = (id: string, hours: number): BarEvent => ({
    id,
    type: 'cloth-boiled',
    atMs: T0 + hours * H,
    clothId: 'blue',
  });
  const counted = (id: string, method: 'cone' | 'flat', hours: number): BarEvent => ({
    id,
    type: 'papers-counted',
    atMs: T0 + hours * H,
    method,
    sheets: 100,
  });
  const tried = (id: string, hours: number): BarEvent => ({
    id,
    type: 'change-tried',
    atMs: T0 + hours * H,
    coffee: 'House',
    recipeId: 'cone-thirds',
    fromBrewId: 'a1.1',
    words: '1 step coarser',
  });
  const events = [
    tried('long-ago', -2400),
    boiled('b1', 0),
    counted('c1', 'cone', 1),
    counted('f1', 'flat', 2),
    tried('t1', 3),
    boiled('b2', 24),
    boiled('b3', 48),
    counted('c2', 'cone', 49),
  ];
  const { state } = reduce(events, book);
  const left = (beforeH: number) => forgetClosed(state, T0 + beforeH * H).houseEvents!.map(({ id }) => id);
  expect(left(0)).toEqual(events.map(({ id }) => id).slice(1));
  // The second boiling stands beside the third until that is settled.
  expect(left(30)).toEqual(['c1', 'f1', 't1', 'b2', 'b3', 'c2']);
  expect(left(60)).toEqual(['f1', 't1', 'b3', 'c2']);
  // Let go bit by bit or at once, it is the same.
  const bitByBit = forgetClosed(forgetClosed(state, T0 + 30 * H), T0 + 60 * H);
  expect(bitByBit).toEqual(forgetClosed(state, T0 + 60 * H));
  expect(forgetClosed(bitByBit, T0 + 61 * H)).toBe(bitByBit);
});
