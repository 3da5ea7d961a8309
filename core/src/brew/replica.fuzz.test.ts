/**
 * Three devices on one bar, over a network that delays, loses, doubles and reorders: whatever they tap, each ends with
 * what the server has, and every tap is either in the log once or was refused and told.
 */
import { BENCH, T0, book, counter, cup } from '../testing/bench';
import { CARD_VERSION } from '../recipe';
import { orderChange } from '../testing/order-change';
import { runsOf, seedOr, seededRandom } from '../testing/random';
import {
  EMPTY_BAR,
  applyLogged,
  rebase,
  confirm,
  drop,
  freshReplica,
  nextBrewId,
  receiveLogged,
  applyLocally,
  timelineAt,
  unsent,
  optimisticState,
  type BarEvent,
  type BarState,
  type Replica,
} from './index';

const seed = seedOr(20261125);
const RUNS = runsOf(40);
const TURNS = 50;
console.info(`replica.fuzz seed ${seed}, ${RUNS} runs`);

type Random = () => number;

/** The server: one log, each event once, refused where the rules say so. */
function openServer() {
  const log: { seq: number; event: BarEvent }[] = [];
  const known = new Set<string>();
  let state: BarState = EMPTY_BAR;
  return {
    log,
    state: () => state,
    /** All or nothing, as the real one. */
    post: (events: readonly BarEvent[]): { ok: true; seq: number } | { ok: false; id: string } => {
      let next = state;
      const fresh: BarEvent[] = [];
      for (const event of events) {
        if (known.has(event.id)) continue;
        const applied = applyLogged(next, event, book);
        if (!applied.ok) return { ok: false, id: event.id };
        next = applied.state;
        fresh.push(event);
      }
      for (const event of fresh) {
        known.add(event.id);
        log.push({ seq: log.length + 1, event });
      }
      state = next;
      return { ok: true, seq: log.length };
    },
  };
}

type Device = { replica: Replica; refused: Set<string>; tapped: Set<string>; away: boolean };

/** A tap that makes sense on what this device sees, which may not be what the others see. */
function someTap(state: BarState, atMs: number, random: Random, newId: () => string): BarEvent[] {
  const pick = <Item>(items: Item[]): Item | undefined => items[Math.floor(random() * items.length)];
  const base = () => ({ id: newId(), atMs });
  const cups = Object.values(state.orders).flatMap((order) => order.cups.map((each) => ({ order, each })));
  const brew = pick(Object.values(state.brews).filter(({ status }) => status !== 'cleaned'));
  const waiting = pick(cups.filter(({ each }) => each.status === 'waiting'));
  const kind = random();
  if (kind < 0.12 || (!brew && !waiting))
    return [
      {
        ...base(),
        type: 'order-taken',
        orderId: newId(),
        name: 'pilot',
        cups: [{ ...cup(newId(), 'cone-thirds', 220), note: 'not too hot' }],
      },
    ];
  const changed = pick(Object.values(state.orders));
  if (changed && kind < 0.2) return [orderChange(state, changed, base(), random, newId)];
  if (waiting && (kind < 0.36 || !brew)) {
    const station = pick(BENCH.stations.filter(({ brewerId }) => brewerId === 'cone-m'))!;
    const brewId = nextBrewId(waiting.each);
    return [
      {
        ...base(),
        type: 'brew-started',
        brewId,
        orderId: waiting.order.id,
        cupId: waiting.each.cupId,
        stationId: station.id,
        stationName: station.name,
        brewerId: station.brewerId,
        altitudeM: 0,
        kettlePowerW: 1200,
        kettleFilledAtC: 90,
        prepVersion: CARD_VERSION,
      },
      { ...base(), type: 'step-done', brewId, stepId: 'fill' },
    ];
  }
  if (!brew) return [];
  if (kind < 0.42) {
    const last = (random() < 0.6 || !changed ? brew : changed).events.at(-1);
    return last ? [{ ...base(), type: 'event-undone', eventId: last.id }] : [];
  }
  if (kind < 0.44) return [{ ...base(), type: 'brew-abandoned', brewId: brew.id, reason: 'spilt' }];
  const next = timelineAt(brew, atMs).find(
    ({ step, status }) => (status === 'running' || status === 'waiting') && step.end !== 'clock',
  )?.step;
  if (!next) return [];
  if (kind < 0.5) return [{ ...base(), type: 'step-skipped', brewId: brew.id, stepId: next.id }];
  if (next.kind === 'serve') return [{ ...base(), type: 'brew-served', brewId: brew.id }];
  const readingG =
    next.targetG === undefined ? {} : { readingG: Math.round(next.targetG * (0.9 + random() * 0.3)) };
  return [{ ...base(), type: 'step-done', brewId: brew.id, stepId: next.id, ...readingG }];
}

