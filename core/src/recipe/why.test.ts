/** What “why?” names: every input, by its symbol, with where it came from. */
import {
  DEFAULT_PLACE,
  SCHOOLS,
  WHY_OF,
  brewCard,
  brewerById,
  why,
  type Ask,
  type Derivation,
  type Grinder,
  type BrewSite,
  type Recipe,
  type WhyOf,
} from './index';

const recipe = (id: string): Recipe => SCHOOLS.find((school) => school.id === id)!;
const GRINDER: Grinder = {
  id: 'g',
  name: 'Mill',
  points: [
    { band: 80, setting: 4 },
    { band: 20, setting: 28 },
    { band: 52, setting: 12 },
  ],
};
const tell = (of: WhyOf, id: string, ask: Ask, place: BrewSite = DEFAULT_PLACE, offsetSteps = 0) =>
  why(of, recipe(id), ask, place, { grinder: GRINDER, offsetSteps });
/** Inputs as `symbol value from`, in order. */
const inputs = (told: Derivation | null) =>
  told!.inputs.map(({ symbol, value, from }) => `${symbol} ${value} ${from}`);
const CUP = { cupMl: 250 };

test('a dose is explained from whatever led to it', () => {
  expect(tell('doseG', 'cone-thirds', CUP)).toMatchObject({
    name: 'Dose',
    unit: 'g',
    value: 17.6,
    formula: 'round(cup ÷ (R − kept), 1)',
  });
  expect(inputs(tell('doseG', 'cone-thirds', CUP))).toEqual([
    'cup 250 asked',
    'R 16.2 recipe',
    'kept 2 default',
  ]);
  expect(inputs(tell('doseG', 'cone-thirds', { cupMl: 250, ratio: 15.5 }))).toEqual([
    'cup 250 asked',
    'R 15.5 asked',
    'kept 2 default',
  ]);
  expect(inputs(tell('doseG', 'siphon-late', CUP))).toEqual([
    'cup 250 asked',
    'loss 18 method',
    'R 15 recipe',
    'kept 1.9 default',
  ]);
  expect(tell('doseG', 'siphon-late', CUP)!.formula).toBe('round((cup + loss) ÷ (R − kept), 1)');
  expect(inputs(tell('doseG', 'sock-dense', CUP))).toEqual([
    'cup 250 asked',
    'R 12.4 recipe',
    'kept 1.7 default',
    'bypass 1.3 recipe',
  ]);
  expect(tell('doseG', 'cone-thirds', { doseG: 18 })).toMatchObject({
    formula: 'given',
    inputs: [{ symbol: 'dose', value: 18, from: 'asked' }],
  });
  expect(tell('doseG', 'cone-thirds', { brewWaterG: 300 })!.formula).toBe('round(water ÷ R, 1)');
  expect(inputs(tell('doseG', 'cone-thirds', { brewWaterG: 300 }))).toEqual([
    'water 300 asked',
    'R 16.2 recipe',
  ]);
  expect(inputs(tell('doseG', 'press-long', { cups: 3 }))).toEqual([
    'n 3 asked',
    'cup 250 default',
    'R 15.7 recipe',
    'kept 2.4 default',
  ]);
  expect(inputs(tell('doseG', 'press-long', { cups: 3, eachMl: 200 }))[1]).toBe('cup 200 asked');
  expect(tell('doseG', 'siphon-late', { cups: 2 })!.formula).toBe('round((n × cup + loss) ÷ (R − kept), 1)');
});

