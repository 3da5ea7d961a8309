import { NO_DRAIN, bedOf, secondsUntil, slurryG } from './index';

test('a brewer that does not drain holds what was poured', () => {
  const pour = { startS: 0, endS: 10, pourG: 300 };
  expect([
    slurryG([pour], NO_DRAIN, -1),
    slurryG([pour], NO_DRAIN, 5),
    slurryG([pour], NO_DRAIN, 400),
  ]).toEqual([0, 150, 300]);
});

test('a dripper rises while it is poured into, falls between pours, and is dry at the end of its drawdown', () => {
  const pours = [
    { startS: 0, endS: 8, pourG: 42 },
    { startS: 40, endS: 58, pourG: 86 },
    { startS: 100, endS: 115, pourG: 75 },
  ];
  const bed = bedOf(70, pours, 18);
  const at = (second: number) => slurryG(pours, bed, second);
  expect(at(8)).toBeGreaterThan(at(4));
  expect(at(39)).toBeLessThan(at(8));
  expect(at(58)).toBeGreaterThan(at(41));
  // 1 g counts as dry, and then it is.
  expect(at(115 + 70)).toBeCloseTo(1, 2);
  expect(at(115 + 75)).toBe(0);
  for (let second = 0; second < 300; second += 1) {
    expect(at(second)).toBeGreaterThanOrEqual(0);
    expect(at(second)).toBeLessThanOrEqual(42 + 86 + 75);
  }
});

test('the bed’s own depth keeps the last of the water running: what stands is worked out step by step, and is more than without it', () => {
  const pours = [
    { startS: 0, endS: 8, pourG: 42 },
    { startS: 40, endS: 58, pourG: 86 },
    { startS: 100, endS: 115, pourG: 75 },
  ];
  const bed = bedOf(70, pours, 18);
  // Darcy in small steps, by nothing but its definition.
  let levelG = 0;
  const stepS = 0.01;
  for (let n = 0; n < 18_500; n += 1) {
    const atS = n * stepS;
    const pour = pours.find(({ startS, endS }) => startS <= atS && atS < endS);
    const inG = pour ? (pour.pourG / (pour.endS - pour.startS)) * stepS : 0;
    levelG = Math.max(
      0,
      levelG + inG - ((levelG + (levelG > 0 || inG > 0 ? bed.headG : 0)) / bed.tauS) * stepS,
    );
    if ([800, 3900, 5800, 11_500, 15_000].includes(n + 1))
      expect(Math.abs(slurryG(pours, bed, (n + 1) * stepS) - levelG)).toBeLessThan(0.2);
  }
  // A bed without depth of its own that is as dry by then lets the water through too soon.
  const flat = bedOf(70, pours, 0);
  for (const second of [58, 115, 140])
    expect(slurryG(pours, bed, second) / slurryG(pours, flat, second)).toBeGreaterThan(1.15);
  const left = slurryG(pours, bed, 115);
  expect(slurryG(pours, bed, 115 + secondsUntil(left, 8, bed))).toBeCloseTo(8, 6);
});
