/**
 * A bar of one page's own, with a clock of its own: to show a recipe or to try something on. It obeys the real bar's rules
 * and planner; nothing of it is stored, posted or heard.
 */
import { reduce, type BarEvent } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { buildProblem, solve, type Plan } from '@even-kettle/core/plan';
import type { BarHere } from './bar-context';
import { NOTHING_LOADED, type BarView } from './bar-view';
import type { DeviceClock } from './clock';
import { openDeviceReadings } from './device-board';

/** Slower than this is standing still: a clock that stood quite still would have no next turn. */
const STANDING = 0.0001;
/** What a plan for a few cups needs, moves of the search. */
const MOVES = 300;

const refused = () => Promise.reject(new Error('Nothing is stored here.'));

/** What would have to be stored. */
const NOT_STORED: Partial<BarHere['api']> = {
  saveRecipe: refused,
  takeAdvice: refused,
  postEvents: refused,
  orderScale: refused,
  orderKettle: refused,
  runFeed: refused,
  tableIn: refused,
  takeFile: refused,
  endFile: refused,
  sendFile: refused,
  keepPractice: refused,
  removePractice: refused,
};

export type PrivateBar = BarHere & {
  /** Bar seconds to a real second; 0 stands still. */
  setRate: (rate: number) => void;
  rate: () => number;
  /** Sets the clock on to a later time, bar milliseconds; never back. */
  skipTo: (barMs: number) => void;
};

/** A way into a group of listeners, and out of it. */
const subscribeTo = (group: Set<() => void>) => (listener: () => void) => {
  group.add(listener);
  return () => group.delete(listener);
};

/**
 * @param around the page's real bar, for recipes and units
 * @param events what has happened there so far
 */
export function openPrivateBar(
  around: BarHere,
  { bar, events, startMs }: { bar: Bar; events: readonly BarEvent[]; startMs: number },
  realMs: () => number = () => performance.now(),
): PrivateBar {
  const { recipes, book } = around.store.view();
  const listeners = new Set<() => void>();
  /** Who waits for the clock's next turn: what sets the clock tells them to look again. */
  const waiting = new Set<() => void>();
  let base = { realMs: realMs(), barMs: startMs, rate: 1 };
  const nowMs = () => Math.round(base.barMs + (realMs() - base.realMs) * base.rate);
  const clock: DeviceClock = {
    nowMs,
    rate: () => base.rate,
    measure: async () => undefined,
    carryOn: () => undefined,
    uncertaintyMs: () => 0,
    onSet: subscribeTo(waiting),
  };
  let view: BarView = { ...NOTHING_LOADED, status: 'ready', link: 'live', bar, recipes, book };
  const show = (change: Partial<BarView>) => {
    view = { ...view, ...change };
    for (const listener of listeners) listener();
  };
  const clockSet = () => {
    show({});
    for (const look of waiting) look();
  };
  const planned = (state: BarView['state'], before: Plan | null): Plan | null => {
    const { problem } = buildProblem(
      state,
      view.bar ?? bar,
      book,
      Math.ceil(nowMs() / 1000),
      before ?? undefined,
    );
    return problem.orders.length === 0
      ? null
      : solve(problem, { moves: MOVES, ...(before ? { before } : {}) });
  };
  const act = (next: readonly BarEvent[]): boolean => {
    const { state, refused } = reduce(next, book, view.state);
    if (refused.length > 0) return false;
    show({ state, plan: planned(state, view.plan) });
    return true;
  };
  act(events);
  /** What is changed here stays here; what would have to be stored is refused. */
  const api: BarHere['api'] = {
    ...around.api,
    changeBar: async (change) => ({ ...(view.bar ?? bar), ...change }) as Bar,
    ...NOT_STORED,
  };
  return {
    ...around,
    api,
    silent: true,
    clock,
    devices: openDeviceReadings(),
    store: {
      ...around.store,
      view: () => view,
      subscribe: subscribeTo(listeners),
      open: async () => undefined,
      close: () => undefined,
      act,
      tookBar: (changed) => show({ bar: changed }),
      undo: () => undefined,
      dismiss: () => undefined,
    },
    rate: () => (base.rate === STANDING ? 0 : base.rate),
    skipTo: (barMs) => {
      base = { ...base, realMs: realMs(), barMs: Math.max(nowMs(), barMs) };
      clockSet();
    },
    setRate: (rate) => {
      base = { realMs: realMs(), barMs: nowMs(), rate: rate === 0 ? STANDING : rate };
      clockSet();
    },
  };
}

/** A bar that stands still at a moment, to look at what was; nothing can be done at it. */
export function stillBar(
  around: BarHere,
  { bar, state, plan, atMs }: Pick<BarView, 'state' | 'plan'> & { bar: Bar; atMs: number },
): BarHere {
  const { recipes, book } = around.store.view();
  const view: BarView = { ...NOTHING_LOADED, status: 'ready', link: 'live', bar, recipes, book, state, plan };
  return {
    ...around,
    silent: true,
    clock: { ...around.clock, nowMs: () => atMs, rate: () => STANDING },
    devices: openDeviceReadings(),
    store: {
      ...around.store,
      view: () => view,
      subscribe: () => () => undefined,
      act: () => false,
      undo: () => undefined,
    },
  };
}
