import { seedOr } from '../testing/random';
import fc from 'fast-check';
import {
  airPressurePa,
  blendFor,
  blendedC,
  boilingPointC,
  cooledToC,
  coolingPerMinFrom,
  coolingTimeS,
  heatingTimeS,
  kettleFillG,
  kettleLimitG,
  waterDensityGPerMl,
} from './index';

const seed = seedOr(20261125);

test.each([
  [0, 100.0],
  [1000, 96.7],
  [2150, 92.9],
])('at %d m water boils at %d °C', (altitudeM, expectedC) => {
  expect(Math.abs(boilingPointC(altitudeM) - expectedC)).toBeLessThan(0.3);
});

test('the formula’s own figures: pressure at 2,150 m, boiling points low, high and at the sea', () => {
  // 101325 x (1 - 2.25577e-5 x 2150)^5.25588; Antoine inverted by hand.
  expect(airPressurePa(0)).toBe(101325);
  expect(airPressurePa(2150)).toBeCloseTo(78025.8, 1);
  expect(boilingPointC(0)).toBeCloseTo(100.0, 2);
  expect(boilingPointC(2150)).toBeCloseTo(92.86, 2);
  expect(boilingPointC(5000)).toBeCloseTo(83.33, 2);
  expect(boilingPointC(-400)).toBeGreaterThan(101);
});

test('an altitude out of range is refused in words', () => {
  for (const altitudeM of [9000, 5000.1, -400.1, NaN])
    expect(() => boilingPointC(altitudeM)).toThrow(
      `altitudeM must lie from -400 to 5000 m, not ${altitudeM}`,
    );
});

test('a kettle of 1,200 W takes 380 g from 90 to 94 °C in 6 s, and needs no time for water that is hot enough', () => {
  const kettle = { powerW: 1200, filledAtC: 90 };
  // 0.38 x 4186 x 4 / (1200 x 0.85)
  expect(heatingTimeS(380, 94, kettle)).toBeCloseTo(6.24, 2);
  expect(heatingTimeS(380, 88, kettle)).toBe(0);
});

test('a kettle is filled for the brew, the rinse and the cup with a tenth to spare', () => {
  expect(kettleFillG({ hotG: 285, rinseG: 60, cupG: 60 })).toBe(446);
  // (240 + 100 + 60) x 1.1 is 440 exactly, and a machine's last decimal must not make it 441.
  expect(kettleFillG({ hotG: 240, rinseG: 100, cupG: 60 })).toBe(440);
});

test('a gentle pour wants the kettle three fifths full at most, by what its water weighs when hot', () => {
  expect(kettleLimitG(1000, 90, true)).toBe(579);
  expect(kettleLimitG(1000, 90, false)).toBe(868);
  expect(kettleLimitG(1000, 20, false)).toBe(898);
});

test.each([
  [100, 0.9584],
  [90, 0.9653],
  [20, 0.9982],
  [0, 0.9998],
  [95, 0.96185],
  [25, 0.99695],
])('water at %d °C weighs %d g/ml', (atC, gPerMl) => {
  expect(waterDensityGPerMl(atC)).toBeCloseTo(gPerMl, 6);
});

test('ice and steam have no density here', () => {
  for (const atC of [-0.1, 100.1, NaN])
    expect(() => waterDensityGPerMl(atC)).toThrow(`from 0 to 100 °C, not at ${atC}`);
});

test('48 g of cold and 217 g of hot water make 81.9 °C', () => {
  expect(
    blendedC([
      { massG: 48, atC: 18 },
      { massG: 217, atC: 96 },
    ]),
  ).toBeCloseTo(81.87, 2);
});

test('300 g at 80 °C out of 96 and 18 °C take 238.5 g of the hot', () => {
  const { hotG, coldG } = blendFor(300, 80, { hotC: 96, coldC: 18 });
  expect(hotG).toBeCloseTo(238.46, 2);
  expect(coldG).toBeCloseTo(61.54, 2);
  expect(blendFor(300, 96, { hotC: 96, coldC: 18 })).toEqual({ hotG: 300, coldG: 0 });
  expect(blendFor(300, 18, { hotC: 96, coldC: 18 })).toEqual({ hotG: 0, coldG: 300 });
});

