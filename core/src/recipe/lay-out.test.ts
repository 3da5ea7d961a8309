/** The clock of a card: waits, windows, heating, what falls away and what moves. */
import {
  DEFAULT_PLACE,
  RecipeError,
  SCHOOLS,
  brewCard,
  fillOf,
  checkRecipe,
  type BrewCard,
  type BrewSite,
  type Recipe,
  type RecipeStep,
} from './index';

const recipe = (id: string): Recipe => SCHOOLS.find((school) => school.id === id)!;
const step = (card: BrewCard, id: string) => card.steps.find((each) => each.id === id)!;
const withStep = (of: Recipe, id: string, change: Partial<RecipeStep>): Recipe => ({
  ...of,
  steps: of.steps.map((each) => (each.id === id ? { ...each, ...change } : each)),
});
const CUP = { cupMl: 250 };

test('a cold kettle is waited for, less what is done meanwhile; a hot one is not', () => {
  const at = (filledAtC: number, powerW = 1200) =>
    brewCard(recipe('cone-thirds'), CUP, { ...DEFAULT_PLACE, kettle: { powerW, filledAtC } });
  // 446 g from 20 to 94 °C at 1,200 W: 135.4 s, before the filter is rinsed.
  const cold = at(20);
  expect(step(cold, 'heat')).toMatchObject({ durationS: 136, end: 'clock', attended: false });
  expect(step(cold, 'heat').startS).toBe(step(cold, 'fill').endS);
  expect(step(cold, 'set-filter').startS).toBe(step(cold, 'heat').endS);
  expect(step(at(90), 'heat').durationS).toBe(8);
  expect(at(96).steps.some(({ id }) => id === 'heat')).toBe(false);
  // Twice the power, half the wait.
  expect(step(at(20, 2400), 'heat').durationS).toBe(68);
});

test('each kind of step may move as far as the craft lets it', () => {
  const lags = (id: string, cup = CUP) =>
    Object.fromEntries(brewCard(recipe(id), cup).steps.map(({ id: of, lag }) => [of, lag]));
  const thirds = lags('cone-thirds');
  expect(thirds['fill']).toEqual({ minS: 0, idealS: 0, maxS: null, penalty: 0 });
  expect(thirds['weigh']).toEqual({ minS: 0, idealS: 0, maxS: 60, penalty: 0.05 });
  expect(thirds['grind']).toEqual({ minS: 0, idealS: 0, maxS: 0, penalty: 0 });
  expect(thirds['set-filter']).toEqual({ minS: 0, idealS: 0, maxS: 60, penalty: 0.05 });
  expect(thirds['load']).toEqual({ minS: 0, idealS: 0, maxS: 45, penalty: 0.05 });
  // First water up to a minute after taring; a pour 3 s early to 8 s late; a swirl straight on.
  expect(thirds['bloom']).toEqual({ minS: 0, idealS: 0, maxS: 60, penalty: 0.05 });
  expect(thirds['swirl-bloom']).toEqual({ minS: 0, idealS: 0, maxS: 0, penalty: 0 });
  expect(thirds['pour-2']).toEqual({ minS: 26, idealS: 29, maxS: 37, penalty: 1 });
  // The filter off and the cup over the counter within a minute of the last drops.
  expect(thirds['off']).toEqual({ minS: 0, idealS: 0, maxS: 40, penalty: 0.5 });
  expect(thirds['serve']).toEqual({ minS: 0, idealS: 0, maxS: 20, penalty: 0.5 });
  expect(thirds['clean']).toEqual({ minS: 0, idealS: 0, maxS: 600, penalty: 0.05 });
  const press = lags('press-long');
  expect(press['plunge']).toMatchObject({ idealS: 0, maxS: 60 });
  expect(press['serve']).toMatchObject({ maxS: 20 });
  expect(lags('siphon-late')['serve']).toMatchObject({ maxS: 40 });
  expect(lags('siphon-late')['flame-off']).toMatchObject({ minS: 0, maxS: 8, penalty: 2 });
  // Never sooner than 2 s after the pour before, however early a pour may start.
  const crowded = brewCard(recipe('flat-small'), { doseG: 28 }).steps.find(({ id }) => id === 'pulse-3')!;
  expect([crowded.lag.idealS, crowded.lag.minS]).toEqual([4, 2]);
});

