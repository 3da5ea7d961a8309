/**
 * The bar as this device knows it: what the server has confirmed, with this device's own taps on top until they are
 * confirmed too. Knows nothing of React.
 */
import {
  EMPTY_BAR,
  caughtUp,
  confirm,
  drop,
  freshReplica,
  seen,
  tap,
  unsent,
  whole,
  type BarEvent,
  type BarState,
  type Refusal,
  type Replica,
} from '@even-kettle/core/brew';
import type { Bar, LiveEvent, PublishedPlan, StorageState } from '@even-kettle/core/contract';
import type { Plan } from '@even-kettle/core/plan';
import type { BarGiven } from './plan.worker';
import { SCHOOLS, bookOf, latestOf, type Recipe, type RecipeBook } from '@even-kettle/core/recipe';
import { Refused, type Api, type Link } from './api';
import type { DeviceBoard } from './device-board';
import type { Keeper } from './kept';
import type { DeviceClock } from './clock';
import { decided } from './decided';
import type { Outbox } from './outbox';

export type Said = { id: string; text: string };

/** A change of what was planned next. */
export type PlanChange = Pick<PublishedPlan, 'moves' | 'because'> & { atMs: number };

export type BarView = {
  status: 'loading' | 'ready' | 'unreachable';
  link: Link;
  state: BarState;
  bar: Bar | null;
  /** The latest of each recipe, shipped or saved on this bar. */
  recipes: Recipe[];
  /** Every version that a cup or brew may name. */
  book: RecipeBook;
  plan: Plan | null;
  /** About when each order is out that waits behind those that are planned, seconds of bar time. */
  rough: Record<string, number>;
  /** Cups that cannot be brewed as the bench stands, and why. */
  unplannable: PublishedPlan['unplannable'];
  /** Room on the server's disk. */
  storage: StorageState;
  /** What of the next steps was planned anew last, and why. */
  change: PlanChange | null;
  /** Taps that wait to be stored at the server. */
  waiting: number;
  /** What was refused, and why, until it has been read. */
  refusals: Said[];
  /** The latest tap here, while it can be taken back from the hands card. */
  undoable: { eventIds: string[]; label: string; untilRealMs: number } | null;
};

export type BarStore = {
  view: () => BarView;
  subscribe: (listener: () => void) => () => void;
  /** Loads the bar and stays in touch with it. */
  open: () => Promise<void>;
  close: () => void;
  /** Takes events at once and stores them as soon as can be. False where the bar's rules refuse them. */
  act: (events: BarEvent[], label?: string) => boolean;
  undo: () => void;
  dismiss: (id: string) => void;
  /** The bar as it is known here, for a planner's question; null before it is loaded. */
  given: () => BarGiven | null;
  /** Settings that came back from a change of them. */
  tookBar: (bar: Bar) => void;
  /** A recipe that was saved from here. */
  tookRecipe: (recipe: Recipe) => void;
};

type Parts = {
  api: Api;
  outbox: Outbox;
  clock: DeviceClock;
  newId: () => string;
  /** Plans on this device, for while the server is away. */
  planLocally: (given: BarGiven) => Promise<Plan | null>;
  /** Where the bar as it is known here is kept for a time with no server. */
  keeper?: Keeper;
  devices?: DeviceBoard;
  realNow?: () => number;
};

export const UNDO_MS = 10_000;
const POST_AT_ONCE = 50;
/** Further than this from the server's beat and the clock is measured anew, real milliseconds. */
const DRIFT_MS = 400;
/** How long after a change the bar is kept anew. */
const KEEP_MS = 1200;
/** Answers that are about what was posted: at odds with the bar, or not valid. */
const OF_THE_EVENTS: ReadonlySet<number> = new Set([400, 409, 413, 422]);
const RETRY_MS = [300, 600, 1200, 2500, 5000];

