/**
 * The bar as this device knows it: what the server has confirmed, with this device's own taps on top until they are
 * confirmed too. Knows nothing of React.
 */
import { freshReplica, applyLocally, type BarEvent } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import type { Plan } from '@even-kettle/core/plan';
import type { Recipe } from '@even-kettle/core/recipe';
import type { Api } from './api';
import { openView, type BarView } from './bar-view';
import type { DeviceClock } from './clock';
import { openConnection, type Connection } from './connection';
import type { DeviceReadings } from './device-board';
import { openKeeping, type Keeping } from './keeping';
import type { OfflineSnapshots } from './offline-snapshot';
import type { Outbox } from './outbox';
import type { BarGiven } from './plan.worker';
import { openPosting } from './posting';
import { holdReplica, type ReplicaHolder } from './replica-holder';
import { openRetries } from './retries';

export type { BarView, Notice, PlanChange } from './bar-view';

export type BarStore = {
  view: () => BarView;
  subscribe: (listener: () => void) => () => void;
  /** Loads the bar and stays in touch with it. */
  open: () => Promise<void>;
  close: () => void;
  /** Loads the bar anew: this device was paired. */
  reload: () => Promise<void>;
  /** Applies events at once and stores them as soon as possible. False if the bar's rules refuse them. */
  act: (events: BarEvent[], label?: string) => boolean;
  undo: () => void;
  dismiss: (id: string) => void;
  /** The bar as this device knows it, for a question to the planner; null before it is loaded. */
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
  /** The planner of this device, for use while the server is away. */
  planLocally: (given: BarGiven) => Promise<Plan | null>;
  /** Where the bar is stored for a time without a server. */
  snapshots?: OfflineSnapshots;
  devices?: DeviceReadings;
  realNow?: () => number;
};

export const UNDO_MS = 10_000;

export function openStore(parts: Parts): BarStore {
  const { outbox, clock, newId, snapshots, realNow = () => Date.now() } = parts;
  let closed = false;
  const view = openView(newId, ({ state, bar, plan }) => {
    if (state || bar || plan) keeping.changed();
  });
  const replica = holdReplica(view);
  const retries = openRetries();
  const shared = { ...parts, view, replica, retries, isClosed: () => closed };
  const drain = openPosting({
    ...shared,
    reload: () => connection.load(),
    isStreaming: () => connection.isStreaming(),
  });
  const keeping = openKeeping({ ...shared, snapshots });
  const openOffline = async () => {
    if (await keeping.open()) void planHere();
  };
  const connection: Connection = openConnection({
    ...shared,
    devices: parts.devices,
    drain,
    openOffline,
    forget: () => forgetAll({ keeping, outbox, snapshots, replica }),
  });
  const given = () => givenOf(view.now(), view.saved(), clock.nowMs());

  function act(events: BarEvent[], label?: string): boolean {
    const tapped = applyLocally(replica.now(), view.now().state, events, view.now().book);
    if (!tapped.ok) {
      if (tapped.refusal.code !== 'already-done') view.tell(tapped.refusal.reason);
      return false;
    }
    const undoable = label
      ? { eventIds: events.map(({ id }) => id), label, untilRealMs: realNow() + UNDO_MS }
      : null;
    replica.become(tapped.replica, { state: tapped.state, undoable });
    // What cannot be kept here (a browser with storage switched off) is still sent.
    void outbox
      .put(events)
      .catch(() => undefined)
      .then(drain);
    if (view.now().link !== 'live') void planHere();
    return true;
  }

  function undo(): void {
    const { undoable } = view.now();
    if (undoable && realNow() <= undoable.untilRealMs) {
      const atMs = clock.nowMs();
      const last = undoable.eventIds.toReversed();
      act(last.map((eventId) => ({ id: newId(), type: 'event-undone', atMs, eventId })));
    }
    view.show({ undoable: null });
  }

  async function planHere(): Promise<void> {
    const bar = given();
    if (!bar) return;
    const plan = await parts.planLocally(bar).catch(() => null);
    if (plan && view.now().link !== 'live') view.show({ plan });
  }

  return {
    view: view.now,
    given,
    subscribe: view.subscribe,
    open: async () => {
      replica.become(freshReplica(await outbox.all().catch(() => [])));
      await connection.load();
    },
    close: () => {
      closed = true;
      connection.close();
      retries.close();
      keeping.close();
    },
    reload: connection.load,
    act,
    undo,
    dismiss: (id) => view.show({ refusals: view.now().refusals.filter((said) => said.id !== id) }),
    tookBar: (bar) => view.show({ bar }),
    tookRecipe: (recipe) => view.takeRecipes([...view.saved(), recipe]),
  };
}

const givenOf = ({ state, bar, plan }: BarView, saved: Recipe[], nowMs: number): BarGiven | null =>
  bar && { state, bench: bar, saved, nowMs, plan };

/** Nothing of the bar stays on a device that was taken off it. */
async function forgetAll({
  keeping,
  outbox,
  snapshots,
  replica,
}: Pick<Parts, 'outbox' | 'snapshots'> & { keeping: Keeping; replica: ReplicaHolder }): Promise<void> {
  keeping.close();
  const waiting = await outbox.all().catch(() => []);
  await outbox.remove(waiting.map(({ id }) => id)).catch(() => undefined);
  await snapshots?.clear().catch(() => undefined);
  replica.become(freshReplica());
}
