/** Worked by hand from the craft's numbers, two cup sizes a school. */
import { bedOf, slurryG } from '../pour';
import {
  DEFAULT_PLACE,
  SCHOOLS,
  brewCard,
  brewerById,
  type BrewCard,
  type BrewSite,
  type Recipe,
} from './index';

const recipe = (id: string): Recipe => SCHOOLS.find((school) => school.id === id)!;
const pours = (card: BrewCard) =>
  card.steps
    .filter((step) => step.targetG !== undefined)
    .map(({ startS, endS, targetG }) => [startS, endS, targetG]);
const span = (card: BrewCard, id: string) => {
  const step = card.steps.find((each) => each.id === id)!;
  return [step.startS, step.endS];
};

type Golden = [
  id: string,
  cupMl: number,
  doseG: number,
  brewWaterG: number,
  beverageG: number,
  pours: [startS: number, endS: number, targetG: number][],
  brewTimeS: number,
  window: [from: number, to: number],
];

// oxfmt-ignore
const POURED: Golden[] = [
  ['cone-thirds', 250, 17.6, 285, 250, [[0, 7, 42], [40, 58, 128], [70, 88, 214], [100, 115, 285]], 187, [170, 204]],
  ['cone-thirds', 350, 24.6, 399, 350, [[0, 10, 59], [40, 64, 179], [70, 94, 299], [100, 120, 399]], 201, [181, 220]],
  ['cone-steady', 200, 14.9, 229, 199, [[0, 4, 30], [38, 83, 229]], 157, [139, 175]],
  ['cone-steady', 300, 22.4, 345, 300, [[0, 6, 45], [38, 105, 345]], 191, [170, 211]],
  // 81 g at 2.5 g/s, then 151 at 5; its own reference brew ends its pour at 75 s.
  ['cone-onepour', 200, 15.9, 232, 200, [[0, 63, 232]], 125, [105, 143]],
  ['cone-onepour', 300, 23.8, 347, 299, [[0, 94, 347]], 165, [143, 186]],
  ['cone-evenpulses', 250, 17.2, 284, 250, [[0, 8, 47], [28, 36, 94], [56, 64, 141], [84, 92, 188], [112, 120, 235], [140, 149, 284]], 211, [190, 230]],
  ['cone-evenpulses', 300, 20.7, 342, 301, [[0, 10, 57], [28, 38, 114], [56, 66, 171], [84, 94, 228], [112, 122, 285], [140, 150, 342]], 216, [194, 236]],
  ['cone-coolbloom', 220, 16.2, 253, 221, [[0, 8, 46], [30, 80, 253]], 145, [127, 162]],
  ['cone-coolbloom', 300, 22.1, 345, 301, [[0, 11, 62], [30, 98, 345]], 170, [151, 189]],
  ['flat-small', 250, 17.5, 287, 250, [[0, 8, 37], [36, 41, 62], [47, 52, 87], [58, 63, 112], [69, 74, 137], [80, 85, 162], [91, 96, 187], [102, 107, 212], [113, 118, 237], [124, 129, 262], [135, 140, 287]], 176, [162, 189]],
  ['flat-small', 300, 21, 344, 300, [[0, 9, 44], [36, 41, 74], [47, 52, 104], [58, 63, 134], [69, 74, 164], [80, 85, 194], [91, 96, 224], [102, 107, 254], [113, 118, 284], [124, 129, 314], [135, 140, 344]], 182, [166, 197]],
  ['flat-few', 300, 22.6, 348, 301, [[0, 9, 54], [35, 55, 174], [75, 93, 261], [115, 133, 348]], 196, [177, 215]],
  ['flat-few', 350, 26.3, 405, 350, [[0, 11, 63], [35, 59, 203], [75, 96, 304], [115, 136, 405]], 208, [185, 229]],
  ['hourglass-pulses', 400, 28.2, 462, 400, [[0, 10, 65], [42, 65, 202], [90, 101, 267], [115, 126, 332], [140, 151, 397], [165, 176, 462]], 282, [244, 319]],
  ['hourglass-pulses', 600, 42.3, 694, 601, [[0, 14, 97], [42, 77, 306], [90, 107, 403], [115, 132, 500], [140, 157, 597], [165, 182, 694]], 311, [265, 357]],
  ['hourglass-steady', 400, 28.2, 462, 400, [[0, 9, 59], [45, 113, 462]], 262, [224, 299]],
  ['hourglass-steady', 600, 42.3, 694, 601, [[0, 13, 89], [45, 146, 694]], 328, [282, 374]],
  // The cloth keeps 1.9 g each gram, where thick paper keeps 2.2.
  ['hourglass-cloth', 400, 29.9, 457, 400, [[0, 11, 75], [40, 68, 252], [95, 127, 457]], 197, [178, 215]],
  ['hourglass-cloth', 600, 44.8, 685, 600, [[0, 16, 112], [40, 81, 377], [95, 143, 685]], 228, [205, 251]],
  ['sock-fours', 250, 18.1, 281, 250, [[0, 8, 40], [40, 58, 120], [80, 98, 200], [120, 138, 281]], 181, [164, 197]],
  ['sock-fours', 350, 25.4, 394, 351, [[0, 12, 56], [40, 66, 169], [80, 106, 282], [120, 145, 394]], 193, [174, 211]],
  // 60 % at 2.8 g/s, the rest at 3.6; 1.3 times the dose goes beside the bed.
  ['sock-dense', 250, 20.8, 258, 250, [[0, 84, 258]], 84, [71, 97]],
  ['sock-dense', 300, 25, 310, 301, [[0, 101, 310]], 101, [88, 114]],
  ['press-long', 250, 18.8, 295, 250, [[-15, 0, 295]], 460, [460, 520]],
  ['press-long', 600, 45.1, 708, 600, [[-36, 0, 708]], 460, [460, 520]],
  ['press-short', 200, 15.9, 239, 201, [[-16, 0, 239]], 265, [265, 310]],
  ['press-short', 250, 19.8, 297, 249, [[-20, 0, 297]], 265, [265, 310]],
  ['air-stirred', 200, 14.7, 218, 200, [[0, 11, 218]], 84, [81, 91]],
  ['air-stirred', 240, 17.6, 260, 239, [[0, 13, 260]], 86, [83, 93]],
];

