/**
 * What this device keeps of its own, in IndexedDB.
 */
import { openDB, type IDBPDatabase } from 'idb';

export const OUTBOX = 'outbox';
export const KEPT = 'kept';

let opened: Promise<IDBPDatabase> | null = null;

export function database(): Promise<IDBPDatabase> {
  opened ??= openDB('even-kettle', 2, {
    upgrade: (db, from) => {
      if (from < 1)
        db.createObjectStore(OUTBOX, { keyPath: 'place', autoIncrement: true }).createIndex(
          'id',
          'event.id',
          {
            unique: true,
          },
        );
      if (from < 2) db.createObjectStore(KEPT);
    },
    // Another page of this app asks for a newer one; it must not wait for this.
    blocking: (_from, _to, event) => (event.target as IDBDatabase).close(),
  }).catch((error: unknown) => {
    opened = null;
    throw error;
  });
  return opened;
}
