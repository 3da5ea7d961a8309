/**
 * One lane for what must not overlap: SQLite has one connection here, and a transaction must not be entered by another
 * request's writes.
 */
export type SerialQueue = <Result>(work: () => Promise<Result>) => Promise<Result>;

export function serialQueue(): SerialQueue {
  let last: Promise<unknown> = Promise.resolve();
  return (work) => {
    const next = last.then(work, work);
    last = next.catch(() => undefined);
    return next;
  };
}
