/**
 * The bar's server, put together: store, clock, log, planning and live stream. The HTTP part uses it.
 */
import { randomBytes } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import { CONTRACT_VERSION } from '@even-kettle/core/contract/contract-version';
import type {
  Bar,
  OutsideOrder,
  OutsideOrderStands,
  SaveRecipe,
  Snapshot,
  TakeAdvice,
} from '@even-kettle/core/contract';
import { brewIdOf, movesThePlan, shownState, openOrders, type BarEvent } from '@even-kettle/core/brew';
import { openFeed, type OrderFeed } from './bar/order-feed';
import { outsideOrders, type OutsideTaken, type Till } from './bar/outside-orders';
import { admission } from './bar/admission';
import { adviceTaker, type AdviceTaken } from './bar/take-advice';
import { openOutlook, type GuestOutlook } from './bar/outlook';
import { openCopies, type Copies } from './copies/copies';
import type { Proof } from './copies/prove';
import { openForgetting } from './bar/forgetting';
import { openHealth, type Health } from './bar/health';
import { openLearntSettings } from './bar/learnt-settings';
import { BEING_READ_IN, openSettings, type Settings } from './bar/settings';
import { settleBar } from './bench';
import { SYSTEM_CLOCK, plausibleUntilMs, startClock, type BarClock, type ClockSources } from './bar-clock';
import { openDevices, type DeviceServices } from './devices/devices';
import { openOutlookStreams, type OutlookStreams } from './http/outlook-streams';
import { openBroadcaster, type Broadcaster } from './http/broadcaster';
import { startPlanning, type Planning } from './planning/planning';
import type { Quoter } from './planning/quoter';
import type { Solver } from './planning/solver';
import { goBack, whyNoStart } from './store/cannot-open';
import { faultsOf } from './store/database';
import { openLog, type Appended, type EventLog } from './store/log';
import { watchSpace } from './store/space';
import { openTraces, type TraceRepository } from './store/traces';
import { openRecords, type RecordRepository } from './store/records';
import { StoreFailed, alone, inTransaction, whenUnclean } from './store/transaction';
import { openLearning, type Learning } from './learnt';
import { archiveOf } from './files/archive';
import { openImportService, type ImportService } from './imports/import-service';
import { openPractice, type PracticeRepository } from './store/practice';
import { openRecipes, type RecipeRepository, type Saved } from './store/recipes';

export type BarServer = {
  log: EventLog;
  clock: BarClock;
  broadcaster: Broadcaster;
  planning: Planning;
  bar: () => Bar;
  recipes: RecipeRepository;
  practice: PracticeRepository;
  devices: DeviceServices;
  traces: TraceRepository;
  records: RecordRepository;
  learning: Learning;
  /** The whole bar as one file, in pieces. */
  archive: (withoutGuests?: boolean) => AsyncGenerator<string>;
  /** Imports of large files: a log from elsewhere, or an archive into an empty bar. */
  imports: ImportService;
  /** Stores events; planning and the other devices follow. */
  post: (events: readonly unknown[]) => Promise<Appended>;
  /** Takes an order from outside, once for each key. */
  takeOutside: (asked: OutsideOrder, till?: Till) => Promise<OutsideTaken>;
  /** How an order from outside stands; null where there is none of that key. */
  outsideStands: (key: string, till?: Till) => Promise<OutsideOrderStands | null>;
  /** The simulated order feed. */
  feed: OrderFeed;
  /** Changes settings, or returns the reason why they cannot be changed now. */
  change: Settings['change'];
  /** The version of the settings: it differs after every change. */
  barVersion: () => string;
  settingsChanges: Settings['changes'];
  saveRecipe: (asked: SaveRecipe) => Promise<Saved>;
  /** Accepts a brew's advice for its coffee and records that in the log, in one transaction. */
  takeAdvice: (brewId: string, asked: TakeAdvice) => Promise<AdviceTaken>;
  snapshot: () => Snapshot;
  /** What guests see, and the streams of it. */
  copies: Copies;
  outlook: GuestOutlook;
  outlookStreams: OutlookStreams;
  health: () => Promise<Health>;
  close: () => Promise<void>;
};

