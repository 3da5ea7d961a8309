/** What is learnt from logs whose truth is known. */
import { seededRandom, type Load } from '../plan';
import { learnDurations } from './durations';
import { grindSlope, stepsTo, coarserWay } from './grind-slope';
import { learnPromiseShares } from './promise';
import { restOf } from './rest';
import { learnDrawdown, learnRetention } from './retention';
import { median } from './statistics';

function normalOf(seed: number): () => number {
  const random = seededRandom(seed);
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
/** A step of it is worth eight seconds by the usual three for a band. */
const GRINDER = { way: 1 as const, bands: 8 / 3 };
const seeds = Array.from({ length: 200 }, (_, index) => index + 1);

test('a grinder’s seconds per step are recovered within a tenth from many seeded logs of forty brews', () => {
  const reference = { setting: 20, brewS: 180 };
  const off = seeds.map((seed) => {
    const normal = normalOf(seed);
    const truth = -6 - (seed % 8);
    const points = Array.from({ length: 40 }, (_, n) => {
      const setting = 20 + ((n % 9) - 4);
      return { setting, brewS: 190 + truth * (setting - 20) + 5 * normal() };
    });
    const slope = grindSlope(points, reference, GRINDER);
    return Math.abs(slope.secondsPerStep / truth - 1);
  });
  const within = off.filter((share) => share <= 0.1).length / off.length;
  console.info(
    `slope: median error ${(100 * median(off)).toFixed(1)} %, within a tenth in ${(100 * within).toFixed(0)} % of logs`,
  );
  expect(median(off)).toBeLessThan(0.05);
  expect(within).toBeGreaterThan(0.95);
});

/** How often the ranges that are said hold the truth: of a step's worth, and of the next brew. */
function coverage(
  brews: number,
  noiseS: number,
  settings: readonly number[],
  stepOf: (normal: () => number) => number,
) {
  const logs = Array.from({ length: 500 }, (_, seed) => seed + 1);
  let [ofStep, ofBrew] = [0, 0];
  for (const seed of logs) {
    const normal = normalOf(seed + 500);
    const step = stepOf(normal);
    const level = 180 + 25 * normal();
    const brewS = (setting: number) => level + step * (setting - 20) + noiseS * normal();
    const points = Array.from({ length: brews }, (_, n) => {
      const setting = settings[n % settings.length]!;
      return { setting, brewS: brewS(setting) };
    });
    const said = grindSlope(points, { setting: 20, brewS: 180 }, GRINDER);
    const next = said.at(20);
    ofStep += Number(Math.abs(step - said.secondsPerStep) <= said.plusMinusS);
    ofBrew += Number(Math.abs(brewS(20) - next.brewS) <= next.plusMinusS);
  }
  return [ofStep / logs.length, ofBrew / logs.length] as const;
}

const percent = (share: number) => `${(100 * share).toFixed(0)} %`;
const SETTINGS = [[20], [20, 21], [19, 20, 20.5, 21.5]];

test.each([1.5, 3, 8, 14])(
  'ranges that are said to hold four cases of five do, of brews that differ by %d s, few and many, at one setting or several',
  (noiseS) => {
    for (const brews of [5, 20, 55])
      for (const settings of SETTINGS) {
        // Grinders differ: one step is worth half of what is usual, or half as much again.
        const shares = coverage(brews, noiseS, settings, (normal) => -8 * (1 + 0.55 * normal()));
        const cell = `${noiseS} s, ${brews} brews, ${settings.length} settings: ${shares.map(percent).join(', ')}`;
        console.info(cell);
        for (const share of shares) {
          expect([cell, share >= 0.75, share <= 0.85]).toEqual([cell, true, true]);
        }
      }
  },
);

test('where brews and what is usual disagree the range widens, so that it still holds the truth', () => {
  // A grinder whose steps are worth three times what is usual.
  for (const brews of [5, 10, 20]) {
    const [ofStep] = coverage(brews, 8, SETTINGS[2]!, () => -24);
    console.info(
      `${brews} brews of a grinder that is far from usual: the step ${(100 * ofStep).toFixed(0)} %`,
    );
    expect(ofStep).toBeGreaterThan(brews < 10 ? 0.4 : 0.6);
  }
});

test('after a season the latest brews count most', () => {
  const brew = (n: number) => ({
    setting: 20 + ((n % 5) - 2),
    brewS: (n < 100 ? 210 : 180) - 8 * ((n % 5) - 2),
  });
  const said = grindSlope(
    Array.from({ length: 160 }, (_, n) => brew(n)),
    { setting: 20, brewS: 180 },
    GRINDER,
  );
  expect(said.at(20).brewS).toBeLessThan(195);
});

test('without a brew the prior speaks, and each brew narrows it; a grinder that counts the other way is followed', () => {
  const reference = { setting: 20, brewS: 180 };
  const none = grindSlope([], reference, GRINDER);
  expect(none.secondsPerStep).toBeCloseTo(-8, 9);
  expect(none.at(21.5).brewS).toBeCloseTo(168, 9);
  // Another grinder's steps are worth more bands, and so more seconds.
  expect(grindSlope([], reference, { way: 1, bands: 10 }).secondsPerStep).toBeCloseTo(-30, 9);
  const few = grindSlope(
    [
      { setting: 20, brewS: 205 },
      { setting: 20, brewS: 207 },
      { setting: 21, brewS: 196 },
    ],
    reference,
    GRINDER,
  );
  expect(few.at(20).plusMinusS).toBeLessThan(none.at(20).plusMinusS);
  expect(stepsTo(few, 20, 180)).toBe(3);
  const grinder = {
    points: [
      { band: 20, setting: 6 },
      { band: 80, setting: 30 },
    ],
  };
  expect(coarserWay(grinder)).toBe(-1);
  const mirrored = grindSlope(
    [
      { setting: 20, brewS: 205 },
      { setting: 20, brewS: 207 },
      { setting: 19, brewS: 196 },
    ],
    reference,
    { ...GRINDER, way: coarserWay(grinder) },
  );
  expect(mirrored.secondsPerStep).toBeCloseTo(few.secondsPerStep, 9);
});

test('retention is recovered within 0.1 g/g though one cup in eight was spilt, and the spilt ones are named', () => {
  let within = 0;
  for (const seed of seeds) {
    const normal = normalOf(seed);
    const truth = 1.6 + (seed % 9) / 10;
    const cups = Array.from({ length: 16 }, (_, n) => {
      const spiltG = n % 8 === 3 ? 45 : 0;
      const beverageG = 288 - 4 - truth * 18 + 1.5 * normal() - spiltG;
      return { brewId: `b${n}`, doseG: 18, brewWaterG: 288, bypassG: 0, lossG: 4, beverageG };
    });
    const learnt = learnRetention(cups)!;
    within += Number(Math.abs(learnt.gPerG - truth) <= 0.1);
    expect(learnt.outliers).toEqual(expect.arrayContaining(['b3', 'b11']));
    expect(learnt.outliers.length).toBeLessThan(5);
  }
  expect(within / seeds.length).toBeGreaterThan(0.98);
  expect(learnRetention([])).toBeNull();
});

test.each([5, 8, 20])('the range of a retention from %d cups holds it in four cases of five', (count) => {
  const lives = 1200;
  let within = 0;
  for (let seed = 1; seed <= lives; seed += 1) {
    const normal = normalOf(seed);
    const cups = Array.from({ length: count }, (_, n) => {
      const beverageG = 288 - 4 - (2 + 0.1 * normal()) * 18;
      return { brewId: `b${n}`, doseG: 18, brewWaterG: 288, bypassG: 0, lossG: 4, beverageG };
    });
    const learnt = learnRetention(cups);
    // A cup too many that was named as spilt leaves too few: nothing is claimed.
    within += learnt === null ? 0.8 : Number(Math.abs(learnt.gPerG - 2) <= learnt.plusMinus);
  }
  expect(within / lives).toBeGreaterThan(0.77);
  expect(within / lives).toBeLessThan(0.86);
});

/** Drawdowns of cups of some sizes, by a truth that is known. */
const drawdowns = (seed: number, count: number, sizesG: number[], power: number, level = 1) => {
  const normal = normalOf(seed);
  return Array.from({ length: count }, (_, n) => {
    const brewWaterG = sizesG[n % sizesG.length]!;
    const plannedS = 60 * (brewWaterG / 300) ** 0.8;
    const drawdownS = 60 * level * (brewWaterG / 300) ** power * Math.exp(0.06 * normal());
    return { brewId: `b${n}`, brewWaterG, drawdownS, plannedS };
  });
};

test('the power of drawdown over brew water is recovered from cups of three sizes, a stalled one left out', () => {
  const errors = seeds.map((seed) => {
    const truth = 0.6 + (seed % 5) / 10;
    const points = drawdowns(seed, 30, [220, 300, 480], truth);
    points[7]!.drawdownS *= 2.5;
    const learnt = learnDrawdown(points, 0.8)!;
    expect(learnt.outliers).toContain('b7');
    return Math.abs(learnt.exponent - truth);
  });
  expect(median(errors)).toBeLessThan(0.05);
  expect(learnDrawdown(drawdowns(1, 7, [300], 0.8), 0.8)).toBeNull();
});

test('few brews of nearly one size leave the power at the method’s own, and say how little is known of it', () => {
  const powers = seeds.map((seed) => learnDrawdown(drawdowns(seed, 8, [290, 310], 0.8), 0.8)!);
  const worst = Math.max(...powers.map(({ exponent }) => Math.abs(exponent - 0.8)));
  expect(worst).toBeLessThan(0.35);
  for (const { exponentSd } of powers) expect(exponentSd).toBeGreaterThan(0.1);
  expect(learnDrawdown(drawdowns(1, 12, [300], 0.8), 0.8)).toMatchObject({ exponent: 0.8, exponentSd: 0.15 });
  // Its range of 80 % holds the truth in about four cases of five, where beds differ as they are said to.
  const inside = seeds.filter((seed) => {
    const truth = 0.8 + 0.15 * normalOf(seed + 900)();
    const learnt = learnDrawdown(drawdowns(seed, 12, [250, 300, 360], truth), 0.8)!;
    return Math.abs(learnt.exponent - truth) <= 1.2816 * learnt.exponentSd;
  });
  console.info(`the power's range: ${(100 * inside.length) / seeds.length} % of a claimed 80 %`);
  expect(inside.length / seeds.length).toBeGreaterThan(0.72);
  expect(inside.length / seeds.length).toBeLessThan(0.9);
});

test('beds that take a quarter longer than their cards say are known to, whatever the cup’s size', () => {
  const levels = seeds.map(
    (seed) => learnDrawdown(drawdowns(seed, 20, [220, 300, 480], 0.8, 1.25), 0.8)!.level,
  );
  expect(median(levels)).toBeGreaterThan(1.17);
  expect(median(levels)).toBeLessThan(1.27);
});

test('a quick person is quick, somebody new is as quick as the bar, and an interruption is no duration', () => {
  const steps = [
    ...Array.from({ length: 12 }, () => ({ kind: 'weigh' as const, by: 'noor', plannedS: 20, realS: 14 })),
    ...Array.from({ length: 12 }, () => ({ kind: 'weigh' as const, by: 'imre', plannedS: 20, realS: 26 })),
    { kind: 'weigh' as const, by: 'noor', plannedS: 20, realS: 400 },
    ...Array.from({ length: 20 }, () => ({ kind: 'pour' as const, by: 'noor', plannedS: 10, realS: 20 })),
  ];
  const durations = learnDurations(steps);
  expect(durations('weigh', 'noor')).toMatchObject({ factor: 0.7, whose: 'own', steps: 12 });
  const noor = durations('weigh', 'noor')!;
  expect(noor.medianS / noor.cardS).toBeCloseTo(0.7, 1);
  expect(noor.fromS).toBeLessThanOrEqual(noor.medianS);
  expect(noor.toS).toBeGreaterThanOrEqual(noor.medianS);
  expect(durations('weigh', 'tavi')).toMatchObject({ factor: 1, whose: 'bar', steps: 24 });
  // A pour is as long as the recipe wants it, whoever pours.
  expect(durations('pour', 'noor')).toBeNull();
});

const USUAL = { quiet: 0.08, busy: 0.08, full: 0.08 };

test('a bar whose orders come late by a tenth of their wait in a rush promises so much later then, and in a quiet hour no more than it must', () => {
  const normal = normalOf(11);
  const orders = (load: Load, byShare: number) =>
    Array.from({ length: 60 }, (_, n) => {
      const waitS = 300 + 10 * n;
      return { load, waitS, lateS: byShare * waitS * Math.abs(normal()) };
    });
  const late = orders('full', 0.1);
  const shares = learnPromiseShares([...late, ...orders('quiet', 0.001)], 15, USUAL);
  expect(shares.full).toBeGreaterThan(0.12);
  expect(shares.quiet).toBeLessThan(0.04);
  // With it about nineteen of twenty are out in time.
  const fresh = orders('full', 0.1);
  const kept = fresh.filter(({ waitS, lateS }) => lateS <= 15 + shares.full! * waitS).length / fresh.length;
  expect(kept).toBeGreaterThan(0.9);
  // The first orders move it a little, and nobody is told what no order taught.
  const first = learnPromiseShares(late.slice(0, 5), 15, USUAL);
  expect(first.full).toBeGreaterThanOrEqual(0.06);
  expect(first.full).toBeLessThan(shares.full!);
  expect(learnPromiseShares(late.slice(0, 4), 15, USUAL)).toEqual({});
});

test('a coffee’s rest goes by its roast', () => {
  const at = Date.UTC(2026, 0, 7);
  const stands = (roast: 'very light' | 'light' | 'medium') => restOf('2026-01-01', roast, at).stands;
  expect([stands('very light'), stands('light'), stands('medium')]).toEqual(['too young', 'good', 'good']);
  expect(restOf('2025-12-10', 'very light', at).stands).toBe('use first');
  expect(restOf('2025-12-10', 'light', at).stands).toBe('past');
});
