/** The Log over HTTP against a real SQLite file: found again, learnt from, and carried elsewhere. */
import request from 'supertest';
import { stateHash } from './files/archive';
import { bar, close, cup, done, http, newId, now, open, order, post, start } from './testing/bar';

const STEPS = ['fill', 'weigh', 'set-filter', 'load', 'bloom', 'pour-2', 'pour-3', 'pour-4', 'drawdown'];

/** A brew from order to clean. The bar's clock stands still for it: each step is at its own time before now. */
async function brewed(
  n: number,
  change: { brewS?: number; setting?: number; cup?: object; by?: string } = {},
) {
  const [orderId, cupId] = [`o${n}`, `c${n}`];
  // Ten minutes apart, so that one pair of hands can have brewed them all.
  const endMs = Math.round(now()) - 60_000 - (30 - n) * 600_000;
  const brewMs = (change.brewS ?? 187) * 1000;
  const firstMs = endMs - brewMs;
  const at = (stepId: string) =>
    ({
      fill: -90,
      weigh: -70,
      'set-filter': -40,
      load: -10,
      bloom: 10,
      'pour-2': 60,
      'pour-3': 90,
      'pour-4': 120,
    })[stepId];
  const by = change.by === undefined ? {} : { by: change.by };
  const posted = await post(
    { ...order(orderId, cup(cupId, change.cup)), atMs: firstMs - 120_000, name: `guest ${n}` },
    start(cupId, orderId, {
      atMs: firstMs - 110_000,
      grinderId: 'grinder-1',
      grindSetting: change.setting ?? 20,
      roastedOn: '2026-01-01',
      ...by,
    }),
    ...STEPS.slice(0, 4).map((id) => done(`${cupId}.1`, id, { atMs: firstMs + at(id)! * 1000, ...by })),
    { id: newId(), type: 'step-begun', atMs: firstMs, brewId: `${cupId}.1`, stepId: 'bloom', ...by },
    ...STEPS.slice(4).map((id) =>
      done(`${cupId}.1`, id, { atMs: id === 'drawdown' ? endMs : firstMs + at(id)! * 1000, ...by }),
    ),
    { id: newId(), type: 'brew-served', atMs: endMs + 10_000, brewId: `${cupId}.1`, ...by },
    done(`${cupId}.1`, 'clean', { atMs: endMs + 40_000, ...by }),
  );
  expect(posted.body.errors ?? []).toEqual([]);
  return `${cupId}.1`;
}
const taste = (brewId: string, said: object) =>
  post({ id: newId(), type: 'cup-tasted', atMs: now(), brewId, taste: said });
const get = async (path: string) => (await request(http).get(path)).body;
const idsOf = (page: { records: { brewId: string }[] }) => page.records.map(({ brewId }) => brewId);

test('the log is narrowed by coffee, person, taste and words, and paged without losing a brew that ended at the same moment', async () => {
  const first = await brewed(1, { by: 'noor' });
  const second = await brewed(2, { cup: { coffee: 'Low Beacon', roast: 'medium' }, by: 'imre' });
  const third = await brewed(3, { by: 'imre' });
  await taste(second, { balance: 1, seen: ['wall'], words: '100% walnut' });
  expect(idsOf(await get('/api/log?coffee=Saltmarsh')).sort()).toEqual([first, third]);
  expect(idsOf(await get('/api/log?person=imre')).sort()).toEqual([second, third]);
  expect(idsOf(await get('/api/log?taste=bitter'))).toEqual([second]);
  expect(idsOf(await get('/api/log?taste=not%20tasted')).sort()).toEqual([first, third]);
  expect(idsOf(await get('/api/log?search=beacon%20WALL'))).toEqual([second]);
  // A per cent sign is one, and no joker.
  expect(idsOf(await get('/api/log?search=100%25%20w'))).toEqual([second]);
  expect(idsOf(await get('/api/log?search=9%25'))).toEqual([]);
  const seen: string[] = [];
  for (let next: string | null = ''; next !== null;) {
    const page: { records: { brewId: string }[]; next: string | null } = await get(
      `/api/log?limit=1${next ? `&before=${encodeURIComponent(next)}` : ''}`,
    );
    seen.push(...idsOf(page));
    next = page.next;
  }
  expect(seen.sort()).toEqual([first, second, third]);
  const wrong = await request(http).get('/api/log?taste=soapy&before=yesterday');
  expect([wrong.status, wrong.body.errors.map(({ field }: { field: string }) => field)]).toEqual([
    422,
    ['before', 'taste'],
  ]);
});