test('a wait that nothing is left of falls away, and the card says so; what follows keeps its clock', () => {
  const rushed = withStep(recipe('press-long'), 'wet', { lasts: { s: 395 } });
  const card = brewCard(rushed, CUP);
  expect(card.steps.some(({ id }) => id === 'steep')).toBe(false);
  expect(card.notes).toContain('Steeping has no time left at this size, so it falls away.');
  expect(step(card, 'dip').startS).toBe(401);
  // All later ones have moved by the second that the dip did.
  expect(step(card, 'plunge').startS).toBe(441);
  expect(card.notes[0]).toContain('Dip down and up, so the crust falls starts 1 s later');
});

test('when many pours move, one line says from where on and by how much', () => {
  const card = brewCard(recipe('flat-small'), { doseG: 60 });
  const starts = card.steps.filter(({ kind }) => kind === 'pour').map(({ startS, endS }) => [startS, endS]);
  for (const [index, [startS]] of starts.entries())
    if (index > 0) expect(startS! - starts[index - 1]![1]!).toBeGreaterThanOrEqual(3);
  expect(card.notes).toHaveLength(1);
  expect(card.notes[0]).toMatch(
    /^From Second of ten pulses on, pours start later than the recipe’s clock \(\d+ s, at the end \d+ s\)/,
  );
  const [, first, last] = /\((\d+) s, at the end (\d+) s\)/.exec(card.notes[0]!)!;
  expect(Number(last)).toBe(starts.at(-1)![0]! - 135);
  expect(Number(first)).toBeLessThan(Number(last));
});

test('a step that waits after the one before it waits that long', () => {
  const slow = withStep(recipe('cone-thirds'), 'load', { start: { afterS: 7 } });
  const card = brewCard(slow, CUP);
  expect(step(card, 'load').startS - step(card, 'grind').endS).toBe(7);
  // Two minutes for ground coffee, less 7 and 15 s, shared by 45 and 60.
  expect(step(card, 'load').lag).toMatchObject({ minS: 7, idealS: 7, maxS: 7 + 42 });
});

test('what a step carries for people comes through: cues, hints, mistakes, only where they are', () => {
  const card = brewCard(recipe('cone-steady'), CUP);
  expect(step(card, 'settle')).toMatchObject({ cue: 'bloom has settled', cueWindowS: { from: 30, to: 50 } });
  expect(step(card, 'pour-2').hint).toContain('Keep the slurry near the rim.');
  expect(step(card, 'load').mistake).toContain('commonest mistake');
  expect(step(card, 'pour-2')).not.toHaveProperty('cue');
  expect(step(card, 'pour-2')).not.toHaveProperty('opening');
  expect(step(card, 'pour-2')).not.toHaveProperty('waterC');
  expect(step(card, 'stir-end')).not.toHaveProperty('targetG');
  expect(card).not.toHaveProperty('addition');
  expect(brewCard(recipe('cone-steady'), { ...CUP, addition: 'ice' })).toMatchObject({
    addition: 'ice',
    additionG: 109,
  });
});

test('an opening counts from what has been poured before it, and one that lies there already is none', () => {
  const opened = (toShare: number) =>
    withStep(recipe('cone-thirds'), 'pour-2', {
      pour: { amount: { toShare: 0.45 }, flowGPerS: 5, opening: { toShare, flowGPerS: 2 } },
    });
  // From 42 g: 44 g to 30 % (86 g) at 2 g/s, then 42 g at 5 g/s.
  const card = brewCard(opened(0.3), CUP);
  expect(step(card, 'pour-2')).toMatchObject({
    startS: 40,
    endS: 71,
    opening: { targetG: 86, untilS: 62, flowGPerS: 2 },
  });
  expect(step(brewCard(opened(0.1), CUP), 'pour-2')).not.toHaveProperty('opening');
  // All of it at the opening's flow: 86 g at 2 g/s.
  expect(step(brewCard(opened(0.9), CUP), 'pour-2').durationS).toBe(43);
});

