/**
 * The connection to the bar: loads it, follows its stream, and loads it again if something was missed.
 */
import { rebase, receiveLogged } from '@even-kettle/core/brew';
import type { LiveEvent, PublishedPlan, Snapshot } from '@even-kettle/core/contract';
import type { Api } from './api';
import type { BarView, ViewHolder } from './bar-view';
import type { DeviceClock } from './clock';
import type { DeviceReadings } from './device-board';
import type { Link } from './live';
import type { Outbox } from './outbox';
import type { ReplicaHolder } from './replica-holder';
import { Refused, Unreadable } from './request';
import type { Retries } from './retries';

/** If the clock is further than this from the server's, it is measured again, real milliseconds. */
const DRIFT_MS = 400;

type Parts = {
  api: Api;
  clock: DeviceClock;
  outbox: Outbox;
  devices: DeviceReadings | undefined;
  view: ViewHolder;
  replica: ReplicaHolder;
  retries: Retries;
  /** Posts what waits. */
  drain: () => Promise<void>;
  /** The server cannot be reached, and there is nothing to show yet. */
  openOffline: () => Promise<void>;
  /** Deletes what this device keeps of the bar. */
  forget: () => Promise<void>;
  isClosed: () => boolean;
};

export type Connection = { load: () => Promise<void>; isStreaming: () => boolean; close: () => void };

export function openConnection(parts: Parts): Connection {
  const { api, clock, outbox, devices, view, replica, retries, drain, openOffline, forget, isClosed } = parts;
  let closeStream: (() => void) | null = null;
  let streaming = false;
  // Loading the bar anew posts what waits as well, so it goes before that.
  const loadLater = () => retries.later(load, true);
  const measure = () => void clock.measure().catch(() => undefined);

  async function load(): Promise<void> {
    try {
      const [snapshot] = await Promise.all([api.state(), clock.measure()]);
      if (isClosed()) return;
      view.takeRecipes(snapshot.recipes);
      view.show(shownOf(snapshot));
      replica.become(rebase(replica.now(), snapshot));
      closeStream?.();
      closeStream = stream();
      retries.worked();
      void drain();
    } catch (error) {
      const shut = error instanceof Refused ? whyShut(error) : null;
      if (shut) return shutOut(shut);
      if (error instanceof Unreadable) view.show({ contract: error.contract });
      if (!view.now().bar) await openOffline();
      view.show({ link: 'away', ...(view.now().bar ? {} : { status: 'unreachable' as const }) });
      devices?.lost();
      loadLater();
    }
  }

  /** The server does not take this device for one of the bar's: nothing is shown, and nothing is tried again by itself. */
  async function shutOut(shut: NonNullable<BarView['shut']>): Promise<void> {
    closeStream?.();
    streaming = false;
    view.show({ shut, link: 'away', bar: null, status: 'loading' });
    // A device that was taken off keeps no guest's name, and none of its taps.
    if (shut === 'revoked') await forget();
    devices?.lost();
  }

  const stream = () =>
    api.live(replica.now().seq, {
      on: {
        'bar-event': onEvent,
        plan: onPlan,
        recipes: ({ recipes }) => view.takeRecipes(recipes),
        bar: (bar) => view.show({ bar }),
        storage: (storage) => view.show({ storage }),
        // Its role has changed, or it was taken off.
        me: () => void load(),
        devices: (all) => devices?.tookAll(all),
        scale: (scale) => devices?.tookScale(scale),
        kettle: (kettle) => devices?.tookKettle(kettle),
        beat: ({ barMs, contract = 0 }) => {
          if (contract !== view.now().contract) view.show({ contract });
          // A machine that slept stopped its monotonic clock with it, and nobody may have told the page.
          if (Math.abs(clock.nowMs() - barMs) > DRIFT_MS * clock.rate()) measure();
        },
      },
      onLink,
      onLost: loadLater,
    });

  function onEvent(entry: LiveEvent): void {
    const next = receiveLogged(replica.now(), entry, view.now().book);
    // The log has no gaps. If this device has one, it loads the bar anew rather than go on from a wrong state.
    if (!next) return loadLater();
    if (next === replica.now()) return;
    const mine = replica.now().pending.some(({ id }) => id === entry.event.id);
    if (mine) void outbox.remove([entry.event.id]);
    replica.become(next);
  }

  function onPlan({ plan, rough, unplannable, moves, because }: PublishedPlan): void {
    view.show({
      plan,
      rough,
      unplannable,
      ...(moves.length > 0 ? { change: { moves, because, atMs: clock.nowMs() } } : {}),
    });
  }

  function onLink(link: Link): void {
    streaming = link === 'live';
    view.show({ link });
    if (link !== 'live') return devices?.lost();
    retries.worked();
    measure();
    void drain();
  }

  return { load, isStreaming: () => streaming, close: () => closeStream?.() };
}

/** Null where it was refused for another reason, which may pass. */
function whyShut({ status, problem: { type } }: Refused): BarView['shut'] {
  if (status === 403 && type.endsWith(':not-for-this-role')) return 'other-role';
  if (status !== 401) return null;
  return type.endsWith(':revoked') ? 'revoked' : 'not-paired';
}

const shownOf = ({ bar, planned, storage, contract, me }: Snapshot): Partial<BarView> => ({
  status: 'ready',
  bar,
  plan: planned?.plan ?? null,
  rough: planned?.rough ?? {},
  unplannable: planned?.unplannable ?? [],
  storage,
  contract: contract ?? 0,
  me: me ?? null,
  shut: null,
});
