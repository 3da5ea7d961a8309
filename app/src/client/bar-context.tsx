/**
 * The bar in React: one store for the page, and hooks that read it.
 */
import {
  createContext,
  startTransition,
  useContext,
  useDeferredValue,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
  type ReactNode,
} from 'react';
import { v7 as uuid } from 'uuid';
import type { AgendaItem } from '@even-kettle/core/plan';
import type { KettleState, ScaleState } from '@even-kettle/core/contract';
import { METRIC, type Units } from '@even-kettle/core/units';
import { isAlike } from '../ui/alike';
import { answerTheWorker, installServiceWorker } from './service-worker';
import { loadTheRest } from '../ui/lazy-place';
import { agendaNow } from './agenda-now';
import { apiClient, type Api } from './api';
import { deviceClock, type DeviceClock } from './clock';
import { openDeviceReadings, type DeviceReadings } from './device-board';
import { openOfflineSnapshots } from './offline-snapshot';
import { openOutbox } from './outbox';
import { openPlanner, type Planner } from './planner';
import { openStore, type BarStore, type BarView } from './store';

export const newId = (): string => uuid();

export type BarHere = {
  api: Api;
  clock: DeviceClock;
  store: BarStore;
  devices: DeviceReadings;
  planner: Planner;
  /** A bar of this page's own, to show or to try something on: nothing of it is stored or heard. */
  silent?: boolean;
};

/** For tests: a page's bar can be given directly. */
export const BarContext = createContext<BarHere | null>(null);
const CLOCK_CHECK_MS = 60_000;
/** The bar itself is shown first; other scripts load after it. */
const REST_AFTER_MS = 8000;
const SHELL_AFTER_MS = 3000;

export function BarProvider({ children }: { children: ReactNode }) {
  const here = useMemo(() => openHere(), []);
  useEffect(() => {
    void here.store.open();
    const rest = setTimeout(loadTheRest, REST_AFTER_MS);
    answerTheWorker();
    const shell = setTimeout(installServiceWorker, SHELL_AFTER_MS);
    const measure = () => {
      if (document.visibilityState === 'visible') void here.clock.measure().catch(() => undefined);
    };
    const timer = setInterval(measure, CLOCK_CHECK_MS);
    document.addEventListener('visibilitychange', measure);
    return () => {
      clearInterval(timer);
      clearTimeout(rest);
      clearTimeout(shell);
      document.removeEventListener('visibilitychange', measure);
      here.store.close();
    };
  }, [here]);
  const [madeUp, setMadeUp] = useState<BarHere | null>(null);
  const look = useMemo(
    () => ({
      isOn: madeUp !== null,
      look: (open: (around: BarHere) => BarHere) => setMadeUp(open(here)),
      leave: () => setMadeUp(null),
    }),
    [here, madeUp],
  );
  return (
    <MadeUpContext.Provider value={look}>
      <BarContext.Provider value={madeUp ?? here}>{children}</BarContext.Provider>
    </MadeUpContext.Provider>
  );
}

/** A made-up bar that is looked at in place of the real one, on every place of the app. */
export type MadeUpBar = {
  isOn: boolean;
  look: (open: (around: BarHere) => BarHere) => void;
  leave: () => void;
};
const MadeUpContext = createContext<MadeUpBar>({
  isOn: false,
  look: () => undefined,
  leave: () => undefined,
});
export const useMadeUpBar = (): MadeUpBar => useContext(MadeUpContext);

function openHere(): BarHere {
  const api = apiClient();
  const clock = deviceClock(api.clock, () => performance.now());
  const devices = openDeviceReadings();
  const planner = openPlanner();
  const store = openStore({
    api,
    clock,
    outbox: openOutbox(),
    snapshots: openOfflineSnapshots(),
    devices,
    newId,
    planLocally: planner.plan,
  });
  return { api, clock, store, devices, planner };
}

export function useHere(): BarHere {
  const here = useContext(BarContext);
  if (!here) throw new Error('Wrap the page in a BarProvider.');
  return here;
}

/** The bar as it was last rendered, for parts that may follow a moment later. */
const CalmContext = createContext<BarView | null>(null);

export function useBar(): BarView {
  const { store } = useHere();
  const calm = useContext(CalmContext);
  const read = () => calm ?? store.view();
  return useSyncExternalStore(store.subscribe, read, read);
}

