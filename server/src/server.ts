/**
 * The bar's server, put together: store, clock, log, planning and live stream. HTTP is a face on it.
 */
import type { DataSource } from 'typeorm';
import { brewerById, type RecipeBook } from '@even-kettle/core/recipe';
import type { Bar, BarChange, SaveRecipe, Snapshot } from '@even-kettle/core/contract';
import { brewAt, forgetClosed, hostOf, type BarEvent, type BarState } from '@even-kettle/core/brew';
import { cardFor } from '@even-kettle/core/plan';
import { startClock, type BarClock } from './bar-clock';
import { changeBar, readBar, writeBar } from './bench';
import { openDevices, type DeviceHub } from './devices/devices';
import { openHub, type LiveHub } from './http/live';
import { startPlanning, type Planning } from './planning/planning';
import type { Solver } from './planning/solver';
import { openLog, type Appended, type EventLog, type Refused } from './store/log';
import { openTraces, type TraceShelf } from './store/traces';
import { openRecords, type RecordShelf } from './store/records';
import { openLearning, type Learning } from './learnt';
import { archiveOf } from './files/archive';
import { openImportDesk, type ImportDesk } from './imports/desk';
import { openRecipes, type RecipeShelf, type Saved } from './store/recipes';

export type BarServer = {
  log: EventLog;
  clock: BarClock;
  hub: LiveHub;
  planning: Planning;
  bar: () => Bar;
  recipes: RecipeShelf;
  devices: DeviceHub;
  traces: TraceShelf;
  records: RecordShelf;
  learning: Learning;
  /** Everything as one file, piece by piece. */
  archive: () => AsyncGenerator<string>;
  /** Large files that are read in: a log from elsewhere, or such an archive into an empty bar. */
  imports: ImportDesk;
  /** Stores a post; planning and the other devices follow. */
  post: (events: BarEvent[]) => Promise<Appended>;
  /** Changes settings, or says which of them cannot be changed just now. */
  change: (
    change: BarChange,
  ) => Promise<{ ok: true; bar: Bar } | { ok: false; field: string; reason: string }>;
  saveRecipe: (asked: SaveRecipe) => Promise<Saved>;
  snapshot: () => Snapshot;
  health: () => Promise<{
    status: 'ok' | 'failing';
    store: 'ok' | 'failing';
    planner: 'ok' | 'failing';
    uptimeS: number;
    seq: number;
  }>;
  close: () => Promise<void>;
};

export type BarServerParts = {
  source: DataSource;
  solver: Solver;
  /** The script of the worker that reads large files in. */
  importWorker: URL;
  clockRate: number;
  warn: (detail: unknown, message: string) => void;
};

/** Hands' pace and what beds do are learnt anew after so many cups. */
const LEARN_EVERY = 10;
const MOVES_NOTHING: ReadonlySet<BarEvent['type']> = new Set<BarEvent['type']>([
  'brew-noted',
  'step-taken',
  'cup-tasted',
  'coffee-weighed',
  'papers-counted',
  'cloth-boiled',
  'cloth-replaced',
  'change-tried',
  'round-begun',
  'round-scored',
  'round-revealed',
]);
const BEING_READ_IN = 'The whole bar is being read in from a file; wait until that is done.';
/** How often it is looked whether the bar has fallen behind its plan, real milliseconds. */
const FOLLOW_MS = 4000;
/** How long closed orders stay in what a page loads, milliseconds of bar time. */
const CLOSED_SHOWN_MS = 3600 * 1000;
/** An event may be this far ahead of the bar's clock, seconds of real time: what a device's measured offset may err. */
const AHEAD_S = 2;