test.each(POURED)(
  '%s for %d ml: dose, targets and times',
  (id, cupMl, doseG, brewWaterG, beverageG, targets, brewTimeS, [from, to]) => {
    const card = brewCard(recipe(id), { cupMl });
    expect([card.doseG, card.brewWaterG, card.beverageG]).toEqual([doseG, brewWaterG, beverageG]);
    expect(pours(card)).toEqual(targets);
    expect([card.brewTimeS, card.brewWindowS]).toEqual([brewTimeS, { from, to }]);
    expect(card.notes).toEqual([]);
  },
);

// oxfmt-ignore
test.each<[string, number, number, number, number, number, [number, number], Record<string, [number, number]>]>([
  // (250 + 18) / (15 - 1.9) = 20.5 g. 308 g from 90 °C: 18.05 s to near boiling and 92.4 s of rise, the seal within it.
  ['siphon-late', 250, 20.5, 308, 251, 108, [93, 123], { flame: [-125, -120], heat: [-120, -101], seal: [-101, -96], weigh: [-96, -84], rise: [-59, -8], lower: [-8, 0], 'coffee-in': [0, 12], 'flame-off': [50, 58], down: [58, 108], clean: [186, 231] }],
  ['siphon-late', 350, 28.1, 422, 351, 108, [93, 123], { grind: [-118, -84], 'coffee-in': [0, 12], 'flame-off': [50, 58], down: [58, 108] }],
  ['siphon-slow', 250, 22.1, 309, 249, 175, [160, 195], { 'coffee-in': [0, 20], steep: [20, 110], 'flame-off': [110, 116], down: [116, 175] }],
  ['siphon-slow', 350, 30.4, 426, 350, 175, [160, 195], { lower: [-8, 0], 'flame-off': [110, 116] }],
  ['siphon-early', 250, 20.2, 307, 251, 120, [105, 135], { load: [-126, -116], flame: [-116, -111], rise: [-111, 0], 'coffee-in': [0, 12], 'flame-off': [50, 60], down: [60, 120] }],
  ['siphon-early', 350, 27.7, 421, 350, 120, [105, 135], { rise: [-151, 0], down: [60, 120] }],
  // 179 g instead of the reference's 152: 180 s and 46 s grow by as much.
  ['pot-pressure', 150, 18.8, 179, 151, 271, [206, 356], { fill: [-59, -47], load: [-12, -4], heat: [0, 212], lower: [212, 216], watch: [216, 271], off: [271, 279] }],
  ['pot-pressure', 90, 11.3, 107, 90, 164, [99, 249], { heat: [0, 127], watch: [131, 164] }],
  ['pot-foam', 75, 8.3, 75, 75, 219, [174, 309], { fill: [-58, -46], stir: [-24, -4], heat: [0, 125], watch: [125, 219], settle: [227, 287] }],
  ['pot-foam', 150, 16.7, 150, 150, 438, [393, 528], { watch: [250, 438] }],
])('%s for %d ml: over the flame', (id, cupMl, doseG, brewWaterG, beverageG, brewTimeS, [from, to], spans) => {
  const card = brewCard(recipe(id), { cupMl });
  expect([card.doseG, card.brewWaterG, card.beverageG]).toEqual([doseG, brewWaterG, beverageG]);
  for (const [step, at] of Object.entries(spans)) expect([step, ...span(card, step)]).toEqual([step, ...at]);
  expect([card.brewTimeS, card.brewWindowS]).toEqual([brewTimeS, { from, to }]);
});

