/**
 * What an event costs a bar that has many closed orders, with and without one brew that two orders share: from the call to
 * stored, by the processor's time and by the clock. Run by `npm run bench -- events`; CLOSED and LIVES change it.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { applyLogged, type BarEvent, type BarState } from '@even-kettle/core/brew';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { twoWeeksBefore } from '../src/demo/benches';
import { openDatabase } from '../src/store/database';
import { openLog } from '../src/store/log';

const CLOSED = (process.env['CLOSED'] ?? '0,400,2000').split(',').map(Number);
const LIVES = Number(process.env['LIVES'] ?? 40);
const WARM = 15;
const AT_ONCE = 200;
const nowMs = Date.UTC(2026, 5, 1, 12);
const book = bookOf(SCHOOLS);
const life = lifeOfOneCup();

// All bars are lived on in turn, so that what the engine compiles and collects is shared by all.
const bars = [];
for (const isShared of [false, true])
  for (const closed of CLOSED)
    bars.push({ closed, isShared, cpuMs: 0, times: [] as number[], ...(await openedWith(closed, isShared)) });
for (let n = -WARM; n < LIVES; n += 1)
  for (const bar of bars) {
    const cpu = process.cpuUsage();
    const times: number[] = [];
    for (const event of lifeNumber(100_000 + WARM + n)) {
      const from = performance.now();
      await bar.store([event]);
      times.push(performance.now() - from);
    }
    const { user, system } = process.cpuUsage(cpu);
    if (n < 0) continue;
    bar.cpuMs += (user + system) / 1000;
    bar.times.push(...times);
  }
const first = bars[0]!.cpuMs;
for (const { closed, isShared, cpuMs, times, state, close } of bars) {
  times.sort((a, b) => a - b);
  const against = (100 * (cpuMs / first - 1)).toFixed(0).padStart(3);
  console.log(
    `  ${String(closed).padStart(5)} closed orders, ${isShared ? 'one brew shared' : 'none shared    '}: ${(cpuMs / times.length).toFixed(2)} ms of processor an event (${against} %), p50 ${times[Math.floor(times.length / 2)]!.toFixed(2)} ms until it is stored; a page's copy ${applied(state).toFixed(3)} ms`,
  );
  await close();
}

async function openedWith(closed: number, isShared: boolean) {
  const folder = mkdtempSync(join(tmpdir(), 'even-kettle-events-'));
  const source = await openDatabase(join(folder, 'bar.sqlite'));
  const log = await openLog(source, book, { warn: (message) => console.warn(message) });
  const store = async (events: readonly BarEvent[]) => {
    const appended = await log.append(events);
    if (!appended.ok) throw new Error(JSON.stringify(appended.refused));
  };
  const before = Array.from({ length: closed }, (_, n) => lifeNumber(n, closed)).flat();
  for (let at = 0; at < before.length; at += AT_ONCE) await store(before.slice(at, at + AT_ONCE));
  if (isShared) await store(sharedOrders());
  return {
    state: log.state(),
    store,
    close: async () => {
      await log.settled();
      await source.destroy();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Some lives folded without a store, as a page does, milliseconds an event. */
function applied(from: BarState): number {
  const events = Array.from({ length: LIVES }, (_, n) => lifeNumber(400_000 + n)).flat();
  let state = from;
  const fromMs = performance.now();
  for (const event of events) {
    const result = applyLogged(state, event, book);
    if (!result.ok) throw new Error(result.refusal.reason);
    state = result.state;
  }
  return (performance.now() - fromMs) / events.length;
}

/** One cup from the demo's log, from its order to its clean brewer. */
function lifeOfOneCup(): BarEvent[] {
  const events = twoWeeksBefore(nowMs);
  for (const taken of events) {
    if (taken.type !== 'order-taken' || taken.cups.length > 1 || taken.cups[0]!.with) continue;
    const { cupId } = taken.cups[0]!;
    const its = events.filter(
      (event) =>
        event === taken ||
        ('brewId' in event && event.brewId === `${cupId}.1`) ||
        (event !== taken && 'orderId' in event && event.orderId === taken.orderId),
    );
    const types = new Set(its.map(({ type }) => type));
    const isPlain = !types.has('cup-cancelled') && !types.has('brew-abandoned') && !types.has('cup-remade');
    if (types.has('brew-served') && isPlain && its.length >= 12) return [...new Set(its)];
  }
  throw new Error('The demo has no plain cup.');
}

function eventId(n: number): string {
  return `01890000-0000-7000-8000-${String(n).padStart(12, '0')}`;
}

function lifeNumber(n: number, closed = 0): BarEvent[] {
  const taken = life[0]!;
  if (taken.type !== 'order-taken') throw new Error('A life begins with its order.');
  // Those that are closed are spread over the eleven hours before; one of the others comes every 90 s.
  const agoMs = closed > 0 ? (11 * 3_600_000 * (closed - n)) / closed : -(n % 1000) * 90_000;
  const byMs = Math.round(nowMs - agoMs) - life.at(-1)!.atMs;
  return life.map((event, k): BarEvent => {
    const text = JSON.stringify({ ...event, id: eventId(n * 100 + k), atMs: event.atMs + byMs });
    return JSON.parse(
      text.replaceAll(taken.cups[0]!.cupId, `cup-${n}`).replaceAll(taken.orderId, `order-${n}`),
    ) as BarEvent;
  });
}

function sharedOrders(): BarEvent[] {
  const [host, guest] = [lifeNumber(300_000)[0]!, lifeNumber(300_001)[0]!];
  if (host.type !== 'order-taken' || guest.type !== 'order-taken')
    throw new Error('A life begins with its order.');
  const shares = { orderId: host.orderId, cupId: host.cups[0]!.cupId };
  return [host, { ...guest, cups: guest.cups.map((cup) => ({ ...cup, with: shares })) }];
}
