/** A brewer of the bar's own: it is brewed in like any other, and its brews keep it whatever becomes of it on the Bench. */
import { EMPTY_BAR, levelOf, reduce } from '../../brew';
import { brewCard, why, type Brewer } from '../../recipe';
import { BENCH, T0, book, counter, cup, order } from '../../testing/bench';
import { agenda, buildProblem, cardFor, kindOf, solve, tapEvents, type Bench } from '../index';

const CLAY: Brewer = {
  id: 'clay',
  method: 'cone',
  name: 'Clay cone',
  minDoseG: 12,
  maxDoseG: 22,
  maxWaterG: 110,
  filter: 'hemp',
  retentionGPerG: 1.8,
  drainShare: 1.4,
};
const bench: Bench = { ...BENCH, brewers: [CLAY], stations: [{ id: 'own', name: 'Clay', brewerId: 'clay' }] };

test('its filter, what it keeps and how it drains are in the card, and in the reasons', () => {
  const found = cardFor(bench, cup('a1'), book);
  if (!found.ok) throw new Error(found.reason);
  const usual = cardFor(BENCH, cup('a1'), book);
  if (!usual.ok) throw new Error(usual.reason);
  const { card } = found;
  // 250 / (16.2 - 1.8) against 250 / (16.2 - 2.0).
  expect([card.doseG, usual.card.doseG]).toEqual([17.4, 17.6]);
  expect(card.filter).toBe('hemp');
  const drains = ({ steps }: typeof card) => steps.find(({ kind }) => kind === 'drawdown')!;
  expect(drains(card).endS - drains(usual.card).endS).toBeGreaterThan(20);
  // It holds 110 g: a pour that would rise over its rim is split.
  expect(card.steps.some(({ name }) => name.endsWith(', last part'))).toBe(true);
  const place = {
    altitudeM: 12,
    roast: 'light' as const,
    kettle: { powerW: 1200, filledAtC: 90 },
    brewer: CLAY,
  };
  const recipe = book({ recipeId: 'cone-thirds', recipeVersion: 2 })!;
  expect(why('beverageG', recipe, { cupMl: 250 }, place)!.inputs).toEqual(
    expect.arrayContaining([expect.objectContaining({ symbol: 'kept', value: 1.8, from: 'brewer' })]),
  );
  const time = why('brewTimeS', recipe, { cupMl: 250 }, { ...place, brewer: { ...CLAY, maxWaterG: 400 } })!;
  const of = Object.fromEntries(time.inputs.map(({ symbol, value }) => [symbol, value]));
  const { poured = 0, swirled = 0, drain = 0, dry = 0, ref = 0, dose = 0, refDose = 1, p = 0 } = of;
  expect(time.value).toBe(poured + Math.max(swirled, Math.ceil(drain * (dry - ref) * (dose / refDose) ** p)));
  expect(brewCard(recipe, { cupMl: 250 }, place).retainedG / 17.4).toBeCloseTo(1.8, 1);
});

test('a brew in it is the same after the brewer has been changed or taken off the Bench', () => {
  const { state } = reduce([order('A', 0, cup('a1'))], book, EMPTY_BAR);
  const { problem } = buildProblem(state, bench, book, T0 / 1000 + 5);
  expect(problem.tools[kindOf(bench.stations[0]!)]).toBe(1);
  const plan = solve(problem);
  const [item] = agenda(state, bench, book, plan, T0 + 5000);
  const events = tapEvents(item!, bench, T0 + 20_000, counter());
  expect(events[0]).toMatchObject({ type: 'brew-started', brewerId: 'clay', ownBrewer: CLAY });
  const { state: begun, refused } = reduce(events, book, state);
  expect(refused).toEqual([]);
  const brew = Object.values(begun.brews)[0]!;
  expect(brew.planned.doseG).toBe(17.4);
  expect(levelOf(brew, T0 + 30_000).target).toBeGreaterThan(0);
  // Nothing of the Bench was asked: the log alone makes the brew.
  expect(reduce(events, book, state).state.brews[brew.id]).toEqual(brew);
});
