/** What a wait for a cue is counted from: the brew's timer, and before it runs the wait's own beginning. */
import { EMPTY_BAR, reduce, type BarEvent } from '@even-kettle/core/brew';
import { agenda } from '@even-kettle/core/plan';
import { TEST_BAR } from '../../testing/bar';
import { at, book } from '../../testing/cone';
import { cueClock, cueShare } from './cue';

const bar = {
  ...TEST_BAR,
  burners: 1,
  stations: [{ id: 'siphon-1', name: 'Siphon', brewerId: 'siphon-m' }],
};
let count = 0;
const base = (s: number) => ({ id: `e${(count += 1)}`, atMs: at(s) });
const done = (stepId: string, s: number): BarEvent => ({
  ...base(s),
  type: 'step-done',
  brewId: 's.1',
  stepId,
});
const lit: BarEvent[] = [
  {
    ...base(0),
    type: 'order-taken',
    orderId: 'S',
    cups: [
      { cupId: 's', recipeId: 'siphon-late', recipeVersion: 1, coffee: 'x', roast: 'light', cupMl: 350 },
    ],
  },
  {
    ...base(0),
    type: 'brew-started',
    brewId: 's.1',
    orderId: 'S',
    cupId: 's',
    stationId: 'siphon-1',
    stationName: 'Siphon',
    brewerId: 'siphon-m',
    altitudeM: 0,
    kettlePowerW: 1200,
    kettleFilledAtC: 20,
  },
  done('weigh', 12),
  done('set-filter', 80),
  done('fill', 95),
  done('flame', 100),
];
const watched = (s: number, ...more: BarEvent[]) => {
  const { state, refused } = reduce([...lit, ...more], book, EMPTY_BAR);
  expect(refused).toEqual([]);
  return agenda(state, bar, book, null, at(s)).find(({ asks }) => asks === 'cue')!;
};

test('before the coffee is in, a cue is counted from the flame, and its window is never below nought', () => {
  const item = watched(155);
  expect(item.awaited!.cue).toBe('near boiling');
  const { fromMs, lessS } = cueClock(item, at(155))!;
  expect(fromMs).toBe(at(100));
  const { from, to } = item.awaited!.cueWindowS!;
  const usualS = item.awaited!.durationS;
  // Thirty-five seconds early to seventy late.
  expect([from - lessS, to - lessS]).toEqual([usualS - 35, usualS + 70]);
  expect(cueShare(item, at(155))).toBeCloseTo(55 / usualS, 2);
});

test('once the timer runs, a cue is counted by it', () => {
  const brewed = [
    done('heat', 210),
    done('seal', 215),
    done('rise', 240),
    done('lower', 248),
    { ...base(250), type: 'step-begun' as const, brewId: 's.1', stepId: 'coffee-in' },
    done('coffee-in', 262),
    done('flame-off', 310),
  ];
  const item = watched(330, ...brewed);
  expect(item.awaited!.cue).toBe('final bubbling');
  expect(cueClock(item, at(330))).toEqual({ fromMs: at(250), lessS: 0 });
});
