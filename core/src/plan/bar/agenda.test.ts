/** What the bar asks of its hands, and what a tap on it means. */
import { BENCH, T0, begun, book, counter, cup, done, order, started } from '../../testing/bench';
import { apply, reduce, type BarEvent } from '../../brew';
import { kettleLimitG } from '../../water';
import { agenda, buildProblem, behindOf, cardFor, kindOf, solve, tapEvents, type Bench } from '../index';

const at = (seconds: number) => T0 + seconds * 1000;
const stateOf = (...events: BarEvent[]) => reduce(events, book).state;
const agendaAt = (seconds: number, ...events: BarEvent[]) => {
  const state = stateOf(...events);
  const { problem } = buildProblem(state, BENCH, book, Math.ceil(at(seconds) / 1000));
  const plan = problem.brews.length > 0 ? solve(problem) : null;
  return agenda(state, BENCH, book, plan, at(seconds));
};
const prepared = [
  order('A', 0, cup('a1')),
  started('a1', 'A', 'cone-1', 0),
  done('a1.1', 'fill', 12),
  done('a1.1', 'set-filter', 24),
  done('a1.1', 'weigh', 64),
  done('a1.1', 'load', 94),
];
const poured = [
  ...prepared,
  begun('a1.1', 'bloom', 100),
  done('a1.1', 'bloom', 107),
  done('a1.1', 'pour-2', 158),
  done('a1.1', 'pour-3', 188),
  done('a1.1', 'pour-4', 215),
];

test('an empty bar asks for nothing, and a first order for its first step', () => {
  expect(agendaAt(0)).toEqual([]);
  expect(agendaAt(5, order('A', 0, cup('a1')))[0]).toMatchObject({
    key: 'a1.1/fill',
    asks: 'finish',
    brew: null,
    station: { id: 'cone-1', free: true },
    dueMs: at(5),
  });
});

test('the anchor’s pour is first begun, then finished', () => {
  expect(agendaAt(95, ...prepared)[0]).toMatchObject({ key: 'a1.1/bloom', asks: 'start', begunMs: null });
  expect(agendaAt(103, ...prepared, begun('a1.1', 'bloom', 100))[0]).toMatchObject({
    key: 'a1.1/bloom',
    asks: 'finish',
    begunMs: at(100),
    fromMs: at(100),
  });
});

test('hands that came free within ten minutes had no time before that for what was due; longer ago nothing is known of them', () => {
  const fromS = (seconds: number) => {
    const state = stateOf(...prepared, order('B', 0, cup('b1')));
    const plan = solve(buildProblem(stateOf(order('B', 0, cup('b1'))), BENCH, book, at(0) / 1000).problem);
    const item = agenda(state, BENCH, book, plan, at(seconds)).find(({ key }) => key === 'b1.1/fill')!;
    return [item.dueMs, item.fromMs].map((ms) => (ms - T0) / 1000);
  };
  expect(fromS(94 + 599)).toEqual([0, 94]);
  expect(fromS(94 + 601)).toEqual([0, 0]);
});

test('a swirl runs by itself, and then the next pour is due at its place on the timer', () => {
  const bloomed = [...prepared, begun('a1.1', 'bloom', 100), done('a1.1', 'bloom', 107)];
  expect(agendaAt(109, ...bloomed)[0]).toMatchObject({ key: 'a1.1/swirl-bloom', asks: 'runs' });
  expect(agendaAt(115, ...bloomed)[0]).toMatchObject({
    key: 'a1.1/pour-2',
    asks: 'finish',
    dueMs: at(140),
    latestMs: at(148),
  });
});

test('while a pour is overdue, what comes after it is never due sooner than that pour can be over, however old the plan', () => {
  const state = stateOf(...prepared, begun('a1.1', 'bloom', 100), done('a1.1', 'bloom', 107));
  const { problem } = buildProblem(state, BENCH, book, at(115) / 1000);
  const plan = solve(problem);
  for (const nowS of [150, 175, 230]) {
    const [late, next, last] = agenda(state, BENCH, book, plan, at(nowS));
    expect([late!.key, next!.key, last!.key]).toEqual(['a1.1/pour-2', 'a1.1/pour-3', 'a1.1/pour-4']);
    expect(late!.dueMs).toBe(at(140));
    expect(next!.dueMs).toBeGreaterThanOrEqual(at(nowS + late!.step.durationS));
    expect(last!.dueMs).toBeGreaterThanOrEqual(next!.dueMs + next!.step.durationS * 1000);
  }
  // Begun, it is over when it has had its time, or now.
  const [pouring, next] = agendaAt(170, ...prepared, begun('a1.1', 'bloom', 100));
  expect([pouring!.key, pouring!.asks]).toEqual(['a1.1/bloom', 'finish']);
  expect(next!.dueMs).toBeGreaterThanOrEqual(at(170));
});

