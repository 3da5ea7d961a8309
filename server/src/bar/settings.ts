/**
 * The bar's settings: read once, then changed one after the other, each change based on the result of the one before.
 */
import type { DataSource, EntityManager } from 'typeorm';
import type { BarState } from '@even-kettle/core/brew';
import type { Bar, BarChange } from '@even-kettle/core/contract';
import type { RecipeBook } from '@even-kettle/core/recipe';
import { changeBar, readBar, writeBar } from '../bench';
import { readSetting, writeSetting } from '../store/settings-table';
import { alone, transactionNow } from '../store/transaction';
import { unknownBrewer, versionOf, whyNotNow } from './change';

export type Changed =
  | { ok: true; bar: Bar }
  | { ok: false; why: 'in-use' | 'changed-since' | 'not-valid'; field: string; reason: string };

/** A change that was checked, to be written by a caller that writes more in the same transaction. */
export type Staged =
  | { ok: true; bar: Bar; write: (manager: EntityManager) => Promise<void>; commit: () => void }
  | Extract<Changed, { ok: false }>;

/** Which settings were changed at a time. */
export type SettingsChange = { atMs: number; settings: string[] };

export type Settings = {
  now: () => Bar;
  /** The latest changes, oldest first. */
  changes: () => readonly SettingsChange[];
  /** The version of the settings: it differs after every change. */
  version: () => string;
  /** Reads them again after somebody else has written them. */
  reload: () => Promise<void>;
  /**
   * @param change the new values, or a function that makes them from the current settings
   * @param basedOn the version that the change was made from; refused if the settings have changed since
   */
  change: (change: BarChange | ((bar: Bar) => BarChange), basedOn?: string) => Promise<Changed>;
  /** The same in two halves, for callers that write in a transaction of their own. Nothing changes before `commit`. */
  stage: (change: BarChange) => Staged;
};

export const BEING_READ_IN = 'The whole bar is being read in from a file; wait until that is done.';
const CHANGES = 'bar-changes';
const CHANGES_KEPT = 60;
const CHANGED_SINCE =
  'The bench has been changed from another device meanwhile. Load it again; then change it.';

type Parts = {
  source: DataSource;
  warn: (detail: unknown, message: string) => void;
  state: () => BarState;
  book: RecipeBook;
  nowMs: () => number;
  /** Used when the whole bar is replaced by an archive. */
  isRestoring: () => boolean;
};

export async function openSettings({
  source,
  warn,
  state,
  book,
  nowMs,
  isRestoring,
}: Parts): Promise<Settings> {
  const read = () => readBar(source.manager, (message) => warn({}, message));
  let bar = await read();
  let changes = (await readSetting<SettingsChange[]>(source.manager, CHANGES).catch(() => null)) ?? [];
  const version = () => versionOf(bar);
  const stage: Settings['stage'] = (change) => {
    if (isRestoring()) return { ok: false, why: 'in-use', field: 'bar', reason: BEING_READ_IN };
    const next = changeBar(bar, change);
    const unknown = unknownBrewer(next);
    if (unknown) return { ok: false, why: 'not-valid', ...unknown };
    const busy = whyNotNow(change, state(), book, bar, next);
    if (busy) return { ok: false, why: 'in-use', field: Object.keys(change)[0]!, reason: busy };
    const changed = [...changes, { atMs: nowMs(), settings: Object.keys(change) }].slice(-CHANGES_KEPT);
    return {
      ok: true,
      bar: next,
      write: async (manager) => {
        await writeBar(manager, next);
        await writeSetting(manager, CHANGES, changed);
      },
      commit: () => {
        bar = next;
        changes = changed;
      },
    };
  };
  return {
    now: () => bar,
    changes: () => changes,
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
