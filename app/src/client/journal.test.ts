/** The journal of taps: what one page writes is not overwritten by another that has not seen it yet. */
import type { BarEvent } from '@even-kettle/core/brew';
import { openJournal } from './journal';

const tapped = (id: string): BarEvent => ({ id, type: 'guest-left', atMs: 1, orderId: 'o' });
const ids = (events: BarEvent[]) => events.map(({ id }) => id);

/** One browser's storage, of which each page has a copy that follows only when it is told to. */
function browser() {
  const truth = new Map<string, string>();
  const page = () => {
    let seen = new Map(truth);
    const storage = {
      get length() {
        return seen.size;
      },
      key: (n: number) => [...seen.keys()][n] ?? null,
      getItem: (key: string) => seen.get(key) ?? null,
      setItem: (key: string, value: string) => void (seen.set(key, value), truth.set(key, value)),
      removeItem: (key: string) => void (seen.delete(key), truth.delete(key)),
      clear: () => undefined,
    };
    return { journal: openJournal(() => storage), catchUp: () => void (seen = new Map(truth)) };
  };
  return { truth, page };
}

test('two pages that tap in one instant lose nothing to each other, and neither takes back what the other removed', () => {
  const { page } = browser();
  const [counter, bar] = [page(), page()];
  counter.journal.add([tapped('01-order')]);
  // The page at the bar has not heard of it yet.
  bar.journal.add([tapped('02-tap'), tapped('03-tap')]);
  bar.journal.remove(['02-tap']);
  const reloaded = page();
  expect(ids(reloaded.journal.all())).toEqual(['01-order', '03-tap']);
  reloaded.journal.remove(['01-order']);
  counter.journal.add([tapped('04-order')]);
  counter.catchUp();
  expect(ids(counter.journal.all())).toEqual(['03-tap', '04-order']);
});

test('what the version before kept in a list is read once more; what cannot be read does no harm', () => {
  const { truth, page } = browser();
  truth.set('even-kettle.tapped', JSON.stringify([tapped('01'), tapped('02')]));
  truth.set('even-kettle.tapped.03', 'torn');
  truth.set('even-kettle.look', '"day"');
  expect(ids(page().journal.all())).toEqual(['01', '02']);
  const after = page();
  after.journal.remove(['01']);
  expect(ids(after.journal.all())).toEqual(['02']);
  expect(truth.has('even-kettle.tapped')).toBe(false);
});

test('storage that is full or switched off stops no tap', () => {
  const full = openJournal(() => {
    throw new Error('SecurityError');
  });
  full.add([tapped('01')]);
  full.remove(['01']);
  expect(full.all()).toEqual([]);
  expect(openJournal(() => undefined).all()).toEqual([]);
});
