/** Random lives of a bar: whatever is tapped, in whatever order, the state stays one that a bar can be in. */
import { runsOf, seedOr } from '../testing/random';
import { fold, withOrder } from './fold';
import { BENCH, T0, book, counter, cup } from '../testing/bench';
import { CARD_VERSION } from '../recipe';
import { orderChange } from '../testing/order-change';
import { seededRandom } from '../rush';
import {
  brewIdOf,
  EMPTY_BAR,
  apply,
  holdsStation,
  reduce,
  timelineAt,
  type BarEvent,
  type BarState,
  type BrewState,
} from './index';

const seed = seedOr(20261124);
const LIVES = runsOf(30);
const EVENTS = 90;
console.info(`reduce.fuzz seed ${seed}`);

/** A random event: mostly sensible, sometimes nonsense. */
function anyEvent(
  state: BarState,
  atMs: number,
  random: () => number,
  newId: () => string,
  log: BarEvent[],
): BarEvent {
  const pick = <Item>(items: Item[]): Item | undefined => items[Math.floor(random() * items.length)];
  const base = { id: newId(), atMs };
  const orders = Object.values(state.orders);
  const anOrder = pick(orders);
  const aCup = anOrder && pick(anOrder.cups);
  const aBrew = pick(Object.values(state.brews));
  const kind = random();
  if (kind < 0.08 || !anOrder || !aCup) {
    const recipes = ['cone-thirds', 'cone-steady', 'press-long', 'no-such'];
    return {
      ...base,
      type: 'order-taken',
      orderId: newId(),
      cups: [
        cup(newId(), pick(recipes)!, 250),
        {
          ...cup(newId(), 'cone-thirds', random() < 0.1 ? 9000 : 220),
          // Now and then poured out of a brew of another order, if that is there and alike.
          ...(aCup && random() < 0.4 ? { with: { orderId: anOrder!.id, cupId: aCup.cupId } } : {}),
        },
      ],
    };
  }
  if (kind < 0.2) return orderChange(state, anOrder, base, random, newId);
  if (kind < 0.3 || !aBrew) {
    const station = pick(BENCH.stations)!;
    const brewId = brewIdOf(aCup.cupId, aCup.attempts.length + (random() < 0.9 ? 1 : 2));
    return {
      ...base,
      type: 'brew-started',
      brewId,
      orderId: anOrder.id,
      cupId: aCup.cupId,
      stationId: station.id,
      stationName: station.name,
      brewerId: station.brewerId,
      altitudeM: 0,
      kettlePowerW: 1200,
      kettleFilledAtC: 90,
      ...(random() < 0.7 ? { prepVersion: CARD_VERSION } : {}),
      ...(random() < 0.2 ? { fromTin: true as const } : {}),
    };
  }
  const next =
    timelineAt(aBrew, atMs).find(
      ({ step, status }) => status !== 'done' && status !== 'skipped' && step.end !== 'clock',
    )?.step ?? pick(aBrew.card.steps)!;
  const step = random() < 0.85 ? next : pick(aBrew.card.steps)!;
  if (kind < 0.62)
    return step.kind === 'serve'
      ? { ...base, type: 'brew-served', brewId: aBrew.id }
      : {
          ...base,
          type: 'step-done',
          brewId: aBrew.id,
          stepId: step.id,
          ...(random() < 0.3 ? { readingG: Math.round(random() * 300) } : {}),
        };
  if (kind < 0.68) return { ...base, type: 'step-begun', brewId: aBrew.id, stepId: step.id };
  if (kind < 0.72) return correction(aBrew, base, random, pick);
  if (kind < 0.74) {
    const toOrder = pick(orders)!;
    const to = pick(toOrder.cups) ?? aCup;
    const other = to.status === 'brewing' ? to.brewIds.at(-1) : undefined;
    return {
      ...base,
      type: 'brew-given',
      brewId: aBrew.id,
      fromOrderId: aBrew.orderId,
      fromCupId: aBrew.cupId,
      orderId: toOrder.id,
      cupId: to.cupId,
      ...(other ? { otherBrewId: other } : {}),
    };
  }
  if (kind < 0.76) return { ...base, type: 'brew-served', brewId: aBrew.id };
  if (kind < 0.79) return { ...base, type: 'brew-abandoned', brewId: aBrew.id, reason: 'spilt' };
  if (kind < 0.8)
    return { ...base, type: 'order-urged', orderId: anOrder.id, weight: 4, wantedMs: atMs + 60_000 };
  if (kind < 0.81) return { ...base, type: 'hands-away', fromMs: atMs, toMs: atMs + random() * 900_000 };
  if (kind < 0.83) return { ...base, type: 'cup-cancelled', orderId: anOrder.id, cupId: aCup.cupId };
  if (kind < 0.86)
    return {
      ...base,
      type: 'cup-remade',
      orderId: anOrder.id,
      cupId: aCup.cupId,
      brewId: aCup.brewIds.at(-1) ?? 'none',
      reason: 'cold',
    };
  if (kind < 0.875) return dayEvent(base, random);
  return { ...base, type: 'event-undone', eventId: pick(log.slice(-6))?.id ?? 'none' };
}

