/** Every archive of every random life reads back to the same bar, whoever wrote into its log. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { EMPTY_BAR, timelineAt, type BarEvent } from '@even-kettle/core/brew';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';
import { seededRandom } from '@even-kettle/core/rush';
import { doWork } from '../imports/work';
import { openDatabase } from '../store/database';
import { openLog } from '../store/log';
import { bar, cup, folder, newId, now, order, source, start } from '../testing/bar';
import { stateHash } from './archive';

const seed = Number(process.env['FUZZ_SEED'] ?? 20261127);
const LIVES = Number(process.env['FUZZ_LIVES'] ?? 8);
console.info(`archive.fuzz seed ${seed}`);
const book = bookOf(SCHOOLS);

/** Lives on the bar for a while; some of what is tried is refused, as in life. */
async function live(random: () => number, events: number): Promise<void> {
  const pick = <Item>(items: Item[]): Item => items[Math.floor(random() * items.length)]!;
  const tried: string[] = [];
  for (let n = 0; n < events; n += 1) {
    const state = bar.log.state();
    const [anOrder, aBrew] = [pick(Object.values(state.orders)), pick(Object.values(state.brews))];
    const base = { id: newId(), atMs: now() };
    const kind = random();
    let event: object;
    if (kind < 0.2 || !anOrder)
      event = { ...order(newId(), cup(newId())), name: pick(['Ann', 'Ümit', '=1+1', '名']) };
    else if (kind < 0.35 || !aBrew) {
      const station = pick(bar.bar().stations.filter(({ brewerId }) => brewerId === 'cone-m'));
      event = start(anOrder.cups[0]!.cupId, anOrder.id, { stationId: station.id, stationName: station.name });
    } else if (kind < 0.8) {
      const next = timelineAt(aBrew, now()).find(
        ({ status }) => status === 'waiting' || status === 'running',
      )?.step;
      event =
        next?.kind === 'serve'
          ? { ...base, type: 'brew-served', brewId: aBrew.id, beverageG: Math.round(random() * 300) }
          : {
              ...base,
              type: 'step-done',
              brewId: aBrew.id,
              stepId: next?.id ?? 'clean',
              readingG: random() * 300,
            };
    } else if (kind < 0.86) event = { ...base, type: 'event-undone', eventId: pick(tried) ?? newId() };
    else if (kind < 0.92) event = { ...base, type: 'brew-abandoned', brewId: aBrew.id, reason: 'spilt' };
    else event = { ...base, type: 'coffee-weighed', coffee: pick(['Fog', 'Ebb']), stockG: random() * 1000 };
    tried.push(base.id);
    // Straight into the log: what is planned of it is no part of an archive.
    await bar.log.append([event]);
  }
}

/** What older versions let in by their own hands: past the schema, straight into the log. */
async function oldWays(random: () => number): Promise<void> {
  const atMs = now() + random();
  const odd = [
    { ...order(newId(), cup(newId())), atMs, name: 'Ann\nfrom table 4' },
    { id: newId(), type: 'coffee-weighed', atMs: 8.6e15, coffee: 'Fog', stockG: 5 },
  ];
  for (const { id, type, atMs: at, ...rest } of odd)
    await source.query('INSERT INTO event (id, type, at_ms, received_ms, body) VALUES (?, ?, ?, 0, ?)', [
      id,
      type,
      Math.round(at),
      JSON.stringify({ id, type, atMs: at, ...rest }),
    ]);
}

test('an archive of a random life, with what older versions let in, makes the same bar', async () => {
  const random = seededRandom(seed);
  for (let n = 0; n < LIVES; n += 1) {
    await live(random, 40);
    if (n % 2 === 1) await oldWays(random);
    const reread = await openLog(source, book, { warn: () => undefined });
    const file = join(folder, `archive-${n}.json`);
    let text = '';
    for await (const part of bar.archive()) text += part;
    writeFileSync(file, text);
    const other = await openDatabase(join(folder, `other-${n}.sqlite`));
    const place = { source: other, nowMs: now(), onBytes: () => undefined, stopped: () => false };
    await doWork({ do: 'look', kind: 'archive', file }, place);
    await doWork({ do: 'take', kind: 'archive', file, importId: 'i', leaveOutFaulty: false }, place);
    const restored = await openLog(other, book, { warn: () => undefined });
    expect([n, stateHash(restored.state()), restored.seq()]).toEqual([
      n,
      stateHash(reread.state()),
      reread.seq(),
    ]);
    expect(restored.state()).not.toEqual(EMPTY_BAR);
    const events: BarEvent[] = (await restored.after(0)).map(({ event }) => event);
    expect(events.every(({ atMs }) => Number.isInteger(atMs))).toBe(true);
    await other.destroy();
  }
});

test('an archive is of one moment, whatever is posted while it is read', async () => {
  await live(seededRandom(seed), 30);
  const seq = bar.log.seq();
  let text = '';
  let parts = 0;
  for await (const part of bar.archive()) {
    text += part;
    if ((parts += 1) === 1) await bar.log.append([order(newId(), cup(newId()))]);
  }
  expect(bar.log.seq()).toBe(seq + 1);
  expect((JSON.parse(text) as { events: unknown[] }).events).toHaveLength(seq);
});
