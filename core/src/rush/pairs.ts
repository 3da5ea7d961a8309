/**
 * Two pairs of hands at once, each at its own step; what happens first is lived first.
 */
import type { Pair } from '../brew';
import type { AgendaItem } from '../plan';

/** The bar that they work at. */
export type PairsBar = {
  items: () => AgendaItem[];
  own: (items: AgendaItem[], pair: Pair) => AgendaItem[];
  nowMs: () => number;
  wait: (untilMs: number) => void;
  untilMs: number;
  nextOrderMs: () => number;
  takeOrder: () => void;
  beginsMs: (item: AgendaItem) => number;
  /** How long a step takes these hands, milliseconds. */
  takes: (item: AgendaItem, startMs: number) => number;
  done: (item: AgendaItem, pair: Pair) => void;
};

type Busy = { item: AgendaItem; untilMs: number };
const PAIRS: readonly Pair[] = [0, 1];

export function livePairs(bar: PairsBar): void {
  const busy: [Busy | null, Busy | null] = [null, null];
  while (bar.nowMs() < bar.untilMs) {
    const next = soonest(bar, busy);
    if (bar.nextOrderMs() <= (next?.atMs ?? Infinity)) {
      if (bar.nextOrderMs() === Infinity) return;
      bar.wait(bar.nextOrderMs());
      bar.takeOrder();
      continue;
    }
    if (!next || next.atMs >= bar.untilMs) return;
    const { pair, item, atMs } = next;
    if (busy[pair]) {
      bar.wait(atMs);
      busy[pair] = null;
      bar.done(item, pair);
    } else if (atMs > bar.nowMs())
      // By then it may be another step that comes first.
      bar.wait(atMs);
    else busy[pair] = { item, untilMs: bar.nowMs() + bar.takes(item, bar.nowMs()) };
  }
}

type Deed = { pair: Pair; item: AgendaItem; atMs: number };

/** What comes first: a step that is over, or one that begins. */
function soonest(bar: PairsBar, busy: readonly [Busy | null, Busy | null]): Deed | null {
  const items = bar.items();
  const deeds = PAIRS.flatMap((pair): Deed[] => {
    const at = busy[pair];
    if (at) return [{ pair, item: at.item, atMs: at.untilMs }];
    const other = busy[pair === 0 ? 1 : 0]?.item;
    // A brew is in one pair's hands at a time, and of cups that wait for a station one is begun.
    const own = bar
      .own(items, pair)
      .find(
        ({ brewId, brew, station }) =>
          brewId !== other?.brewId && (brew !== null || (station.free && station.id !== other?.station.id)),
      );
    return own ? [{ pair, item: own, atMs: bar.beginsMs(own) }] : [];
  });
  return deeds.reduce<Deed | null>((first, each) => (first && first.atMs <= each.atMs ? first : each), null);
}
