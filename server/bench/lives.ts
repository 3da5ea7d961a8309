/** The life of one cup out of the demo's log, from its order to its clean brewer, as often as a bench needs it. */
import type { BarEvent } from '@even-kettle/core/brew';
import { twoWeeksBefore } from '../src/demo/benches';

/** @returns the life of the nth cup, with ids of its own, its last event at a time */
export type Lives = (n: number, lastMs: number) => BarEvent[];

export function livesOfOneCup(nowMs: number): Lives {
  const life = lifeOfOneCup(twoWeeksBefore(nowMs));
  const [taken] = life;
  if (taken?.type !== 'order-taken') throw new Error('A life begins with its order.');
  return (n, lastMs) => {
    const byMs = Math.round(lastMs) - life.at(-1)!.atMs;
    return life.map((event, k): BarEvent => {
      const text = JSON.stringify({ ...event, id: eventId(n * 100 + k), atMs: event.atMs + byMs });
      return JSON.parse(
        text.replaceAll(taken.cups[0]!.cupId, `cup-${n}`).replaceAll(taken.orderId, `order-${n}`),
      ) as BarEvent;
    });
  };
}

function lifeOfOneCup(events: readonly BarEvent[]): BarEvent[] {
  for (const taken of events) {
    if (taken.type !== 'order-taken' || taken.cups.length > 1 || taken.cups[0]!.with) continue;
    const brewId = `${taken.cups[0]!.cupId}.1`;
    const its = events.filter(
      (event) =>
        ('brewId' in event && event.brewId === brewId) ||
        ('orderId' in event && event.orderId === taken.orderId),
    );
    const types = new Set(its.map(({ type }) => type));
    const isPlain = !types.has('cup-cancelled') && !types.has('brew-abandoned') && !types.has('cup-remade');
    if (types.has('brew-served') && isPlain && its.length >= 12) return its;
  }
  throw new Error('The demo has no plain cup.');
}

const eventId = (n: number): string => `01890000-0000-7000-8000-${String(n).padStart(12, '0')}`;