function live(random: Random, run: number) {
  const server = openServer();
  const newId = counter(`r${run}-`);
  const devices: Device[] = Array.from({ length: 3 }, () => ({
    replica: freshReplica(),
    refused: new Set(),
    tapped: new Set(),
    away: false,
  }));
  /** On the wire: delivered in any order, perhaps twice, perhaps never. */
  let wire: { to: Device; what: () => void }[] = [];
  const send = (to: Device, what: () => void) => {
    if (to.away || random() < 0.2) return;
    wire.push({ to, what });
    if (random() < 0.15) wire.push({ to, what });
  };
  const reload = (device: Device) => {
    device.replica = rebase(device.replica, { state: server.state(), seq: server.log.length });
  };
  const hear = (device: Device, entry: { seq: number; event: BarEvent }) => {
    const next = receiveLogged(device.replica, entry, book);
    if (next) device.replica = next;
    else reload(device);
  };
  const tellAll = (from: number) => {
    for (const entry of server.log.slice(from))
      for (const device of devices) send(device, () => hear(device, entry));
  };
  const post = (device: Device) => {
    const batch = unsent(device.replica).slice(0, 5);
    if (batch.length === 0) return;
    // A post may be lost on the way there; an answer may be lost on the way back.
    send(device, () => {
      const from = server.log.length;
      const answer = server.post(batch);
      tellAll(from);
      send(device, () => {
        if (answer.ok)
          device.replica = confirm(
            device.replica,
            batch.map(({ id }) => id),
            answer.seq,
          );
        else {
          device.replica = drop(device.replica, [answer.id]);
          device.refused.add(answer.id);
        }
      });
    });
  };

  let atMs = T0;
  for (let turn = 0; turn < TURNS; turn += 1) {
    // Now and then so long passes that guests are forgotten.
    atMs += Math.round(random() * 15_000) + (random() < 0.05 ? 4_000_000 : 0);
    const device = devices[Math.floor(random() * 3)]!;
    if (random() < 0.04) device.away = !device.away;
    const events = someTap(optimisticState(device.replica, book), atMs, random, newId);
    const tapped = applyLocally(device.replica, optimisticState(device.replica, book), events, book);
    if (tapped.ok) {
      device.replica = tapped.replica;
      for (const { id } of events) device.tapped.add(id);
    }
    if (random() < 0.7) post(device);
    for (let deliveries = Math.floor(random() * 4); deliveries > 0 && wire.length > 0; deliveries -= 1) {
      const [message] = wire.splice(Math.floor(random() * wire.length), 1);
      if (!message!.to.away) message!.what();
    }
  }
  // The network comes back: what waits is posted until nothing does, and the log is read to its end.
  wire = [];
  for (const device of devices) {
    for (let batch = unsent(device.replica); batch.length > 0; batch = unsent(device.replica)) {
      const answer = server.post(batch);
      if (answer.ok)
        device.replica = confirm(
          device.replica,
          batch.map(({ id }) => id),
          answer.seq,
        );
      else {
        device.replica = drop(device.replica, [answer.id]);
        device.refused.add(answer.id);
      }
    }
  }
  for (const device of devices) for (const entry of server.log) hear(device, entry);
  return { server, devices };
}

test('three devices end as the server does, and no tap is lost, doubled or unheard of', () => {
  let stored = 0;
  let refused = 0;
  for (let run = 0; run < RUNS; run += 1) {
    const { server, devices } = live(seededRandom(seed + run), run);
    const ids = server.log.map(({ event }) => event.id);
    expect(new Set(ids).size).toBe(ids.length);
    const inLog = new Set(ids);
    for (const device of devices) {
      expect([run, device.replica.pending]).toEqual([run, []]);
      expect(optimisticState(device.replica, book)).toEqual(server.state());
      for (const id of device.tapped)
        expect([id, inLog.has(id) || device.refused.has(id)]).toEqual([id, true]);
      refused += device.refused.size;
    }
    stored += ids.length;
  }
  console.info(`${stored} events stored, ${refused} taps refused and told`);
  expect(refused).toBeGreaterThan(RUNS / 10);
});