export type BarServerParts = {
  source: DataSource;
  solver: Solver;
  /** Works out when orders from outside would be out. */
  quoter: Quoter;
  /** The script of the worker that imports large files. */
  importWorker: URL;
  clockRate: number;
  warn: (detail: unknown, message: string) => void;
  /** Names the code that makes the state: snapshots of other code are not used. */
  rules?: string;
  /** Called when the process is in an unknown state and has to end. */
  fatal?: (error: Error) => void;
  clockSources?: Omit<ClockSources, 'isIdle'>;
  /** Looks a copy through: its pages, and that its log makes a state. */
  proveCopy: (file: string) => Promise<Proof>;
  /** A further folder for copies, on another disk or a share. */
  copiesTo?: string;
  /** What the addresses of guests' orders are made with; one of this start's own if left out. */
  guestSecret?: string;
  freeBytes?: (folder: string) => Promise<number>;
};

/** How often it checks whether the bar has fallen behind its plan, real milliseconds. */
const FOLLOW_MS = 4000;
/** How often it looks for guests who are to be forgotten, real milliseconds. */
const FORGET_MS = 3600 * 1000;
/** How often it looks whether it is time for a copy, real milliseconds. */
const COPY_LOOK_MS = 600 * 1000;
/** How long closed orders stay in the state that a page loads, milliseconds of bar time. */
const CLOSED_SHOWN_MS = 3600 * 1000;
/** The store and the clock: everything else needs them. */
async function openStored({
  source,
  clockRate,
  warn,
  rules = '',
  fatal = () => undefined,
  clockSources = SYSTEM_CLOCK,
}: BarServerParts) {
  whenUnclean(source, fatal);
  const faults = await faultsOf(source);
  let goBackText: string | null = null;
  // Looked up once, and only if it is needed: copies are looked through for it.
  const goBackSaid = () => (goBackText ??= goBack(String(source.options.database)));
  if (faults.length > 0) warn({ faults }, `the database is damaged. ${goBackSaid()}`);
  // A disk or a file that takes nothing just now must not keep the bar shut.
  await inTransaction(source, settleBar).catch((error: unknown) =>
    warn({ err: error }, 'the bench could not be stored'),
  );
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
  return { faults, goBackSaid, recipes, book, log, clock, traces: openTraces(source, warn) };
}

/** Rebuilds all records from the log; one rebuild at a time, and none again for a fault that a rebuild did not repair. */
function recordMender(log: EventLog, { warn }: BarServerParts, unawaited: Unawaited) {
  let mending: Promise<unknown> | null = null;
  return {
    mend: () => {
      if (mending) return;
      warn({}, 'a record of a brew cannot be read; all of them are made anew from the log');
      mending = log.rebuildRecords();
      unawaited(mending, 'making the records anew');
    },
    settled: async () => void (await mending?.catch(() => undefined)),
  };
}

type Unawaited = (work: Promise<unknown>, what: string) => void;

/** @throws CannotStart where the database cannot be opened, and starting again is of no use */
export const openBar = (parts: BarServerParts): Promise<BarServer> =>
  openParts(parts).catch((error: unknown) => {
    throw whyNoStart(error, String(parts.source.options.database)) ?? error;
  });