test('a cup is tasted once it is out; the record then says balance, yield and the one change, and undo takes it back', async () => {
  const brewId = await brewed(1, { brewS: 260 });
  const running = await post(
    order('x', cup('x1')),
    start('x1', 'x', { stationId: 'cone-2', stationName: 'Cone 2' }),
  );
  expect(running.status).toBe(200);
  const early = await taste('x1.1', { balance: 1 });
  expect([early.status, early.body.detail]).toEqual([409, 'A cup is tasted once it has been handed over.']);
  const nothing = await taste(brewId, {});
  expect([nothing.status, nothing.body.detail]).toEqual([
    422,
    'events.0.taste: say at least one thing of it',
  ]);

  const said = {
    id: newId(),
    type: 'cup-tasted',
    atMs: now(),
    brewId,
    taste: { balance: 1, tdsPct: 1.4, beverageG: 240 },
  };
  await post(said);
  const page = await get(`/api/brews/${brewId}`);
  expect(page.record).toMatchObject({ taste: { balance: 1 }, beverageG: 240, realBrewS: 260, attempt: 1 });
  expect(page.record.yieldPct).toBeCloseTo((1.4 * 240) / 17.6, 1);
  expect(page.advice).toMatchObject({ kind: 'change', change: { what: 'grind', stepsCoarser: 3 } });
  expect(page.advice.words).toMatch(/^3 steps coarser: about \d:\d\d ± 0:\d\d, from 1 brew$/);
  await post({ id: newId(), type: 'event-undone', atMs: now(), eventId: said.id });
  expect((await get(`/api/brews/${brewId}`)).record.taste).toBeNull();
  expect((await request(http).get('/api/brews/nobody')).status).toBe(404);
});

test('a run has limits, a taken-up change shows what came of it, and the planner gets the hands’ own pace', async () => {
  for (let n = 1; n <= 14; n += 1) await brewed(n, { brewS: 184 + (n % 4), by: 'noor' });
  await post({
    id: newId(),
    type: 'change-tried',
    atMs: Math.round(now()) - 16 * 600_000,
    coffee: 'Saltmarsh',
    recipeId: 'cone-thirds',
    fromBrewId: 'c14.1',
    words: '1 step coarser',
    expectS: 178,
    plusMinusS: 9,
  });
  await new Promise((resolve) => setTimeout(resolve, 20));
  const next = await brewed(15, { brewS: 176, setting: 21 });
  const learnt = await get('/api/learnt?recipeId=cone-thirds&coffee=Saltmarsh');
  expect(learnt.run).toHaveLength(15);
  // Ground otherwise since: limits begin anew there.
  expect(learnt.chart).toBeNull();
  expect(learnt.tried[0]).toMatchObject({ words: '1 step coarser', result: { brewId: next, brewS: 176 } });
  expect(learnt.grind.secondsPerStep).toBeLessThan(0);
  // Learnt after every ten cups, a moment later.
  for (let tries = 0; tries < 100 && !(await get('/api/bar')).pace.weigh; tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 20));
  expect((await get('/api/bar')).pace).toMatchObject({ weigh: expect.any(Number), load: expect.any(Number) });
  const day = await get(`/api/day?fromMs=${Math.round(now()) - 10 * 3_600_000}&toMs=${Math.round(now())}`);
  expect(day).toMatchObject({ cups: 15, orders: 15, learnt: ['Saltmarsh: 1 step coarser. It took 2:56.'] });
});

test('stock is drawn down by brews from when it was weighed, and a cloth says what is due', async () => {
  await request(http)
    .patch('/api/bar')
    .send({
      coffees: [{ id: 'saltmarsh', name: 'Saltmarsh', roast: 'light', notes: '', decaf: false }],
      cloths: [{ id: 'blue', name: 'Blue cloth', stationId: 'cone-1' }],
    })
    .expect(200);
  await post({
    id: newId(),
    type: 'coffee-weighed',
    atMs: Math.round(now()) - 10 * 3_600_000,
    coffee: 'Saltmarsh',
    stockG: 250,
  });
  await brewed(1);
  const house = await get('/api/house');
  expect(house.coffees).toEqual([{ name: 'Saltmarsh', stockG: 232, brews: 1, tasted: null }]);
  expect(house.cloths[0]).toMatchObject({ id: 'blue', uses: 1, due: ['boil before first use'] });
  await post({ id: newId(), type: 'cloth-boiled', atMs: now(), clothId: 'blue' });
  expect((await get('/api/house')).cloths[0]).toMatchObject({ uses: 1, due: [] });
});

test('the table of the log opens in a spreadsheet and runs nothing there', async () => {
  await brewed(1, { cup: { coffee: '=1+1' } });
  await brewed(2, { cup: { coffee: 'Two "quoted", one\tcomma'.replace('\t', ' ') } });
  const csv = (await request(http).get('/api/files/log.csv')).text;
  const lines = csv.split('\r\n');
  expect(lines).toHaveLength(4);
  expect(lines[0]).toMatch(/^brew,ended,ordered/);
  expect(csv).toContain(`'=1+1`);
  expect(csv).toContain('"Two ""quoted"", one comma"');
  const jsonl = (await request(http).get('/api/files/log.jsonl').buffer(true).parse(textParser))
    .body as string;
  expect(
    jsonl
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line).coffee)
      .sort()[0],
  ).toBe('=1+1');
  const calendar = (await request(http).get('/api/files/care.ics').buffer(true).parse(textParser))
    .body as string;
  expect(calendar).toMatch(/^BEGIN:VCALENDAR\r\n/);
});

