/** The store between a barista's thumb and a server that comes and goes. */
import { apply, reduce, type BarEvent, type BarState } from '@even-kettle/core/brew';
import { CARD_VERSION, SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import type { Bar, Snapshot } from '@even-kettle/core/contract';
import type { Api } from './api';
import type { LiveHandlers } from './live';
import { Refused } from './request';
import { openStore, type BarStore } from './store';
import { firstTapWords } from './first-tap-words';
import type { OfflineSnapshots, OfflineSnapshot } from './offline-snapshot';
import type { Outbox } from './outbox';

beforeEach(() => void jest.useFakeTimers());

const book = bookOf(SCHOOLS);
const BAR = { name: 'Test bar', hands: 1, stations: [] } as unknown as Bar;
const T0 = 1_000_000;

/** A server that stores what it takes, and can be switched off. */
function server() {
  const log: BarEvent[] = [];
  const its = { up: true, posts: 0, handlers: null as LiveHandlers | null };
  const state = (): BarState => reduce(log, book).state;
  const check = () => {
    if (!its.up) throw new Error('nobody there');
  };
  const api = {
    state: async (): Promise<Snapshot> => {
      check();
      return {
        seq: log.length,
        state: state(),
        bar: BAR,
        recipes: [],
        planned: null,
        storage: { level: 'enough', freeMb: null },
        barMs: T0,
        rate: 1,
        contract: 2,
      };
    },
    postEvents: async (events: BarEvent[]) => {
      its.posts += 1;
      check();
      let next = state();
      for (const [index, event] of events.entries()) {
        if (log.some(({ id }) => id === event.id)) continue;
        const applied = apply(next, event, book);
        if (!applied.ok) {
          const { code, field, reason } = applied.refusal;
          throw new Refused(409, {
            type: '',
            title: '',
            status: 409,
            detail: reason,
            errors: [{ field: `events.${index}.${field}`, reason, code, eventId: event.id }],
          });
        }
        next = applied.state;
      }
      const fresh = events.filter((event) => !log.some(({ id }) => id === event.id));
      log.push(...fresh);
      fresh.forEach((event) => its.handlers?.on['bar-event']({ seq: log.indexOf(event) + 1, event }));
      return { accepted: fresh.map(({ id }) => id), duplicates: [], seq: log.length };
    },
    live: (_after: number, handlers: LiveHandlers) => {
      its.handlers = handlers;
      handlers.onLink('live');
      return () => undefined;
    },
  } as unknown as Api;
  return { api, its, log, state };
}

function memoryOutbox(kept: BarEvent[] = []): Outbox & { kept: BarEvent[] } {
  return {
    kept,
    all: async () => [...kept],
    put: async (events) => void kept.push(...events),
    remove: async (ids) => void kept.splice(0, kept.length, ...kept.filter(({ id }) => !ids.includes(id))),
  };
}

const stores: BarStore[] = [];
function device(api: Api, outbox = memoryOutbox(), realNow = () => 0, keeper?: OfflineSnapshots) {
  const clock = {
    nowMs: () => T0,
    rate: () => 1,
    measure: async () => undefined,
    carryOn: () => undefined,
    uncertaintyMs: () => 0,
    onSet: () => () => undefined,
  };
  let count = 0;
  const store = openStore({
    api,
    outbox,
    clock,
    newId: () => `device-${stores.length}-${(count += 1)}`,
    planLocally: async () => null,
    realNow,
    ...(keeper ? { snapshots: keeper } : {}),
  });
  stores.push(store);
  return { store, outbox };
}
afterEach(() => stores.splice(0).forEach((store) => store.close()));

const order = (orderId: string): BarEvent => ({
  id: `taken-${orderId}`,
  type: 'order-taken',
  atMs: T0,
  orderId,
  cups: [
    {
      cupId: `${orderId}1`,
      recipeId: 'cone-thirds',
      recipeVersion: 1,
      coffee: 'Saltmarsh',
      roast: 'light',
      cupMl: 250,
    },
  ],
});
const cancel = (orderId: string, id = `cancel-${orderId}`): BarEvent => ({
  id,
  type: 'cup-cancelled',
  atMs: T0,
  orderId,
  cupId: `${orderId}1`,
});
const settled = () => jest.advanceTimersByTimeAsync(30);

test('a tap shows at once, is stored, and leaves the outbox', async () => {
  const { api, log } = server();
  const { store, outbox } = device(api);
  await store.open();
  expect(store.act([order('A')])).toBe(true);
  expect([Object.keys(store.view().state.orders), store.view().waiting]).toEqual([['A'], 1]);
  await settled();
  expect([log.length, outbox.kept.length, store.view().waiting]).toEqual([1, 0, 0]);
});

test('taps made while the server is away are kept in order, survive a reload, and drain when it is back', async () => {
  const { api, its, log, state } = server();
  const first = device(api);
  await first.store.open();
  its.up = false;
  first.store.act([order('A')]);
  first.store.act([order('B')]);
  first.store.act([cancel('A')]);
  await settled();
  expect([first.store.view().link, first.store.view().waiting, log.length]).toEqual(['away', 3, 0]);
  first.store.close();

  its.up = true;
  const reloaded = device(api, first.outbox);
  await reloaded.store.open();
  await settled();
  expect(log.map(({ id }) => id)).toEqual(['taken-A', 'taken-B', 'cancel-A']);
  expect([reloaded.store.view().waiting, reloaded.outbox.kept.length]).toEqual([0, 0]);
  expect(reloaded.store.view().state).toEqual(state());
});

test('a tap that another device made impossible is said and dropped, and what came after it is stored', async () => {
  const { api, its, log, state } = server();
  await api.postEvents([order('A'), order('B')]);
  const { store } = device(api);
  await store.open();
  its.up = false;
  store.act([cancel('A')]);
  store.act([cancel('B')]);
  await settled();
  log.push(cancel('A', 'cancelled elsewhere'));
  its.handlers!.on['bar-event']({ seq: 3, event: log[2]! });
  its.up = true;
  its.handlers!.onLink('live');
  await settled();
  expect(log.map(({ id }) => id).slice(2)).toEqual(['cancelled elsewhere', 'cancel-B']);
  expect(
    store
      .view()
      .refusals.map(({ text }) => text)
      .join(),
  ).toContain('Only a cup that waits can be cancelled');
  expect(store.view().state).toEqual(state());
});

const problemOf = (status: number, errors?: Refused['problem']['errors']) =>
  new Refused(status, { type: '', title: '', status, detail: 'no', ...(errors ? { errors } : {}) });

test('of a post that the server’s schema refuses only the event that it names is dropped', async () => {
  const { api, log } = server();
  const take = api.postEvents;
  api.postEvents = async (events) => {
    const eventId = events.find((event) => event.type === 'order-taken' && event.orderId === 'B')?.id;
    if (eventId)
      throw problemOf(422, [{ field: 'events.1.name', reason: 'odd', code: 'not-valid', eventId }]);
    return take(events);
  };
  const { store } = device(api, memoryOutbox([order('A'), order('B'), order('C')]));
  await store.open();
  await settled();
  expect([log.map(({ id }) => id), store.view().waiting]).toEqual([['taken-A', 'taken-C'], 0]);
});

test.each([400, 409, 413, 422])(
  'of a post that is refused with %d and without a name, each is posted by itself, and only the one at fault goes',
  async (status) => {
    const { api, log } = server();
    const take = api.postEvents;
    api.postEvents = async (events) => {
      if (events.some(({ id }) => id === 'taken-B')) throw problemOf(status);
      return take(events);
    };
    const { store } = device(api, memoryOutbox([order('A'), order('B'), order('C')]));
    await store.open();
    await settled();
    expect([log.map(({ id }) => id), store.view().waiting]).toEqual([['taken-A', 'taken-C'], 0]);
  },
);

test.each([403, 421, 429])('an answer of %d says nothing of the taps: they are kept', async (status) => {
  const { api, log } = server();
  const take = api.postEvents;
  api.postEvents = () => Promise.reject(problemOf(status));
  const { store, outbox } = device(api, memoryOutbox([order('A')]));
  await store.open();
  await settled();
  expect([log.length, outbox.kept.length, store.view().link]).toEqual([0, 1, 'away']);
  api.postEvents = take;
  await jest.advanceTimersByTimeAsync(500);
  expect(log.map(({ id }) => id)).toEqual(['taken-A']);
});

test('a device that missed an event loads the bar anew instead of going on from a wrong state', async () => {
  const { api, its, log, state } = server();
  const { store } = device(api);
  await store.open();
  log.push(order('A'), order('B'));
  its.handlers!.on['bar-event']({ seq: 2, event: log[1]! });
  await jest.advanceTimersByTimeAsync(500);
  expect(store.view().state).toEqual(state());
});

test('what the bar’s rules refuse is said on the spot and never sent', async () => {
  const { api, its } = server();
  const { store } = device(api);
  await store.open();
  expect(store.act([cancel('Z')])).toBe(false);
  expect([store.view().refusals[0]!.text, its.posts]).toEqual(['There is no such order.', 0]);
});

test('undo takes the latest tap back within ten seconds, and not after', async () => {
  const { api, log } = server();
  let realMs = 0;
  const { store } = device(api, memoryOutbox(), () => realMs);
  await store.open();
  store.act([order('A')], 'Order');
  store.undo();
  await settled();
  expect([Object.keys(store.view().state.orders), log.map(({ type }) => type)]).toEqual([
    [],
    ['order-taken', 'event-undone'],
  ]);
  store.act([order('B')], 'Order');
  realMs = 10_001;
  store.undo();
  await settled();
  expect(Object.keys(store.view().state.orders)).toEqual(['B']);
});

test('with no server the app opens on the bar as it was last known here, takes taps, and stores them afterwards', async () => {
  const { api, its, log, state } = server();
  const written: OfflineSnapshot[] = [];
  const keeper: OfflineSnapshots = {
    read: async () => written.at(-1) ?? null,
    write: async (kept) => void written.push(kept),
    clear: async () => void written.splice(0),
  };
  const first = device(api, memoryOutbox(), () => 0, keeper);
  await first.store.open();
  first.store.act([order('A')]);
  await jest.advanceTimersByTimeAsync(1400);
  first.store.close();
  expect(Object.keys(written.at(-1)!.state.orders)).toEqual(['A']);

  its.up = false;
  const later = device(api, first.outbox, () => 0, keeper);
  await later.store.open();
  expect([later.store.view().status, later.store.view().link]).toEqual(['ready', 'away']);
  expect(Object.keys(later.store.view().state.orders)).toEqual(['A']);
  expect(later.store.act([cancel('A')])).toBe(true);
  await settled();
  expect(later.store.view().waiting).toBe(1);
  its.up = true;
  await jest.advanceTimersByTimeAsync(1200);
  expect(log.map(({ id }) => id)).toEqual(['taken-A', 'cancel-A']);
  expect(later.store.view().state).toEqual(state());
});

test('what was decided between two devices is said in words: whose tap counts, and by how much it was first', () => {
  const cup = order('A');
  const start: BarEvent = {
    id: 's',
    type: 'brew-started',
    atMs: T0,
    brewId: 'A1.1',
    orderId: 'A',
    cupId: 'A1',
    stationId: 'cone-1',
    stationName: 'Cone 1',
    brewerId: 'cone-m',
    altitudeM: 0,
    kettlePowerW: 1200,
    kettleFilledAtC: 90,
    prepVersion: CARD_VERSION,
  };
  const done = (id: string, atMs: number): BarEvent => ({
    id,
    type: 'step-done',
    atMs,
    brewId: 'A1.1',
    stepId: 'fill',
  });
  const { state } = reduce([cup, start, done('theirs', T0 + 12_000)], book);
  const refused = apply(state, done('mine', T0 + 17_000), book);
  if (refused.ok) throw new Error('it was to be refused');
  expect(firstTapWords(done('mine', T0 + 17_000), refused.refusal, state)).toBe(
    'Cone 1: “Fill the kettle” was tapped on another device 0:05 before yours; that tap was stored first, so it counts.',
  );
  const undo: BarEvent = { id: 'u', type: 'event-undone', atMs: T0, eventId: 's' };
  expect(
    firstTapWords(
      undo,
      { code: 'not-undoable', reason: 'Something was done to this brew since; undo that first.' },
      state,
    ),
  ).toBe(
    'not taken back, because the other device has gone on from it. Something was done to this brew since; undo that first.',
  );
});

test.each([
  ['not-paired', 'keeps its taps until it is paired again', 1, ['A']],
  ['revoked', 'keeps nothing of the bar, and none of its taps', 0, []],
])('a device that is told %s %s', async (code, _what, waiting, stored) => {
  const { api, its, log } = server();
  const kept: OfflineSnapshot[] = [];
  const keeper: OfflineSnapshots = {
    read: async () => kept.at(-1) ?? null,
    write: async (each) => void kept.push(each),
    clear: async () => void kept.splice(0),
  };
  const { store, outbox } = device(api, memoryOutbox(), () => 0, keeper);
  await store.open();
  await jest.advanceTimersByTimeAsync(1500);
  its.up = false;
  store.act([order('A')]);
  await jest.advanceTimersByTimeAsync(1500);
  expect(kept.length).toBeGreaterThan(0);
  let asks = 0;
  const refused = async (): Promise<never> => {
    asks += 1;
    throw new Refused(401, { type: `urn:even-kettle:problem:${code}`, title: '', status: 401, detail: '' });
  };
  const { state, postEvents } = api;
  Object.assign(api, { state: refused, postEvents: refused });
  await jest.advanceTimersByTimeAsync(10_000);
  expect(store.view()).toMatchObject({ shut: code, bar: null, waiting });
  expect([outbox.kept.length, kept.length > 0]).toEqual([waiting, waiting > 0]);
  // It asks no more by itself.
  const before = asks;
  await jest.advanceTimersByTimeAsync(20_000);
  expect(asks).toBe(before);
  // Paired again, it is let in.
  Object.assign(api, { state, postEvents });
  its.up = true;
  await store.reload();
  await settled();
  expect(store.view().shut).toBeNull();
  expect(log.flatMap((event) => ('orderId' in event ? [event.orderId] : []))).toEqual(stored);
});
