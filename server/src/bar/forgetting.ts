/**
 * Guests are forgotten by the clock: in the log, in the records, in the snapshots and in the copies beside the database. A
 * bar that comes from an earlier version, or out of an archive, is told a day before what will be forgotten.
 */
import type { DataSource } from 'typeorm';
import type { Bar } from '@even-kettle/core/contract';
import { forgetGuestsInCopies } from '../copies/forget-in-copies';
import { GUESTS_KEPT_DAYS, guestsBefore } from '../store/guests';
import type { EventLog } from '../store/log';
import { readSetting, writeSetting } from '../store/settings-table';
import { inTransaction } from '../store/transaction';

const DAY_MS = 86_400_000;
/** How long before it is done it is told, milliseconds of bar time. */
const NOTICE_MS = DAY_MS;
/** The setting that holds from when on guests are forgotten here, bar time. */
const FROM = 'guests-forgotten-from';

type Parts = {
  source: DataSource;
  log: Pick<EventLog, 'forgetGuests'>;
  bar: () => Bar;
  nowMs: () => number;
  warn: (detail: unknown, message: string) => void;
  /** Where copies of the database are. */
  copyFolders: readonly string[];
  /** Called when there is something to tell, and when it is over. */
  changed: () => void;
};

export type Forgetting = {
  /** What will be forgotten, and when; undefined once it is. */
  due: () => Bar['guestsDue'];
  /** Forgets whom the bar's days have passed, unless the notice still runs. */
  look: () => Promise<void>;
  /** The bar keeps guests for other days now: what is told of those that are due changes. */
  daysChanged: () => Promise<void>;
  /** Another log is in place of the one before: it has a day's notice of its own. */
  restored: () => Promise<void>;
};

export async function openForgetting({
  source,
  log,
  bar,
  nowMs,
  warn,
  copyFolders,
  changed,
}: Parts): Promise<Forgetting> {
  const beforeMs = () => nowMs() - (bar().guestsKeptDays ?? GUESTS_KEPT_DAYS) * DAY_MS;
  let due: Bar['guestsDue'];
  let fromMs = (await readSetting<{ atMs: number }>(source.manager, FROM).catch(() => null))?.atMs ?? null;

  let copiesMs = -Infinity;
  const tell = (told: Bar['guestsDue']) => {
    if (JSON.stringify(told) === JSON.stringify(due)) return;
    due = told;
    changed();
  };
  const dueAt = async (atMs: number): Promise<Bar['guestsDue']> => {
    const found = await guestsBefore(source.manager, beforeMs());
    return found.orders > 0 ? { ...found, atMs } : undefined;
  };
  const recount = async () => {
    if (nowMs() < fromMs!) tell(await dueAt(fromMs!));
  };
  const begin = async () => {
    const { orders } = await guestsBefore(source.manager, beforeMs());
    fromMs = Math.round(nowMs() + (orders > 0 ? NOTICE_MS : 0));
    await inTransaction(source, (manager) => writeSetting(manager, FROM, { atMs: fromMs }));
    if (orders === 0) return;
    warn(
      { orders },
      `The names and words of the guests of ${orders} earlier orders will be forgotten in a day. How long they are kept is set on the Bench, under Guests.`,
    );
  };
  try {
    if (fromMs === null) await begin();
    if (nowMs() < fromMs!) due = await dueAt(fromMs!);
  } catch (error) {
    // A damaged log: the bar shows what can be read, and nothing of it is forgotten.
    fromMs ??= Infinity;
    warn({ err: error }, 'it could not be counted whose guests will be forgotten');
  }

  return {
    due: () => due,
    daysChanged: recount,
    restored: async () => {
      await begin();
      await recount();
    },
    look: async () => {
      if (nowMs() < fromMs!) return recount();
      await log.forgetGuests(beforeMs());
      tell(undefined);
      if (nowMs() < copiesMs + DAY_MS) return;
      copiesMs = nowMs();
      for (const folder of copyFolders)
        await forgetGuestsInCopies(folder, beforeMs(), (copy, error) =>
          warn({ err: error }, `the guests in the copy ${copy} could not be forgotten`),
        );
    },
  };
}