test('a siphon’s water takes as long as its mass asks for, from hot and from cold', () => {
  const flameToRisen = (filledAtC: number) => {
    const place = { ...DEFAULT_PLACE, kettle: { powerW: 1200, filledAtC } };
    const card = brewCard(recipe('siphon-late'), { brewWaterG: 390 }, place);
    expect(span(card, 'seal')[0]! - span(card, 'heat')[1]!).toBe(0);
    return span(card, 'rise')[1]! - span(card, 'flame')[1]!;
  };
  // 390 x 4.186 x 7 / 500 + 0.3 x 390 = 139.9; from 20 °C 251.4 + 117 = 368.4. Each part is rounded up by itself.
  expect([flameToRisen(90), flameToRisen(20)]).toEqual([140, 369]);
});

test('what happens in prep, hands and finish of a cone is the craft’s own', () => {
  const card = brewCard(recipe('cone-thirds'), { cupMl: 250 });
  // fill 12, 446 g from 90 to 94 °C at 1,200 W, filter 18, weigh 12, grind 17.6 x 1.2, load 15.
  expect(card.steps.slice(0, 6).map(({ id, durationS }) => [id, durationS])).toEqual([
    ['fill', 12],
    ['heat', 8],
    ['set-filter', 18],
    ['weigh', 12],
    ['grind', 22],
    ['load', 15],
  ]);
  expect([card.kettleFillG, card.handsTimeS]).toEqual([
    446,
    12 + 12 + 18 + 15 + 7 + 4 + 18 + 18 + 15 + 4 + 6 + 18 + 20,
  ]);
  expect([card.retainedG, card.lossG, card.drinkG, card.perCupG]).toEqual([35, 0, 250, [250]]);
});

test('the one slow pour says where it opens out; a cool bloom what the two waters make', () => {
  const opening = brewCard(recipe('cone-onepour'), { doseG: 19 }).steps.find(
    ({ id }) => id === 'pour',
  )!.opening;
  expect(opening).toEqual({ targetG: 97, flowGPerS: 2.5, untilS: 39, cue: 'surface has turned pale' });
  const cool = brewCard(recipe('cone-coolbloom'), { doseG: 17 });
  // 48 g at 18 and 217 g at 96.
  expect([cool.brewWaterG, cool.mixedC, cool.steps.find(({ id }) => id === 'bloom')!.waterC]).toEqual([
    265, 81.9, 18,
  ]);
  // Only the hot water comes out of the kettle: (217 + 60 + 60) x 1.1.
  expect(cool.kettleFillG).toBe(371);
});

