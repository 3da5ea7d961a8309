/**
 * What an event costs a bar that has many closed orders, with and without one brew that two orders share: from the call to
 * stored, by the processor's time and by the clock. Run by `npm run bench -- events`; CLOSED and LIVES change it.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { applyLogged, type BarEvent, type BarState } from '@even-kettle/core/brew';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { openDatabase } from '../src/store/database';
import { openLog } from '../src/store/log';
import { livesOfOneCup } from './lives';

const CLOSED = (process.env['CLOSED'] ?? '0,400,2000').split(',').map(Number);
const LIVES = Number(process.env['LIVES'] ?? 40);
const WARM = 15;
const AT_ONCE = 200;
const nowMs = Date.UTC(2026, 5, 1, 12);
const book = bookOf(SCHOOLS);
const lives = livesOfOneCup(nowMs);
/** Those that are closed are spread over eleven hours before; one of the others comes every 90 s. */
const closedLife = (n: number, closed: number) => lives(n, nowMs - (11 * 3_600_000 * (closed - n)) / closed);
const freshLife = (n: number) => lives(n, nowMs + (n % 1000) * 90_000);

// All bars are lived on in turn, so that what the engine compiles and collects is shared by all.
const bars = [];
for (const isShared of [false, true])
  for (const closed of CLOSED)
    bars.push({ closed, isShared, cpuMs: 0, times: [] as number[], ...(await openedWith(closed, isShared)) });
for (let n = -WARM; n < LIVES; n += 1)
  for (const bar of bars) {
    const cpu = process.cpuUsage();
    const times: number[] = [];
    for (const event of freshLife(100_000 + WARM + n)) {
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
  const before = Array.from({ length: closed }, (_, n) => closedLife(n, closed)).flat();
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
  const events = Array.from({ length: LIVES }, (_, n) => freshLife(400_000 + n)).flat();
  let state = from;
  const fromMs = performance.now();
  for (const event of events) {
    const result = applyLogged(state, event, book);
    if (!result.ok) throw new Error(result.refusal.reason);
    state = result.state;
  }
  return (performance.now() - fromMs) / events.length;
}

function sharedOrders(): BarEvent[] {
  const [host, guest] = [freshLife(300_000)[0]!, freshLife(300_001)[0]!];
  if (host.type !== 'order-taken' || guest.type !== 'order-taken')
    throw new Error('A life begins with its order.');
  const shares = { orderId: host.orderId, cupId: host.cups[0]!.cupId };
  return [host, { ...guest, cups: guest.cups.map((cup) => ({ ...cup, with: shares })) }];
}
