import { boilingPointC, heatingTimeS, kettleFillG } from './index';

test.each([
  [0, 100.0],
  [1000, 96.7],
  [2150, 92.9],
])('at %d m water boils at %d °C', (altitudeM, expectedC) => {
  expect(Math.abs(boilingPointC(altitudeM) - expectedC)).toBeLessThan(0.3);
});

test('an altitude out of range is refused in words', () => {
  expect(() => boilingPointC(9000)).toThrow('from -400 to 5000 m');
  expect(() => boilingPointC(NaN)).toThrow(RangeError);
});

test('a kettle of 1,200 W takes 380 g from 90 to 94 °C in 6 s, and needs no time for water that is hot enough', () => {
  const kettle = { powerW: 1200, filledAtC: 90 };
  // 0.38 x 4186 x 4 / (1200 x 0.85)
  expect(heatingTimeS(380, 94, kettle)).toBeCloseTo(6.24, 2);
  expect(heatingTimeS(380, 88, kettle)).toBe(0);
});

test('a kettle is filled for the brew and the rinse with a tenth to spare', () => {
  expect(kettleFillG(285, 60)).toBe(380);
});
