/**
 * The rail's lanes as data: one a station, with what its brew has ahead and what is planned to be brewed there. Times are
 * bar milliseconds, so that the drawing need only slide as time goes by.
 */
import { timelineAt, type BarState } from '@even-kettle/core/brew';
import { agenda, kindOf, stepKey, type Bench, type Plan } from '@even-kettle/core/plan';
import type { RecipeBook } from '@even-kettle/core/recipe';

export type Span = { fromMs: number; toMs: number; attended: boolean };
/** One brew's stretch of a lane, under its order's badge. */
export type Stretch = { key: string; orderId: string; badge: number; spans: Span[] };
export type Lane = { id: string; name: string; stretches: Stretch[] };

export function lanesOf(
  state: BarState,
  bench: Bench,
  book: RecipeBook,
  plan: Plan | null,
  nowMs: number,
): Lane[] {
  const lanes = new Map<string, Lane>(
    bench.stations.map(({ id, name }) => [id, { id, name, stretches: [] }]),
  );
  for (const brew of Object.values(state.brews)) {
    const lane = lanes.get(brew.stationId);
    const order = state.orders[brew.orderId];
    const times = timelineAt(brew, nowMs).filter(({ status }) => status !== 'skipped');
    if (!lane || !order || times.every(({ status }) => status === 'done')) continue;
    if (brew.abandoned && brew.status !== 'abandoned') continue;
    const spans = times.map(({ step, status, startMs, endMs }) => {
      const planned = status === 'waiting' ? plan?.starts[stepKey(brew.id, step.id)] : undefined;
      const fromMs = planned === undefined ? startMs : Math.max(planned * 1000, startMs);
      return { fromMs, toMs: fromMs + (endMs - startMs), attended: step.attended };
    });
    lane.stretches.push({ key: brew.id, orderId: order.id, badge: order.badge, spans });
  }
  const placed = new Set<string>();
  for (const item of agenda(state, bench, book, plan, nowMs)) {
    if (item.brew || placed.has(item.brewId)) continue;
    placed.add(item.brewId);
    const spans = item.card.steps.flatMap((step) => {
      const startS = plan?.starts[stepKey(item.brewId, step.id)];
      if (startS === undefined) return [];
      return [{ fromMs: startS * 1000, toMs: (startS + step.durationS) * 1000, attended: step.attended }];
    });
    const lane = laneWithRoom(
      bench.stations
        .filter((station) => kindOf(station) === kindOf(item.station))
        .map(({ id }) => lanes.get(id)!),
      spans[0]?.fromMs ?? 0,
    );
    if (spans.length > 0)
      lane?.stretches.push({ key: item.brewId, orderId: item.order.id, badge: item.order.badge, spans });
  }
  return [...lanes.values()];
}

/** The plan counts brewers of a kind; the drawing puts each brew in the first lane whose own are over by then. */
function laneWithRoom(lanes: Lane[], fromMs: number): Lane | undefined {
  const over = (lane: Lane) =>
    lane.stretches.every(({ spans }) => spans.every(({ toMs }) => toMs <= fromMs + 1000));
  return lanes.find(over) ?? lanes[0];
}
