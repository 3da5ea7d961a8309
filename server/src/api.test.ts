/** The API against a real SQLite file: what is stored, what is refused, what a restart remembers. */
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import request from 'supertest';
import { ADDRESSES } from '@even-kettle/core/contract/addresses';
import { barSchema } from '@even-kettle/core/contract';
import { readPlanProblem } from '@even-kettle/core/formats';
import { checkPlan } from '@even-kettle/core/plan';
import { SCHOOLS } from '@even-kettle/core/recipe';
import { openDatabase } from './store/database';
import {
  folder,
  bar,
  http,
  open,
  openOver,
  close,
  newId,
  now,
  cup,
  order,
  start,
  done,
  post,
  stored,
} from './testing/bar';

test('events are stored once however often they are posted, and the state is what they make', async () => {
  const events = [order('A', cup('a1')), start('a1', 'A'), done('a1.1', 'fill')];
  const first = await post(...events);
  expect([first.status, first.body]).toEqual([
    200,
    { accepted: events.map(({ id }) => id), duplicates: [], seq: 3 },
  ]);
  const again = await post(...events);
  expect([again.status, again.body.accepted, again.body.duplicates]).toEqual([
    200,
    [],
    events.map(({ id }) => id),
  ]);
  const state = await request(http).get('/api/state');
  expect(state.body).toMatchObject({
    seq: 3,
    state: { brews: { 'a1.1': { status: 'running', card: { doseG: 17.6, brewWaterG: 285 } } } },
  });
  expect(await stored()).toBe(3);
});

test('the bar is planned after each post, and the plan is part of the state', async () => {
  await post(order('A', cup('a1'), cup('a2', { recipeId: 'press-long' })));
  await bar.planning.replan('event');
  const { body } = await request(http).get('/api/state');
  expect(Object.keys(body.planned.plan.finish)).toEqual(['A']);
  expect(body.planned.plan.starts['a2.1/plunge']).toBeGreaterThan(body.planned.plan.starts['a2.1/pour']);
  const problem = await request(http).get('/api/plan/problem');
  const planned = await request(http).get('/api/plan');
  expect(readPlanProblem(JSON.stringify(problem.body)).ok).toBe(true);
  expect(checkPlan(problem.body, planned.body.plan)).toEqual([]);
});

