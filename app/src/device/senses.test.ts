/** Tones, voice, shaking and a screen that stays on, against browsers that have them and browsers that do not. */
import { canVibrate, missingHere, screenAwake, shake, speak } from './senses';
import { sound, tonesState, unlockTones } from './tones';

const globals = globalThis as Record<string, unknown>;
const settled = async () => {
  for (let turn = 0; turn < 10; turn += 1) await Promise.resolve();
};

test('a browser with none of it is left alone, and what is missing is named', () => {
  expect(canVibrate()).toBe(false);
  unlockTones();
  sound('now');
  shake('late');
  speak('Now.');
  expect(tonesState()).toBe('absent');
  expect(missingHere().map(({ what }) => what)).toEqual([
    'The screen may go dark while a brew runs',
    'The app cannot be opened while the server is away',
    'No vibration',
    'No spoken cues',
    'No tones',
  ]);
});

test('a tone is a graph of oscillators through a soft edge and to its side, made only once the page has been touched', () => {
  const made: string[] = [];
  const param = { value: 0, setValueAtTime: () => undefined, linearRampToValueAtTime: () => undefined };
  class Context {
    state = 'suspended';
    currentTime = 1;
    destination = { name: 'loudspeaker' };
    resume = async () => void (this.state = 'running');
    createOscillator = () => ({
      frequency: { value: 0 },
      connect: (to: { name: string }) => (made.push(`tone to ${to.name}`), to),
      start: (at: number) => made.push(`from ${at.toFixed(2)}`),
      stop: () => undefined,
    });
    createGain = () => ({
      name: 'edge',
      gain: param,
      connect: (to: { name: string }) => made.push(`edge to ${to.name}`),
    });
    createStereoPanner = () => {
      const pan = { value: 0 };
      return {
        get name() {
          return `side ${pan.value}`;
        },
        pan,
        connect: (to: { name: string }) => (made.push(`side to ${to.name}`), to),
      };
    };
    createDynamicsCompressor = () => ({
      name: 'limiter',
      ...Object.fromEntries(
        ['threshold', 'knee', 'ratio', 'attack', 'release'].map((part) => [part, { value: 0 }]),
      ),
      connect: (to: { name: string }) => made.push(`limiter to ${to.name}`),
    });
  }
  globals['AudioContext'] = Context;
  sound('now');
  expect(made).toEqual([]);
  unlockTones();
  expect(tonesState()).toBe('ready');
  sound('ready', -0.8);
  expect(made).toEqual([
    'limiter to edge',
    'edge to loudspeaker',
    'side to limiter',
    'tone to edge',
    'edge to side -0.8',
    'from 1.00',
    'tone to edge',
    'edge to side -0.8',
    'from 1.13',
  ]);
  // Another station that calls at the same moment goes through the same limiter.
  made.length = 0;
  sound('now', 0.8);
  expect(made).toEqual(['side to limiter', 'tone to edge', 'edge to side 0.8', 'from 1.00']);
  delete globals['AudioContext'];
});

test('the screen is kept on while it is wanted, taken again when the page comes back, and let go', async () => {
  const listeners: Record<string, () => void> = {};
  const locks: { released: boolean; onRelease: () => void }[] = [];
  const page = {
    visibilityState: 'visible',
    addEventListener: (name: string, listener: () => void) => (listeners[name] = listener),
    removeEventListener: (name: string) => delete listeners[name],
  };
  globals['document'] = page;
  const request = async () => {
    const lock = { released: false, onRelease: () => undefined };
    locks.push(lock);
    return {
      addEventListener: (_name: string, onRelease: () => undefined) => (lock.onRelease = onRelease),
      release: async () => ((lock.released = true), lock.onRelease()),
    };
  };
  Object.defineProperty(globalThis, 'navigator', { value: { wakeLock: { request } }, configurable: true });
  const awake = screenAwake();
  awake.keep(true);
  awake.keep(true);
  await settled();
  expect([locks.length, awake.held()]).toEqual([1, true]);
  // The page is hidden: the browser lets go.
  page.visibilityState = 'hidden';
  locks[0]!.onRelease();
  listeners['visibilitychange']!();
  await settled();
  expect(awake.held()).toBe(false);
  page.visibilityState = 'visible';
  listeners['visibilitychange']!();
  await settled();
  expect([locks.length, awake.held()]).toEqual([2, true]);
  awake.keep(false);
  await settled();
  expect([locks[1]!.released, awake.held()]).toEqual([true, false]);
  awake.close();
  expect(listeners).toEqual({});
});
