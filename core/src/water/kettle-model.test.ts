/** The simulated kettle against the formulas that the cards use. */
import fc from 'fast-check';
import { coolingTimeS, emptiedBy, filled, heatingTimeS, isHeating, kettleAfter } from './index';
import { stepKettle, type KettleModel } from './kettle-model';

const NATURE = { powerW: 1200, roomC: 21 };
const after = (kettle: KettleModel, seconds: number) => {
  let now = kettle;
  for (let s = 0; s < seconds; s += 1) now = stepKettle(now, 1, NATURE);
  return now;
};

test('it comes to what it is set to in the time that the card says, and stays there', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 200, max: 1500 }),
      fc.integer({ min: 10, max: 80 }),
      fc.integer({ min: 85, max: 98 }),
      (levelG, fromC, setC) => {
        const usualS = Math.ceil(heatingTimeS(levelG, setC, { powerW: NATURE.powerW, filledAtC: fromC }));
        const cold: KettleModel = { waterC: fromC, levelG, setC };
        expect(after(cold, Math.floor(usualS * 0.95)).waterC).toBeLessThan(setC);
        const hot = after(cold, usualS + 1);
        expect(Math.abs(hot.waterC - setC)).toBeLessThan(0.5);
        expect(Math.abs(after(hot, 300).waterC - setC)).toBeLessThan(0.6);
      },
    ),
    { numRuns: 40 },
  );
});

test('after any time at once it is as second by second, within what it is switched by; 400 days take no longer', () => {
  const level = fc.constantFrom(0, 200, 700);
  const setC = fc.option(fc.integer({ min: 15, max: 99 }), { nil: null });
  fc.assert(
    fc.property(
      level,
      fc.integer({ min: 5, max: 99 }),
      setC,
      fc.integer({ min: 0, max: 5000 }),
      (levelG, waterC, to, s) => {
        const kettle = { waterC, levelG, setC: to };
        expect(Math.abs(kettleAfter(kettle, s, NATURE).waterC - after(kettle, s).waterC)).toBeLessThan(0.3);
        const late = kettleAfter(kettle, 400 * 86_400, NATURE).waterC;
        // Cold water cools towards the room too: it warms.
        const standsAtC = to === null || levelG === 0 ? NATURE.roomC : Math.max(to, NATURE.roomC);
        expect(Math.abs(late - standsAtC)).toBeLessThan(0.3);
      },
    ),
    { numRuns: 60 },
  );
});

test('off, it cools as the wait on the card says', () => {
  const off = { waterC: 100, levelG: 600, setC: null };
  const waitS = coolingTimeS({ fromC: 100, roomC: 21, massG: 600 }, 92);
  expect(after(off, Math.round(waitS)).waterC).toBeCloseTo(92, 1);
  expect(isHeating(off)).toBe(false);
});

test('filling mixes what was left with what is new, and pouring takes it out', () => {
  const warm = filled({ waterC: 60, levelG: 200, setC: null }, 600, 90);
  expect([warm.levelG, warm.waterC]).toEqual([600, 80]);
  expect(filled(warm, 300, 90)).toEqual(warm);
  expect(filled({ waterC: 21, levelG: 0, setC: 94 }, 0, 90).waterC).toBe(21);
  expect(emptiedBy(warm, 5000).levelG).toBe(0);
  expect(isHeating({ waterC: 20, levelG: 0, setC: 94 })).toBe(false);
});