describe('bad input gets a field and a reason, and nothing is stored', () => {
  const bad: [string, number, () => object | string, string, RegExp][] = [
    [
      'a cup of 0 ml',
      422,
      () => order('A', cup('a1', { cupMl: 0 })),
      'events.0.cups.0.cupMl',
      /at least 60 ml/,
    ],
    [
      'a cup of 5 l',
      422,
      () => order('A', cup('a1', { cupMl: 5000 })),
      'events.0.cups.0.cupMl',
      /at most 1000 ml/,
    ],
    [
      'a cup size in words',
      422,
      () => order('A', cup('a1', { cupMl: 'large' })),
      'events.0.cups.0.cupMl',
      /number of ml/,
    ],
    [
      'a cup that fits no brewer here',
      422,
      () => order('A', cup('a1', { recipeId: 'press-long', cupMl: 300 })),
      'events.0.cups.0.cupMl',
      /Press 350 ml makes about 186 to 253 ml\. Press 1 l makes about/,
    ],
    [
      'a recipe that is not there',
      422,
      () => order('A', cup('a1', { recipeId: 'cone-of-legend' })),
      'events.0.cups.0.recipeId',
      /no recipe cone-of-legend/,
    ],
    [
      'seven cups',
      422,
      () => order('A', ...Array.from({ length: 7 }, (_, index) => cup(`a${index}`))),
      'events.0.cups',
      /at most six/,
    ],
    ['an order with no cup', 422, () => order('A'), 'events.0.cups', /at least one/],
    ['a field that nobody knows', 422, () => ({ ...order('A', cup('a1')), price: 3 }), 'events.0', /price/],
    ['an id that is none', 422, () => ({ ...order('A', cup('a1')), id: 'one' }), 'events.0.id', /UUID/],
    [
      'a kind of event that nobody knows',
      422,
      () => ({ ...order('A', cup('a1')), type: 'order-wished' }),
      'events.0.type',
      /./,
    ],
    [
      'an event days ahead of the bar’s clock',
      422,
      () => ({ ...order('A', cup('a1')), atMs: now() + 2 * 86_400_000 }),
      'events.0.atMs',
      /ahead of the bar’s clock/,
    ],
    [
      'a step of a brew that is not there',
      422,
      () => done('a1.1', 'fill'),
      'events.0.brewId',
      /no such brew/,
    ],
    [
      'undoing what never was',
      409,
      () => ({ id: newId(), type: 'event-undone', atMs: now(), eventId: newId() }),
      'events.0.eventId',
      /Nothing is left to undo/,
    ],
    [
      'markup in a name that is too long',
      422,
      () => order('A', cup('a1', { coffee: '<script>'.repeat(9) })),
      'events.0.cups.0.coffee',
      /at most 40/,
    ],
  ];
  test.each(bad)('%s', async (_what, status, event, field, reason) => {
    const answer = await post(event() as object);
    expect([answer.status, answer.type]).toEqual([status, 'application/problem+json']);
    expect(answer.body.errors[0]).toMatchObject({ field, reason: expect.stringMatching(reason) });
    expect(await stored()).toBe(0);
  });

  test('a step out of order, a busy station, and an event with another’s id', async () => {
    const taken = order('A', cup('a1'), cup('a2'));
    await post(taken, start('a1', 'A'));
    const outOfOrder = await post(done('a1.1', 'pour-3'));
    expect([outOfOrder.status, outOfOrder.body.errors[0]]).toMatchObject([
      409,
      { field: 'events.0.stepId', code: 'step-not-next', reason: 'Do “Fill the kettle” first.' },
    ]);
    const busy = await post(start('a2', 'A'));
    expect([busy.status, busy.body.errors[0].code]).toEqual([409, 'station-busy']);
    const other = await post({ ...taken, name: 'somebody else' });
    expect([other.status, other.body.errors[0]]).toMatchObject([
      409,
      { field: 'events.0.id', code: 'id-taken' },
    ]);
    expect(await stored()).toBe(2);
  });

  test('a post with one bad event stores none of it, and names the one', async () => {
    const wrong = done('a1.1', 'pour-3');
    const answer = await post(order('A', cup('a1')), start('a1', 'A'), wrong);
    expect([answer.status, answer.body.errors[0].eventId, await stored()]).toEqual([409, wrong.id, 0]);
  });

  test('what is not JSON, not declared as JSON, or 10 MB', async () => {
    const raw = (type: string, body: string) =>
      request(http).post('/api/events').set('Content-Type', type).send(body);
    expect((await raw('application/json', '{"events": [')).body).toMatchObject({
      status: 400,
      type: 'urn:even-kettle:problem:not-json',
    });
    expect((await raw('text/plain', 'events')).body).toMatchObject({ status: 415 });
    expect(
      (await raw('application/json', JSON.stringify({ events: 'x'.repeat(10_000_000) }))).body,
    ).toMatchObject({ status: 413 });
    expect((await raw('application/json', '[]')).body).toMatchObject({ status: 422 });
    expect(await stored()).toBe(0);
  });

  test('an address with nothing at it, and a wrong query', async () => {
    expect((await request(http).get('/api/milk')).body).toMatchObject({ status: 404 });
    expect((await request(http).get('/api/log?limit=9999')).body).toMatchObject({ status: 422 });
    expect((await request(http).get('/api/live?after=-3')).body).toMatchObject({ status: 422 });
  });
});

test('a restarted server has the same state, goes on counting bar time at its rate, and still refuses what it refused', async () => {
  await close();
  await open(60);
  const events = [order('A', cup('a1')), start('a1', 'A'), done('a1.1', 'fill')];
  await post(...events);
  const before = { state: bar.log.state(), seq: bar.log.seq(), barMs: now() };
  await close();
  await new Promise((resolve) => setTimeout(resolve, 100));
  await open(60);
  expect([bar.log.state(), bar.log.seq()]).toEqual([before.state, before.seq]);
  // 100 ms of absence are 6 s of bar time at rate 60: the clock went on while nobody kept it.
  expect(now() - before.barMs).toBeGreaterThanOrEqual(6000);
  expect((await post(done('a1.1', 'pour-3'))).status).toBe(409);
});

