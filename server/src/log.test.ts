/** The Log over HTTP against a real SQLite file: found again, learnt from, and carried elsewhere. */
import request from 'supertest';
import { stateHash } from './files/archive';
import {
  bar,
  brewed,
  buildImportWorker,
  close,
  cup,
  get,
  http,
  newId,
  now,
  open,
  order,
  post,
  sendFile,
  start,
  takeFile,
  taste,
  textOf,
} from './testing/bar';

beforeAll(buildImportWorker);

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
  const { endedMs } = (await get(`/api/brews/${second}`)).record;
  // From a moment on, up to another that is not in it.
  expect(idsOf(await get(`/api/log?fromMs=${endedMs}`)).sort()).toEqual([second, third]);
  expect(idsOf(await get(`/api/log?fromMs=${endedMs}&toMs=${endedMs + 1}`))).toEqual([second]);
  expect(idsOf(await get(`/api/log?toMs=${endedMs}`))).toEqual([first]);
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
  expect(page.advice.words).toMatch(/^3 steps coarser: about \d:\d\d ± 0:\d\d \(80 %\), from 1 brew$/);
  await post({ id: newId(), type: 'event-undone', atMs: now(), eventId: said.id });
  expect((await get(`/api/brews/${brewId}`)).record.taste).toBeNull();
  expect((await request(http).get('/api/brews/nobody')).status).toBe(404);
});

