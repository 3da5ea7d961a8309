/**
 * What has been tapped and is not yet known to be in the database. Written at once, before the tap is shown, so that a page
 * that is closed in the same instant has it still. Each event has a key of its own: two pages of one browser write here at
 * the same time, and one that kept a list would overwrite what the other has just added.
 */
import type { BarEvent } from '@even-kettle/core/brew';

const KEY = 'even-kettle.tapped.';
/** Where the version before kept all of them in one list. */
const LIST = 'even-kettle.tapped';

export type Journal = {
  /** In the order of the taps: an event's id begins with its time. */
  all: () => BarEvent[];
  add: (events: readonly BarEvent[]) => void;
  remove: (ids: Iterable<string>) => void;
};

export function openJournal(storage: () => Storage | undefined): Journal {
  /** Full or switched off: the database alone has to do. */
  const attempt = <Result>(work: (on: Storage) => Result, otherwise: Result): Result => {
    try {
      const on = storage();
      return on ? work(on) : otherwise;
    } catch {
      return otherwise;
    }
  };
  const read = (on: Storage, key: string): BarEvent[] => {
    try {
      const kept = JSON.parse(on.getItem(key) ?? '[]') as BarEvent | BarEvent[];
      return Array.isArray(kept) ? kept : [kept];
    } catch {
      return [];
    }
  };
  const add = (events: readonly BarEvent[]) =>
    attempt((on) => events.forEach((event) => on.setItem(KEY + event.id, JSON.stringify(event))), undefined);
  return {
    add,
    all: () =>
      attempt((on) => {
        const listed = read(on, LIST);
        add(listed);
        on.removeItem(LIST);
        const keys = Array.from({ length: on.length }, (_, n) => on.key(n) ?? '');
        return keys
          .filter((key) => key.startsWith(KEY))
          .sort()
          .flatMap((key) => read(on, key));
      }, []),
    remove: (ids) =>
      attempt((on) => {
        for (const id of ids) on.removeItem(KEY + id);
      }, undefined),
  };
}