test('a log with an event that the rules no longer take still opens: it is passed over, and said', async () => {
  await post(order('A', cup('a1')), start('a1', 'A'));
  await close();
  const source = await openDatabase(join(folder, 'bar.sqlite'));
  await source.query(
    `INSERT INTO event (id, type, at_ms, received_ms, body) VALUES ('x', 'brew-levitated', 0, 0, '{"id":"x","type":"brew-levitated","atMs":0}')`,
  );
  const warnings: string[] = [];
  const opened = await openOver(source, { warn: (_detail, message) => warnings.push(message) });
  expect([warnings.length, Object.keys(opened.log.state().brews)]).toEqual([1, ['a1.1']]);
  await opened.close();
  await open();
});

test('the database itself refuses to change or delete an event', async () => {
  await post(order('A', cup('a1')));
  const source = await openDatabase(join(folder, 'bar.sqlite'));
  await expect(source.query("UPDATE event SET body = '{}'")).rejects.toThrow('never changed');
  await expect(source.query('DELETE FROM event')).rejects.toThrow('never deleted');
  expect(await source.query('PRAGMA journal_mode')).toEqual([{ journal_mode: 'wal' }]);
  await source.destroy();
});

test('a served brew is in the log with planned against real, an undone serving is not, and the records can be made anew', async () => {
  await post(order('A', cup('a1')), start('a1', 'A', { atMs: now() }));
  const steps = ['fill', 'set-filter', 'weigh', 'load', 'bloom', 'pour-2', 'pour-3', 'pour-4', 'drawdown'];
  await post(...steps.map((stepId) => done('a1.1', stepId, stepId === 'pour-4' ? { readingG: 287 } : {})));
  const serving = { id: newId(), type: 'brew-served', atMs: now(), brewId: 'a1.1' };
  await post(serving);
  const { body } = await request(http).get('/api/log');
  expect(body.records).toHaveLength(1);
  expect(body.records[0]).toMatchObject({
    outcome: 'served',
    coffee: 'Saltmarsh',
    plannedBrewS: 187,
    pouredG: 287,
    stationName: 'Cone 1',
  });
  expect(body.records[0].steps.find(({ id }: { id: string }) => id === 'pour-4')).toMatchObject({
    plannedStartS: 100,
    targetG: 285,
    readingG: 287,
  });
  expect(await bar.log.rebuildRecords()).toBe(1);
  expect((await request(http).get('/api/log')).body).toEqual(body);
  await post({ id: newId(), type: 'event-undone', atMs: now(), eventId: serving.id });
  expect((await request(http).get('/api/log')).body.records).toEqual([]);
});

test('the live stream brings events with their place, resumes after one, and is not held back by compression', async () => {
  await post(order('A', cup('a1')), order('B', cup('b1')));
  const { port } = http.address() as AddressInfo;
  const abort = new AbortController();
  const response = await fetch(`http://127.0.0.1:${port}/api/live`, {
    headers: { 'Last-Event-ID': '1', 'Accept-Encoding': 'gzip' },
    signal: abort.signal,
  });
  expect([response.headers.get('content-type'), response.headers.get('content-encoding')]).toEqual([
    'text/event-stream; charset=utf-8',
    null,
  ]);
  const reader = response.body!.getReader();
  let text = '';
  const until = async (wanted: RegExp) => {
    while (!wanted.test(text)) text += new TextDecoder().decode((await reader.read()).value);
  };
  await until(/id: 2\nevent: bar-event/);
  expect(text).not.toMatch(/id: 1\n/);
  await post(start('a1', 'A'));
  await until(/id: 3\nevent: bar-event\ndata: .*brew-started/);
  await until(/event: plan/);
  abort.abort();
});

test('units and altitude can be changed, are checked, and are kept', async () => {
  const units = { mass: 'oz', temperature: 'F', volume: 'fl oz' };
  expect((await request(http).patch('/api/bar').send({ units, altitudeM: 2150 })).body).toMatchObject({
    units,
    altitudeM: 2150,
  });
  expect((await request(http).patch('/api/bar').send({ altitudeM: 99_000 })).body).toMatchObject({
    status: 422,
    errors: [{ field: 'altitudeM', reason: 'must be at most 5000 m' }],
  });
  expect((await request(http).patch('/api/bar').send({ nickname: 'x' })).status).toBe(422);
  await close();
  await open();
  expect((await request(http).get('/api/bar')).body).toMatchObject({ units, altitudeM: 2150 });
});

