/**
 * The bar's server, put together: store, clock, log, planning and live stream. HTTP is a face on it.
 */
import type { DataSource } from 'typeorm';
import type { Bar, BarChange, SaveRecipe, Snapshot } from '@even-kettle/core/contract';
import { forgetClosed, movesThePlan, openOrders } from '@even-kettle/core/brew';
import { admission } from './bar/admission';
import { versionOf, whyNotNow } from './bar/change';
import { GO_BACK, openHealth, type Health } from './bar/health';
import { SYSTEM_CLOCK, plausibleUntilMs, startClock, type BarClock, type ClockSources } from './bar-clock';
import { changeBar, readBar, writeBar } from './bench';
import { openDevices, type DeviceHub } from './devices/devices';
import { openHub, type LiveHub } from './http/live';
import { startPlanning, type Planning } from './planning/planning';
import type { Solver } from './planning/solver';
import { faultsOf } from './store/database';
import { openLog, type Appended, type EventLog } from './store/log';
import { watchSpace } from './store/space';
import { openTraces, type TraceShelf } from './store/traces';
import { openRecords, type RecordShelf } from './store/records';
import { StoreFailed, alone, transactionNow, whenUnclean } from './store/transaction';
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
  post: (events: readonly unknown[]) => Promise<Appended>;
  /**
   * Changes settings, or says which of them cannot be changed just now.
   * @param change what to change, or how it follows from the settings as they stand
   * @param basedOn the version of the settings that it was made from; refused where they have changed since
   */
  change: (change: BarChange | ((bar: Bar) => BarChange), basedOn?: string) => Promise<Changed>;
  /** Names the settings as they stand: another after every change. */
  barVersion: () => string;
  saveRecipe: (asked: SaveRecipe) => Promise<Saved>;
  snapshot: () => Snapshot;
  health: () => Promise<Health>;
  close: () => Promise<void>;
};

export type Changed =
  { ok: true; bar: Bar } | { ok: false; why: 'in-use' | 'changed-since'; field: string; reason: string };

export type BarServerParts = {
  source: DataSource;
  solver: Solver;
  /** The script of the worker that reads large files in. */
  importWorker: URL;
  clockRate: number;
  warn: (detail: unknown, message: string) => void;
  /** Names the code that makes the state of the log, so that kept states are taken up by the same alone. */
  rules?: string;
  /** The process can be trusted no more and has to end. */
  fatal?: (error: Error) => void;
  clockSources?: Omit<ClockSources, 'isIdle'>;
  freeBytes?: (folder: string) => Promise<number>;
};

/** Hands' pace and what beds do are learnt anew after so many cups. */
const LEARN_EVERY = 10;
const BEING_READ_IN = 'The whole bar is being read in from a file; wait until that is done.';
/** How often it is looked whether the bar has fallen behind its plan, real milliseconds. */
const FOLLOW_MS = 4000;
/** How long closed orders stay in what a page loads, milliseconds of bar time. */
const CLOSED_SHOWN_MS = 3600 * 1000;
const CHANGED_SINCE =
  'The bench has been changed from another device meanwhile. Load it again; then change it.';