test('an addition’s share stands in the formula where it counts', () => {
  // Ice is in the cup as bypass, so the whole ratio makes the beverage; milk is not, unless the drink leads.
  expect(tell('doseG', 'cone-thirds', { cupMl: 250, addition: 'ice' })!.formula).toBe(
    'round(cup ÷ (R − kept), 1)',
  );
  expect(tell('doseG', 'cone-thirds', { cupMl: 250, addition: 'milk' })!.formula).toBe(
    'round(cup ÷ (R × milk − kept), 1)',
  );
  expect(inputs(tell('doseG', 'cone-thirds', { cupMl: 250, addition: 'milk' }))).toContain(
    'milk 0.9 default',
  );
  expect(tell('doseG', 'cone-thirds', { drinkG: 250, addition: 'milk' })!.formula).toBe(
    'round(cup ÷ (R − kept), 1)',
  );
  expect(tell('doseG', 'cone-thirds', { brewWaterG: 250, addition: 'ice' })!.formula).toBe(
    'round(water ÷ ((R − kept) ÷ (1 + ice) + kept), 1)',
  );
  expect(inputs(tell('brewWaterG', 'cone-thirds', { doseG: 20, addition: 'ice' }))).toEqual([
    'dose 20 asked',
    'R 16.2 recipe',
    'kept 2 default',
    expect.stringMatching(/^ice 0\.769\d* method$/),
  ]);
  expect(tell('bypassG', 'cone-thirds', CUP)).toBeNull();
  const iced = tell('bypassG', 'sock-dense', { cupMl: 250, addition: 'ice' })!;
  expect(iced.formula).toBe('round(bypass × dose, 0) + round(R × dose, 0) − water');
  expect(iced.inputs.map(({ symbol }) => symbol)).toEqual(['dose', 'bypass', 'R', 'water']);
  expect(iced.note).toContain('counts as bypass');
  const plain = tell('bypassG', 'sock-dense', CUP)!;
  expect([plain.formula, inputs(plain), plain.note]).toEqual([
    'round(bypass × dose, 0)',
    ['dose 20.8 derived', 'bypass 1.3 recipe'],
    undefined,
  ]);
  expect(inputs(tell('drinkG', 'cone-thirds', { drinkG: 300, addition: 'milk' }))).toEqual([
    'beverage 266 derived',
    'milk 34 derived',
  ]);
});

test('retention says whether it is the log’s, the recipe’s own or the usual', () => {
  const kept = (id: string, place = DEFAULT_PLACE) =>
    tell('beverageG', id, CUP, place)!.inputs.find(({ symbol }) => symbol === 'kept');
  expect(kept('cone-thirds')).toMatchObject({ value: 2, from: 'default' });
  expect(kept('hourglass-cloth')).toMatchObject({ value: 1.9, from: 'recipe' });
  expect(kept('cone-thirds', { ...DEFAULT_PLACE, retentionGPerG: 2.3 })).toMatchObject({
    value: 2.3,
    from: 'log',
  });
  expect(tell('beverageG', 'cone-thirds', CUP)!.formula).toBe('round(water − kept × dose, 0)');
  expect(tell('beverageG', 'cone-thirds', CUP)!.inputs).toHaveLength(3);
  expect(tell('beverageG', 'siphon-late', CUP)!.formula).toBe('round(water − kept × dose − loss, 0)');
  expect(tell('beverageG', 'siphon-late', CUP)!.inputs).toHaveLength(4);
  expect(tell('beverageG', 'sock-dense', CUP)!.formula).toBe('round(water − kept × dose + added, 0)');
  expect(inputs(tell('beverageG', 'sock-dense', CUP))[3]).toBe('added 27 derived');
  expect(inputs(tell('finalRatio', 'sock-dense', CUP))).toEqual([
    'water 258 derived',
    'added 27 derived',
    'dose 20.8 derived',
  ]);
  expect(tell('ratio', 'cone-thirds', CUP)).toMatchObject({
    value: 16.19,
    formula: 'round(water ÷ dose, 2)',
  });
});

