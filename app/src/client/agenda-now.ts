/**
 * What the bar asks of its hands, worked out once a turn of the clock, however many parts of the page ask.
 */
import { agenda, type AgendaItem } from '@even-kettle/core/plan';
import { isAlike } from '../ui/alike';
import type { BarView } from './bar-view';

/** Timers of one turn come in within this, bar milliseconds: shorter than anything that an agenda tells apart. */
const TURN_MS = 30;

/** A view is replaced by whatever changes the bar, so what was worked out for one is of that one alone. */
const latest = new WeakMap<BarView, { nowMs: number; items: AgendaItem[] }>();

/** What stands as it stood is the same object, so that what shows it need not be drawn again. */
const stood = new Map<string, AgendaItem>();
const STOOD_MOST = 200;

function asItStood(item: AgendaItem): AgendaItem {
  const before = stood.get(item.key);
  if (before && isAlike(before, item, 2)) return before;
  if (stood.size >= STOOD_MOST) stood.clear();
  stood.set(item.key, item);
  return item;
}

export function agendaNow(view: BarView, nowMs: number): AgendaItem[] {
  const { state, bar, book, plan } = view;
  if (!bar) return [];
  const known = latest.get(view);
  if (known && nowMs >= known.nowMs && nowMs - known.nowMs < TURN_MS) return known.items;
  const items = agenda(state, bar, book, plan, nowMs).map(asItStood);
  latest.set(view, { nowMs, items });
  return items;
}