test('what waits for a cue gives way to what is due, and both to what has been begun', () => {
  expect(agendaAt(300, ...poured)[0]).toMatchObject({
    key: 'a1.1/off',
    asks: 'cue',
    awaited: { id: 'drawdown' },
  });
  const begunToo = [
    ...poured,
    order('B', 60, cup('b1', 'press-long', 240)),
    started('b1', 'B', 'press-1', 298),
  ];
  expect(agendaAt(300, ...begunToo)[0]).toMatchObject({ key: 'b1.1/fill', asks: 'finish', begunMs: at(298) });
  const [first, ...rest] = agendaAt(330, ...begunToo, done('b1.1', 'fill', 311));
  expect(first).toMatchObject({ key: 'b1.1/set-filter', asks: 'finish' });
  expect(rest.map(({ key }) => key)).toContain('a1.1/serve');
});

test('a step counts from when hands were free for it, not from when it was due', () => {
  const two = [
    ...prepared,
    order('B', 20, cup('b1')),
    started('b1', 'B', 'cone-2', 30),
    done('b1.1', 'fill', 115),
  ];
  const weigh = agendaAt(118, ...two).find(({ key }) => key === 'b1.1/weigh')!;
  expect(weigh.fromMs).toBeGreaterThanOrEqual(at(115));
});

test('each tap’s events are taken by the rules, and a waiting cup’s first tap also starts its brew', () => {
  const newId = counter('t');
  let state = stateOf(order('A', 0, cup('a1')));
  let nowMs = at(30);
  const types: string[] = [];
  for (let taps = 0; taps < 30; taps += 1) {
    const { problem } = buildProblem(state, BENCH, book, Math.ceil(nowMs / 1000));
    const item = agenda(state, BENCH, book, problem.brews.length > 0 ? solve(problem) : null, nowMs)[0];
    if (!item) break;
    nowMs = Math.max(nowMs + 100, item.dueMs + item.step.durationS * 1000 + 1);
    for (const event of tapEvents(
      item,
      BENCH,
      nowMs,
      newId,
      item.step.targetG === undefined ? {} : { readingG: item.step.targetG },
    )) {
      const applied = apply(state, event, book);
      expect([event.type, applied.ok]).toEqual([event.type, true]);
      if (applied.ok) state = applied.state;
      types.push(event.type);
    }
  }
  expect(types).toEqual([
    'brew-started',
    ...Array(4).fill('step-done'),
    'step-begun',
    ...Array(6).fill('step-done'),
    'brew-served',
    'step-done',
  ]);
  expect(state.brews['a1.1']).toMatchObject({ status: 'cleaned', startedMs: at(30) + 1 });
});

