/** The stream as a page hears it, and how what failed is tried again: with the browser’s own behaviour acted out. */
import { openLive, type Link, type LiveHandlers } from './live';
import { openRetries } from './retries';

class Stream {
  static readonly CLOSED = 2;
  static opened: Stream[] = [];
  readyState = 0;
  onopen: (() => void) | null = null;
  onerror: (() => void) | null = null;
  private readonly hear = new Map<string, (message: { data: string }) => void>();
  constructor(readonly url: string) {
    Stream.opened.push(this);
  }
  addEventListener(name: string, call: (message: { data: string }) => void) {
    this.hear.set(name, call);
  }
  tell(name: string, data: unknown) {
    this.hear.get(name)?.({ data: JSON.stringify(data) });
  }
  close() {
    this.readyState = Stream.CLOSED;
  }
}

const globals = globalThis as Record<string, unknown>;
beforeEach(() => {
  jest.useFakeTimers();
  Stream.opened = [];
  globals['EventSource'] = Stream;
});
afterEach(() => {
  jest.useRealTimers();
  delete globals['EventSource'];
});

function listen() {
  const links: Link[] = [];
  const heard: unknown[] = [];
  let lost = 0;
  const on = Object.fromEntries(
    ['bar-event', 'plan', 'recipes', 'bar', 'storage', 'devices', 'scale', 'kettle', 'beat'].map((name) => [
      name,
      (message: unknown) => void heard.push([name, message]),
    ]),
  ) as LiveHandlers['on'];
  const close = openLive('http://bar', 41, {
    on,
    onLink: (link) => links.push(link),
    onLost: () => (lost += 1),
  });
  const stream = Stream.opened.at(-1)!;
  return { stream, links, heard, close, lost: () => lost };
}
const BEAT = { barMs: 1_780_000_000_000 };

test('a page hears from after the last event that it has', () => {
  const { stream, links, heard, close } = listen();
  expect(stream.url).toBe('http://bar/api/live?after=41');
  stream.onopen!();
  stream.tell('beat', BEAT);
  expect(links).toEqual(['live']);
  expect(heard).toEqual([['beat', BEAT]]);
  close();
  expect(stream.readyState).toBe(Stream.CLOSED);
});

test('a stream that is silent for three beats is dead, whatever the browser thinks', () => {
  const { stream, links, lost } = listen();
  stream.onopen!();
  for (let beats = 0; beats < 10; beats += 1) {
    jest.advanceTimersByTime(4000);
    stream.tell('beat', BEAT);
  }
  expect([links, lost()]).toEqual([['live'], 0]);
  jest.advanceTimersByTime(12_000);
  expect(lost()).toBe(0);
  jest.advanceTimersByTime(6000);
  expect([links, lost(), stream.readyState]).toEqual([['live', 'away'], 1, Stream.CLOSED]);
  // It is over with it: nothing more is said of the same stream.
  jest.advanceTimersByTime(60_000);
  expect(lost()).toBe(1);
});

test('a short break is the browser’s to mend; one for good, and a message that cannot be read, load the bar anew', () => {
  const short = listen();
  short.stream.onopen!();
  short.stream.onerror!();
  expect([short.links, short.lost()]).toEqual([['live', 'away'], 0]);
  short.stream.onopen!();
  expect(short.links.at(-1)).toBe('live');
  short.stream.readyState = Stream.CLOSED;
  short.stream.onerror!();
  expect(short.lost()).toBe(1);

  const odd = listen();
  odd.stream.onopen!();
  odd.stream.tell('beat', { barMs: 'soon' });
  expect([odd.links, odd.lost(), odd.heard]).toEqual([['live', 'away'], 1, []]);
  expect(odd.stream.readyState).toBe(Stream.CLOSED);
});

test('what failed is tried soon, then every few seconds; what is urgent goes in place of what waits', async () => {
  const retries = openRetries();
  const done: string[] = [];
  const work = (name: string) => async () => void done.push(name);
  const waits = [300, 600, 1200, 2500, 5000, 5000];
  for (const [n, waitMs] of waits.entries()) {
    retries.later(work(`try ${n}`));
    jest.advanceTimersByTime(waitMs - 1);
    expect(done).toHaveLength(n);
    jest.advanceTimersByTime(1);
    expect(done.at(-1)).toBe(`try ${n}`);
  }
  // It worked: the next failure is repeated soon again.
  retries.worked();
  retries.later(work('post'));
  retries.later(work('post again'));
  retries.later(work('load'), true);
  jest.advanceTimersByTime(300);
  expect(done.slice(waits.length)).toEqual(['load']);
  retries.later(work('never'));
  retries.close();
  jest.advanceTimersByTime(60_000);
  retries.later(work('nor this'));
  jest.advanceTimersByTime(60_000);
  expect(done.slice(waits.length)).toEqual(['load']);
});
