import {
  BREWERS,
  METHOD_IDS,
  SCHOOLS,
  WISHES,
  bandInWords,
  beansToWeighG,
  brewCard,
  brewerById,
  calibrationFault,
  capacityOf,
  doseToFollowG,
  grindSetting,
  methodTable,
  suggest,
  wayOutInWords,
  DEFAULT_PLACE,
  type Grinder,
} from './index';

const recipe = (id: string) => SCHOOLS.find((school) => school.id === id)!;
const capacity = (brewerId: string, recipeId: string, cupMl: number) =>
  capacityOf(brewerById(brewerId)!, brewCard(recipe(recipeId), { cupMl }));

test('too much offers the next brewer that fits and equal brews; too little says so; what fits says that', () => {
  const small = capacity('cone-s', 'cone-thirds', 300);
  expect(small.words).toBe('21.1 g is too much for the Cone S, which takes up to 20 g.');
  expect(small.waysOut.map(wayOutInWords)).toEqual([
    'It fits the Cone M (14–32 g).',
    '2 equal brews of 150 ml in the Cone S.',
  ]);
  const thin = capacity('cone-m', 'cone-thirds', 150);
  expect(thin.words).toContain('10.6 g is too little for the Cone M: under 14 g');
  expect(thin.waysOut.map(wayOutInWords)).toEqual(['It fits the Cone S (10–20 g).']);
  expect(capacity('press-1l', 'press-long', 600)).toEqual({
    fit: { fits: true },
    words: '45.1 g fits the Press 1 l.',
    waysOut: [],
  });
  // 300 ml lies between the two presses, and half of it is too little for either.
  expect(capacity('press-350', 'press-long', 300).waysOut.map(wayOutInWords)).toEqual([
    'Press 350 ml makes about 186 to 253 ml.',
    'Press 1 l makes about 479 to 706 ml.',
  ]);
  // Between the two presses no brewer fits; two small brews do.
  expect(capacity('press-350', 'press-long', 400).waysOut.map(wayOutInWords)).toEqual([
    '2 equal brews of 201 ml in the Press 350 ml.',
  ]);
});

test('a steeping brewer is asked for all of its water, a dripper for its dose alone', () => {
  const air = brewerById('air-press')!;
  expect(capacityOf(air, { method: 'air-press', doseG: 17, brewWaterG: 252, beverageG: 230 })).toMatchObject({
    fit: { fits: false, why: 'too much water', limitG: 250 },
    words: '252 g of water is too much for the Air press, which holds 250 g.',
  });
  expect(capacity('cone-m', 'cone-thirds', 450).fit).toEqual({ fits: true });
});

const GRINDER: Grinder = {
  id: 'g',
  name: 'Big grinder',
  points: [
    { band: 80, setting: 4 },
    { band: 20, setting: 28 },
    { band: 50, setting: 13 },
  ],
};

test('a band becomes a grinder’s own setting through its points, with the coffee’s offset added', () => {
  // Between 20 (28) and 50 (13): half a step each band.
  expect(grindSetting(GRINDER, 20)).toEqual({ ok: true, setting: 28 });
  expect(grindSetting(GRINDER, 42)).toEqual({ ok: true, setting: 17 });
  expect(grindSetting(GRINDER, 50)).toEqual({ ok: true, setting: 13 });
  expect(grindSetting(GRINDER, 52)).toEqual({ ok: true, setting: 12.4 });
  expect(grindSetting(GRINDER, 80, -1.5)).toEqual({ ok: true, setting: 2.5 });
});

test('outside its points a grinder says so, and points that make no sense are refused in words', () => {
  expect(grindSetting(GRINDER, 96)).toEqual({
    ok: false,
    reason: 'Band 96 is finer than Big grinder is calibrated for (20 to 80); add a point there.',
  });
  expect(grindSetting(GRINDER, 10)).toMatchObject({
    reason: expect.stringContaining('coarser than Big grinder'),
  });
  expect(grindSetting({ ...GRINDER, points: [] }, 50)).toMatchObject({ ok: false });
  const fault = (...points: [number, number][]) =>
    calibrationFault(points.map(([band, setting]) => ({ band, setting })));
  expect(fault([20, 30])).toContain('at least two points');
  expect(fault([20, 30], [101, 3])).toContain('band from 0 to 100');
  expect(fault([20, NaN], [50, 3])).toContain('a setting that is a number');
  expect(fault([20, 30], [20, 12])).toContain('same band');
  expect(fault([20, 30], [50, 12], [80, 14])).toContain('all rise, or all fall');
  expect(fault([20, 30], [50, 30])).toContain('same setting');
  expect(fault([20, 30], [50, 12], [80, 4])).toBeNull();
  expect(fault([20, 3], [50, 12], [80, 40])).toBeNull();
});

