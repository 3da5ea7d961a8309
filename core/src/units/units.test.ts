import fc from 'fast-check';
import {
  METRIC,
  celsiusToFahrenheit,
  fahrenheitToCelsius,
  inWords,
  readMass,
  readNumber,
  readTemperature,
  readVolume,
  showClock,
  showMass,
  showTemperature,
  showVolume,
  type Units,
} from './index';

const OTHER: Units = { mass: 'oz', temperature: 'F', volume: 'fl oz' };

test('quantities are shown in the unit of the bar', () => {
  expect(
    [
      showMass(17.6, METRIC, 'dose'),
      showMass(284.6, METRIC, 'water'),
      showVolume(250, METRIC),
      showTemperature(94, METRIC),
    ].map(inWords),
  ).toEqual(['17.6 g', '285 g', '250 ml', '94 °C']);
  expect(
    [
      showMass(17.6, OTHER, 'dose'),
      showMass(285, OTHER, 'water'),
      showVolume(250, OTHER),
      showTemperature(94, OTHER),
    ].map(inWords),
  ).toEqual(['0.62 oz', '10.1 oz', '8.5 fl oz', '201 °F']);
});

test('time is m:ss from the anchor, negative before it', () => {
  expect([0, 9.9, 65, 605, -20, -0.5].map(showClock)).toEqual([
    '0:00',
    '0:09',
    '1:05',
    '10:05',
    '-0:20',
    '-0:01',
  ]);
});

test('what is typed in the bar’s unit comes back as stored, within what is shown', () => {
  fc.assert(
    fc.property(fc.integer({ min: 60, max: 1000 }), fc.constantFrom(METRIC, OTHER), (ml, units) => {
      const read = readVolume(showVolume(ml, units).figure, 'Cup', units, { min: 50, max: 1010 });
      expect(read.ok && Math.abs(read.value - ml)).toBeLessThanOrEqual(1.5);
    }),
  );
});

test.each([
  ['', 'Size: type a number.'],
  ['plenty', 'Size: “plenty” is not a number. Type one like 12.7.'],
  ['1e3', 'Size: “1e3” is not a number. Type one like 12.7.'],
  ['0', 'Size: from 60 to 1000 ml.'],
  ['-250', 'Size: from 60 to 1000 ml.'],
  ['5000', 'Size: from 60 to 1000 ml.'],
])('“%s” is refused with what would be right', (text, reason) => {
  expect(readVolume(text, 'Size', METRIC, { min: 60, max: 1000 })).toEqual({ ok: false, reason });
});

test('temperatures go over and back, limits belong to the range, and odd text is told as it was typed', () => {
  expect([celsiusToFahrenheit(100), fahrenheitToCelsius(212), fahrenheitToCelsius(32)]).toEqual([
    212, 100, 0,
  ]);
  const range = { min: 60, max: 1000 };
  expect([readVolume('60', 'Size', METRIC, range).ok, readVolume('1000', 'Size', METRIC, range).ok]).toEqual([
    true,
    true,
  ]);
  expect(readTemperature('200', 'Water', OTHER, { min: 0, max: 100 })).toMatchObject({
    ok: true,
    value: (168 * 5) / 9,
  });
  expect(readTemperature('hot', 'Water', METRIC, { min: 0, max: 100 })).toEqual({
    ok: false,
    reason: 'Water: “hot” is not a number. Type one like 12.7.',
  });
  expect(readTemperature('101', 'Water', METRIC, { min: 0, max: 100 })).toEqual({
    ok: false,
    reason: 'Water: from 0 to 100 °C.',
  });
  expect(readMass('12.5', 'Dose', METRIC, { min: 4, max: 90 })).toEqual({ ok: true, value: 12.5 });
  // A unit that is typed holds against the bar's own; what is wrong is told in the bar's.
  expect(readMass('12,5 g', 'Dose', OTHER, { min: 4, max: 90 })).toEqual({ ok: true, value: 12.5 });
  expect(readMass('1 oz', 'Dose', METRIC, { min: 4, max: 90 })).toEqual({ ok: true, value: 28.3495 });
  expect(readMass('1 g', 'Dose', OTHER, { min: 14.2, max: 90 })).toMatchObject({
    reason: 'Dose: from 0.5 to 3.2 oz.',
  });
  expect(readVolume('8 fl oz', 'Cup', METRIC, { min: 60, max: 1000 })).toMatchObject({
    value: expect.closeTo(236.6, 1) as number,
  });
  expect(readVolume('250ml', 'Cup', OTHER, { min: 60, max: 1000 })).toEqual({ ok: true, value: 250 });
  expect(readTemperature('200 °F', 'Water', METRIC, { min: 0, max: 100 })).toMatchObject({
    value: expect.closeTo(93.3, 1) as number,
  });
  expect(readTemperature('93 C', 'Water', OTHER, { min: 0, max: 100 })).toEqual({ ok: true, value: 93 });
  for (const [typed, value] of [
    ['.25', 0.25],
    ['+3', 3],
    ['-3', -3],
    ['7.', 7],
  ] as const)
    expect(readNumber(typed, 'N')).toEqual({ ok: true, value });
  for (const [typed, reason] of [
    ['a1,5', 'N: “a1,5” is not a number. Type one like 12.7.'],
    ['1,5g', 'N: “1,5g” is not a number. Type one like 12.7.'],
    ['.x', 'N: “.x” is not a number. Type one like 12.7.'],
    ['1,2,3', 'N: “1,2,3” is not a number. Type one like 12.7.'],
    ['1.2.3,4', 'N: “1.2.3,4” is not a number. Type one like 12.7.'],
    ['a very long piece of text', 'N: “a very long piece of” is not a number. Type one like 12.7.'],
  ] as const)
    expect(readNumber(typed, 'N')).toEqual({ ok: false, reason });
  expect([showClock(0), showClock(-0.0001), showClock(59.9)]).toEqual(['0:00', '0:00', '0:59']);
});

test.each([
  ['12,7', '.', 12.7],
  ['12.7', ',', 12.7],
  ['-12,75', ',', -12.75],
  ['1,250', '.', 1250],
  ['1,250', ',', 1.25],
  ['1.250', ',', 1250],
  ['0,250', '.', 0.25],
  ['1.250,5', '.', 1250.5],
  ['1,250.5', ',', 1250.5],
  ['1 250', ',', 1250],
  ['1’250', '.', 1250],
  ['1,250,000', '.', 1_250_000],
  ['−3,5', ',', -3.5],
] as const)('%s is read as the hand writes it where decimals are parted by %s', (typed, decimal, value) => {
  expect(readNumber(typed, 'N', decimal)).toEqual({ ok: true, value });
});

test('limits are told in the unit that is typed', () => {
  expect(readVolume('40', 'Size', OTHER, { min: 60, max: 1000 })).toEqual({
    ok: false,
    reason: 'Size: from 2 to 33.8 fl oz.',
  });
  expect(readTemperature('300', 'Water', OTHER, { min: 0, max: 100 })).toEqual({
    ok: false,
    reason: 'Water: from 32 to 212 °F.',
  });
  expect(readMass('1', 'Dose', OTHER, { min: 4, max: 90 })).toEqual({ ok: true, value: 28.3495 });
  expect(readNumber(' 12.5 ', 'Dose')).toEqual({ ok: true, value: 12.5 });
});
