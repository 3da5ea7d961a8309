/** Every school, as a barista who does what the agenda says would brew it: alone, and all of them in one rush. */
import { BENCH, T0, book, counter, order } from '../testing/bench';
import { anchorMs, brewTimeMs, timelineAt, type BrewState, type CupAsk } from '../brew';
import { buildProblem, checkPlan, solve, type Bench } from '../plan';
import { BREWERS, SCHOOLS, brewCard, fitsBrewer, type Recipe } from '../recipe';
import { liveShift, seededRandom } from './index';

/** One station for every brewer that there is, and enough of every tool. */
const EVERYTHING: Bench = {
  ...BENCH,
  burners: 2,
  stations: BREWERS.map(({ id, name }) => ({ id: `at-${id}`, name, brewerId: id })),
};

/** A cup that some brewer of the recipe's method takes in one go. */
function cupFor(recipe: Recipe, cupId: string): CupAsk {
  const cupMl = [75, 120, 150, 200, 250, 300, 400].find((ml) => {
    const card = brewCard(recipe, { cupMl: ml });
    return BREWERS.some((brewer) => brewer.method === recipe.method && fitsBrewer(brewer, card));
  })!;
  return { cupId, recipeId: recipe.id, recipeVersion: 1, coffee: 'Saltmarsh', roast: 'light', cupMl };
}

const live = (cups: CupAsk[][], seed: number) =>
  liveShift({
    bench: EVERYTHING,
    book,
    orders: cups.map((of, index) => order(`O${index}`, index * 20, ...of)),
    fromMs: T0,
    untilMs: T0 + 3 * 3600 * 1000,
    newId: counter(),
    random: seededRandom(seed),
  });

/** Attended stretches of the hands, as the brew's own marks have them. */
const handSpans = (brew: BrewState) =>
  timelineAt(brew, brew.lastMs)
    .filter(({ step, status }) => step.attended && step.end !== 'clock' && status === 'done')
    .map(({ step, startMs, endMs }) => ({ who: `${brew.id} ${step.id}`, startMs, endMs }));

test.each(SCHOOLS.map((recipe) => [recipe.id, recipe] as const))(
  '%s is brewed from the first step to the clean station by what the agenda says alone',
  (id, recipe) => {
    const { state, events } = live([[cupFor(recipe, 'c')]], 3);
    const brew = state.brews['c.1']!;
    expect([id, brew.status]).toEqual([id, 'cleaned']);
    const times = timelineAt(brew, brew.lastMs);
    expect(times.every(({ status }) => status === 'done')).toBe(true);
    expect(anchorMs(brew, brew.lastMs)).not.toBeNull();
    // A practised hand, give or take a tenth a step, ends near the card's own time.
    const took = brewTimeMs(brew)! / 1000;
    expect(Math.abs(took - brew.card.brewTimeS)).toBeLessThanOrEqual(
      Math.max(12, 0.15 * brew.card.brewTimeS),
    );
    // Every tap was one of a step that waits for a person; what the clock ends was never tapped.
    const tapped = events.flatMap((event) => ('stepId' in event ? [event.stepId] : []));
    for (const stepId of tapped)
      expect(brew.card.steps.find((step) => step.id === stepId)!.end).not.toBe('clock');
  },
);

test('all of them in one rush: planned without a collision, brewed by one pair of hands, served to the last', () => {
  const cups = SCHOOLS.map((recipe, index) => [cupFor(recipe, `c${index}`)]);
  const { state } = live(cups, 11);
  const brews = Object.values(state.brews);
  expect(brews.map(({ status }) => status)).toEqual(SCHOOLS.map(() => 'cleaned'));
  const spans = brews.flatMap(handSpans).sort((a, b) => a.startMs - b.startMs);
  // A start is inferred from its tap and the step's usual length, so a quick hand may seem to have begun a little early.
  const overlaps = spans
    .slice(1)
    .map((span, index) => ({ who: span.who, byMs: spans[index]!.endMs - span.startMs }))
    .filter(({ byMs }) => byMs > 4000);
  expect(overlaps).toEqual([]);
});

test('a plan of every school at once keeps every rule, flames and kettles among them', () => {
  const state = live([], 1).state;
  const orders = SCHOOLS.map((recipe, index) => order(`P${index}`, 0, cupFor(recipe, `p${index}`)));
  const waiting = orders.reduce(
    (bar, event) => ({
      ...bar,
      orders: {
        ...bar.orders,
        [event.orderId]: {
          id: event.orderId,
          badge: 0,
          badgeBefore: -1,
          takenMs: event.atMs,
          cups: event.cups.map((cup) => ({ ...cup, status: 'waiting' as const, brewIds: [], attempts: [] })),
          events: [event],
        },
      },
    }),
    state,
  );
  const { problem } = buildProblem(waiting, EVERYTHING, book, T0 / 1000);
  expect(problem.brews).toHaveLength(SCHOOLS.length);
  expect(problem.tools['burner']).toBe(2);
  const plan = solve(problem);
  expect(checkPlan(problem, plan)).toEqual([]);
});

test('a sock held in the hand keeps the hands through its drawdown, and is poured by clock and eye', () => {
  const held: Bench = {
    ...EVERYTHING,
    stations: [
      { id: 'sock', name: 'Sock', brewerId: 'sock', scale: 'none', handHeld: true },
      { id: 'cone', name: 'Cone', brewerId: 'cone-m' },
    ],
  };
  const sock = SCHOOLS.find(({ id }) => id === 'sock-fours')!;
  const cone = SCHOOLS.find(({ id }) => id === 'cone-thirds')!;
  const { state } = liveShift({
    bench: held,
    book,
    orders: [order('O', 0, cupFor(sock, 's'), { ...cupFor(cone, 'c'), cupMl: 250 })],
    fromMs: T0,
    untilMs: T0 + 3600 * 1000,
    newId: counter(),
    random: seededRandom(8),
  });
  const brew = state.brews['s.1']!;
  expect([brew.status, state.brews['c.1']!.status]).toEqual(['cleaned', 'cleaned']);
  const { steps } = brew.card;
  expect(steps.filter(({ kind }) => kind === 'pour').every(({ byEye }) => byEye)).toBe(true);
  expect(steps.find(({ kind }) => kind === 'drawdown')!.attended).toBe(true);
  expect(brew.card.handsTimeS).toBeGreaterThan(brewCard(sock, { cupMl: brew.ask.cupMl }).handsTimeS + 30);
  // Nothing was done at the cone while the sock was held.
  const drawn = timelineAt(brew, brew.lastMs).find(({ step }) => step.kind === 'drawdown')!;
  const meanwhile = handSpans(state.brews['c.1']!).filter(
    ({ startMs, endMs }) => endMs > drawn.startMs + 4000 && startMs < drawn.endMs - 4000,
  );
  expect(meanwhile).toEqual([]);
});