test('a band is said as it is ground', () => {
  expect([0, 20, 42, 52, 62, 72, 96].map(bandInWords)).toEqual([
    'very coarse',
    'coarse',
    'medium-coarse',
    'medium',
    'medium-fine',
    'fine',
    'extra fine',
  ]);
});

test('a grinder gives back what it kept: only after a change of coffee more than the dose is weighed; the recipe follows the dose that came out', () => {
  expect([
    beansToWeighG(17.6),
    beansToWeighG(17.6, { keepsG: 0.2 }),
    beansToWeighG(17.6, {}, true),
    beansToWeighG(17.6, { keepsG: 0.2, purgeG: 1 }, true),
  ]).toEqual([17.6, 17.6, 20.2, 18.8]);
  expect([doseToFollowG(17.6, 17.4), doseToFollowG(17.6, 17.8), doseToFollowG(17.6, 17.3)]).toEqual([
    17.6, 17.6, 17.3,
  ]);
  expect(brewCard(recipe('cone-thirds'), { doseG: doseToFollowG(17.6, 18.1) }).brewWaterG).toBe(293);
});

test('the same cup in every method stands side by side, the chosen recipe for its own', () => {
  const rows = methodTable(SCHOOLS, { cupMl: 250 }, DEFAULT_PLACE, { chosen: recipe('sock-dense') });
  expect(rows.map((row) => row.recipe.method)).toEqual(METHOD_IDS);
  const sock = rows.find((row) => row.recipe.method === 'sock')!;
  expect(sock).toMatchObject({
    ok: true,
    recipe: { id: 'sock-dense' },
    card: { doseG: 20.8 },
    brewer: { id: 'sock' },
  });
  const foam = rows.find((row) => row.recipe.method === 'foam-pot')!;
  // A large pot serves up to four small cups.
  expect(foam).toMatchObject({ ok: true, brewer: { id: 'foam-pot-l' } });
  const far = methodTable(SCHOOLS, { doseG: 500 }, DEFAULT_PLACE);
  expect(far.every((row) => !row.ok && row.reason.includes('Dose must be'))).toBe(true);
});

test('a wish is answered with the method that the craft names for it, and with reasons', () => {
  const first = (wish: (typeof WISHES)[number], cupMl = 250, brewers = BREWERS) =>
    suggest(wish, SCHOOLS, { cupMl }, DEFAULT_PLACE, brewers)[0]!;
  expect(first('clear', 400).row.recipe.method).toBe('hourglass');
  expect(first('sweet').row.recipe.method).toBe('flat');
  expect(['sock', 'siphon']).toContain(first('rich').row.recipe.method);
  expect(first('heavy').row.recipe.method).toBe('press');
  expect(first('quick', 200).row.recipe.method).toBe('air-press');
  expect(['hourglass', 'siphon', 'press']).toContain(first('to share', 600).row.recipe.method);
  expect(first('quick', 200).reasons.join('; ')).toContain('ready in 2:31');
  // On a bench with cones alone the wish is answered from the cones.
  const cones = BREWERS.filter(({ method }) => method === 'cone');
  expect(first('clear', 250, cones).row.recipe.method).toBe('cone');
  const dark = suggest('sweet', SCHOOLS, { cupMl: 250 }, { ...DEFAULT_PLACE, roast: 'dark' });
  const cool = dark.find(({ row }) => row.recipe.id === 'cone-coolbloom')!;
  expect(cool.reasons).toContain('tames bitterness of a dark roast');
  const scores = dark.map(({ score }) => score);
  expect(scores).toEqual(scores.toSorted((a, b) => b - a));
});