test('cone-steady at its reference dose ends in the middle of its own window', () => {
  const card = brewCard(recipe('cone-steady'), { doseG: 20 });
  expect([card.brewWaterG, card.brewTimeS, card.brewWindowS]).toEqual([308, 180, { from: 160, to: 200 }]);
  expect([span(card, 'stir-bloom'), span(card, 'settle')]).toEqual([
    [5, 10],
    [10, 38],
  ]);
  expect(card.steps.find(({ id }) => id === 'settle')!.cueWindowS).toEqual({ from: 30, to: 50 });
});

test('a pour that would run into the next start moves it and all later ones, and the card says so', () => {
  const card = brewCard(recipe('cone-thirds'), { doseG: 32 });
  // 32 g: 518 g of water in 77, 156, 155 and 130 g; at 5 g/s the second takes 32 s and the third 31, where the clock leaves 30.
  expect(pours(card).map(([startS]) => startS)).toEqual([0, 40, 75, 109]);
  expect(card.notes).toHaveLength(2);
  expect(card.notes[0]).toContain('Second of three pours starts 5 s later');
  expect(card.notes[1]).toContain('Last of three pours starts 9 s later');
});

test('a kettle that gives less than the recipe pours makes the pours longer, and the card says so', () => {
  const kettle = { powerW: 1200, filledAtC: 90, maxFlowGPerS: 10 };
  const card = brewCard(recipe('press-long'), { cupMl: 250 }, { altitudeM: 0, roast: 'medium', kettle });
  expect(span(card, 'pour')).toEqual([-30, 0]);
  expect(card.notes).toEqual([
    'The recipe pours at 20 g a second; this kettle gives 10, so its pours take longer.',
  ]);
});

test('a small kettle is not overfilled for a gentle pour without a word', () => {
  const at = (id: string, filledAtC: number, more: Partial<BrewSite> = {}) =>
    brewCard(
      recipe(id),
      { cupMl: 250 },
      { ...DEFAULT_PLACE, kettle: { powerW: 1200, filledAtC, sizeMl: 700 }, ...more },
    );
  // 60 % of 700 ml at 94 °C is 404 g; a press may fill it to 90 %.
  const twice = at('cone-thirds', 20);
  expect(twice.notes.join()).toContain('filled twice: 132 g to rinse and warm with, then 314 g to brew with');
  expect(at('press-long', 20).notes).toEqual([]);
  // A hot tap rinses, so that it is filled once and heats in the meantime; cards of before filled it twice all the same.
  const fillings = ({ steps }: BrewCard) => steps.filter(({ kind }) => kind === 'fill').length;
  const once = at('cone-thirds', 90);
  expect([fillings(twice), fillings(once), once.isRinsedFromTap]).toEqual([2, 1, true]);
  expect(once.fills).toEqual([{ g: 380, atC: 94, for: 'brew' }]);
  expect(once.notes.join()).toContain('rinse with hot water from the tap');
  expect(fillings(at('cone-thirds', 90, { cardVersion: 2 }))).toBe(2);
});