// eslint-disable-next-line max-lines-per-function -- it puts the parts together, each by a line or a few
async function openParts(parts: BarServerParts): Promise<BarServer> {
  const { source, solver, warn } = parts;
  const background = new Set<Promise<unknown>>();
  /** Reports the failure of background work, which nobody else awaits before the bar is closed. */
  const unawaited: Unawaited = (work, what) => {
    const settled = work
      .catch((error: unknown) => warn({ err: error }, `${what} failed`))
      .finally(() => background.delete(settled));
    background.add(settled);
  };
  const { faults, goBackSaid, recipes, book, log, clock, traces } = await openStored(parts);
  let restoring = false;
  const settings = await openSettings({
    source,
    warn,
    state: log.state,
    book,
    nowMs: clock.nowMs,
    isRestoring: () => restoring,
  });
  const showRecipes = () => broadcaster.broadcast('recipes', { recipes: recipes.saved() });
  const imports = await openImportService({
    source,
    workerFile: parts.importWorker,
    nowMs: clock.nowMs,
    warn,
    changed: () => unawaited(learnt.again(), 'learning'),
    rewritten: async (write) => {
      restoring = true;
      try {
        await log.rewritten(async () => {
          await write();
          // The log is read by them: an order by a recipe that is not known here would be passed over.
          await recipes.reload();
          await settings.reload();
        });
        await learnt.again();
        await forgetting.restored();
        showRecipes();
        await showBar();
      } finally {
        restoring = false;
      }
    },
  });
  const mender = recordMender(log, parts, unawaited);
  const records = openRecords(source, imports.hidden, mender.mend);
  const learning = openLearning({
    records,
    traces,
    state: log.state,
    bar: settings.now,
    recipe: (id) => recipes.versions(id).at(-1),
    versions: recipes.versions,
    nowMs: clock.nowMs,
  });
  const learnt = await openLearntSettings(
    learning,
    settings,
    (error) => {
      warn({ err: error }, 'nothing could be learnt from the log');
      mender.mend();
    },
    () => broadcaster.broadcast('bar', shownBar()),
  );
  const copies = openCopies({
    databaseFile: String(source.options.database),
    second: parts.copiesTo ?? null,
    now: () => ({ state: log.state(), seq: log.seq() }),
    prove: parts.proveCopy,
    warn,
    changed: () => unawaited(space.look(), 'looking at the disk'),
  });
  const forgetting = await openForgetting({
    copyFolders: copies.folders,
    source,
    log,
    bar: settings.now,
    nowMs: clock.nowMs,
    warn,
    changed: () => broadcaster.broadcast('bar', shownBar()),
  });
  const shownBar = (): Bar => {
    const due = forgetting.due();
    return due ? { ...learnt.shown(), guestsDue: due } : learnt.shown();
  };
  const planning = startPlanning(
    { state: log.state, seq: log.seq, bench: learnt.shown, book, nowMs: clock.nowMs, rate: clock.rate },
    solver,
    (planned) => {
      broadcaster.broadcast('plan', planned);
      outlookStreams.changed();
    },
    (error) => warn({ err: error }, 'planning failed'),
  );
  const space = await watchSpace(
    String(source.options.database),
    (storage) => broadcaster.broadcast('storage', storage),
    parts.freeBytes,
    copies,
  );
  const health = openHealth(source, faults, goBackSaid, log, planning, space, copies);
  const broadcaster = openBroadcaster(
    log.after,
    () => [
      { name: 'recipes', data: { recipes: recipes.saved() } },
      { name: 'bar', data: shownBar() },
      { name: 'devices', data: devices.shown() },
      { name: 'storage', data: space.now() },
      ...(planning.current() ? [{ name: 'plan' as const, data: planning.current() }] : []),
    ],
    () => ({ barMs: clock.nowMs(), contract: CONTRACT_VERSION }),
  );
  const outlookStreams = openOutlookStreams(() => ({ barMs: clock.nowMs() }));
  const outlook = openOutlook(
    parts.guestSecret ?? randomBytes(32).toString('base64url'),
    () => {
      const planned = planning.current();
      return {
        state: log.state(),
        bench: settings.now(),
        plan: planned?.plan ?? null,
        rough: planned?.rough ?? {},
      };
    },
    clock.nowMs,
  );
  // Pages are answered even before there is a plan.
  unawaited(planning.replan('bench'), 'planning');
  const admit = admission({ clock, bar: settings.now, book });
  const follow = (happened: BarEvent[]) => {
    devices.happened(happened);
    unawaited(learnt.happened(happened), 'learning');
    // Remarks do not change the plan.
    if (!happened.some(movesThePlan)) return;
    const because = happened.some(({ type }) => type === 'order-taken') ? 'order' : 'event';
    const urged = happened.some(({ type }) => type === 'order-urged');
    unawaited(planning.replan(because, urged), 'planning');
  };
  const post = async (
    events: readonly unknown[],
    beside?: (writer: EntityManager) => Promise<void>,
  ): Promise<Appended> => {
    if (faults.length > 0) throw new StoreFailed('damaged', `The database is damaged. ${goBackSaid()}`);
    const result = await log.append(events, admit, beside).catch((error: unknown) => {
      health.refused();
      throw error;
    });
    health.took();
    if (result.ok && result.appended.length > 0) {
      copies.passed(log.state(), log.seq());
      broadcaster.broadcastEvents(result.appended);
      outlookStreams.changed();
      follow(result.appended.map(({ event }) => event));
    }
    return result;
  };
  const takeAdvice = adviceTaker({
    state: log.state,
    learning,
    settings,
    append: (event, beside) => post([event], beside),
  });
  const outside = outsideOrders({
    bar: learnt.shown,
    state: log.state,
    recipes: recipes.latest,
    book,
    plan: () => planning.current()?.plan ?? null,
    quoter: parts.quoter,
    earlier: async (eventId, orderId) => {
      const event = await log.byId(eventId);
      if (event?.type !== 'order-taken') return null;
      const record = await records.one(brewIdOf(`${orderId}-1`, 1));
      return { taken: event, badge: record?.badge ?? null };
    },
    nowMs: clock.nowMs,
    post: (events) => post(events),
  });
  const feed = await openFeed({
    source,
    nowMs: clock.nowMs,
    rate: clock.rate,
    bar: learnt.shown,
    take: outside.take,
    random: Math.random,
    warn: (error) => warn({ err: error }, 'the order feed failed'),
  });
  const showBar = async () => {
    devices.follow(settings.now());
    broadcaster.broadcast('bar', shownBar());
    broadcaster.broadcast('devices', devices.shown());
    await planning.replan('bench');
  };
  const forgetGuests = () => {
    if (!restoring) unawaited(forgetting.look(), 'forgetting guests');
  };
  forgetGuests();
  const forgetsHourly = setInterval(forgetGuests, FORGET_MS);
  forgetsHourly.unref();
  const copiesNightly = setInterval(() => unawaited(copies.look(), 'copying the bar'), COPY_LOOK_MS);
  copiesNightly.unref();
  const following = setInterval(() => unawaited(planning.followTime(), 'planning'), FOLLOW_MS);
  following.unref();
  const devices = openDevices({
    time: clock,
    state: log.state,
    bar: settings.now,
    book,
    plan: () => planning.current()?.plan ?? null,
    post: (events) => post(events),
    traces,
    warn,
    show: (scale) => broadcaster.broadcast('scale', scale),
    showKettle: (kettle) => broadcaster.broadcast('kettle', kettle),
    random: Math.random,
  });

  return {
    log,
    clock,
    broadcaster,
    planning,
    bar: shownBar,
    barVersion: settings.version,
    settingsChanges: settings.changes,
    recipes,
    copies,
    outlook,
    outlookStreams,
    practice: openPractice(source, (message) => warn({}, message)),
    devices,
    traces,
    records,
    learning,
    archive: (withoutGuests) => archiveOf(source.manager, withoutGuests),
    imports,
    post: (events) => post(events),
    takeOutside: outside.take,
    outsideStands: outside.stands,
    feed,
    takeAdvice: async (brewId, asked) => {
      const taken = await takeAdvice(brewId, asked);
      if (taken.ok) unawaited(showBar(), 'showing the bench');
      return taken;
    },
    change: async (asked, basedOn) => {
      const changed = await settings.change(asked, basedOn);
      if (!changed.ok) return changed;
      unawaited(showBar(), 'showing the bench');
      if (typeof asked === 'function' || 'guestsKeptDays' in asked)
        unawaited(forgetting.daysChanged(), 'counting guests');
      return { ok: true, bar: shownBar() };
    },
    saveRecipe: async (asked) => {
      if (restoring) return { ok: false, why: 'conflict', reason: BEING_READ_IN };
      const saved = await recipes.save(asked);
      // Sent before any event that names the new version.
      if (saved.ok) showRecipes();
      return saved;
    },
    snapshot: () => ({
      seq: log.seq(),
      state: shownState(log.state(), clock.nowMs() - CLOSED_SHOWN_MS),
      bar: shownBar(),
      recipes: [...recipes.saved()],
      planned: planning.current(),
      storage: space.now(),
      contract: CONTRACT_VERSION,
      barMs: clock.nowMs(),
      rate: clock.rate,
    }),
    health: health.look,
    close: async () => {
      clearInterval(following);
      clearInterval(forgetsHourly);
      clearInterval(copiesNightly);
      await feed.close();
      space.close();
      planning.close();
      broadcaster.close();
      outlookStreams.close();
      devices.close();
      await imports.close();
      await log.settled();
      await mender.settled();
      await traces
        .flush()
        .catch((error: unknown) => warn({ err: error }, 'the last weights were not stored'));
      await Promise.all([solver.close(), parts.quoter.close()]);
      // What still reads would find the database closed.
      await Promise.all(background);
      await alone(source, () => source.destroy());
    },
  };
}