export function openStore({
  api,
  outbox,
  clock,
  newId,
  planLocally,
  keeper,
  devices,
  realNow = () => Date.now(),
}: Parts): BarStore {
  const listeners = new Set<() => void>();
  let replica: Replica = freshReplica();
  let saved: Recipe[] = [];
  let view: BarView = {
    status: 'loading',
    link: 'connecting',
    state: EMPTY_BAR,
    bar: null,
    recipes: latestOf(SCHOOLS),
    book: bookOf(SCHOOLS),
    plan: null,
    rough: {},
    unplannable: [],
    storage: { level: 'enough', freeMb: null },
    change: null,
    waiting: 0,
    refusals: [],
    undoable: null,
  };
  let closeLive: (() => void) | null = null;
  let draining: Promise<void> | null = null;
  let tries = 0;
  let retry: ReturnType<typeof setTimeout> | null = null;
  let loadWanted = false;
  let streaming = false;
  let alone = false;
  let closed = false;
  let keeping: ReturnType<typeof setTimeout> | null = null;

  const show = (change: Partial<BarView>) => {
    view = { ...view, ...change };
    for (const listener of listeners) listener();
    if (change.state || change.bar || change.plan) keep();
  };
  const takeRecipes = (recipes: Recipe[]) => {
    saved = recipes;
    const all = [...SCHOOLS, ...saved];
    show({ recipes: latestOf(all), book: bookOf(all) });
  };
  const showState = () => show({ state: whole(replica, view.book), waiting: unsent(replica).length });
  const tell = (text: string) => show({ refusals: [...view.refusals, { id: newId(), text }].slice(-3) });

  async function load(): Promise<void> {
    try {
      const [snapshot] = await Promise.all([api.state(), clock.measure()]);
      if (closed) return;
      replica = caughtUp(replica, snapshot);
      takeRecipes(snapshot.recipes);
      show({
        status: 'ready',
        bar: snapshot.bar,
        plan: snapshot.planned?.plan ?? null,
        rough: snapshot.planned?.rough ?? {},
        unplannable: snapshot.planned?.unplannable ?? [],
        storage: snapshot.storage,
      });
      showState();
      closeLive?.();
      closeLive = api.live(replica.seq, {
        onEvent,
        onPlan,
        onRecipes: ({ recipes }) => takeRecipes(recipes),
        onBar: (bar) => show({ bar }),
        onStorage: (storage) => show({ storage }),
        onDevices: (all) => devices?.tookAll(all),
        onScale: (scale) => devices?.tookScale(scale),
        onKettle: (kettle) => devices?.tookKettle(kettle),
        onBeat: (barMs) => {
          // A machine that slept stopped its monotonic clock with it, and nobody may have told the page.
          if (Math.abs(clock.nowMs() - barMs) > DRIFT_MS * clock.rate())
            void clock.measure().catch(() => undefined);
        },
        onLink,
        onLost: () => later(load),
      });
      tries = 0;
      void drain();
    } catch {
      if (!view.bar) await openKept();
      show({ link: 'away', ...(view.bar ? {} : { status: 'unreachable' as const }) });
      devices?.lost();
      later(load);
    }
  }

  /** With no server, the bar as this device last knew it, its own taps on top. */
  async function openKept(): Promise<void> {
    const kept = await keeper?.read().catch(() => null);
    if (!kept || closed || view.bar) return;
    clock.carryOn(kept.clock);
    replica = caughtUp(replica, kept);
    takeRecipes(kept.recipes);
    show({ status: 'ready', bar: kept.bar, plan: kept.plan });
    showState();
    void planHere();
  }

  /** Not at every tap: what is written a moment later is the same. */
  function keep(): void {
    if (!keeper || keeping || !view.bar || closed) return;
    keeping = setTimeout(() => {
      keeping = null;
      if (!view.bar) return;
      const { bar, plan } = view;
      const { confirmed: state, seq } = replica;
      const now = { barMs: clock.nowMs(), rate: clock.rate(), wallMs: Date.now() };
      void keeper.write({ seq, state, bar, recipes: saved, plan, clock: now }).catch(() => undefined);
    }, KEEP_MS);
  }

  /** Tries again after a while. Loading the bar anew posts what waits as well, so it goes before that. */
  function later(work: () => Promise<void>): void {
    if (work === load) loadWanted = true;
    if (closed || retry) return;
    retry = setTimeout(
      () => {
        retry = null;
        const next = loadWanted ? load : work;
        loadWanted = false;
        void next();
      },
      RETRY_MS[Math.min(tries, RETRY_MS.length - 1)],
    );
    tries += 1;
  }

  function onEvent(entry: LiveEvent): void {
    const next = seen(replica, entry, view.book);
    // The log has no gaps. If this device has one, it loads the bar anew rather than go on from a wrong state.
    if (!next) return later(load);
    if (next === replica) return;
    const mine = replica.own.some(({ id }) => id === entry.event.id);
    replica = next;
    if (mine) void outbox.remove([entry.event.id]);
    showState();
  }

  function onPlan({ plan, rough, unplannable, moves, because }: PublishedPlan): void {
    show({
      plan,
      rough,
      unplannable,
      ...(moves.length > 0 ? { change: { moves, because, atMs: clock.nowMs() } } : {}),
    });
  }

  function onLink(link: Link): void {
    streaming = link === 'live';
    show({ link });
    if (link !== 'live') return devices?.lost();
    tries = 0;
    void clock.measure().catch(() => undefined);
    void drain();
  }

  /** Posts what waits, in order, until nothing does or the server cannot be reached. */
  function drain(): Promise<void> {
    draining ??= (async () => {
      for (let batch = nextPost(); batch.length > 0 && !closed; batch = nextPost()) {
        try {
          const { seq } = await api.postEvents(batch);
          const ids = batch.map(({ id }) => id);
          replica = confirm(replica, ids, seq);
          await outbox.remove(ids);
          showState();
          tries = 0;
        } catch (error) {
          // Only what is said of the events themselves takes one of them away; anything else may pass.
          if (!(error instanceof Refused) || !OF_THE_EVENTS.has(error.status)) {
            show({ link: 'away' });
            later(drain);
            return;
          }
          const named = error.problem.errors?.some(({ eventId }) => eventId !== undefined);
          // Of many, nobody says which: each is posted by itself, and only the one at fault goes.
          if (!named && batch.length > 1) alone = true;
          else await dropRefused(batch, error);
        }
      }
      alone = false;
      // A post that failed for a moment says nothing of the stream, which may never have been cut.
      if (streaming && view.link !== 'live') show({ link: 'live' });
    })().finally(() => (draining = null));
    return draining;
  }

  const nextPost = () => unsent(replica).slice(0, alone ? 1 : POST_AT_ONCE);

  /** One event of a post was refused, so none of it was stored: that one goes, the rest is posted again. */
  async function dropRefused(batch: BarEvent[], { problem }: Refused): Promise<void> {
    const fault = problem.errors?.find((each) => each.eventId !== undefined);
    const ids = fault ? [fault.eventId!] : batch.map(({ id }) => id);
    const refused = batch.filter(({ id }) => ids.includes(id));
    replica = drop(replica, ids);
    await outbox.remove(ids);
    showState();
    tell(fault ? decided(refused[0]!, fault, view.state) : problem.detail);
  }

  function act(events: BarEvent[], label?: string): boolean {
    const tapped = tap(replica, view.state, events, view.book);
    if (!tapped.ok) {
      sayRefusal(tapped.refusal);
      return false;
    }
    replica = tapped.replica;
    const undoable = label
      ? { eventIds: events.map(({ id }) => id), label, untilRealMs: realNow() + UNDO_MS }
      : null;
    show({ state: tapped.state, waiting: unsent(replica).length, undoable });
    // What cannot be kept here (a browser with storage switched off) is still sent.
    void outbox
      .put(events)
      .catch(() => undefined)
      .then(drain);
    if (view.link !== 'live') void planHere();
    return true;
  }

  const sayRefusal = (refusal: Refusal) => {
    if (refusal.code !== 'already-done') tell(refusal.reason);
  };

  async function planHere(): Promise<void> {
    const bar = given();
    if (!bar) return;
    const plan = await planLocally(bar).catch(() => null);
    if (plan && view.link !== 'live') show({ plan });
  }

  const given = (): BarGiven | null =>
    view.bar && { state: view.state, bench: view.bar, saved, nowMs: clock.nowMs(), plan: view.plan };

  return {
    view: () => view,
    given,
    subscribe: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    open: async () => {
      replica = freshReplica(await outbox.all().catch(() => []));
      showState();
      await load();
    },
    close: () => {
      closed = true;
      closeLive?.();
      if (retry) clearTimeout(retry);
      if (keeping) clearTimeout(keeping);
    },
    act,
    undo: () => {
      const { undoable } = view;
      if (!undoable || realNow() > undoable.untilRealMs) return show({ undoable: null });
      const atMs = clock.nowMs();
      act(
        undoable.eventIds
          .toReversed()
          .map((eventId) => ({ id: newId(), type: 'event-undone', atMs, eventId })),
      );
      show({ undoable: null });
    },
    dismiss: (id) => show({ refusals: view.refusals.filter((said) => said.id !== id) }),
    tookBar: (bar) => show({ bar }),
    tookRecipe: (recipe) => takeRecipes([...saved, recipe]),
  };
}
