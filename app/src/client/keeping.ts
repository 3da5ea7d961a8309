/**
 * Stores the bar as this device knows it, and opens on it while there is no server.
 */
import { rebase } from '@even-kettle/core/brew';
import type { ViewHolder } from './bar-view';
import type { DeviceClock } from './clock';
import type { OfflineSnapshots } from './offline-snapshot';
import type { ReplicaHolder } from './replica-holder';

/** How long after a change the bar is kept anew. */
const KEEP_MS = 1200;

type Parts = {
  snapshots: OfflineSnapshots | undefined;
  clock: DeviceClock;
  view: ViewHolder;
  replica: ReplicaHolder;
  isClosed: () => boolean;
};

export type Keeping = {
  /** Shows the bar as it was last known here, with this device's own taps. False if nothing is stored, or more is known already. */
  open: () => Promise<boolean>;
  changed: () => void;
  close: () => void;
};

export function openKeeping({ snapshots, clock, view, replica, isClosed }: Parts): Keeping {
  let timer: ReturnType<typeof setTimeout> | null = null;
  const write = () => {
    timer = null;
    const { bar, plan, me } = view.now();
    if (!snapshots || !bar) return;
    const { confirmed: state, seq } = replica.now();
    const now = { barMs: clock.nowMs(), rate: clock.rate(), wallMs: Date.now() };
    void snapshots
      .write({ seq, state, bar, recipes: view.saved(), plan, me, clock: now })
      .catch(() => undefined);
  };
  return {
    open: async () => {
      const kept = await snapshots?.read().catch(() => null);
      if (!kept || isClosed() || view.now().bar) return false;
      clock.carryOn(kept.clock);
      view.takeRecipes(kept.recipes);
      view.show({ status: 'ready', bar: kept.bar, plan: kept.plan, me: kept.me ?? null });
      replica.become(rebase(replica.now(), kept));
      return true;
    },
    changed: () => {
      // Not at every tap, because what is written a moment later is the same.
      if (snapshots && !timer && view.now().bar && !isClosed()) timer = setTimeout(write, KEEP_MS);
    },
    close: () => {
      if (timer) clearTimeout(timer);
    },
  };
}
