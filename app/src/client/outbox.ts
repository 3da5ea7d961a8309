/**
 * What was tapped here and is not yet known to be stored at the server. Kept in IndexedDB, in the order of the taps, so
 * that it survives a reload or an empty battery.
 */
import type { BarEvent } from '@even-kettle/core/brew';
import { OUTBOX, database } from './database';

export type Outbox = {
  /** Everything that waits, in the order of the taps. */
  all: () => Promise<BarEvent[]>;
  put: (events: BarEvent[]) => Promise<void>;
  remove: (ids: string[]) => Promise<void>;
};

/**
 * What has been tapped and is not yet known to be in the database. Written at once, before the tap is shown, so that a
 * page that is closed in the same instant has it still.
 */
const JOURNAL = 'even-kettle.tapped';

function readJournal(): BarEvent[] {
  try {
    return JSON.parse(globalThis.localStorage?.getItem(JOURNAL) ?? '[]') as BarEvent[];
  } catch {
    return [];
  }
}

function writeJournal(events: readonly BarEvent[]): void {
  try {
    if (events.length === 0) globalThis.localStorage?.removeItem(JOURNAL);
    else globalThis.localStorage?.setItem(JOURNAL, JSON.stringify(events));
  } catch {
    // Full or switched off: the database alone has to do.
  }
}

export function openOutbox(): Outbox {
  return {
    all: async () => {
      const stored = ((await (await database()).getAll(OUTBOX)) as { event: BarEvent }[]).map(
        ({ event }) => event,
      );
      const known = new Set(stored.map(({ id }) => id));
      return [...stored, ...readJournal().filter(({ id }) => !known.has(id))];
    },
    put: async (events) => {
      writeJournal([...readJournal(), ...events]);
      const write = (await database()).transaction(OUTBOX, 'readwrite');
      await Promise.all([...events.map((event) => write.store.add({ event })), write.done]);
      const stored = new Set(events.map(({ id }) => id));
      writeJournal(readJournal().filter(({ id }) => !stored.has(id)));
    },
    remove: async (ids) => {
      const write = (await database()).transaction(OUTBOX, 'readwrite');
      for (const id of ids) {
        const key = await write.store.index('id').getKey(id);
        if (key !== undefined) await write.store.delete(key);
      }
      await write.done;
      const gone = new Set(ids);
      const left = readJournal();
      if (left.some(({ id }) => gone.has(id))) writeJournal(left.filter(({ id }) => !gone.has(id)));
    },
  };
}