test('a suggestion says what speaks for it in figures, and no more', () => {
  const suggested = (
    wish: (typeof WISHES)[number],
    cupMl: number,
    id: string,
    place = DEFAULT_PLACE,
    brewers = BREWERS,
  ) => suggest(wish, SCHOOLS, { cupMl }, place, brewers).find(({ row }) => row.recipe.id === id);
  expect(suggested('clear', 250, 'cone-thirds')).toMatchObject({
    score: 3 + 2 + 0.8,
    reasons: [recipe('cone-thirds').why, 'Cone: bright, clear', 'clarity 4 of 5'],
  });
  // A sweet cup is not asked for its body or clarity, nor for how quick it is.
  expect(suggested('sweet', 300, 'flat-few')).toMatchObject({
    score: 5,
    reasons: [recipe('flat-few').why, 'Flat-bottom: even, sweet'],
  });
  expect(suggested('sweet', 300, 'cone-steady')).toMatchObject({
    score: 3,
    reasons: [recipe('cone-steady').why],
  });
  expect(suggested('rich', 250, 'sock-fours')!.score).toBeCloseTo(5.8, 6);
  expect(suggested('rich', 150, 'hourglass-cloth')!.reasons).toEqual([
    recipe('hourglass-cloth').why,
    'body 1 of 5',
    'fits no brewer in one go',
  ]);
  expect(suggested('heavy', 250, 'press-short')!.reasons[2]).toBe('body 5 of 5');
  // 18.8 g in a press that stands there for nine minutes and more.
  const press = suggested('heavy', 250, 'press-long')!;
  expect(press.score).toBeCloseTo(3 + 2 + 1 - 0.5, 6);
  expect(press.reasons).toContain('takes 9:18');
  expect(suggested('quick', 200, 'air-stirred')).toMatchObject({
    score: 7,
    reasons: expect.arrayContaining(['ready in 2:31']),
  });
  expect(suggested('quick', 250, 'cone-onepour')).toMatchObject({ score: 5 });
  expect(suggested('heavy', 250, 'cone-thirds')).toBeUndefined();
  expect(suggested('to share', 600, 'press-long')!.reasons).toContain('one brew in the Press 1 l');
  expect(suggested('to share', 900, 'press-long')!.reasons).toContain('not in one brew');
  expect(suggested('to share', 600, 'siphon-late')!.score).toBeLessThan(
    suggested('to share', 350, 'siphon-late')!.score,
  );
  const cool = (roast: 'medium' | 'medium-dark' | 'dark') =>
    suggested('sweet', 250, 'cone-coolbloom', { ...DEFAULT_PLACE, roast })!.score;
  expect([cool('medium'), cool('medium-dark'), cool('dark')]).toEqual([3, 4, 4]);
  expect(suggested('sweet', 250, 'cone-steady', { ...DEFAULT_PLACE, roast: 'dark' })!.score).toBe(3);
  // Of two that answer alike, the quicker comes first.
  const sweet = suggest('sweet', [recipe('flat-few'), recipe('flat-small')], { cupMl: 300 }, DEFAULT_PLACE);
  expect(sweet.map(({ row }) => row.recipe.id)).toEqual(['flat-small', 'flat-few']);
  expect(suggest('sweet', SCHOOLS, { doseG: 500 }, DEFAULT_PLACE)).toEqual([]);
});

test('a table of some recipes has their methods only, and a brewer that the place names is no other method’s', () => {
  const some = [recipe('press-long'), recipe('cone-thirds')];
  const place = { ...DEFAULT_PLACE, brewer: brewerById('cone-s')! };
  const rows = methodTable(some, { cupMl: 250 }, place);
  expect(rows.map((row) => row.ok && [row.recipe.id, row.brewer?.id])).toEqual([
    ['cone-thirds', 'cone-s'],
    ['press-long', 'press-350'],
  ]);
});

test('a brewer takes its own limits to the tenth, and six equal brews are the most that is offered', () => {
  const cone = brewerById('cone-s')!;
  const load = (doseG: number, brewWaterG = 160) => ({
    method: 'cone' as const,
    doseG,
    brewWaterG,
    beverageG: doseG * 14,
  });
  expect([10, 20].map((doseG) => capacityOf(cone, load(doseG)).fit.fits)).toEqual([true, true]);
  expect([9.9, 20.1].map((doseG) => capacityOf(cone, load(doseG)).fit.fits)).toEqual([false, false]);
  const air = brewerById('air-press')!;
  expect(capacityOf(air, { method: 'air-press', doseG: 17, brewWaterG: 250, beverageG: 230 }).fit).toEqual({
    fits: true,
  });
  expect(capacityOf(cone, load(120, 1900), [cone]).waysOut).toEqual([
    { kind: 'equal brews', brewer: cone, brews: 6, eachMl: 280 },
  ]);
  expect(capacityOf(cone, load(121, 1900), [cone]).waysOut[0]).toMatchObject({
    kind: 'other size',
    fromMl: 140,
    toMl: 280,
  });
  // Too little for one is too little for two; another method's brewer is no way out.
  expect(capacityOf(cone, load(8), [cone, brewerById('flat')!]).waysOut.map(({ kind }) => kind)).toEqual([
    'other size',
  ]);
  const press = brewerById('press-350')!;
  expect(
    capacityOf(press, { method: 'press', doseG: 10, brewWaterG: 157, beverageG: 133 }, [press]).waysOut[0],
  ).toMatchObject({
    fromMl: 186,
    toMl: 253,
  });
});

test('bands and points meet at their edges', () => {
  expect([15, 16, 100].map(bandInWords)).toEqual(['very coarse', 'coarse', 'extra fine']);
  const edge = {
    ...GRINDER,
    points: [
      { band: 0, setting: 9 },
      { band: 100, setting: 1 },
    ],
  };
  expect([grindSetting(edge, 0), grindSetting(edge, 100)]).toEqual([
    { ok: true, setting: 9 },
    { ok: true, setting: 1 },
  ]);
  const points = (...pairs: [number, number][]) =>
    calibrationFault(pairs.map(([band, setting]) => ({ band, setting })));
  expect(points([20, 30], [50, 12], [50, 8])).toContain('same band');
  expect(points([20, 30], [50, 12], [80, 12])).toContain('same setting');
  expect(points([-1, 30], [50, 12])).toContain('band from 0 to 100');
});