test('a cup that nobody warms takes no warming water, and the water of a siphon is driven up sooner on a mountain', () => {
  const fillG = (cardVersion: number, addition?: 'ice') =>
    brewCard(
      recipe('cone-thirds'),
      { cupMl: 250, ...(addition ? { addition } : {}) },
      { ...DEFAULT_PLACE, cardVersion },
    ).kettleFillG;
  expect([fillG(2), fillG(3)]).toEqual([446, 446]);
  expect(fillG(2, 'ice') - fillG(3, 'ice')).toBe(66);
  // 390 g from 90 °C: 390 x 4.186 x (T - 3 - 90) / 500 + 0.3 x 390 seconds; at 2,150 m it is driven up at 89.9, so at once.
  const risen = (altitudeM: number, cardVersion: number) => {
    const { steps } = brewCard(
      recipe('siphon-late'),
      { brewWaterG: 390 },
      { ...DEFAULT_PLACE, altitudeM, cardVersion },
    );
    const rises = steps.filter(({ id }) => id === 'heat' || id === 'rise');
    return rises.at(-1)!.endS - rises[0]!.startS;
  };
  expect([risen(0, 2), risen(0, 3), risen(2150, 2), risen(2150, 3)]).toEqual([140, 140, 140, 118]);
});

test('what the bed keeps stands under the rim too', () => {
  const steady = { ...recipe('hourglass-steady'), ratio: 19 };
  const at = (cardVersion: number) =>
    brewCard(steady, { doseG: 34 }, { ...DEFAULT_PLACE, brewer: brewerById('hourglass-s')!, cardVersion });
  const pours = ({ steps }: BrewCard) => steps.filter(({ kind }) => kind === 'pour').map(({ name }) => name);
  expect(pours(at(2))).toEqual(['Bloom', 'The one pour']);
  expect(pours(at(3))).toEqual(['Bloom', 'The one pour, first part', 'The one pour, last part']);
});

test('a pour that would spill is split by a pause, visibly, and still adds up', () => {
  const kettle = { powerW: 1200, filledAtC: 90 };
  const brewer = { ...brewerById('hourglass-s')!, maxWaterG: 225 };
  const whole = brewCard(recipe('hourglass-steady'), { doseG: 34 });
  const card = brewCard(
    recipe('hourglass-steady'),
    { doseG: 34 },
    { altitudeM: 0, roast: 'medium', kettle, brewer },
  );
  const parts = card.steps.filter(({ kind }) => kind === 'pour');
  expect(parts.map(({ id, name }) => [id, name])).toEqual([
    ['bloom', 'Bloom'],
    ['pour-2.1', 'The one pour, first part'],
    ['pour-2.2', 'The one pour, second part'],
    ['pour-2.3', 'The one pour, third part'],
    ['pour-2', 'The one pour, last part'],
  ]);
  expect(parts.at(-1)!.targetG).toBe(card.brewWaterG);
  expect(card.notes[0]).toMatch(
    /^The one pour in 4 parts with \d+ s, \d+ s, \d+ s between: .* rim of the Hourglass S \(225 g\)\.$/,
  );
  const spans = (of: BrewCard) =>
    of.steps.filter(({ pourG }) => pourG).map((step) => ({ ...step, pourG: step.pourG! }));
  const bed = bedOf(
    whole.steps.find(({ kind }) => kind === 'drawdown')!.endS - spans(whole).at(-1)!.endS,
    spans(whole),
    whole.doseG,
  );
  const highest = (of: BrewCard) => Math.max(...spans(of).map(({ endS }) => slurryG(spans(of), bed, endS)));
  expect(highest(whole)).toBeGreaterThan(200);
  expect(highest(card)).toBeLessThan(151);
});

test('roast moves the water and what is looked for, altitude caps it in words, and cool water stays cool', () => {
  const at = (id: string, altitudeM: number, roast: 'light' | 'dark') =>
    brewCard(recipe(id), { cupMl: 250 }, { altitudeM, roast, kettle: { powerW: 1200, filledAtC: 90 } });
  expect(at('cone-thirds', 0, 'light').waterC).toBe(95.5);
  expect(at('cone-thirds', 0, 'dark').waterC).toBe(88);
  expect(at('cone-thirds', 2150, 'light').waterC).toBe(92.8);
  expect(at('cone-thirds', 2150, 'light').notes[0]).toBe(
    'The recipe wishes 95.5 °C; at 2150 m water boils at 92.8 °C, so 92.8 °C it is: pour straight off the boil.',
  );
  const check = (roast: 'light' | 'dark', altitudeM = 0) =>
    at('siphon-late', altitudeM, roast).steps.find(({ id }) => id === 'lower')!.checkC;
  expect([check('light'), check('dark'), check('light', 2150)]).toEqual([
    { from: 92.5, to: 95.5 },
    { from: 85, to: 88 },
    { from: 91.8, to: 92.8 },
  ]);
  expect(at('pot-foam', 0, 'dark').waterC).toBe(20);
  expect(at('siphon-early', 0, 'dark').waterC).toBe(92);
  expect(at('cone-coolbloom', 0, 'dark').steps.find(({ id }) => id === 'bloom')!.waterC).toBe(18);
});