test('what stands on the bench can be changed, is checked at its field, and a station in use stays', async () => {
  const patch = (change: object) => request(http).patch('/api/bar').send(change);
  const points = [
    { band: 20, setting: 30 },
    { band: 80, setting: 6 },
  ];
  const grinders = [{ id: 'g', name: 'Mill', points, keepsG: 0.3 }];
  const coffees = [
    {
      id: 'a',
      name: 'Ebb',
      roast: 'dark',
      roastedOn: '2026-11-20',
      notes: '',
      decaf: true,
      grindOffsets: { g: -1 },
    },
  ];
  const kettles = [{ id: 'k', name: 'Small', powerW: 900, sizeMl: 600 }];
  expect((await patch({ grinders, coffees, kettles, tapC: 15, roomC: 18 })).body).toMatchObject({
    grinders,
    coffees,
    kettles,
  });
  for (const [change, field, reason] of [
    [{ coffees: [...coffees, coffees[0]] }, 'coffees.1.id', /already used by another coffee/],
    [{ coffees: [{ ...coffees[0], roastedOn: 'last week' }] }, 'coffees.0.roastedOn', /a day, like/],
    [{ hands: 3 }, 'hands', /2/],
    [{ grinders: [{ ...grinders[0], points: [points[0]] }] }, 'grinders.0.points', /at least two points/],
    [{ kettles: [{ ...kettles[0], powerW: 9 }] }, 'kettles.0.powerW', /at least 100 W/],
    [
      { stations: [{ id: 's', name: 'S', brewerId: 'bucket' }] },
      'stations.0.brewerId',
      /a brewer that there is/,
    ],
  ] as const) {
    const { status, body } = await patch(change);
    expect([status, body.errors[0].field]).toEqual([422, field]);
    expect(body.errors[0].reason).toMatch(reason);
  }
  await post(order('A', cup('a1')), start('a1', 'A'));
  const { stations } = bar.bar();
  expect((await patch({ stations: stations.slice(1) })).body).toMatchObject({
    status: 409,
    errors: [{ field: 'stations', reason: expect.stringContaining('Cone 1 has a brew on it') }],
  });
  expect((await patch({ stations: stations.slice(0, 5) })).status).toBe(200);
});

test('a brewer of the bar’s own stands at a station, and cannot be taken from under it', async () => {
  const clay = { id: 'clay', name: 'Clay cone', method: 'cone', minDoseG: 12, maxDoseG: 22, maxWaterG: 200 };
  const { stations } = bar.bar();
  const own = [{ id: 'own', name: 'Own', brewerId: 'clay' }, ...stations.slice(1)];
  const change = (body: object) => request(http).patch('/api/bar').send(body);
  const early = await change({ stations: own });
  expect([early.status, early.body.errors[0].field]).toEqual([422, 'stations.0.brewerId']);
  expect((await change({ brewers: [{ ...clay, maxDoseG: 10 }] })).body.errors[0]).toMatchObject({
    field: 'brewers.0.maxDoseG',
    reason: 'must be more than the least dose',
  });
  expect((await change({ brewers: [clay], stations: own })).status).toBe(200);
  expect((await change({ brewers: [] })).body.errors[0].field).toBe('stations.0.brewerId');
  // A brew takes along what is true of it, and is the same after a restart.
  await post(order('A', cup('a1')));
  const other = { ...clay, id: 'another' };
  const wrong = start('a1', 'A', {
    stationId: 'own',
    stationName: 'Own',
    brewerId: 'clay',
    ownBrewer: other,
  });
  expect((await post(wrong)).body.errors[0].field).toMatch(/ownBrewer$/);
  const begun = start('a1', 'A', { stationId: 'own', stationName: 'Own', brewerId: 'clay', ownBrewer: clay });
  expect((await post(begun)).status).toBe(200);
  await close();
  await open();
  const { state } = (await request(http).get('/api/state')).body;
  expect(state.brews['a1.1']).toMatchObject({ brewerId: 'clay', ownBrewer: clay });
});

