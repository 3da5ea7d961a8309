/** Scales and kettles at a real bar: what they see becomes events, what they say reaches the screens. */
import { openGate } from '../access/gate';
import { accessPolicy } from '../access/hosts';
import type { AddressInfo } from 'node:net';
import request from 'supertest';
import { CARD_VERSION } from '@even-kettle/core/recipe';
import { v7 as uuid } from 'uuid';
import { WebSocket } from 'ws';
import { seededRandom } from '@even-kettle/core/rush';
import { timelineAt, type BarEvent } from '@even-kettle/core/brew';
import { NO_DRAIN } from '@even-kettle/core/pour';
import { bar, close, http, open } from '../testing/bar';
import { hostConformance } from './conformance';
import { bridgeKettle, bridgeScale } from './sample-bridge';
import { simulatedKettle } from './simulated-kettle';
import { simulatedScale } from './simulated-scale';

const RATE = 30;
let url: string;

beforeEach(async () => {
  // Bar time runs faster here, so that a brew is over in seconds.
  await close();
  await open(RATE);
  bar.devices.attach(http, accessPolicy(), openGate(null, false));
  url = `ws://127.0.0.1:${(http.address() as AddressInfo).port}/api/bridge`;
});

const until = async (what: string, holds: () => boolean | Promise<boolean>, forMs = 12_000) => {
  const endMs = performance.now() + forMs;
  while (!(await holds())) {
    if (performance.now() > endMs) throw new Error(`It did not come to: ${what}.`);
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
};
const brew = () => bar.log.state().brews['a.1']!;
const at = () => ({ id: uuid(), atMs: bar.clock.nowMs() });
const took = async (...events: BarEvent[]) => {
  const result = await bar.post(events);
  expect(result).toMatchObject({ ok: true });
};
const scaleAt = (stationId: string) =>
  bar.devices.shown().scales.find((scale) => scale.stationId === stationId)!;
const setStation = (scale: 'simulated' | 'bridge') =>
  request(http)
    .patch('/api/bar')
    .send({ stations: [{ id: 'cone-1', name: 'Cone 1', brewerId: 'cone-m', scale }] })
    .expect(200);

/** An order, and its cone prepared up to the tare. */
async function prepared(more: { kettleId?: string } = {}): Promise<void> {
  await took(
    {
      ...at(),
      type: 'order-taken',
      orderId: 'A',
      cups: [
        { cupId: 'a', recipeId: 'cone-thirds', recipeVersion: 1, coffee: 'x', roast: 'medium', cupMl: 250 },
      ],
    },
    {
      ...at(),
      type: 'brew-started',
      brewId: 'a.1',
      orderId: 'A',
      cupId: 'a',
      stationId: 'cone-1',
      stationName: 'Cone 1',
      brewerId: 'cone-m',
      altitudeM: 0,
      kettlePowerW: 1200,
      kettleFilledAtC: 90,
      prepVersion: CARD_VERSION,
      ...more,
    },
  );
  for (const stepId of ['fill', 'set-filter', 'weigh', 'load'])
    await took({ ...at(), type: 'step-done', brewId: 'a.1', stepId });
}

test('a practised hand at the simulated scale brews a cone: the scale starts the clock, ends each pour, and keeps the trace', async () => {
  await setStation('simulated');
  await prepared();
  await until('a tared scale', () => Math.abs(scaleAt('cone-1').massG) < 1);
  await request(http).post('/api/devices/scales/cone-1').send({ do: 'practised', on: true }).expect(204);
  await until('the last pour', () => brew().marks['pour-4']?.doneMs !== undefined, 20_000);
  for (const { step } of timelineAt(brew(), bar.clock.nowMs())) {
    if (step.targetG === undefined) continue;
    const { begunMs, doneMs, readingG, targetG } = brew().marks[step.id]!;
    expect([step.id, begunMs !== undefined, Math.abs(readingG! - targetG!) <= 2]).toEqual([
      step.id,
      true,
      true,
    ]);
    expect(doneMs! - begunMs!).toBeGreaterThan(4000);
  }
  // The trace is there at once, and after a restart; its end is what the last pour read.
  const read = async () => (await request(http).get('/api/brews/a.1/trace').expect(200)).body.points;
  const points = await read();
  expect(points.length).toBeGreaterThan(10);
  expect(Math.abs(points.at(-1).massG - brew().marks['pour-4']!.readingG!)).toBeLessThan(1);
  await close();
  await open();
  expect((await read()).length).toBeGreaterThanOrEqual(points.length);
  await request(http).get('/api/brews/none/trace').expect(404);
});

test('a held thumb pours, and a scale that is lost leaves everything to taps', async () => {
  await setStation('simulated');
  await prepared();
  const order = (body: object) => request(http).post('/api/devices/scales/cone-1').send(body);
  await order({ do: 'pour', flowGPerS: 6 }).expect(204);
  await until('the first water', () => brew().marks['bloom']?.begunMs !== undefined);
  await until('water on the scale', () => scaleAt('cone-1').massG > 3);
  await order({ do: 'lose', forS: 60 }).expect(204);
  await until('a lost scale', () => !scaleAt('cone-1').connected);
  await took({ ...at(), type: 'step-done', brewId: 'a.1', stepId: 'bloom' });
  expect(brew().marks['bloom']!.readingG).toBeUndefined();
  await until('the scale again', () => scaleAt('cone-1').connected);
  // Taken at its word, it reads on from what was said to be poured.
  await until('the bloom on the scale', () => scaleAt('cone-1').massG > 39);
  await order({ do: 'pour', flowGPerS: -1 }).expect(422);
  await request(http).post('/api/devices/scales/press-9').send({ do: 'tare' }).expect(404);
});

test('the kettle that the card named is the one that is filled, also after a restart', async () => {
  const kettles = ['k1', 'k2'].map((id) => ({
    id,
    name: id,
    powerW: 1200,
    sizeMl: 1000,
    device: 'simulated' as const,
  }));
  await request(http).patch('/api/bar').send({ kettles }).expect(200);
  await prepared({ kettleId: 'k2' });
  const setTo = () => bar.devices.shown().kettles.map(({ kettleId, setC }) => [kettleId, setC]);
  const expected = [
    ['k1', null],
    ['k2', brew().card.waterC],
  ];
  await until('the second kettle to be set', () => setTo()[1]![1] !== null);
  expect(setTo()).toEqual(expected);
  await close();
  await open();
  await until('the second kettle to be set again', () => setTo().some(([, setC]) => setC !== null));
  expect(setTo()).toEqual(expected);
});

test('a simulated kettle is filled and set by the filling’s tap, and heats as the water formula says', async () => {
  await request(http)
    .patch('/api/bar')
    .send({
      kettles: [{ id: 'k', name: 'Kettle', powerW: 1200, sizeMl: 1000, device: 'simulated' }],
      tapC: 20,
    })
    .expect(200);
  const kettle = () => bar.devices.shown().kettles[0]!;
  await prepared();
  const fillG = brew().card.kettleFillG;
  await until('a kettle that heats', () => kettle().heating && kettle().setC === brew().card.waterC);
  expect(kettle().levelG).toBeGreaterThan(fillG - 70);
  const from = { ...kettle() };
  await until('20 degrees more', () => kettle().waterC > from.waterC + 20);
  const risenC = kettle().waterC - from.waterC;
  const usualS = ((kettle().levelG! / 1000) * 4186 * risenC) / (1200 * 0.85);
  expect((kettle().atMs - from.atMs) / 1000 / usualS).toBeGreaterThan(0.85);
  expect((kettle().atMs - from.atMs) / 1000 / usualS).toBeLessThan(1.15);
});

test('a bridge speaks for a scale: readings arrive, a tare goes out, and silence or a wrong hello is told', async () => {
  await setStation('bridge');
  const time = { nowMs: () => performance.now(), rate: 1 };
  const own = simulatedScale(time, seededRandom(4));
  own.load(300, { bed: NO_DRAIN, keepsG: 0 });
  const stop = bridgeScale(url, 'cone-1', own);
  await until('a connected scale', () => scaleAt('cone-1').connected && scaleAt('cone-1').massG > 250);
  await request(http).post('/api/devices/scales/cone-1').send({ do: 'tare' }).expect(204);
  await until('nought', () => Math.abs(scaleAt('cone-1').massG) < 0.5);
  // It is no stand-in, so it cannot be poured on from a screen.
  await request(http).post('/api/devices/scales/cone-1').send({ do: 'pour', flowGPerS: 5 }).expect(404);
  stop();
  own.close();
  await until('a lost scale', () => !scaleAt('cone-1').connected);

  const answers: { type: string; reason?: string }[] = [];
  const stranger = new WebSocket(url);
  stranger.on('message', (data) => answers.push(JSON.parse(String(data))));
  await new Promise((resolve) => stranger.once('open', resolve));
  stranger.send('not json');
  stranger.send(JSON.stringify({ type: 'reading', tMs: 1, massG: 3 }));
  stranger.send(
    JSON.stringify({ type: 'hello', protocol: 'even-kettle/devices@1', device: 'scale', id: 'nowhere' }),
  );
  await until('three answers', () => answers.length === 3);
  expect(answers.map(({ type }) => type)).toEqual(['error', 'error', 'error']);
  expect(answers.map(({ reason }) => reason)).toEqual([
    expect.stringContaining('one JSON object'),
    expect.stringContaining('hello first'),
    expect.stringContaining('choose it on the Bench'),
  ]);
  stranger.terminate();
  const foreign = new WebSocket(url, { origin: 'http://elsewhere.example' });
  const refused = await new Promise((resolve) => foreign.once('error', (error) => resolve(error.message)));
  expect(refused).toContain('403');
});

test('the sample bridges keep the protocol, and one that does not is found out', async () => {
  const time = { nowMs: () => performance.now(), rate: 1 };
  const examined = async (connect: (at: string) => () => void) => {
    const host = await hostConformance(0);
    const stop = connect(host.url);
    const findings = await host.findings;
    stop();
    host.close();
    return findings.filter(({ ok }) => !ok).map(({ rule }) => rule);
  };
  const scale = simulatedScale(time, seededRandom(2));
  const kettle = simulatedKettle(time, { powerW: 1200, roomC: 21 });
  expect(
    await Promise.all([
      examined((at) => bridgeScale(at, 'cone-1', scale)),
      examined((at) => bridgeKettle(at, 'k', kettle)),
    ]),
  ).toEqual([[], []]);
  const broken = await examined((at) => {
    const socket = new WebSocket(at);
    const say = (message: object) => socket.send(JSON.stringify(message));
    socket.on('open', () => {
      say({ type: 'hello', protocol: 'even-kettle/devices@1', device: 'scale', id: 'cone-1' });
      say({ type: 'reading', tMs: 5, massG: 200 });
      say({ type: 'reading', tMs: 3, massG: '200' });
      say({ type: 'reading', tMs: 2, massG: 200 });
    });
    return () => socket.terminate();
  });
  expect(broken).toEqual([
    'reads at least 5 times a second',
    'its clock never runs backwards',
    'answers a ping with its number',
    'reads nought after a tare',
    'says nothing malformed',
  ]);
  scale.close();
  kettle.close();
});
