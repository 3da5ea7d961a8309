/** Tries on the device: kept through a reload, best by drill and person, and nothing breaks what cannot be read. */
import type { PourTry, Sample } from '@even-kettle/core/practice';

const stored = new Map<string, string>();
beforeEach(() => {
  stored.clear();
  jest.resetModules();
  Object.defineProperty(globalThis, 'localStorage', {
    configurable: true,
    value: {
      getItem: (key: string) => stored.get(key) ?? null,
      setItem: (key: string, text: string) => void stored.set(key, text),
    },
  });
});
afterAll(() => void Reflect.deleteProperty(globalThis, 'localStorage'));

/** The page as it is after a load. */
const load = (): typeof import('./kept-tries') => jest.requireActual('./kept-tries');
const tried = (id: string, score: number, more: Partial<PourTry> = {}): PourTry => ({
  id,
  atMs: 1,
  person: 'imre',
  drill: 'hold',
  score,
  measures: {
    lineG: 1,
    overshootG: 1,
    flowOff: 0,
    uneven: 0,
    pathOff: null,
    wallShare: 0,
    dryShare: 0,
    rhythmS: null,
  },
  ...more,
});
const trace = (g: number): Sample[] => [{ s: 0.1, g, flowGPerS: 4, at: { x: 0, y: 0.5 } }];
const HOLD = { drill: 'hold', person: 'imre' } as const;

test('the best pour of a drill is each person’s own, is there after a reload, and no pour on a scale takes its place', () => {
  const first = load();
  first.keepTry(tried('a', 60), trace(10));
  first.keepTry(tried('b', 90), trace(20));
  first.keepTry(tried('c', 70), trace(30));
  first.keepTry(tried('d', 99, { onScale: true }), trace(40));
  first.keepTry(tried('e', 50, { person: null }), trace(50));
  jest.resetModules();
  const again = load();
  expect(again.bestPour(HOLD)).toEqual(trace(20));
  expect(again.bestPour({ ...HOLD, person: null })).toEqual(trace(50));
  expect(again.bestPour({ ...HOLD, person: 'noor' })).toEqual([]);
  expect(again.bestPour({ drill: 'recipe', recipeId: 'cone-thirds', cupMl: 250, person: 'imre' })).toEqual(
    [],
  );
});

test('of tries beyond three hundred the oldest go', () => {
  const { keepTry } = load();
  for (let n = 0; n < 305; n += 1) keepTry(tried(`t${n}`, 50), []);
  const { tries } = JSON.parse(stored.get('even-kettle.practice@1')!) as { tries: PourTry[] };
  expect([tries.length, tries[0]!.id, tries.at(-1)!.id]).toEqual([300, 't5', 't304']);
});

test.each([
  ['no JSON', '{"tries":['],
  ['something else', '"so long"'],
  ['half a try', '{"tries":[{"id":"x"},null],"best":{"imre|hold":{"score":"high"}}}'],
])('where the device holds %s there are no tries, and new ones are kept', (_what, text) => {
  stored.set('even-kettle.practice@1', text);
  const { bestPour, keepTry } = load();
  expect(bestPour(HOLD)).toEqual([]);
  keepTry(tried('a', 60), trace(10));
  expect(bestPour(HOLD)).toEqual(trace(10));
  const { tries } = JSON.parse(stored.get('even-kettle.practice@1')!) as { tries: PourTry[] };
  expect(tries.map(({ id }) => id)).toEqual(['a']);
});
