import { BENCH, T0, book, counter, cup, done, order, started } from '../../testing/bench';
import { reduce, type BarEvent } from '../../brew';
import { agenda, buildProblem, cardFor, checkPlan, solve, tapEvents } from '../index';

const nowS = (seconds: number) => T0 / 1000 + seconds;
const build = (seconds: number, events: BarEvent[], before?: Parameters<typeof buildProblem>[4]) =>
  buildProblem(reduce(events, book).state, BENCH, book, nowS(seconds), before).problem;
const running = [
  order('A', 0, cup('a1')),
  started('a1', 'A', 'cone-1', 0),
  done('a1.1', 'fill', 12),
  done('a1.1', 'set-filter', 38),
  done('a1.1', 'weigh', 50),
];

test('running brews are pinned at their real times, steps that run by themselves too', () => {
  const problem = build(66, running);
  expect(problem.started).toEqual({
    'a1.1/fill': nowS(0),
    'a1.1/heat': nowS(12),
    'a1.1/set-filter': nowS(20),
    'a1.1/weigh': nowS(38),
    'a1.1/grind': nowS(50),
  });
  expect(problem.ended).toEqual({
    'a1.1/fill': nowS(12),
    'a1.1/heat': nowS(20),
    'a1.1/set-filter': nowS(38),
    'a1.1/weigh': nowS(50),
  });
  expect(build(76, running).ended).toMatchObject({ 'a1.1/grind': nowS(72) });
});

test('tools are counted from the bench, and a brew holds its own kind of brewer until it is cleaned', () => {
  const problem = build(0, [order('A', 0, cup('a1'), cup('a2', 'press-long', 240))]);
  expect(problem.tools).toEqual({ grinder: 1, kettle: 3, burner: 1, 'cone-m': 2, 'press-350': 1 });
  expect(problem.brews.map(({ holds }) => holds.at(-1))).toEqual([
    { tool: 'cone-m', from: 'fill', to: 'clean' },
    { tool: 'press-350', from: 'fill', to: 'clean' },
  ]);
  expect(problem.brews.map(({ steps }) => steps.filter(({ serve }) => serve).length)).toEqual([1, 1]);
});

test('what was planned within the next 45 s is kept where it is', () => {
  const events = [...running, order('B', 20, cup('b1'))];
  const first = solve(build(60, events));
  const again = build(61, [...events, order('C', 61, cup('c1'))], first);
  const soon = Object.entries(first.starts).filter(
    ([, start]) => start >= nowS(61) && start <= nowS(61 + 45),
  );
  expect(again.frozen).toEqual(Object.fromEntries(soon));
  const second = solve(again);
  for (const [key, start] of soon) expect([key, second.starts[key]]).toEqual([key, start]);
});

test('a wide window is planned to three seconds before its end, a narrow one whole; and of orders alike each counts a hundredth more for every later one', () => {
  const events = ['A', 'B', 'C'].map((id, n) => order(id, n, cup(`${id}1`)));
  const { brews, orders } = build(10, events);
  const card = cardFor(BENCH, cup('A1'), book);
  if (!card.ok) throw new Error(card.reason);
  const planned = brews[0]!.steps.map(({ lag }) => lag.max);
  const asked = card.card.steps.map(({ lag }) => lag.maxS);
  const cutBy = asked.map((maxS, n) => (maxS === null ? null : maxS - planned[n]!));
  const widths = card.card.steps.map(({ lag }) => (lag.maxS === null ? null : lag.maxS - lag.idealS));
  expect(new Set(cutBy)).toEqual(new Set([null, 0, 3]));
  expect(cutBy).toEqual(widths.map((width) => (width === null ? null : width < 6 ? 0 : 3)));
  expect(orders.map(({ weight }) => weight)).toEqual([1.02, 1.01, 1]);
});

test('a given-up brew asks only to be cleaned, and its cup is planned anew', () => {
  const events: BarEvent[] = [
    ...running,
    done('a1.1', 'load', 79),
    { id: 'x', type: 'brew-abandoned', atMs: T0 + 80_000, brewId: 'a1.1', reason: 'torn filter' },
  ];
  const problem = build(90, events);
  expect(problem.brews.map(({ id, steps }) => [id, steps.map((step) => step.id).at(-1)])).toEqual([
    ['a1.1', 'clean'],
    ['a1.2', 'clean'],
  ]);
  const plan = solve(problem);
  expect(checkPlan(problem, plan)).toEqual([]);
  expect(plan.starts['a1.2/serve']).toBeGreaterThan(plan.starts['a1.1/clean']!);
});

