/**
 * What was tapped here and is not yet known to be stored at the server. Kept in IndexedDB, in the order of the taps, so
 * that it survives a reload or an empty battery.
 */
import { openDB, type IDBPDatabase } from 'idb';
import type { BarEvent } from '@even-kettle/core/brew';

export type Outbox = {
  /** Everything that waits, in the order of the taps. */
  all: () => Promise<BarEvent[]>;
  put: (events: BarEvent[]) => Promise<void>;
  remove: (ids: string[]) => Promise<void>;
};

const DATABASE = 'even-kettle';
const TABLE = 'outbox';

export function openOutbox(): Outbox {
  let opened: Promise<IDBPDatabase> | null = null;
  const database = () =>
    (opened ??= openDB(DATABASE, 1, {
      upgrade: (db) => {
        db.createObjectStore(TABLE, { keyPath: 'place', autoIncrement: true }).createIndex('id', 'event.id', {
          unique: true,
        });
      },
    }));
  return {
    all: async () =>
      ((await (await database()).getAll(TABLE)) as { event: BarEvent }[]).map(({ event }) => event),
    put: async (events) => {
      const write = (await database()).transaction(TABLE, 'readwrite');
      await Promise.all([...events.map((event) => write.store.add({ event })), write.done]);
    },
    remove: async (ids) => {
      const write = (await database()).transaction(TABLE, 'readwrite');
      for (const id of ids) {
        const key = await write.store.index('id').getKey(id);
        if (key !== undefined) await write.store.delete(key);
      }
      await write.done;
    },
  };
}