test('a cup is told of when its brew has long left the live state, and told anew; a log that is read again says the same', async () => {
  const old = await brewed(-100);
  await brewed(2);
  expect(Object.keys(bar.log.state().brews)).toEqual(['c2.1']);
  const told = async () => (await get(`/api/brews/${old}`)).record;
  expect((await taste(old, { balance: 1, tdsPct: 1.4, beverageG: 240 })).status).toBe(200);
  const first = await told();
  expect(first).toMatchObject({ taste: { balance: 1 }, beverageG: 240 });
  expect(first.steps.length).toBeGreaterThan(9);
  expect(first.yieldPct).toBeCloseTo((1.4 * 240) / 17.6, 1);
  expect(idsOf(await get('/api/log?taste=bitter'))).toEqual([old]);

  // What was measured with the first word goes with it.
  await taste(old, { strength: -1 });
  expect(await told()).toMatchObject({ taste: { strength: -1 }, beverageG: null, yieldPct: null });
  expect(idsOf(await get('/api/log?taste=bitter'))).toEqual([]);
  const nobody = await taste('nobody.1', { balance: 0 });
  expect([nobody.status, nobody.body.detail]).toEqual([422, 'There is no such brew in the log.']);

  const said = await told();
  await bar.log.rebuildRecords();
  expect(await told()).toEqual(said);
  await close();
  await open();
  await taste(old, { balance: -1, tdsPct: 1.2 });
  expect((await told()).yieldPct).toBeCloseTo((1.2 * first.plannedBeverageG) / 17.6, 1);
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

test('a cup that was poured out of another order’s brew counts for its own order: its wait, and whether it was late', async () => {
  await brewed(1, {
    cup: { cupMl: 220 },
    guests: (atMs) => [
      {
        ...order('late', cup('l1', { cupMl: 220, with: { orderId: 'o1', cupId: 'c1' } })),
        atMs,
        name: 'Mate',
        promisedMs: atMs + 60_000,
      },
    ],
  });
  expect((await get('/api/brews/c1.1')).record).toMatchObject({
    cups: 2,
    sharers: [{ orderId: 'late', guest: 'Mate' }],
  });
  const day = await get(`/api/day?fromMs=${Math.round(now()) - 10 * 3_600_000}&toMs=${Math.round(now())}`);
  expect(day).toMatchObject({ cups: 2, orders: 2, late: [{ orderId: 'late', guest: 'Mate' }] });
  expect(day.waitS.longest - day.waitS.median).toBeCloseTo(2.5, 0);
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
  // The first bar brews with cones and an hourglass, a press and an air press: those that use paper.
  const cones = () =>
    get('/api/house').then(({ papers }) => papers.find((of: { method: string }) => of.method === 'cone'));
  expect(await cones()).toEqual({ method: 'cone', sheets: null, perDay: 0.1 });
  await post({
    id: newId(),
    type: 'papers-counted',
    atMs: Math.round(now()) - 9 * 3_600_000,
    method: 'cone',
    sheets: 100,
  });
  expect((await cones()).sheets).toBe(99);
  const wrong = await post({
    id: newId(),
    type: 'papers-counted',
    atMs: now(),
    method: 'press',
    sheets: 1.5,
  });
  expect(wrong.body.errors.map(({ field }: { field: string }) => field)).toEqual([
    'events.0.method',
    'events.0.sheets',
  ]);
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
  const jsonl = await textOf('/api/files/log.jsonl');
  expect(
    jsonl
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line).coffee)
      .sort()[0],
  ).toBe('=1+1');
  const calendar = await textOf('/api/files/care.ics');
  expect(calendar).toMatch(/^BEGIN:VCALENDAR\r\n/);
});

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
  const archive = await textOf('/api/files/archive.json');
  const full = await sendFile('archive', archive);
  expect(full).toMatchObject({ phase: 'looked', found: { rows: bar.log.seq() } });
  expect(await takeFile(full.id)).toMatchObject({
    phase: 'refused',
    reason: 'This bar has a log already. Read an archive into an empty one.',
  });

  await close();
  await open(1, true);
  for (const [broken, words] of [
    [archive.replace('"cone-1"', '"no station!"'), /^(bar|events)[\w.]*: must be/],
    [archive.replace('even-kettle/archive@1', 'even-kettle/archive@9'), /^format: must be/],
    [archive.replace('"step-done"', '"step-dreamt"'), /^events\.\d+/],
    [archive.replace('"traces"', '"tracks"'), /^tracks: is no part of an archive/],
    [archive.replace('"traces"', '"constructor"'), /^constructor: is no part of an archive/],
    [archive.slice(0, -40), /ends too soon|no JSON/],
  ] as const)
    expect(await sendFile('archive', broken)).toMatchObject({
      phase: 'refused',
      reason: expect.stringMatching(words),
    });
  // The same event twice is seen when it is written: then all of it is taken back.
  const [twice] = /\n\{[^\n]*"step-begun"[^\n]*\},/.exec(archive)!;
  const doubled = await sendFile('archive', archive.replace(twice, twice + twice));
  expect(await takeFile(doubled.id)).toMatchObject({
    phase: 'refused',
    reason: 'It has the same event twice.',
  });
  expect([bar.log.seq(), (await get('/api/bar')).name]).toEqual([0, 'Brew bar']);

  const looked = await sendFile('archive', archive);
  expect(await takeFile(looked.id)).toMatchObject({ phase: 'taken', taken: looked.found!.rows });
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

test('a device that was away for long posts brews and what came after them at once: each has its record', async () => {
  const ago = (hours: number, event: object) => ({ ...event, atMs: now() - hours * 3_600_000 });
  const events = [14, 2].flatMap((hours) => {
    const [orderId, cupId] = [`away-${hours}`, `away-${hours}-1`];
    return [
      ago(hours, order(orderId, cup(cupId))),
      ago(hours, start(cupId, orderId)),
      ago(hours, { id: newId(), type: 'brew-abandoned', brewId: `${cupId}.1`, reason: 'spilt' }),
      ago(hours, { id: newId(), type: 'guest-left', orderId }),
    ];
  });
  expect((await post(...events, order('next', cup('next-1')))).status).toBe(200);
  expect(Object.keys(bar.log.state().orders)).toEqual(['next']);
  expect(idsOf(await get('/api/log'))).toEqual(['away-2-1.1', 'away-14-1.1']);
});
