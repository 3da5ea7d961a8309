/** Every archive of every random life reads back to the same bar, whoever wrote into its log. */
import { join } from 'node:path';
import { EMPTY_BAR, timelineAt } from '@even-kettle/core/brew';
import { SCHOOLS } from '@even-kettle/core/recipe';
import { seededRandom } from '@even-kettle/core/rush';
import type { BarServer } from '../server';
import { openDatabase } from '../store/database';
import {
  bar,
  buildImportWorker,
  cup,
  folder,
  newId,
  now,
  openOver,
  order,
  restoreInto,
  sendFile,
  solver,
  source,
  start,
  takeFile,
} from '../testing/bar';
import { stateHash } from './archive';

beforeAll(buildImportWorker);

const seed = Number(process.env['FUZZ_SEED'] ?? 20261127);
const LIVES = Math.ceil(4 * Number(process.env['FUZZ'] ?? 1));
console.info(`archive.fuzz seed ${seed}`);
const DAY_MS = 86_400_000;
const CLAY = {
  id: 'clay',
  name: 'Clay cone',
  method: 'cone' as const,
  minDoseG: 12,
  maxDoseG: 30,
  maxWaterG: 320,
};
const TABLE = `ended,coffee,recipe,dose_g,brew_s,guest
2026-02-01T08:00:00Z,Saltmarsh,cone-thirds,18,191,Ann
2026-02-02T08:00:00Z,Fog,cone-thirds,18,180,\n`;

/** What a bar has of its own: a recipe in two versions, a brewer, a log from elsewhere. */
async function settle(): Promise<void> {
  const school = SCHOOLS.find(({ id }) => id === 'cone-thirds')!;
  for (const basedOn of [null, 1])
    expect(
      await bar.saveRecipe({
        recipe: { ...school, id: 'house-cone', name: 'House cone', version: 1 },
        basedOn,
      }),
    ).toMatchObject({ ok: true });
  const stations = bar
    .bar()
    .stations.map((each) => (each.brewerId === 'cone-m' ? { ...each, brewerId: 'clay' } : each));
  expect(
    await bar.change({
      brewers: [CLAY],
      stations: [...stations, { ...stations[0]!, id: 'cone-x', name: 'Cone X', brewerId: 'cone-m' }],
    }),
  ).toMatchObject({ ok: true });
  await takeFile((await sendFile('log', TABLE, 'before.csv')).id);
}

const HOUSE = { recipeId: 'house-cone', recipeVersion: 1 };
const CONES = new Set(['clay', 'cone-m']);

/** Lives on the bar for a while; some of what is tried is refused, as in life. */
async function live(random: () => number, events: number, agoMs = 0): Promise<void> {
  const pick = <Item>(items: Item[]): Item => items[Math.floor(random() * items.length)]!;
  const tried: string[] = [];
  for (let n = 0; n < events; n += 1) {
    const state = bar.log.state();
    const [anOrder, aBrew] = [pick(Object.values(state.orders)), pick(Object.values(state.brews))];
    const base = { id: newId(), atMs: now() - agoMs };
    const kind = random();
    let event: object;
    if (kind < 0.2 || !anOrder)
      event = {
        ...order(newId(), cup(newId(), pick([{}, HOUSE, { ...HOUSE, recipeVersion: 2, allergy: 'nuts' }]))),
        atMs: base.atMs,
        name: pick(['Ann', 'Ümit', '=1+1', '名']),
      };
    else if (kind < 0.35 || !aBrew) {
      const { id, name, brewerId } = pick(bar.bar().stations.filter((each) => CONES.has(each.brewerId)));
      const own = brewerId === CLAY.id ? { ownBrewer: CLAY } : {};
      event = start(anOrder.cups[0]!.cupId, anOrder.id, {
        atMs: base.atMs,
        stationId: id,
        stationName: name,
        brewerId,
        ...own,
      });
    } else if (kind < 0.8) {
      const next = timelineAt(aBrew, base.atMs).find(
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
    else
      event = {
        ...base,
        type: 'coffee-weighed',
        coffee: pick(['Fog', 'House coffee']),
        stockG: random() * 1000,
      };
    tried.push(base.id);
    // Straight into the log: what is planned of it is no part of an archive.
    await bar.log.append([event]);
  }
}

/** Every brew is stopped and every order closed. */
async function everybodyLeaves(agoMs: number): Promise<void> {
  const base = () => ({ id: newId(), atMs: now() - agoMs });
  const { brews, orders } = bar.log.state();
  for (const { id: brewId } of Object.values(brews)) {
    await bar.log.append([{ ...base(), type: 'brew-abandoned', brewId, reason: 'closed' }]);
    await bar.log.append([{ ...base(), type: 'step-done', brewId, stepId: 'clean' }]);
  }
  for (const orderId of Object.keys(orders))
    await bar.log.append([{ ...base(), type: 'guest-left', orderId }]);
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

/** All that a bar is: its state with the badges, its records, its stock, its settings, its recipes. */
async function wholeOf({ log, records, learning, bar: settings, recipes }: BarServer) {
  // What is learnt is asked for anew; and what came out of an archive has a day's notice of its own.
  const {
    version: _version,
    guestsDue: _due,
    stockG: _stock,
    pace: _pace,
    beds: _beds,
    promiseShares: _shares,
    ...rest
  } = settings();
  return {
    seq: log.seq(),
    state: stateHash(log.state()),
    badges: Object.values(log.state().orders).map(({ id, badge }) => [id, badge]),
    records: (await records.page({ limit: 200 })).records,
    stock: await learning.house(),
    learnt: [await learning.beds(), await learning.pace(undefined), await learning.promiseShares()],
    settings: rest,
    recipes: recipes.saved(),
  };
}

/** What is planned of it is no part of an archive. */
const NO_PLAN: typeof solver = { ...solver, solve: () => Promise.reject(new Error('not planned')) };

const archived = async (): Promise<string> => {
  let text = '';
  for await (const part of bar.archive()) text += part;
  return text;
};

test('an archive of a random life, with what older versions let in, makes the same bar', async () => {
  const random = seededRandom(seed);
  await settle();
  for (let n = 0; n < LIVES; n += 1) {
    await live(random, 40, n % 2 === 0 ? 40 * DAY_MS : 0);
    // Past the log, so it is read anew.
    if (n % 2 === 1) await bar.log.rewritten(() => oldWays(random));
    if (n % 4 === 2) {
      await everybodyLeaves(40 * DAY_MS);
      await bar.log.forgetGuests(now() - 30 * DAY_MS);
    }
    const other = await openOver(await openDatabase(join(folder, `other-${n}.sqlite`)), { solver: NO_PLAN });
    await restoreInto(other, await archived());
    expect([n, await wholeOf(other)]).toEqual([n, await wholeOf(bar)]);
    expect(other.log.state()).not.toEqual(EMPTY_BAR);
    await other.close();
  }
  expect(Object.values(bar.log.state().brews).some(({ planned }) => planned.recipeId === 'house-cone')).toBe(
    true,
  );
  expect(
    await source.manager.query(`SELECT 1 FROM event WHERE forgotten_ms IS NOT NULL LIMIT 1`),
  ).toHaveLength(1);
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
