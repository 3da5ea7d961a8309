/**
 * The bar as this device last knew it, kept on the device, so that the app opens and brews with the server away.
 */
import type { BarState } from '@even-kettle/core/brew';
import type { Bar, Me } from '@even-kettle/core/contract';
import type { Plan } from '@even-kettle/core/plan';
import type { Recipe } from '@even-kettle/core/recipe';
import type { ClockReading } from './clock';
import { KEPT, database } from './database';
import { upgradedKept } from './kept-upgrades';
import { isOfflineSnapshot } from './shapes';

export type OfflineSnapshot = {
  seq: number;
  state: BarState;
  bar: Bar;
  recipes: Recipe[];
  plan: Plan | null;
  /** Who the server took this device for. */
  me?: Me | null;
  /** Bar time when it was kept, and this device's wall clock then. */
  clock: ClockReading & { wallMs: number };
};

export type OfflineSnapshots = {
  read: () => Promise<OfflineSnapshot | null>;
  write: (kept: OfflineSnapshot) => Promise<void>;
  /** Deletes it, with what was set aside. */
  clear: () => Promise<void>;
};

/** This number changes when a state of an earlier version cannot be read any more. */
const KEY = 'bar@2';

/** What could not be read is stored under this key, for whoever looks into it, until something else cannot be read. */
const SET_ASIDE = 'bar, set aside';

export const openOfflineSnapshots = (): OfflineSnapshots => ({
  read: async () => {
    const stored = await database();
    const found = upgradedKept(await stored.get(KEPT, KEY));
    if (found === undefined || isOfflineSnapshot(found)) return found ?? null;
    await stored.put(KEPT, found, SET_ASIDE);
    await stored.delete(KEPT, KEY);
    return null;
  },
  write: async (kept) => void (await (await database()).put(KEPT, kept, KEY)),
  clear: async () => {
    const stored = await database();
    await Promise.all([stored.delete(KEPT, KEY), stored.delete(KEPT, SET_ASIDE)]);
  },
});