/**
 * What surrounds the hands card follows the bar between its turns, in slices: a new plan moves a hundred things, and the
 * card must not wait for them.
 */
export function Deferred({ children }: { children: ReactNode }) {
  const calm = useDeferredValue(useBar());
  return <CalmContext.Provider value={calm}>{children}</CalmContext.Provider>;
}

export const useUnits = (): Units => useBar().bar?.units ?? METRIC;

/**
 * Bar time, read again every `everyMs` of real time. All devices read at the same moments of the bar's clock, so that
 * their countdowns turn together.
 * @param phaseMs how long after those moments: parts that need not turn with the clocks are rendered between them, so that
 *   no single moment has everything to render
 */
export function useNow(everyMs = 200, phaseMs = 0): number {
  const { clock } = useHere();
  const [nowMs, setNowMs] = useState(() => clock.nowMs());
  useEffect(
    () =>
      onTick(clock, everyMs, phaseMs, (barMs) => {
        // What is drawn between the turns can wait, and is drawn in slices.
        if (phaseMs > 0) startTransition(() => setNowMs(barMs));
        else setNowMs(barMs);
      }),
    [clock, everyMs, phaseMs],
  );
  return nowMs;
}

/**
 * What is worked out of bar time at every turn of the clock; what shows it is drawn again only when it comes out otherwise.
 */
export function useAtTurns<Value>(work: (nowMs: number) => Value, everyMs = 200): Value {
  const { clock } = useHere();
  const [, drawAgain] = useState({});
  const value = work(clock.nowMs());
  const latest = useRef({ work, value });
  useLayoutEffect(() => {
    latest.current = { work, value };
  });
  useEffect(
    () =>
      onTick(clock, everyMs, 0, (nowMs) => {
        if (!isAlike(latest.current.work(nowMs), latest.current.value, 1)) drawAgain({});
      }),
    [clock, everyMs],
  );
  return value;
}

/** Calls at once and then whenever `useNow` would read; returns a function that ends it. */
export function onTick(
  clock: DeviceClock,
  everyMs: number,
  phaseMs: number,
  call: (nowMs: number) => void,
): () => void {
  let timer: ReturnType<typeof setTimeout>;
  const tick = () => {
    const barMs = clock.nowMs();
    call(barMs);
    // Of a clock that is slower than life nothing new is to be seen any sooner.
    const perMs = Math.max(1, clock.rate());
    const stepMs = everyMs * perMs;
    // A clock that has not been measured yet is looked at again soon.
    const nextMs = barMs === 0 ? 100 : (stepMs - ((barMs - phaseMs * perMs) % stepMs)) / clock.rate() + 1;
    timer = setTimeout(tick, nextMs);
  };
  tick();
  // A page that was hidden or a machine that slept shows the right time at once, not when its timer comes.
  const awake = () => {
    clearTimeout(timer);
    tick();
  };
  // Where components are tested there is no page.
  const page = globalThis.document as Document | undefined;
  page?.addEventListener('visibilitychange', awake);
  page?.addEventListener('resume', awake);
  const unheard = clock.onSet(awake);
  return () => {
    clearTimeout(timer);
    unheard();
    page?.removeEventListener('visibilitychange', awake);
    page?.removeEventListener('resume', awake);
  };
}

/** What the scale under a station shows; undefined where the bar hears none. */
export function useScale(stationId: string): ScaleState | undefined {
  const { devices } = useHere();
  const read = () => devices.scale(stationId);
  return useSyncExternalStore(devices.subscribe, read, read);
}

/** A fact of the scale under a station; what shows it is drawn again when the fact changes, not with every reading. */
export function useScaleFact<Fact extends boolean | string>(
  stationId: string,
  of: (scale: ScaleState | undefined) => Fact,
): Fact {
  const { devices } = useHere();
  const read = () => of(devices.scale(stationId));
  return useSyncExternalStore(devices.subscribe, read, read);
}

export function useKettles(): KettleState[] {
  const { devices } = useHere();
  return useSyncExternalStore(devices.subscribe, devices.kettles, devices.kettles);
}

/** How long a change of plan stays marked, milliseconds of bar time. */
export const CHANGE_SHOWN_MS = 20_000;

/** What the bar asks of its hands at a moment. */
export function useAgenda(nowMs: number): AgendaItem[] {
  const view = useBar();
  return useMemo(() => agendaNow(view, nowMs), [view, nowMs]);
}
