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

export function openOutbox(): Outbox {
  return {
    all: async () =>
      ((await (await database()).getAll(OUTBOX)) as { event: BarEvent }[]).map(({ event }) => event),
    put: async (events) => {
      const write = (await database()).transaction(OUTBOX, 'readwrite');
      await Promise.all([...events.map((event) => write.store.add({ event })), write.done]);
    },
    remove: async (ids) => {
      const write = (await database()).transaction(OUTBOX, 'readwrite');
      for (const id of ids) {
        const key = await write.store.index('id').getKey(id);
        if (key !== undefined) await write.store.delete(key);
      }
      await write.done;
    },
  };
}