export async function openBar({
  source,
  solver,
  importWorker,
  clockRate,
  warn,
  rules = '',
  fatal = () => undefined,
  clockSources = SYSTEM_CLOCK,
  freeBytes,
}: BarServerParts): Promise<BarServer> {
  whenUnclean(source, fatal);
  /** What goes on by itself is told where it fails; nobody else hears of it. */
  const unawaited = (work: Promise<unknown>, what: string) =>
    void work.catch((error: unknown) => warn({ err: error }, `${what} failed`));
  const faults = await faultsOf(source);
  if (faults.length > 0) warn({ faults }, `the database is damaged. ${GO_BACK}`);
  const recipes = await openRecipes(source, (message) => warn({}, message));
  const { book } = recipes;
  const log = await openLog(source, book, {
    warn: (message) => warn({}, message),
    plausibleUntilMs: await plausibleUntilMs(source.manager, clockRate, {
      ...clockSources,
      isIdle: () => true,
    }),
    rules,
  });
  const clock = await startClock(source, clockRate, log.latestMs(), {
    ...clockSources,
    isIdle: () => openOrders(log.state()).length === 0,
  });
  let bar = await readBar(source.manager, (message) => warn({}, message));
  let restoring = false;
  const imports = await openImportDesk({
    source,
    workerFile: importWorker,
    nowMs: clock.nowMs,
    warn,
    changed: () => unawaited(learnAgain(undefined), 'learning'),
    rewritten: async (write) => {
      restoring = true;
      try {
        await log.rewritten(write);
        await recipes.reload();
        bar = await readBar(source.manager, (message) => warn({}, message));
        learnt = await learnAll(undefined);
        hub.broadcast('recipes', { recipes: recipes.saved() });
        await showBar();
      } finally {
        restoring = false;
      }
    },
  });
  let mending: Promise<unknown> | null = null;
  const mendRecords = () => {
    if (mending) return;
    warn({}, 'a record of a brew cannot be read; all of them are made anew from the log');
    mending = log.rebuildRecords();
    // Not again and again: what a new making does not mend is another fault.
    unawaited(mending, 'making the records anew');
  };
  const records = openRecords(source, imports.hidden, mendRecords);
  const traces = openTraces(source, warn);
  const learning = openLearning({
    records,
    traces,
    state: log.state,
    bar: () => bar,
    recipe: (id) => recipes.versions(id).at(-1),
    nowMs: clock.nowMs,
  });
  const learnAll = async (by: string | undefined): Promise<Pick<Bar, 'pace' | 'beds' | 'promiseShare'>> => {
    const promiseShare = await learning.promiseShare();
    return {
      pace: await learning.pace(by),
      beds: await learning.beds(),
      ...(promiseShare === null ? {} : { promiseShare }),
    };
  };
  // What was learnt is a help, and no reason not to start.
  let learnt = await learnAll(undefined).catch((error: unknown) => {
    warn({ err: error }, 'nothing could be learnt from the log');
    mendRecords();
    return { pace: {}, beds: {} };
  });
  /** The bench with what has been learnt of its people and coffees. */
  const shown = (): Bar => ({ ...bar, ...learnt, version: versionOf(bar) });
  const planning = startPlanning(
    { state: log.state, seq: log.seq, bench: shown, book, nowMs: clock.nowMs, rate: clock.rate },
    solver,
    (planned) => hub.broadcast('plan', planned),
    (error) => warn({ err: error }, 'planning failed'),
  );
  const space = await watchSpace(
    String(source.options.database),
    (storage) => hub.broadcast('storage', storage),
    freeBytes,
  );
  const health = openHealth(source, faults, log, planning, space);
  const hub = openHub(
    log.after,
    () => [
      { name: 'recipes', data: { recipes: recipes.saved() } },
      { name: 'bar', data: shown() },
      { name: 'devices', data: devices.shown() },
      { name: 'storage', data: space.now() },
      ...(planning.current() ? [{ name: 'plan' as const, data: planning.current() }] : []),
    ],
    () => ({ barMs: clock.nowMs() }),
  );
  // Whoever listens is answered, whether there is a plan yet or not.
  unawaited(planning.replan('bench'), 'planning');
  const admit = admission({ clock, bar: () => bar, book });
  const post: BarServer['post'] = async (events) => {
    if (faults.length > 0) throw new StoreFailed('damaged', `The database is damaged. ${GO_BACK}`);
    const result = await log.append(events, admit).catch((error: unknown) => {
      health.refused();
      throw error;
    });
    health.took();
    if (result.ok && result.appended.length > 0) {
      hub.broadcastEvents(result.appended);
      const happened = result.appended.map(({ event }) => event);
      devices.happened(happened);
      servedSince += happened.filter(({ type }) => type === 'brew-served').length;
      if (servedSince >= LEARN_EVERY) unawaited(learnAgain(happened.at(-1)?.by), 'learning');
      // What is only remarked moves nothing.
      if (happened.some(movesThePlan))
        unawaited(
          planning.replan(happened.some(({ type }) => type === 'order-taken') ? 'order' : 'event'),
          'planning',
        );
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
  const following = setInterval(() => unawaited(planning.followTime(), 'planning'), FOLLOW_MS);
  following.unref();
  const devices = openDevices({
    time: clock,
    state: log.state,
    bar: () => bar,
    book,
    plan: () => planning.current()?.plan ?? null,
    post,
    traces,
    warn,
    show: (scale) => hub.broadcast('scale', scale),
    showKettle: (kettle) => hub.broadcast('kettle', kettle),
    random: Math.random,
  });
  const barVersion = () => versionOf(bar);

  return {
    log,
    clock,
    hub,
    planning,
    bar: shown,
    barVersion,
    recipes,
    devices,
    traces,
    records,
    learning,
    archive: () => archiveOf(String(source.options.database)),
    imports,
    post,
    change: (asked, basedOn) =>
      // One after the other, so that each is made from what the one before it left.
      alone(source, async (): Promise<Changed> => {
        if (restoring) return { ok: false, why: 'in-use', field: 'bar', reason: BEING_READ_IN };
        if (basedOn !== undefined && basedOn !== barVersion())
          return { ok: false, why: 'changed-since', field: 'bar', reason: CHANGED_SINCE };
        const change = typeof asked === 'function' ? asked(bar) : asked;
        const next = changeBar(bar, change);
        const busy = whyNotNow(change, log.state(), book, bar, next);
        if (busy) return { ok: false, why: 'in-use', field: Object.keys(change)[0]!, reason: busy };
        await transactionNow(source, (manager) => writeBar(manager, next));
        bar = next;
        unawaited(showBar(), 'showing the bench');
        return { ok: true, bar: shown() };
      }),
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
      storage: space.now(),
      barMs: clock.nowMs(),
      rate: clock.rate,
    }),
    health: health.look,
    close: async () => {
      clearInterval(following);
      space.close();
      planning.close();
      hub.close();
      devices.close();
      await imports.close();
      await log.settled();
      await mending?.catch(() => undefined);
      await traces
        .flush()
        .catch((error: unknown) => warn({ err: error }, 'the last weights were not stored'));
      await solver.close();
      await alone(source, () => source.destroy());
    },
  };
}
