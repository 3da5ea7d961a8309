/**
 * The bar's settings: read once, changed one after the other, each change made from what the one before it left.
 */
import type { DataSource } from 'typeorm';
import type { BarState } from '@even-kettle/core/brew';
import type { Bar, BarChange } from '@even-kettle/core/contract';
import type { RecipeBook } from '@even-kettle/core/recipe';
import { changeBar, readBar, writeBar } from '../bench';
import { alone, transactionNow } from '../store/transaction';
import { versionOf, whyNotNow } from './change';

export type Changed =
  { ok: true; bar: Bar } | { ok: false; why: 'in-use' | 'changed-since'; field: string; reason: string };

export type Settings = {
  now: () => Bar;
  /** Names the settings as they stand: another after every change. */
  version: () => string;
  /** Reads them anew: they were written by somebody else. */
  reload: () => Promise<void>;
  /**
   * @param change what to change, or how it follows from the settings as they stand
   * @param basedOn the version of the settings that it was made from; refused where they have changed since
   */
  change: (change: BarChange | ((bar: Bar) => BarChange), basedOn?: string) => Promise<Changed>;
};

export const BEING_READ_IN = 'The whole bar is being read in from a file; wait until that is done.';
const CHANGED_SINCE =
  'The bench has been changed from another device meanwhile. Load it again; then change it.';

type Parts = {
  source: DataSource;
  warn: (detail: unknown, message: string) => void;
  state: () => BarState;
  book: RecipeBook;
  /** The whole bar is being replaced. */
  isRestoring: () => boolean;
};

export async function openSettings({ source, warn, state, book, isRestoring }: Parts): Promise<Settings> {
  const read = () => readBar(source.manager, (message) => warn({}, message));
  let bar = await read();
  const version = () => versionOf(bar);
  return {
    now: () => bar,
    version,
    reload: async () => {
      bar = await read();
    },
    change: (asked, basedOn) =>
      alone(source, async (): Promise<Changed> => {
        if (isRestoring()) return { ok: false, why: 'in-use', field: 'bar', reason: BEING_READ_IN };
        if (basedOn !== undefined && basedOn !== version())
          return { ok: false, why: 'changed-since', field: 'bar', reason: CHANGED_SINCE };
        const change = typeof asked === 'function' ? asked(bar) : asked;
        const next = changeBar(bar, change);
        const busy = whyNotNow(change, state(), book, bar, next);
        if (busy) return { ok: false, why: 'in-use', field: Object.keys(change)[0]!, reason: busy };
        await transactionNow(source, (manager) => writeBar(manager, next));
        bar = next;
        return { ok: true, bar };
      }),
  };
}
