/**
 * The bar's settings: read once, changed one after the other, each change made from what the one before it left.
 */
import type { DataSource, EntityManager } from 'typeorm';
import type { BarState } from '@even-kettle/core/brew';
import type { Bar, BarChange } from '@even-kettle/core/contract';
import type { RecipeBook } from '@even-kettle/core/recipe';
import { changeBar, readBar, writeBar } from '../bench';
import { alone, transactionNow } from '../store/transaction';
import { versionOf, whyNotNow } from './change';

export type Changed =
  { ok: true; bar: Bar } | { ok: false; why: 'in-use' | 'changed-since'; field: string; reason: string };

/** A change that may be made, to be written by somebody who writes more with it. */
export type Staged =
  | { ok: true; bar: Bar; write: (manager: EntityManager) => Promise<void>; commit: () => void }
  | Extract<Changed, { ok: false }>;

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
  /** For those who are alone with the database: the same in two halves. Nothing is changed before `commit`. */
  stage: (change: BarChange) => Staged;
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
  const stage: Settings['stage'] = (change) => {
    if (isRestoring()) return { ok: false, why: 'in-use', field: 'bar', reason: BEING_READ_IN };
    const next = changeBar(bar, change);
    const busy = whyNotNow(change, state(), book, bar, next);
    if (busy) return { ok: false, why: 'in-use', field: Object.keys(change)[0]!, reason: busy };
    return {
      ok: true,
      bar: next,
      write: (manager) => writeBar(manager, next),
      commit: () => void (bar = next),
    };
  };
  return {
    now: () => bar,
    stage,
    version,
    reload: async () => {
      bar = await read();
    },
    change: (asked, basedOn) =>
      alone(source, async (): Promise<Changed> => {
        if (basedOn !== undefined && basedOn !== version())
          return { ok: false, why: 'changed-since', field: 'bar', reason: CHANGED_SINCE };
        const staged = stage(typeof asked === 'function' ? asked(bar) : asked);
        if (!staged.ok) return staged;
        await transactionNow(source, staged.write);
        staged.commit();
        return { ok: true, bar };
      }),
  };
}
