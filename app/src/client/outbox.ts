/**
 * What was tapped here and is not yet known to be stored at the server. Kept in IndexedDB, in the order of the taps, so
 * that it survives a reload or an empty battery.
 */
import type { BarEvent } from '@even-kettle/core/brew';
import { OUTBOX, database } from './database';
import { openJournal } from './journal';

export type Outbox = {
  /** Everything that waits, in the order of the taps. */
  all: () => Promise<BarEvent[]>;
  put: (events: BarEvent[]) => Promise<void>;
  remove: (ids: string[]) => Promise<void>;
};

export function openOutbox(): Outbox {
  const journal = openJournal(() => globalThis.localStorage);
  return {
    all: async () => {
      const stored = ((await (await database()).getAll(OUTBOX)) as { event: BarEvent }[]).map(
        ({ event }) => event,
      );
      const known = new Set(stored.map(({ id }) => id));
      return [...stored, ...journal.all().filter(({ id }) => !known.has(id))];
    },
    put: async (events) => {
      journal.add(events);
      const write = (await database()).transaction(OUTBOX, 'readwrite');
      await Promise.all([...events.map((event) => write.store.add({ event })), write.done]);
      journal.remove(events.map(({ id }) => id));
    },
    remove: async (ids) => {
      const write = (await database()).transaction(OUTBOX, 'readwrite');
      for (const id of ids) {
        const key = await write.store.index('id').getKey(id);
        if (key !== undefined) await write.store.delete(key);
      }
      await write.done;
      journal.remove(ids);
    },
  };
}