test('a cup that no brewer here can make is left out, and said', () => {
  const { problem, unplannable } = buildProblem(
    reduce([order('A', 0, cup('a1', 'press-long', 400))], book).state,
    BENCH,
    book,
    nowS(0),
  );
  expect([problem.brews, problem.orders, unplannable.map(({ cupId }) => cupId)]).toEqual([[], [], ['a1']]);
});

test('what the log has taught of hands and coffee is planned and brewed with, and told at the start', () => {
  const bench = {
    ...BENCH,
    pace: { weigh: 1.5 },
    beds: { 'cone-thirds Saltmarsh': { retentionGPerG: 2.3, drawdownExponent: 0.6 } },
    coffees: [{ name: 'Saltmarsh', roastedOn: '2025-12-20', grindOffsets: { grinder: 1.5 } }],
    water: { name: 'Harbour tap' },
  };
  const state = reduce([order('A', 0, cup('a1'))], book).state;
  const stepOf = (of: typeof BENCH, id: string) =>
    buildProblem(state, of, book, T0 / 1000).problem.brews[0]!.steps.find((step) => step.id === id)!;
  // Twelve seconds and half as much again, each with the second that no hand is without.
  expect([stepOf(BENCH, 'weigh').duration, stepOf(bench, 'weigh').duration]).toEqual([13, 19]);
  expect(stepOf(bench, 'pour-2').duration).toBe(stepOf(BENCH, 'pour-2').duration);

  const [thirsty, usual] = [cardFor(bench, cup('a1'), book), cardFor(BENCH, cup('a1'), book)];
  expect(thirsty.ok && usual.ok && thirsty.card.doseG > usual.card.doseG).toBe(true);
  const plan = solve(buildProblem(state, bench, book, T0 / 1000).problem);
  const [item] = agenda(state, bench, book, plan, T0);
  const [started] = tapEvents(item!, bench, T0 + 20_000, counter());
  expect(started).toMatchObject({
    type: 'brew-started',
    retentionGPerG: 2.3,
    drawdownExponent: 0.6,
    roastedOn: '2025-12-20',
    grinderId: 'grinder',
    water: 'Harbour tap',
  });
  const brewed = reduce([order('A', 0, cup('a1')), started!], book).state.brews['a1.1']!;
  expect(thirsty.ok && brewed.card.doseG).toBe(thirsty.ok && thirsty.card.doseG);
});

test('what was found good for a coffee with a recipe is on its cards, in the start and in the log’s own card; other coffees keep the recipe', () => {
  const changes = { 'cone-thirds': { ratioBy: -0.5, waterByC: 2, grindBy: { grinder: 1.5 } } };
  const tunedBench = {
    ...BENCH,
    coffees: [
      { name: 'Saltmarsh', grindOffsets: { grinder: -1 }, recipeChanges: changes },
      { name: 'Slack Tide' },
    ],
  };
  const cardOf = (bench: typeof BENCH, coffee = 'Saltmarsh') => {
    const found = cardFor(bench, { ...cup('a1'), coffee }, book);
    if (!found.ok) throw new Error(found.reason);
    return found.card;
  };
  const [own, plain] = [cardOf(tunedBench), cardOf(BENCH)];
  expect(own.brewWaterG / own.doseG).toBeCloseTo(15.7, 1);
  expect(own.waterC).toBe(plain.waterC + 2);
  expect(cardOf(tunedBench, 'Slack Tide')).toEqual(plain);

  const { state } = reduce([order('A', 0, cup('a1'))], book);
  const plan = solve(buildProblem(state, tunedBench, book, T0 / 1000).problem);
  const item = agenda(state, tunedBench, book, plan, T0)[0]!;
  const [start] = tapEvents(item, tunedBench, T0 + 12_000, counter());
  expect(start).toMatchObject({ type: 'brew-started', ratioBy: -0.5, waterByC: 2, grinderId: 'grinder' });
  // Band 52 is 17.2 on this grinder; -1 for the coffee and 1.5 for it with this recipe.
  expect(start).toMatchObject({ grindSetting: 17.7 });
  const begun = reduce([start!], book, state);
  expect(begun.refused).toEqual([]);
  expect(begun.state.brews['a1.1']!.card).toMatchObject({
    doseG: own.doseG,
    brewWaterG: own.brewWaterG,
    waterC: own.waterC,
  });
});
