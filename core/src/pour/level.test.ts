import { drainTauS, slurryG } from './index';

test('a brewer that does not drain holds what was poured', () => {
  const pour = { startS: 0, endS: 10, pourG: 300 };
  expect([
    slurryG([pour], Infinity, -1),
    slurryG([pour], Infinity, 5),
    slurryG([pour], Infinity, 400),
  ]).toEqual([0, 150, 300]);
});

test('a dripper rises while it is poured into, falls between pours, and is dry at the end of its drawdown', () => {
  const pours = [
    { startS: 0, endS: 8, pourG: 42 },
    { startS: 40, endS: 58, pourG: 86 },
    { startS: 100, endS: 115, pourG: 75 },
  ];
  const tauS = drainTauS(70, pours);
  const at = (second: number) => slurryG(pours, tauS, second);
  expect(at(8)).toBeGreaterThan(at(4));
  expect(at(39)).toBeLessThan(at(8));
  expect(at(58)).toBeGreaterThan(at(41));
  // 3 g count as dry.
  expect(at(115 + 70)).toBeCloseTo(3, 2);
  for (let second = 0; second < 300; second += 1) {
    expect(at(second)).toBeGreaterThanOrEqual(0);
    expect(at(second)).toBeLessThanOrEqual(42 + 86 + 75);
  }
});