test('a recipe is saved as a new version, old brews keep theirs, and nothing is overwritten', async () => {
  const thirds = SCHOOLS[0]!;
  const save = (recipe: object, basedOn: number | null) =>
    request(http).post('/api/recipes').send({ recipe, basedOn });
  await post(order('A', cup('a1')), start('a1', 'A'));
  const second = await save({ ...thirds, ratio: 15 }, 2);
  expect([second.status, second.body.version, second.body.ratio]).toEqual([201, 3, 15]);
  expect((await save({ ...thirds, ratio: 14 }, 2)).body).toMatchObject({
    status: 409,
    detail: expect.stringContaining('has come to version 3 since version 2 was opened'),
  });
  expect((await save({ ...thirds, id: 'cone-thirds' }, null)).body.detail).toContain(
    'There is a recipe “cone-thirds” here already',
  );
  expect((await save({ ...thirds, id: 'cone-mine' }, 3)).body.detail).toContain(
    'There is no recipe “cone-mine” here',
  );
  expect((await save({ ...thirds, id: 'cone-mine', version: 9 }, null)).body).toMatchObject({
    id: 'cone-mine',
    version: 1,
  });

  await post(order('B', cup('b1', { recipeVersion: 3 })));
  await close();
  await open();
  const { recipes } = (await request(http).get('/api/recipes')).body;
  expect(recipes.find(({ id }: { id: string }) => id === 'cone-thirds').version).toBe(3);
  const versions = (await request(http).get('/api/recipes/cone-thirds/versions')).body.recipes;
  expect(versions.map(({ version, ratio }: { version: number; ratio: number }) => [version, ratio])).toEqual([
    [1, 16.2],
    [2, 16.2],
    [3, 15],
  ]);
  expect((await request(http).get('/api/recipes/none/versions')).status).toBe(404);
  // 250 / (16.2 - 2) was begun; 250 / (15 - 2) is asked for.
  const { state } = (await request(http).get('/api/state')).body;
  expect(state.brews['a1.1'].card).toMatchObject({ recipeVersion: 2, doseG: 17.6 });
  await post(start('b1', 'B', { stationId: 'cone-2', stationName: 'Cone 2' }));
  expect((await request(http).get('/api/state')).body.state.brews['b1.1'].card).toMatchObject({
    recipeVersion: 3,
    doseG: 19.2,
  });
  const source = await openDatabase(join(folder, 'bar.sqlite'));
  await expect(source.query("UPDATE recipe_version SET body = '{}'")).rejects.toThrow('never changed');
  await source.destroy();
});

test('a recipe that is wrong is refused at its field, and not stored', async () => {
  const thirds = SCHOOLS[0]!;
  const steps = thirds.steps.map((step) =>
    step.id === 'pour-4' ? { ...step, pour: { amount: { toShare: 1.4 }, flowGPerS: 5 } } : step,
  );
  for (const [change, field, reason] of [
    [{ steps }, 'recipe.steps.10.pour.amount', /come to 140 %/],
    [{ name: '<b>hot</b>' }, 'recipe.name', /plain text, without < or >/],
    [{ refDoseG: -1 }, 'recipe.refDoseG', /at least 3 g/],
    [{ holds: [{ tool: 'brewer', from: 'clean', to: 'fill' }] }, 'recipe.holds.0.to', /back to “fill”/],
  ] as const) {
    const { status, body } = await request(http)
      .post('/api/recipes')
      .send({ recipe: { ...thirds, ...change }, basedOn: 1 });
    expect([status, body.errors[0].field]).toEqual([422, field]);
    expect(body.errors[0].reason).toMatch(reason);
  }
  expect((await request(http).post('/api/recipes').send({ recipe: thirds })).status).toBe(422);
  const { recipes } = (await request(http).get('/api/recipes/cone-thirds/versions')).body;
  expect(recipes.map(({ version }: { version: number }) => version)).toEqual([1, 2]);
  expect((await request(http).get('/api/schemas/recipe.json')).body.required).toContain('steps');
});