test('over ice the melted drink is as strong and as much as the recipe’s own; milk comes on top', () => {
  const thirds = recipe('cone-thirds');
  const iced = brewCard(thirds, { cupMl: 300, addition: 'ice' });
  // 300 / (16.2 - 2) = 21.1 g. A gram at 72 °C melts 0.769 g of ice on its way to 6 °C, so 14.2 / 1.769 + 2 = 10.03 g a gram
  // pass the bed: 212 g, and 130 g of ice make up the 342 g of the recipe.
  expect([iced.doseG, iced.brewWaterG, iced.bypassG, iced.additionG, iced.beverageG]).toEqual([
    21.1, 212, 130, 130, 300,
  ]);
  expect([iced.ratio, iced.finalRatio, iced.servedC]).toEqual([10.05, 16.21, 6]);
  expect(iced.grindBand).toBe(thirds.grindBand + 4);
  // The ice takes out just the heat that brings it to 6 °C.
  const hotG = iced.beverageG - iced.additionG;
  const endC = (hotG * 4.186 * 72 - iced.additionG * 334) / (4.186 * (hotG + iced.additionG));
  expect(endC).toBeCloseTo(6, 0);
  // A siphon loses 18 g on the way, and melts none with them.
  const siphon = brewCard(recipe('siphon-late'), { cupMl: 350, addition: 'ice' });
  expect(Math.abs(siphon.beverageG - 350)).toBeLessThanOrEqual(1);
  expect(siphon.additionG / (siphon.beverageG - siphon.additionG)).toBeCloseTo(0.956, 2);
  expect(siphon.notes.join(' ')).toContain('into a second vessel');
  // Nothing can be brewed under 1:6: that the drink is weaker is said.
  expect(brewCard(recipe('pot-foam'), { cupMl: 75, addition: 'ice' }).notes.join(' ')).toMatch(
    /about \d+ % weaker/,
  );
  const white = brewCard(thirds, { drinkG: 300, addition: 'milk' });
  // 300 / (14.58 - 2 + 1.62) = 21.1 g.
  expect([
    white.doseG,
    white.brewWaterG,
    white.bypassG,
    white.additionG,
    white.beverageG,
    white.drinkG,
  ]).toEqual([21.1, 308, 0, 34, 266, 300]);
  expect(brewCard(thirds, { cupMl: 300, addition: 'sugar' }).doseG).toBe(
    brewCard(thirds, { cupMl: 300 }).doseG,
  );
});

test('another ratio, several cups, a bar’s own retention: each moves the dose as the formula says', () => {
  const thirds = recipe('cone-thirds');
  // 250 / (15.5 - 2)
  expect(brewCard(thirds, { cupMl: 250, ratio: 15.5 })).toMatchObject({ doseG: 18.5, brewWaterG: 287 });
  expect(brewCard(recipe('press-long'), { cups: 3, eachMl: 200 })).toMatchObject({
    doseG: 45.1,
    perCupG: [200, 200, 200],
  });
  expect(brewCard(recipe('hourglass-pulses'), { cups: 3 }).perCupG).toEqual([250, 250, 250]);
  const learnt = {
    altitudeM: 0,
    roast: 'medium' as const,
    kettle: { powerW: 1200, filledAtC: 90 },
    retentionGPerG: 2.2,
  };
  // 250 / (16.2 - 2.2)
  expect(brewCard(thirds, { cupMl: 250 }, learnt).doseG).toBe(17.9);
});