export async function openBar({
  source,
  solver,
  importWorker,
  clockRate,
  warn,
}: BarServerParts): Promise<BarServer> {
  const recipes = await openRecipes(source, (message) => warn({}, message));
  const { book } = recipes;
  const log = await openLog(source, book, (message) => warn({}, message));
  const clock = await startClock(source.manager, clockRate, log.latestMs());
  let bar = await readBar(source.manager);
  let restoring = false;
  const imports = await openImportDesk({
    source,
    workerFile: importWorker,
    nowMs: clock.nowMs,
    warn,
    changed: () => void learnAgain(undefined),
    rewritten: async (write) => {
      restoring = true;
      try {
        await log.rewritten(write);
        await recipes.reload();
        bar = await readBar(source.manager);
        learnt = await learnAll(undefined);
        hub.broadcast('recipes', { recipes: recipes.saved() });
        await showBar();
      } finally {
        restoring = false;
      }
    },
  });
  const records = openRecords(source, imports.hidden);
  const traces = openTraces(source);
  const learning = openLearning({
    records,
    traces,
    state: log.state,
    bar: () => bar,
    recipe: (id) => recipes.versions(id).at(-1),
    nowMs: clock.nowMs,
  });
  const learnAll = async (by: string | undefined) => ({
    pace: await learning.pace(by),
    beds: await learning.beds(),
  });
  let learnt = await learnAll(undefined);
  /** The bench with what has been learnt of its people and coffees. */
  const shown = (): Bar => ({ ...bar, ...learnt });
  const planning = startPlanning(
    { state: log.state, seq: log.seq, bench: shown, book, nowMs: clock.nowMs, rate: clock.rate },
    solver,
    (planned) => hub.broadcast('plan', planned),
    (error) => warn({ err: error }, 'planning failed'),
  );
  const hub = openHub(
    log.after,
    () => [
      { name: 'recipes', data: { recipes: recipes.saved() } },
      { name: 'bar', data: shown() },
      { name: 'devices', data: devices.shown() },
      ...(planning.current() ? [{ name: 'plan' as const, data: planning.current() }] : []),
    ],
    () => ({ barMs: clock.nowMs() }),
  );
  await planning.replan('bench');
  const post: BarServer['post'] = async (events) => {
    const result = await log.append(events, checks);
    if (result.ok && result.appended.length > 0) {
      hub.broadcastEvents(result.appended);
      const happened = result.appended.map(({ event }) => event);
      devices.happened(happened);
      servedSince += happened.filter(({ type }) => type === 'brew-served').length;
      if (servedSince >= LEARN_EVERY) void learnAgain(happened.at(-1)?.by);
      // What is only remarked moves nothing.
      if (happened.some(({ type }) => !MOVES_NOTHING.has(type)))
        void planning.replan(happened.some(({ type }) => type === 'order-taken') ? 'order' : 'event');
    }
    return result;
  };
  const showBar = async () => {
    devices.follow(bar);
    hub.broadcast('bar', shown());
    hub.broadcast('devices', devices.shown());
    await planning.replan('bench');
  };
  let servedSince = 0;
  /** The hands at work are one person's where there is one pair; of two, what the bar is used to counts. */
  const learnAgain = async (by: string | undefined) => {
    servedSince = 0;
    const next = await learnAll(bar.hands === 1 ? by : undefined);
    if (JSON.stringify(next) === JSON.stringify(learnt)) return;
    learnt = next;
    hub.broadcast('bar', shown());
  };
  const following = setInterval(() => void planning.followTime(), FOLLOW_MS);
  following.unref();
  const devices = openDevices({
    time: clock,
    state: log.state,
    bar: () => bar,
    book,
    plan: () => planning.current()?.plan ?? null,
    post,
    traces,
    show: (scale) => hub.broadcast('scale', scale),
    showKettle: (kettle) => hub.broadcast('kettle', kettle),
    random: Math.random,
  });

  const checks = (event: BarEvent, state: BarState) =>
    tooFarAhead(event, clock) ?? notOnTheBench(event, state, bar, book);
  return {
    log,
    clock,
    hub,
    planning,
    bar: shown,
    recipes,
    devices,
    traces,
    records,
    learning,
    archive: () => archiveOf(source, bar),
    imports,
    post,
    change: async (change) => {
      if (restoring) return { ok: false, field: 'bar', reason: BEING_READ_IN };
      const busy = stationInUse(change, log.state(), bar);
      if (busy) return { ok: false, field: 'stations', reason: busy };
      bar = changeBar(bar, change);
      await writeBar(source.manager, bar);
      void showBar();
      return { ok: true, bar: shown() };
    },
    saveRecipe: async (asked) => {
      if (restoring) return { ok: false, why: 'conflict', reason: BEING_READ_IN };
      const saved = await recipes.save(asked);
      // Before any event that names the new version.
      if (saved.ok) hub.broadcast('recipes', { recipes: recipes.saved() });
      return saved;
    },
    snapshot: () => ({
      seq: log.seq(),
      state: forgetClosed(log.state(), clock.nowMs() - CLOSED_SHOWN_MS),
      bar: shown(),
      recipes: [...recipes.saved()],
      planned: planning.current(),
      barMs: clock.nowMs(),
      rate: clock.rate,
    }),
    health: async () => {
      const store = await source.query('SELECT 1').then(
        () => 'ok' as const,
        () => 'failing' as const,
      );
      const planner = planning.healthy() ? 'ok' : 'failing';
      return {
        status: store === 'ok' ? 'ok' : 'failing',
        store,
        planner,
        uptimeS: Math.round(process.uptime()),
        seq: log.seq(),
      };
    },
    close: async () => {
      clearInterval(following);
      planning.close();
      hub.close();
      devices.close();
      await imports.close();
      await traces.flush();
      await solver.close();
      await source.destroy();
    },
  };
}