test('a blend that is solved mixes back to what was wanted, whatever the waters', () => {
  const water = fc.record({
    massG: fc.double({ min: 1, max: 2000, noNaN: true }),
    coldC: fc.double({ min: 1, max: 40, noNaN: true }),
    riseC: fc.double({ min: 5, max: 55, noNaN: true }),
    share: fc.double({ min: 0, max: 1, noNaN: true }),
  });
  fc.assert(
    fc.property(water, ({ massG, coldC, riseC, share }) => {
      const hotC = coldC + riseC;
      const wantedC = Math.min(hotC, coldC + riseC * share);
      const { hotG, coldG } = blendFor(massG, wantedC, { hotC, coldC });
      expect(hotG + coldG).toBeCloseTo(massG, 6);
      expect(
        blendedC([
          { massG: hotG, atC: hotC },
          { massG: coldG, atC: coldC },
        ]),
      ).toBeCloseTo(wantedC, 6);
    }),
    { seed },
  );
});

test('a blend that cannot be says why', () => {
  expect(() => blendedC([])).toThrow('needs some water');
  expect(() =>
    blendedC([
      { massG: -1, atC: 20 },
      { massG: 5, atC: 20 },
    ]),
  ).toThrow('none of them negative');
  expect(() => blendFor(0, 50, { hotC: 90, coldC: 10 })).toThrow('more than 0 g');
  expect(() => blendFor(10, 50, { hotC: 20, coldC: 20 })).toThrow('hotter than the cold');
  expect(() => blendFor(10, 91, { hotC: 90, coldC: 10 })).toThrow('91 °C does not');
  expect(() => blendFor(10, 9, { hotC: 90, coldC: 10 })).toThrow('9 °C does not');
});

test('boiled in a room of 22 °C, water is at 92 °C after 6 min 45 s', () => {
  // ln(78 / 70) / 0.016 = 6.763 min
  expect(coolingTimeS({ fromC: 100, roomC: 22 }, 92)).toBeCloseTo(405.8, 1);
  expect(coolingTimeS({ fromC: 90, roomC: 22 }, 92)).toBe(0);
  expect(cooledToC({ fromC: 100, roomC: 22 }, 405.8)).toBeCloseTo(92, 2);
  expect(cooledToC({ fromC: 100, roomC: 22 }, 0)).toBe(100);
  // Twice the water takes twice as long: k is 0.008 at 900 g.
  expect(coolingTimeS({ fromC: 100, roomC: 22, massG: 900 }, 92)).toBeCloseTo(811.6, 1);
  expect(coolingPerMinFrom(96, 92, 480, 20, 900)).toBeCloseTo(coolingPerMinFrom(96, 92, 240, 20), 9);
});

test('a kettle’s own k comes out of two readings of it, and gives the second reading back', () => {
  const perMin = coolingPerMinFrom(96, 92, 240, 20);
  // ln(76 / 72) / 4
  expect(perMin).toBeCloseTo(0.013517, 6);
  expect(cooledToC({ fromC: 96, roomC: 20, perMin }, 240)).toBeCloseTo(92, 9);
  expect(coolingTimeS({ fromC: 96, roomC: 20, perMin }, 92)).toBeCloseTo(240, 6);
});

test('what never cools so far, and readings that show no cooling, are refused in words', () => {
  expect(() => coolingTimeS({ fromC: 90, roomC: 22 }, 22)).toThrow('ask for more than 22');
  expect(() => coolingPerMinFrom(92, 96, 60, 20)).toThrow('fall towards the room');
  expect(() => coolingPerMinFrom(96, 20, 60, 20)).toThrow('fall towards the room');
  expect(() => coolingPerMinFrom(96, 92, 0, 20)).toThrow('after the first');
});
