/**
 * The bar as this device last knew it, kept on the device, so that the app opens and brews with the server away.
 */
import type { BarState } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import type { Plan } from '@even-kettle/core/plan';
import type { Recipe } from '@even-kettle/core/recipe';
import type { ClockReading } from './clock';
import { KEPT, database } from './database';

export type KeptBar = {
  seq: number;
  state: BarState;
  bar: Bar;
  recipes: Recipe[];
  plan: Plan | null;
  /** Bar time when it was kept, and this device's wall clock then. */
  clock: ClockReading & { wallMs: number };
};

export type Keeper = { read: () => Promise<KeptBar | null>; write: (kept: KeptBar) => Promise<void> };

/** The number is another where a state of before cannot be read as one of today. */
const KEY = 'bar@2';

export const openKeeper = (): Keeper => ({
  read: async () => ((await (await database()).get(KEPT, KEY)) as KeptBar | undefined) ?? null,
  write: async (kept) => void (await (await database()).put(KEPT, kept, KEY)),
});