test('a recipe without a timer, or whose pours do not reach its water, makes no card', () => {
  const thirds = recipe('cone-thirds');
  const timeless = { ...thirds, steps: thirds.steps.map(({ anchor: _anchor, ...each }) => each) };
  expect(() => brewCard(timeless, CUP)).toThrow('cone-thirds has no step that starts its timer.');
  const back = withStep(thirds, 'pour-3', { pour: { amount: { toShare: 0.3 }, flowGPerS: 5 } });
  expect(() => brewCard(back, CUP)).toThrow(RecipeError);
  expect(() => brewCard(back, CUP)).toThrow('do not add up to its brew water');
  const short = withStep(thirds, 'pour-4', { pour: { amount: { toShare: 0.9 }, flowGPerS: 5 } });
  expect(() => brewCard(short, CUP)).toThrow('do not add up to its brew water');
  const dry = withStep(thirds, 'swirl-end', { lasts: 'pour' });
  expect(() => brewCard(dry, CUP)).toThrow('lasts as long as its pour, but pours nothing');
  expect(checkRecipe(dry).map(({ field }) => field)).toContain('steps.11.lasts');
});

test('notes speak where there is something to say', () => {
  const notes = (ask: Parameters<typeof brewCard>[1], kettle = DEFAULT_PLACE.kettle) =>
    brewCard(recipe('cone-thirds'), ask, { ...DEFAULT_PLACE, kettle }).notes;
  expect(notes({ cups: 2, eachMl: 150 })).toEqual([
    'Swirl the server before sharing out: what is below is stronger.',
  ]);
  expect(notes({ ...CUP, addition: 'sugar' })[0]).toContain('Sugar is served beside');
  expect(notes({ ...CUP, addition: 'ice' })[0]).toMatch(/^\d+ g of ice into the server/);
  expect(notes({ ...CUP, addition: 'milk' })[0]).toMatch(/^\d+ g of milk on top/);
  // 446 g to fill, or 426 with less to spare: 740 ml is 60 % full with that, 730 is not. Nor is a fast kettle a note.
  expect(notes(CUP, { ...DEFAULT_PLACE.kettle, sizeMl: 740 })).toEqual([]);
  expect(notes(CUP, { ...DEFAULT_PLACE.kettle, sizeMl: 730 })).toHaveLength(1);
  expect(notes(CUP, { ...DEFAULT_PLACE.kettle, maxFlowGPerS: 6 })).toEqual([]);
});

test('a recipe that says so much from hot and so much from cold takes 80 °C as hot, 79 as cold', () => {
  const early = recipe('siphon-early');
  const told = {
    ...early,
    steps: early.steps.map((each) =>
      each.id === 'rise' ? { ...each, lasts: { hotS: 140, coldS: 360 } } : each,
    ),
  };
  const rise = (filledAtC: number) =>
    step(brewCard(told, CUP, { ...DEFAULT_PLACE, kettle: { powerW: 1200, filledAtC } }), 'rise').durationS;
  expect([rise(80), rise(79)]).toEqual([140, 360]);
});

test('what is not known of how drawdown grows widens the window of a cup that is larger than the recipe’s own', () => {
  const window = (doseG: number, drawdownExponentSd?: number) => {
    const place = { ...DEFAULT_PLACE, ...(drawdownExponentSd === undefined ? {} : { drawdownExponentSd }) };
    const { brewWindowS, brewTimeS } = brewCard(recipe('cone-thirds'), { doseG }, place);
    return { ...brewWindowS, brewTimeS };
  };
  expect(window(18, 0.15)).toEqual(window(18));
  const [known, unsure] = [window(30), window(30, 0.15)];
  // The drawdown times 1.2816 x 0.15 x ln(30 / 18).
  const offS =
    (known.brewTimeS -
      brewCard(recipe('cone-thirds'), { doseG: 30 }).steps.findLast(({ kind }) => kind === 'pour')!.endS) *
    0.0982;
  expect(Math.abs(unsure.to - known.to - offS)).toBeLessThan(1.01);
  expect(Math.abs(known.from - unsure.from - offS)).toBeLessThan(1.01);
  expect(unsure.brewTimeS).toBe(known.brewTimeS);
});