test('the water’s temperature says who set the altitude, and is moved by roast only where somebody sets it', () => {
  const boiling = (setBy: BrewSite['setBy']) => {
    const told = tell('waterC', 'cone-thirds', CUP, {
      ...DEFAULT_PLACE,
      altitudeM: 2150,
      ...(setBy ? { setBy } : {}),
    });
    return told!.inputs.at(-1)!;
  };
  expect([boiling('bar').from, boiling('asked').from, boiling(undefined).from]).toEqual([
    'bar',
    'asked',
    'default',
  ]);
  expect(boiling('bar').value).toBeCloseTo(92.863, 3);
  expect(inputs(tell('waterC', 'cone-thirds', CUP, { ...DEFAULT_PLACE, roast: 'dark' })).slice(0, 2)).toEqual(
    ['base 94 recipe', 'roast -6 default'],
  );
  const foam = tell('waterC', 'pot-foam', { cupMl: 75 }, { ...DEFAULT_PLACE, roast: 'dark' })!;
  expect([foam.formula, foam.inputs.length, foam.value]).toEqual(['min(base, floor(boiling, 1))', 2, 20]);
  expect(tell('mixedC', 'cone-thirds', CUP)).toBeNull();
  expect(inputs(tell('mixedC', 'cone-coolbloom', { doseG: 17 }))).toEqual([
    'cool 48 derived',
    'coolC 18 recipe',
    'hot 217 derived',
    'hotC 96 derived',
  ]);
});

test('kettle, time and hands are explained by their parts', () => {
  expect(inputs(tell('kettleFillG', 'cone-thirds', CUP))).toEqual([
    'hot 285 derived',
    'rinse 60 method',
    'warm 60 default',
  ]);
  expect(inputs(tell('kettleFillG', 'cone-coolbloom', { doseG: 17 }))[0]).toBe('hot 217 derived');
  expect(inputs(tell('kettleFillG', 'sock-dense', CUP))[0]).toBe('hot 285 derived');
  expect(inputs(tell('kettleFillG', 'sock-dense', { cupMl: 250, addition: 'ice' }))[0]).toMatch(
    /^hot 1[67]\d derived/,
  );
  // Poured until 115 s; (187.5 - 115) x (17.6 / 18) ^ 0.35 = 71.9.
  const drained = tell('brewTimeS', 'cone-thirds', CUP)!;
  expect(inputs(drained)).toEqual([
    'poured 115 derived',
    'swirled 11 recipe',
    'dry 187.5 recipe',
    'ref 115 derived',
    'dose 17.6 derived',
    'refDose 18 recipe',
    'p 0.35 default',
  ]);
  expect(drained.note).toContain('Counted from first water to drops only.');
  const steeped = tell('brewTimeS', 'press-long', CUP)!;
  expect(steeped.formula).toBe('end − start');
  expect(steeped.inputs.map(({ name, value }) => [name, value])).toEqual([
    ['End of “Plunge with almost no force”', 460],
    ['End of “All the water”', 0],
  ]);
  expect(tell('brewTimeS', 'air-stirred', { cupMl: 200 })!.inputs[1]).toMatchObject({
    name: 'Start of “All the water”',
    value: 0,
  });
  expect(inputs(tell('handsTimeS', 'cone-thirds', CUP))).toEqual([
    'prep 57 default',
    'brew 72 default',
    'finish 18 default',
    'clean 20 default',
  ]);
});

test('a grinder’s setting is explained by the two points around the band; without a grinder, or outside it, there is none', () => {
  // 46 lies between 20 (28) and 52 (12): half a step each band.
  expect(tell('grindSetting', 'cone-coolbloom', CUP)).toMatchObject({ value: 15, name: 'Setting of Mill' });
  expect(inputs(tell('grindSetting', 'cone-coolbloom', CUP))).toEqual([
    'band 46 recipe',
    'lowBand 20 bar',
    'low 28 bar',
    'highBand 52 bar',
    'high 12 bar',
    'offset 0 default',
  ]);
  expect(inputs(tell('grindSetting', 'cone-thirds', CUP, DEFAULT_PLACE, -2))).toEqual([
    'band 52 recipe',
    'lowBand 20 bar',
    'low 28 bar',
    'highBand 52 bar',
    'high 12 bar',
    'offset -2 bar',
  ]);
  expect(tell('grindSetting', 'pot-foam', { cupMl: 75 })).toBeNull();
  expect(why('grindSetting', recipe('cone-thirds'), CUP, DEFAULT_PLACE)).toBeNull();
});