const textParser = (response: request.Response, done: (error: Error | null, body: string) => void) => {
  const stream = response as unknown as NodeJS.ReadableStream;
  let text = '';
  stream.on('data', (part: Buffer) => (text += part.toString('utf8')));
  stream.on('end', () => done(null, text));
};

test('export, wipe, import: the same bar, to the hash; not over a log that is there, and not a broken file', async () => {
  await request(http).patch('/api/bar').send({ name: 'Carried' }).expect(200);
  await brewed(1, { by: 'noor' });
  await post(order('open', cup('open1')));
  bar.traces.add('c1.1', { atMs: 1_764_000_000_000, massG: 12.3 });
  bar.traces.add('c1.1', { atMs: 1_764_000_009_000, massG: 50 });
  await bar.traces.flush();
  const before = {
    hash: stateHash(bar.log.state()),
    log: await get('/api/log'),
    trace: await get('/api/brews/c1.1/trace'),
  };
  const archive = (await request(http).get('/api/files/archive.json').buffer(true).parse(textParser))
    .body as unknown as string;
  const send = (body: string) =>
    request(http).post('/api/files/archive').set('Content-Type', 'application/json').send(body);
  expect((await send(archive)).status).toBe(409);

  await close();
  await open(1, true);
  for (const [broken, field] of [
    [archive.replace('"cone-1"', '"no station!"'), /^(bar|events)/],
    [archive.replace('even-kettle/archive@1', 'even-kettle/archive@9'), /^format/],
    [archive.replace('"step-done"', '"step-dreamt"'), /^events/],
  ] as const) {
    const refused = await send(broken);
    expect(refused.status).toBe(422);
    expect(refused.body.errors[0].field).toMatch(field);
  }
  expect((await send(archive.slice(0, -40))).status).toBe(400);
  expect(bar.log.seq()).toBe(0);
  const taken = await send(archive);
  expect([taken.status, taken.body]).toEqual([201, { events: expect.any(Number) }]);
  expect(stateHash(bar.log.state())).toBe(before.hash);
  expect(await get('/api/log')).toEqual(before.log);
  expect(await get('/api/brews/c1.1/trace')).toEqual(before.trace);
  expect((await get('/api/bar')).name).toBe('Carried');
});

test('a roast list and orders are looked at line by line, taken whole or not at all', async () => {
  const send = (what: string, text: string, take = false) =>
    request(http)
      .post(`/api/files/${what}${take ? '?take=1' : ''}`)
      .set('Content-Type', 'text/csv')
      .send(text);
  const roasts = 'coffee,roast,roasted_on\r\nSaltmarsh,light,2026-11-20\r\n"Low, Beacon",murky,\r\n';
  const looked = await send('roasts', roasts);
  expect(looked.body).toMatchObject({
    taken: false,
    rows: [
      { line: 2, ok: true, shows: 'Saltmarsh, light, roasted 2026-11-20' },
      { line: 3, ok: false, reason: expect.stringContaining('must be one of') },
    ],
  });
  const refused = await send('roasts', roasts, true);
  expect([refused.status, refused.body.errors[0].field]).toEqual([422, 'line 3']);
  expect((await get('/api/bar')).coffees).toHaveLength(1);
  const taken = await send('roasts', roasts.replace('murky', 'dark'), true);
  expect(taken.status).toBe(201);
  expect((await get('/api/bar')).coffees.map(({ id }: { id: string }) => id)).toEqual([
    'house',
    'saltmarsh',
    'low-beacon',
  ]);
  const orders =
    'order,guest,coffee,recipe,ml\r\n1,pilot,Saltmarsh,cone-thirds,250\r\n1,,Saltmarsh,press-long,240\r\n';
  expect((await send('orders', orders, true)).status).toBe(201);
  const [only] = Object.values(bar.log.state().orders);
  expect([only!.name, only!.cups.map(({ cupMl }) => cupMl)]).toEqual(['pilot', [250, 240]]);
  // One that no brewer here makes is refused with all the rest.
  const big = await send('orders', `${orders}2,,Saltmarsh,cone-thirds,1900\r\n`, true);
  expect(big.status).toBe(422);
  expect(Object.keys(bar.log.state().orders)).toHaveLength(1);
  expect((await send('orders', 'a,b\r\n1,2\r\n')).body.detail).toContain(
    'must name the columns coffee, recipe, ml',
  );
});