test('a kettle that is too small is filled again in the plan, and the second filling heats while the beans are got ready', () => {
  const at = (sizeMl: number, more: Partial<BrewSite> = {}) =>
    brewCard(recipe('cone-thirds'), CUP, {
      ...DEFAULT_PLACE,
      kettle: { powerW: 1200, filledAtC: 20, sizeMl },
      ...more,
    });
  const [roomy, small] = [at(900), at(700)];
  expect(roomy.steps.map(({ id }) => id)).not.toContain('refill');
  expect(small.steps.slice(0, 8).map(({ id, kind }) => [id, kind])).toEqual([
    ['fill', 'fill'],
    ['heat', 'heat'],
    ['set-filter', 'set-filter'],
    ['refill', 'fill'],
    ['reheat', 'heat'],
    ['weigh', 'weigh'],
    ['grind', 'grind'],
    ['load', 'load'],
  ]);
  expect([fillOf(step(small, 'fill'), small), fillOf(step(small, 'refill'), small)]).toEqual(
    small.fills.map(({ g }) => g),
  );
  // 132 g and 314 g from 20 to 94 °C at 1,200 W and 0.85: 40.1 and 95.3 s, of which weighing, grinding and loading are 49.
  expect([step(small, 'heat').durationS, step(small, 'reheat').durationS]).toEqual([41, 96 - 12 - 22 - 15]);
  // Logs of before know one filling, and beans that were ground before the rinse.
  expect(
    at(700, { cardVersion: 1 })
      .steps.slice(0, 6)
      .map(({ id }) => id),
  ).toEqual(['fill', 'heat', 'weigh', 'grind', 'set-filter', 'warm']);
});

/** The longest that a plan may leave between the end of one step and the start of another, seconds. */
function longestS(card: BrewCard, from: string, to: string): number {
  const [a, b] = [from, to].map((id) => card.steps.findIndex((each) => each.id === id));
  const between = card.steps.slice(a! + 1, b! + 1);
  return between.reduce(
    (sum, { lag, durationS }, n) => sum + (lag.maxS ?? 0) + (n < between.length - 1 ? durationS : 0),
    0,
  );
}

test.each(SCHOOLS.filter(({ id }) => id !== 'siphon-early').map(({ id }) => id))(
  '%s: ground coffee waits two minutes for its water at the most, a hot kettle three, a rinsed filter five',
  (id) => {
    for (const [filledAtC, doseG] of [
      [90, recipe(id).refDoseG],
      [15, recipe(id).refDoseG],
      [15, 1.3 * recipe(id).refDoseG],
    ] as const) {
      const card = brewCard(recipe(id), { doseG }, { ...DEFAULT_PLACE, kettle: { powerW: 1200, filledAtC } });
      const has = (kind: string) => card.steps.find((each) => each.kind === kind)?.id;
      // A pot's coffee meets water that has yet to be heated.
      const wetted = has('pour') ?? has('stir') ?? 'flame';
      const waits = longestS(card, 'grind', wetted);
      // Of a larger batch the grounds wait while the last of a globe's water rises.
      expect([
        id,
        waits <= (card.method === 'siphon' && doseG > recipe(id).refDoseG ? 145 : 120),
        waits,
      ]).toEqual([id, true, waits]);
      const before = brewCard(recipe(id), { doseG }, { ...DEFAULT_PLACE, cardVersion: 1 });
      if (card.method !== 'siphon') expect(longestS(before, 'grind', wetted)).toBeLessThanOrEqual(120);
      if (card.method === 'siphon' || !card.steps.some(({ kind }) => kind === 'set-filter')) continue;
      const heatedS = card.steps.find(({ kind }) => kind === 'heat')?.durationS ?? 0;
      expect(longestS(card, 'fill', 'set-filter') - heatedS).toBeLessThanOrEqual(180);
      expect(longestS(card, 'set-filter', wetted)).toBeLessThanOrEqual(300);
    }
  },
);