/** Something of the day's lists, or got ready ahead. */
function dayEvent(base: { id: string; atMs: number }, random: () => number): BarEvent {
  const tins = { coffee: 'Saltmarsh', doseG: 15.4 };
  const kind = random();
  if (kind < 0.4) return { ...base, type: 'made-ready', thing: 'tins', count: 3, ...tins };
  if (kind < 0.6) return { ...base, type: 'tins-emptied', ...tins };
  if (kind < 0.8) return { ...base, type: 'task-done', list: 'closing', taskId: 'gas' };
  return { ...base, type: 'shift-handed-over' };
}

/** Something said later, or beside. */
function correction(
  brew: BrewState,
  base: { id: string; atMs: number },
  random: () => number,
  pick: <Item>(items: Item[]) => Item | undefined,
): BarEvent {
  const at = { ...base, brewId: brew.id };
  const step = pick(brew.planned.steps)!;
  const kind = random();
  if (kind < 0.25) return { ...at, type: 'step-skipped', stepId: step.id };
  if (kind < 0.5) {
    const doneMs = brew.marks[step.id]?.doneMs;
    return {
      ...at,
      type: 'step-corrected',
      stepId: step.id,
      ...(random() < 0.5 && doneMs !== undefined
        ? { doneMs: doneMs + Math.round((random() - 0.5) * 20_000) }
        : {}),
      ...(step.targetG === undefined ? {} : { readingG: Math.round(step.targetG * (0.6 + random())) }),
    };
  }
  if (kind < 0.65)
    return { ...at, type: 'dose-corrected', doseG: Math.round(brew.planned.doseG * (8 + 4 * random())) / 10 };
  if (kind < 0.8) {
    const station = pick(BENCH.stations)!;
    const { id: stationId, name: stationName, brewerId } = station;
    return { ...at, type: 'brew-moved', stationId, stationName, brewerId };
  }
  if (kind < 0.9) return { ...at, type: 'brew-noted', note: 'stalled' };
  return { ...at, type: 'step-taken', stepId: step.id, pair: 1 };
}