test('a pour’s reading is explained by what kind of amount it is', () => {
  const target = (id: string, step: string, ask: Ask = CUP, place = DEFAULT_PLACE) =>
    tell(`target:${step}`, id, ask, place);
  expect(inputs(target('cone-thirds', 'bloom'))).toEqual([
    'before 0 derived',
    'times 2.4 recipe',
    'dose 17.6 derived',
  ]);
  expect(target('cone-thirds', 'bloom')).toMatchObject({
    value: 42,
    formula: 'before + round(times × dose, 0)',
  });
  expect(inputs(target('cone-thirds', 'pour-2'))).toEqual(['share 0.45 recipe', 'water 285 derived']);
  expect(inputs(target('sock-fours', 'pour-2'))).toEqual([
    'before 120 derived',
    'water 281 derived',
    'parts 2 recipe',
  ]);
  expect(target('cone-thirds', 'swirl-end')).toBeNull();
  expect(target('cone-thirds', 'no-such')).toBeNull();
  const fixed: Recipe = {
    ...recipe('cone-thirds'),
    steps: recipe('cone-thirds').steps.map((step) =>
      step.id === 'pour-2' ? { ...step, pour: { amount: { g: 80 }, flowGPerS: 5 } } : step,
    ),
  };
  expect(why('target:pour-2', fixed, CUP, DEFAULT_PLACE)).toMatchObject({
    value: 122,
    formula: 'before + fixed',
    inputs: [
      { symbol: 'before', value: 42 },
      { symbol: 'fixed', value: 80, from: 'recipe' },
    ],
  });
  const brewer = { ...brewerById('hourglass-s')!, maxWaterG: 150 };
  const place = { ...DEFAULT_PLACE, brewer };
  const part = target('hourglass-steady', 'pour-2.1', { doseG: 34 }, place)!;
  expect(part.formula).toBe('before + pour');
  expect(part.inputs.map(({ symbol }) => symbol)).toEqual(['before', 'pour']);
  expect(part.note).toContain('over the rim of the Hourglass S');
});

test('every figure of every school can be asked, and answers with the card’s own value', () => {
  for (const school of SCHOOLS) {
    const ask = { doseG: school.refDoseG };
    const card = brewCard(school, ask) as unknown as Record<string, unknown>;
    for (const of of WHY_OF) {
      const told = why(of, school, ask, DEFAULT_PLACE);
      if (told && of in card) expect([school.id, of, told.value]).toEqual([school.id, of, card[of]]);
      if (told) expect(`${told.name}${told.formula}`.length).toBeGreaterThan(5);
    }
    const without = WHY_OF.filter((of) => why(of, school, ask, DEFAULT_PLACE) === null);
    expect(without).toEqual(
      ['bypassG', 'mixedC', 'grindSetting'].filter(
        (of) =>
          of === 'grindSetting' ||
          (of === 'bypassG' ? school.bypassTimesDose === 0 : card['mixedC'] === undefined),
      ),
    );
  }
});

test('ice of the recipe’s own is told as what the recipe says, and leaves its ratio alone', () => {
  const iced = { ...recipe('cone-thirds'), ratio: 10.2, iceTimesDose: 6 };
  const of = (figure: WhyOf, ask: Ask) => why(figure, iced, ask, DEFAULT_PLACE)!;
  expect(of('doseG', { cupMl: 284 })).toMatchObject({ value: 20, formula: 'round(cup ÷ (R + I − kept), 1)' });
  expect(inputs(of('doseG', { cupMl: 284 }))).toEqual([
    'cup 284 asked',
    'R 10.2 recipe',
    'I 6 recipe',
    'kept 2 default',
  ]);
  expect(of('brewWaterG', { doseG: 20 })).toMatchObject({ value: 204, formula: 'round(dose × R, 0)' });
  expect(of('bypassG', { doseG: 20 })).toMatchObject({
    value: 120,
    formula: 'round((R + I) × dose, 0) − water',
  });
});
