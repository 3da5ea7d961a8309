/** Worked by hand from the craft's numbers, two cup sizes a school. */
import { SCHOOLS, brewCard, type BrewCard } from './index';

const recipe = (id: string) => SCHOOLS.find((school) => school.id === id)!;
const pours = (card: BrewCard) =>
  card.steps
    .filter((step) => step.targetG !== undefined)
    .map(({ startS, endS, targetG }) => [startS, endS, targetG]);
const span = (card: BrewCard, id: string) => {
  const step = card.steps.find((each) => each.id === id)!;
  return [step.startS, step.endS];
};

test('cone-thirds for 250 ml: 17.6 g to 285 g in a bloom and three pours', () => {
  const card = brewCard(recipe('cone-thirds'), { cupMl: 250 });
  expect([card.doseG, card.brewWaterG, card.beverageG, card.ratio]).toEqual([17.6, 285, 250, 16.19]);
  expect(pours(card)).toEqual([
    [0, 7, 42],
    [40, 58, 128],
    [70, 88, 214],
    [100, 115, 285],
  ]);
  expect([card.brewTimeS, card.brewWindowS]).toEqual([187, { from: 170, to: 204 }]);
  expect(card.notes).toEqual([]);
});

test('cone-thirds for 350 ml: rounding goes to the largest pour, and drawdown grows with the dose to the power 0.35', () => {
  const card = brewCard(recipe('cone-thirds'), { cupMl: 350 });
  expect([card.doseG, card.brewWaterG, card.beverageG]).toEqual([24.6, 399, 350]);
  expect(pours(card)).toEqual([
    [0, 10, 59],
    [40, 64, 179],
    [70, 94, 299],
    [100, 120, 399],
  ]);
  expect([span(card, 'swirl-end'), span(card, 'drawdown'), card.brewWindowS]).toEqual([
    [120, 124],
    [124, 201],
    { from: 181, to: 220 },
  ]);
});

test('cone-steady for 300 ml: stirred bloom, a cue, one pour', () => {
  const card = brewCard(recipe('cone-steady'), { cupMl: 300 });
  expect([card.doseG, card.brewWaterG, card.beverageG]).toEqual([22.4, 345, 300]);
  expect(pours(card)).toEqual([
    [0, 6, 45],
    [39, 106, 345],
  ]);
  expect([span(card, 'stir-bloom'), span(card, 'settle'), card.brewTimeS, card.brewWindowS]).toEqual([
    [6, 11],
    [11, 39],
    192,
    { from: 171, to: 212 },
  ]);
});

test('cone-steady at its reference dose ends in the middle of its own window', () => {
  const card = brewCard(recipe('cone-steady'), { doseG: 20 });
  expect([card.brewWaterG, card.brewTimeS, card.brewWindowS]).toEqual([308, 180, { from: 160, to: 200 }]);
});

test('press-long counts from the last water, and its steep does not grow with the cup', () => {
  for (const [cupMl, doseG, brewWaterG, pourS] of [
    [250, 18.8, 295, 15],
    [600, 45.1, 708, 36],
  ] as const) {
    const card = brewCard(recipe('press-long'), { cupMl });
    expect([card.doseG, card.brewWaterG, card.beverageG]).toEqual([doseG, brewWaterG, cupMl]);
    expect([span(card, 'pour'), span(card, 'dip'), span(card, 'plunge'), card.brewWindowS]).toEqual([
      [-pourS, 0],
      [400, 405],
      [440, 460],
      { from: 460, to: 520 },
    ]);
  }
});

test('a pour that would run into the next start moves it and all later ones, and the card says so', () => {
  const card = brewCard(recipe('cone-thirds'), { doseG: 32 });
  // 32 g: 518 g of water in 77, 156, 155 and 130 g; at 5 g/s the second takes 32 s and the third 31, where the clock leaves 30.
  expect(pours(card).map(([startS]) => startS)).toEqual([0, 40, 75, 109]);
  expect(card.notes).toHaveLength(2);
  expect(card.notes[0]).toContain('Second of three pours starts 5 s later');
});

test('roast moves the water, and altitude caps it in words', () => {
  const at = (altitudeM: number, roast: 'light' | 'dark') =>
    brewCard(
      recipe('cone-thirds'),
      { cupMl: 250 },
      { altitudeM, roast, kettle: { powerW: 1200, filledAtC: 90 } },
    );
  expect(at(0, 'light').waterC).toBe(95.5);
  expect(at(0, 'dark').waterC).toBe(88);
  expect(at(2150, 'light').waterC).toBeCloseTo(92.9, 0);
  expect(at(2150, 'light').notes.join()).toContain('wishes 95.5 °C');
});