test('a bench that was stored as counts comes up as things', async () => {
  await close();
  const source = await openDatabase(join(folder, 'old.sqlite'));
  for (let back = source.migrations.length; back > 1; back -= 1) await source.undoLastMigration();
  const {
    grinders: _g,
    kettles: _k,
    tapC: _t,
    burners: _b,
    roomC: _r,
    water: _w,
    people: _p,
    cloths: _c,
    tasteAfterMin: _m,
    pace: _pace,
    version: _version,
    ...rest
  } = bar.bar();
  const old = { ...rest, grinders: 2, kettles: 1, kettle: { powerW: 1500, filledAtC: 15 } };
  await source.query(`INSERT INTO setting (name, body) VALUES ('bar', ?)`, [JSON.stringify(old)]);
  await source.runMigrations();
  const [row] = await source.query(`SELECT body FROM setting WHERE name = 'bar'`);
  const upgraded = barSchema.parse(JSON.parse(row.body));
  expect(upgraded).toMatchObject({
    tapC: 15,
    kettles: [{ powerW: 1500 }],
    grinders: [{ id: 'grinder-1' }, { id: 'grinder-2' }],
    people: [],
  });
  await source.destroy();
  await open();
});

test('the API describes itself; every route that it describes is there, and every schema that it names', async () => {
  const { body } = await request(http).get('/api/openapi.json');
  expect(body.openapi).toBe('3.1.0');
  const described = Object.entries<Record<string, { operationId: string; responses: object }>>(
    body.paths,
  ).flatMap(([path, methods]) => Object.entries(methods).map(([method, of]) => ({ path, method, ...of })));
  expect(described.map(({ operationId }) => operationId).sort()).toEqual(Object.keys(ADDRESSES).sort());
  for (const { path, method, operationId, responses } of described) {
    if (operationId.startsWith('live')) continue;
    const answer = await request(http)[method as 'get'](path.replace('{id}', 'nobody'));
    // Nothing that is asked for in vain is answered as if nothing were there, or otherwise than described.
    expect([operationId, answer.body.type]).not.toEqual([operationId, 'urn:even-kettle:problem:not-found']);
    expect([operationId, Object.keys(responses)]).toEqual([
      operationId,
      expect.arrayContaining([`${answer.status}`]),
    ]);
  }
  const refs = [...JSON.stringify(body).matchAll(/#\/components\/schemas\/(\w+)/g)].map(([, name]) => name);
  for (const name of refs) expect(Object.keys(body.components.schemas)).toContain(name);
  expect(
    body.components.schemas.PostEvents.properties.events.items.oneOf ??
      body.components.schemas.PostEvents.properties.events.items.anyOf,
  ).toHaveLength(38);
});

test('health, clock and headers', async () => {
  expect((await request(http).get('/api/health')).body).toMatchObject({
    status: 'ok',
    store: 'ok',
    planner: 'ok',
    version: 'test',
    seq: 0,
  });
  const { body, headers } = await request(http).get('/api/clock');
  expect([body.rate, Math.abs(body.barMs - Date.now()) < 1000]).toEqual([1, true]);
  expect(headers['content-security-policy']).toContain("script-src 'self'");
  expect(headers['content-security-policy']).not.toMatch(/script-src[^;]*unsafe/);
});

test('an outbox of version 0.1 is taken whole: pairs of hands as it numbers them; a wrong one is named in words, and alone', async () => {
  await post(order('A', cup('a1')), start('a1', 'A'));
  const taken = (change: object) => ({
    id: newId(),
    type: 'step-taken',
    atMs: now(),
    brewId: 'a1.1',
    stepId: 'fill',
    ...change,
  });
  const old = taken({ hands: 2 });
  expect((await post(old, done('a1.1', 'fill'))).status).toBe(200);
  expect((await post(old)).body.duplicates).toEqual([old.id]);
  expect(bar.log.state().brews['a1.1']!.takenBy).toEqual({ fill: 1 });
  const wrong = taken({ hands: 7 });
  const { status, body } = await post(taken({ pair: 0, stepId: 'weigh' }), wrong);
  expect([status, body.errors]).toEqual([
    422,
    [{ field: 'events.1.pair', reason: 'must be one of 0, 1', code: 'invalid_value', eventId: wrong.id }],
  ]);
});

test('taps that come under a name that is not the server’s are kept by every version of the app', async () => {
  const asked = (path: string) =>
    request(http)
      .post(path)
      .set('Host', 'bar.lan')
      .send({ events: [order('A', cup('a1'))] });
  const { status, body } = await asked('/api/events');
  expect([status, body.detail]).toEqual([503, expect.stringMatching(/EVEN_KETTLE_HOSTS/)]);
  expect((await asked('/api/orders')).status).toBe(421);
  expect(await stored()).toBe(0);
});