/** A station with a brew on it stays as it is until it is cleaned. */
function stationInUse({ stations }: BarChange, state: BarState, bar: Bar): string | null {
  if (!stations) return null;
  const gone = bar.stations.find(
    ({ id, brewerId }) =>
      brewAt(state, id) && !stations.some((station) => station.id === id && station.brewerId === brewerId),
  );
  return gone ? `${gone.name} has a brew on it; take it off the bench once it is cleaned.` : null;
}

function tooFarAhead(event: BarEvent, clock: BarClock): Refused['refusal'] | null {
  const limitMs = clock.nowMs() + AHEAD_S * 1000 * Math.max(1, clock.rate);
  if (event.atMs <= limitMs) return null;
  return {
    code: 'in-the-future',
    field: 'atMs',
    reason: 'The event’s time is ahead of the bar’s clock. Take bar time from /api/clock.',
  };
}

/** A cup must be one that this bench can brew, and a brew must start at a station that stands on it. */
function notOnTheBench(
  event: BarEvent,
  state: BarState,
  bar: Bar,
  book: RecipeBook,
): Refused['refusal'] | null {
  if (event.type === 'order-taken') {
    for (const [index, cup] of event.cups.entries()) {
      const host = hostOf(state, cup);
      const found = cardFor(bar, host ? { ...cup, cups: (host.cups ?? 1) + (cup.cups ?? 1) } : cup, book);
      if (!found.ok)
        return {
          code: found.field === 'recipeId' ? 'unknown-recipe' : 'does-not-make-a-cup',
          field: `cups.${index}.${found.field}`,
          reason: found.reason,
        };
    }
  }
  if (event.type === 'brew-moved' && !bar.stations.some(({ id }) => id === event.stationId))
    return {
      code: 'unknown',
      field: 'stationId',
      reason: `There is no station ${event.stationId} on the bench.`,
    };
  if (event.type === 'brew-started') {
    const station = bar.stations.find(
      ({ id, brewerId }) => id === event.stationId && brewerId === event.brewerId,
    );
    const cup = state.orders[event.orderId]?.cups.find(({ cupId }) => cupId === event.cupId);
    const found = cup && cardFor(bar, cup, book);
    if (!station || !brewerById(event.brewerId))
      return {
        code: 'unknown',
        field: 'stationId',
        reason: `There is no station ${event.stationId} with a ${event.brewerId} on the bench.`,
      };
    if (found?.ok && !found.stations.some(({ id }) => id === station.id)) {
      return {
        code: 'does-not-make-a-cup',
        field: 'stationId',
        reason: `${station.name} cannot brew this cup; ${found.stations.map(({ name }) => name).join(', ')} can.`,
      };
    }
  }
  return null;
}