describe('stations that brew one cup in different ways', () => {
  const mixed: Bench = {
    ...BENCH,
    stations: [
      { id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m' },
      { id: 'cone-2', name: 'Cone 2', brewerId: 'cone-m', scale: 'none' },
      { id: 'small', name: 'Small cone', brewerId: 'cone-s' },
    ],
  };
  const three = stateOf(order('A', 0, cup('a1')), order('B', 1, cup('b1')), order('C', 2, cup('c1')));

  test('are chosen once: card, station and plan say the same of a cup, and all of them are used', () => {
    const { problem } = buildProblem(three, mixed, book, at(5) / 1000);
    expect(problem.tools).toMatchObject({ 'cone-m': 1, 'cone-m/no-scale': 1, 'cone-s': 1 });
    const items = agenda(three, mixed, book, solve(problem), at(5));
    const chosen = new Map(items.map((item) => [item.brewId, item]));
    expect([...chosen.values()].map(({ station }) => station.id).sort()).toEqual([
      'cone-1',
      'cone-2',
      'small',
    ]);
    for (const [brewId, { station, card }] of chosen) {
      const planned = problem.brews.find(({ id }) => id === brewId)!;
      expect(planned.holds.map(({ tool }) => tool)).toContain(kindOf(station));
      expect(card.steps.some(({ byEye }) => byEye)).toBe(station.id === 'cone-2');
    }
  });

  test('a cup that is started is brewed as its card was made', () => {
    const { problem } = buildProblem(three, mixed, book, at(5) / 1000);
    const item = agenda(three, mixed, book, solve(problem), at(5)).find(
      ({ station }) => station.id === 'cone-2',
    )!;
    const { state } = reduce(tapEvents(item, mixed, at(20), counter('t')), book, three);
    expect(state.brews[item.brewId]!.card).toEqual(item.card);
  });
});

test('a brew that was given up before anything was wetted leaves nothing to clean, one given up later does', () => {
  const givenUp = (atS: number): BarEvent => ({
    id: 'x',
    type: 'brew-abandoned',
    atMs: at(atS),
    brewId: 'a1.1',
    reason: 'wrong coffee',
  });
  const dry = agendaAt(20, ...prepared.slice(0, 3), givenUp(18));
  expect(dry.map(({ key }) => key)).not.toContain('a1.1/clean');
  expect(dry[0]).toMatchObject({ brewId: 'a1.2', brew: null });
  const wet = agendaAt(120, ...prepared, givenUp(110));
  expect(wet.map(({ key }) => key)).toContain('a1.1/clean');
});

test('a bar is behind its plan once something was to be over half a minute ago and is not; sooner it may be in somebody’s hands', () => {
  const state = stateOf(order('A', 0, cup('a1')));
  const plan = solve(buildProblem(state, BENCH, book, at(2) / 1000).problem);
  const behind = (seconds: number) =>
    behindOf(agenda(state, BENCH, book, plan, at(seconds)), plan, at(seconds)).length > 0;
  // Filling takes 12 s.
  expect([behind(10), behind(40), behind(46)]).toEqual([false, false, true]);
});

test('what runs and spoils comes before what only waits, and a late plan does not put it off', () => {
  const bloomed = [...prepared, begun('a1.1', 'bloom', 100), done('a1.1', 'bloom', 107)];
  const state = stateOf(order('B', 1, cup('b1')), ...bloomed);
  // A plan that came too late for the bed: it has the next pour in six minutes, and other work now.
  const base = solve(buildProblem(state, BENCH, book, at(520) / 1000).problem);
  const plan = { ...base, starts: { ...base.starts, 'a1.1/pour-2': at(900) / 1000 } };
  const [first] = agenda(state, BENCH, book, plan, at(520));
  expect(first!.key).toBe('a1.1/pour-2');
  expect(first!.dueMs).toBeLessThan(at(520));
});

test('what one pair of hands has just done says nothing of when the other pair began its step', () => {
  const two = { ...BENCH, hands: 2 };
  const state = stateOf(
    ...prepared,
    begun('a1.1', 'bloom', 100),
    done('a1.1', 'bloom', 107),
    order('B', 1, cup('b1')),
    started('b1', 'B', 'cone-2', 138),
    done('b1.1', 'fill', 152),
  );
  const base = solve(buildProblem(state, two, book, at(130) / 1000).problem);
  const starts = { ...base.starts, 'a1.1/pour-2': at(140) / 1000 };
  const hands = { ...base.hands, 'a1.1/pour-2': 0, 'b1.1/fill': 1 };
  const items = agenda(state, two, book, { ...base, starts, hands }, at(155));
  const pour = items.find(({ key }) => key === 'a1.1/pour-2')!;
  expect([pour.dueMs, pour.fromMs]).toEqual([at(140), at(140)]);
});

test('a cup that fits no brewer here is told with what would fit', () => {
  expect(cardFor(BENCH, cup('x', 'press-long', 400), book)).toEqual({
    ok: false,
    field: 'cupMl',
    reason:
      '30.1 g is too much for the Press 350 ml, which takes up to 19 g. 2 equal brews of 201 ml in the Press 350 ml.',
  });
});

test('a kettle that holds another brew’s water is not asked to be filled; the card names one that is free', () => {
  const first = agendaAt(0, order('A', 0, cup('a1')))[0]!;
  expect(first.kettle!.id).toBe('a');
  const [start, filled] = tapEvents(first, BENCH, at(12), counter());
  expect(start).toMatchObject({ type: 'brew-started', kettleId: 'a' });
  const taken = [order('A', 0, cup('a1')), order('B', 1, cup('b1')), order('C', 2, cup('c1'))];
  const items = agendaAt(13, ...taken, start!, filled!);
  const kettles = new Map(items.map(({ brewId, kettle }) => [brewId, kettle?.id]));
  expect(kettles.get('a1.1')).toBe('a');
  // Two that wait are not sent to one kettle either.
  expect([kettles.get('b1.1'), kettles.get('c1.1')].sort()).toEqual(['b', 'c']);
});

test('where only a small kettle is free, what is asked of it is no more than it takes', () => {
  const [kettle] = BENCH.kettles;
  const bench: Bench = {
    ...BENCH,
    tapC: 15,
    stations: ['carafe-1', 'carafe-2'].map((id) => ({ id, name: id, brewerId: 'hourglass-l' })),
    kettles: [
      { ...kettle!, sizeMl: 2000 },
      { id: 'small', name: 'Small', powerW: 900, sizeMl: 600 },
    ],
  };
  const large = (cupId: string) => cup(cupId, 'hourglass-pulses', 500);
  const asked = (seconds: number, ...events: BarEvent[]) => {
    const state = stateOf(...events);
    const plan = solve(buildProblem(state, bench, book, Math.ceil(at(seconds) / 1000)).problem);
    return agenda(state, bench, book, plan, at(seconds));
  };
  const taken = [order('A', 0, large('a1')), order('B', 1, large('b1'))];
  const first = asked(2, ...taken).find(({ step }) => step.kind === 'fill')!;
  const begunA = tapEvents(first, bench, at(14), counter());
  const second = asked(15, ...taken, ...begunA).find(({ brew, step }) => !brew && step.kind === 'fill')!;
  expect([first.kettle!.id, second.kettle!.id]).toEqual(['a', 'small']);
  expect(first.card.fills).toHaveLength(1);
  expect(second.card.fills.length).toBeGreaterThan(1);
  for (const { g } of second.card.fills)
    expect(g).toBeLessThanOrEqual(kettleLimitG(600, second.card.waterC, true));
});

test('no two cards ask for one place: of cups that wait, the one that begins first has what is free, and what hands are at before all', () => {
  const state = stateOf(order('A', 0, cup('a1')), order('B', 0, cup('b1')), order('C', 0, cup('c1')));
  const plan = solve(buildProblem(state, { ...BENCH, hands: 2 }, book, at(0) / 1000).problem);
  const cones = BENCH.stations.filter(({ brewerId }) => brewerId === BENCH.stations[0]!.brewerId);
  const placesAt = (bench: Bench, firstS: Record<string, number>, startedHands?: Record<string, number>) => {
    const starts = { ...plan.starts };
    for (const [brewId, startS] of Object.entries(firstS)) starts[`${brewId}/fill`] = at(startS) / 1000;
    const told = { ...plan, starts, ...(startedHands ? { startedHands } : {}) };
    const items = agenda(state, bench, book, told, at(0)).filter(({ step }) => step.id === 'fill');
    return Object.fromEntries(items.map(({ brewId, station }) => [brewId, station.free ? station.id : null]));
  };
  const turn = { 'b1.1': 3, 'a1.1': 5, 'c1.1': 9 };
  const one = { ...BENCH, hands: 2, stations: cones.slice(0, 1) };
  expect(placesAt(one, turn)).toEqual({ 'b1.1': 'cone-1', 'a1.1': null, 'c1.1': null });
  expect(placesAt(one, turn, { 'c1.1/fill': 0 })).toEqual({ 'b1.1': null, 'a1.1': null, 'c1.1': 'cone-1' });
  const two = { ...one, stations: cones.slice(0, 2) };
  expect(placesAt(two, turn)).toEqual({ 'b1.1': 'cone-1', 'a1.1': cones[1]!.id, 'c1.1': null });
});

test('a long step that is due is not begun where a short one beside it would be spoilt by it', () => {
  const [n, first] = [600, 600 - 20 - 28 * 4];
  const press = ['fill', 'set-filter', 'weigh', 'load', 'pour'].map((stepId, index) =>
    done('p1.1', stepId, n - 283 - 20 * (4 - index)),
  );
  const cone = [
    ...['fill', 'set-filter', 'weigh', 'load'].map((stepId, index) =>
      done('a1.1', stepId, first - 100 + 20 * index),
    ),
    begun('a1.1', 'pulse-1', first - 10),
    ...[1, 2, 3, 4, 5].map((pulse) => done('a1.1', `pulse-${pulse}`, first + 28 * (pulse - 1))),
  ];
  const brews = [
    order('P', 0, cup('p1', 'press-short', 240)),
    order('A', 1, cup('a1', 'cone-evenpulses')),
    started('p1', 'P', 'press-1', n - 400),
    ...press,
    started('a1', 'A', 'cone-1', first - 120),
    ...cone,
    // The hands come free only now.
    order('C', 2, cup('c1', 'cone-steady')),
    started('c1', 'C', 'cone-2', n - 30),
    done('c1.1', 'fill', n),
  ];
  const { state, refused } = reduce(brews, book);
  expect(refused).toEqual([]);
  const due = agenda(state, BENCH, book, null, at(n)).filter(
    ({ brewId, dueMs }) => brewId !== 'c1.1' && dueMs <= at(n),
  );
  // The plunge may wait two seconds more and takes 25; the last pulse may wait six and takes ten.
  expect(due.map(({ step }) => step.id)).toEqual(['pulse-6', 'plunge']);
  expect(due[1]!.latestMs!).toBeLessThan(due[0]!.latestMs!);
});