function expectPossible(state: BarState, nowMs: number): void {
  const brews = Object.values(state.brews);
  const held = brews.filter(holdsStation).map(({ stationId }) => stationId);
  expect(new Set(held).size).toBe(held.length);
  for (const order of Object.values(state.orders)) {
    for (const each of order.cups) {
      // A cup that shares a brew has none of its own, and follows the one that it shares.
      const host =
        each.with && state.orders[each.with.orderId]?.cups.find(({ cupId }) => cupId === each.with!.cupId);
      if (host) {
        expect(each.brewIds).toEqual([]);
        if (each.status !== 'cancelled' && host.status !== 'waiting') expect(each.status).toBe(host.status);
        continue;
      }
      const live = each.brewIds.map((id) => state.brews[id]!).filter((brew) => brew.status === 'running');
      expect(live.length).toBe(each.status === 'brewing' ? 1 : 0);
    }
  }
  for (const brew of brews) {
    expect(state.orders[brew.orderId]!.cups.find(({ cupId }) => cupId === brew.cupId)!.brewIds).toContain(
      brew.id,
    );
    let endMs = brew.startedMs;
    let over = true;
    for (const time of timelineAt(brew, nowMs)) {
      if (time.status === 'skipped') continue;
      expect(time.endMs).toBeGreaterThanOrEqual(time.startMs);
      if (!brew.abandoned) expect(time.startMs).toBeGreaterThanOrEqual(endMs);
      // What is over lies before what is not.
      if (time.status === 'done' && !brew.abandoned) expect(over).toBe(true);
      over &&= time.status === 'done';
      endMs = time.endMs;
    }
    if (brew.status === 'served' || brew.status === 'cleaned') {
      const serve = brew.card.steps.findIndex(({ kind }) => kind === 'serve');
      expect(
        timelineAt(brew, nowMs)
          .slice(0, serve + 1)
          .every(({ status }) => status === 'done'),
      ).toBe(true);
    }
  }
}

test('random lives: the state is always possible, undo is exact, and a replay of the log gives the same state', () => {
  let accepted = 0;
  let undone = 0;
  let between = 0;
  for (let life = 0; life < LIVES; life += 1) {
    const random = seededRandom(seed + life);
    const newId = counter(`n${life}-`);
    const log: BarEvent[] = [];
    let state = EMPTY_BAR;
    let nowMs = T0;
    for (let turn = 0; turn < EVENTS; turn += 1) {
      nowMs += Math.round(random() * 40_000);
      const event = anyEvent(state, nowMs, random, newId, log);
      const applied = apply(state, event, book);
      if (!applied.ok) continue;
      accepted += 1;
      if (event.type === 'event-undone') {
        undone += 1;
        // The same as a log in which it never happened; only a badge that was given away stays given.
        const without = effective(log, event.eventId);
        const replayed = reduce(without, book);
        // A station that was used in between by a brew that has left it again is free either way.
        if (replayed.refused.length > 0) between += 1;
        else {
          const { lastBadge: _a, ...real } = applied.state;
          const { lastBadge: _b, ...expected } = replayed.state;
          expect(withoutBadges(real)).toEqual(withoutBadges(expected));
        }
      } else {
        const undo = apply(
          applied.state,
          { id: 'u', type: 'event-undone', atMs: nowMs, eventId: event.id },
          book,
        );
        expect(undo).toEqual({ ok: true, state });
      }
      state = applied.state;
      log.push(event);
    }
    expectPossible(state, nowMs);
    // Each order is as it would be worked out now, whatever happened to those that it shares a brew with.
    for (const order of Object.values(state.orders)) expect(withOrder(state, order)).toEqual(state);
    // What was lived event by event is what all of a brew’s events make of it.
    for (const brew of Object.values(state.brews)) expect(fold(brew)).toEqual(brew);
    const replayed = reduce(log, book);
    expect(replayed.refused).toEqual([]);
    expect(replayed.state).toEqual(state);
    expect(JSON.parse(JSON.stringify(state))).toEqual(state);
  }
  console.info(`${LIVES} lives, ${accepted} events taken, ${undone} of them undos`);
  expect(undone).toBeGreaterThan(LIVES);
  expect(between).toBeLessThan(undone / 20);
});

/** The log as if an event had not been, nor anything that was taken back before. */
function effective(log: BarEvent[], eventId: string): BarEvent[] {
  const gone = new Set([
    eventId,
    ...log.flatMap((event) => (event.type === 'event-undone' ? [event.eventId, event.id] : [])),
  ]);
  return log.filter(({ id }) => !gone.has(id));
}

const withoutBadges = (state: Pick<BarState, 'orders' | 'brews'>) => ({
  ...state,
  orders: Object.fromEntries(
    Object.entries(state.orders).map(([id, { badge: _a, badgeBefore: _b, ...order }]) => [id, order]),
  ),
});
