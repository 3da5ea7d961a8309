/** What is asked of the server, and what is made of its answers: none is used unread. */
import { apiClient } from './api';
import { openLive, type LiveHandlers } from './live';
import { Refused } from './request';

const asked: { address: string; init: RequestInit }[] = [];
const answers: Response[] = [];
const answer = (body: unknown, status = 200, type = 'application/json') =>
  answers.push(
    new Response(status === 204 ? null : JSON.stringify(body), { status, headers: { 'Content-Type': type } }),
  );
const api = apiClient('http://bar');

beforeEach(() => {
  asked.length = 0;
  answers.length = 0;
  globalThis.fetch = (address, init) => {
    asked.push({ address: String(address), init: init ?? {} });
    return Promise.resolve(answers.shift()!);
  };
});

test('addresses are the table’s, with names and parameters written so that nothing in them breaks out', async () => {
  answer({ records: [], next: null });
  await api.log({ coffee: 'Ebb & Flow', search: '' }, '5 a');
  answer({ recipes: [] });
  await api.versions('a/b');
  answer(undefined, 204);
  await api.orderKettle('k 1', { do: 'set', setC: 94 });
  expect(asked.map(({ address, init }) => [init.method, address])).toEqual([
    ['GET', 'http://bar/api/log?coffee=Ebb%20%26%20Flow&limit=30&before=5%20a'],
    ['GET', 'http://bar/api/recipes/a%2Fb/versions'],
    ['POST', 'http://bar/api/devices/kettles/k%201'],
  ]);
  expect(JSON.parse(String(asked[2]!.init.body))).toEqual({ do: 'set', setC: 94 });
});

test('an answer of another shape is an error, whether its schema is there already or comes later', async () => {
  answer({ barMs: 'noon', rate: 1 });
  await expect(api.clock()).rejects.toThrow(/cannot be read\. Load the page again\./);
  answer({ seq: 1, state: { orders: {}, brews: {} } });
  await expect(api.state()).rejects.toThrow(/cannot be read/);
  answer({ records: [{ brewId: 7 }], next: null });
  await expect(api.log({}, null)).rejects.toThrow(
    /answer of \/api\/log is not what was asked for: records\.0/,
  );
  answer({ barMs: 5, rate: 25 });
  expect(await api.clock()).toEqual({ barMs: 5, rate: 25 });
});

test('the server’s own refusal keeps its words; a server that fails is not taken for one', async () => {
  const problem = {
    type: 'urn:x',
    title: 'No',
    status: 404,
    detail: 'There is no finished brew of this id.',
  };
  answer(problem, 404, 'application/problem+json');
  const refused = await api.brew('x').catch((error: unknown) => error);
  expect(refused).toBeInstanceOf(Refused);
  expect((refused as Refused).message).toBe(problem.detail);
  answer({ ...problem, status: 503 }, 503, 'application/problem+json');
  expect(await api.brew('x').catch((error: unknown) => error)).not.toBeInstanceOf(Refused);
});

test('a change of settings that another device was quicker than is made again on what that left', async () => {
  const bar = { name: 'Bar', hands: 1, version: 'one' } as Parameters<typeof api.changeBar>[1];
  answer({ type: 'x', title: 'x', status: 412, detail: 'x' }, 412, 'application/problem+json');
  answer({});
  await api.changeBar({ hands: 2 }, bar).catch(() => undefined);
  expect(asked[0]!.init.headers).toMatchObject({ 'If-Match': '"one"' });
  expect(asked[1]!.address).toBe('http://bar/api/bar');
});

describe('the live stream', () => {
  const sources: FakeSource[] = [];
  class FakeSource extends EventTarget {
    static readonly CLOSED = 2;
    readyState = 1;
    onopen = () => undefined;
    onerror = () => undefined;
    constructor(readonly address: string) {
      super();
      sources.push(this);
    }
    close() {
      this.readyState = FakeSource.CLOSED;
    }
    say(name: string, data: unknown) {
      this.dispatchEvent(Object.assign(new Event(name), { data: JSON.stringify(data) }));
    }
  }

  test('hands on what it can read, and asks for the bar anew where it cannot', () => {
    Object.assign(globalThis, { EventSource: FakeSource });
    const heard: unknown[] = [];
    const hear = (name: string) => (message: unknown) => void heard.push([name, message]);
    const handlers: LiveHandlers = {
      on: {
        'bar-event': hear('bar-event'),
        plan: hear('plan'),
        bar: hear('bar'),
        recipes: hear('recipes'),
        devices: hear('devices'),
        scale: hear('scale'),
        kettle: hear('kettle'),
        storage: hear('storage'),
        me: hear('me'),
        beat: hear('beat'),
      },
      onLink: (link) => void heard.push(link),
      onLost: () => void heard.push('lost'),
    };
    const close = openLive('', 12, handlers);
    const [source] = sources;
    expect(source!.address).toBe('/api/live?after=12');
    source!.say('beat', { barMs: 5 });
    source!.say('bar-event', { seq: 'thirteen', event: {} });
    expect(heard).toEqual([['beat', { barMs: 5 }], 'away', 'lost']);
    expect(source!.readyState).toBe(FakeSource.CLOSED);
    close();
  });
});
