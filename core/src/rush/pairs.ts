/**
 * Two pairs of hands at once. Each does what its card shows at each moment: where that changes in the middle of a step, the step
 * is left as it is.
 */
import { PAIRS, type Pair } from '../brew';
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

export function livePairs(bar: PairsBar): void {
  /** Of each step that was begun, how much is still to be done, milliseconds. */
  const leftMs = new Map<string, number>();
  const idOf = ({ key, asks }: AgendaItem) => `${key} ${asks}`;
  while (bar.nowMs() < bar.untilMs) {
    const nowMs = bar.nowMs();
    const items = bar.items();
    const works = PAIRS.flatMap((pair) => {
      const item = bar.own(items, pair)[0];
      return item && (item.brew || item.station.free) ? [{ pair, item }] : [];
    });
    const atHand = works.filter(({ item }) => bar.beginsMs(item) <= nowMs);
    for (const { item } of atHand)
      if (!leftMs.has(idOf(item))) leftMs.set(idOf(item), bar.takes(item, nowMs));
    const over = atHand.find(({ item }) => leftMs.get(idOf(item))! <= 0);
    if (over) {
      bar.done(over.item, over.pair);
      leftMs.delete(idOf(over.item));
      continue;
    }
    const nextMs = Math.min(
      ...works.map(({ item }) => nowMs + (leftMs.get(idOf(item)) ?? Infinity)),
      ...works.map(({ item }) => bar.beginsMs(item)).filter((atMs) => atMs > nowMs),
    );
    if (bar.nextOrderMs() <= nextMs) {
      if (bar.nextOrderMs() === Infinity) return;
      bar.wait(bar.nextOrderMs());
      bar.takeOrder();
    } else bar.wait(Math.min(nextMs, bar.untilMs));
    for (const { item } of atHand) leftMs.set(idOf(item), leftMs.get(idOf(item))! - (bar.nowMs() - nowMs));
  }
}
