/** What can change of an order, at random. */
import { asksOf, type BarEvent, type BarState, type CupAsk, type OrderState } from '../brew';
import { cup } from './bench';

/** A guest changes her mind: mostly something that can be, sometimes nonsense. */
export function orderChange(
  state: BarState,
  order: OrderState,
  base: { id: string; atMs: number },
  random: () => number,
  newId: () => string,
): BarEvent {
  const pick = <Item>(items: Item[]): Item | undefined => items[Math.floor(random() * items.length)];
  const at = { ...base, orderId: order.id };
  const asks = asksOf(order);
  const kind = random();
  const ask = pick(asks);
  if (kind < 0.15 || !ask)
    return { ...at, type: 'cup-added', cup: cup(newId(), pick(['cone-thirds', 'press-long'])!, 250) };
  if (kind < 0.4) {
    const changes: Partial<CupAsk>[] = [
      { note: 'not too hot' },
      { allergy: 'nuts', milk: 'oat', besides: ['milk'] },
      { recipeId: 'press-long', cupMl: 300 },
      { recipeId: 'cone-thirds', addition: 'ice' },
      { cupMl: 5000 },
    ];
    const { with: _with, ...own } = ask;
    return { ...at, type: 'cup-changed', cup: { ...(random() < 0.8 ? own : ask), ...pick(changes) } };
  }
  if (kind < 0.5) return { ...at, type: 'order-renamed', ...(random() < 0.6 ? { name: 'corner' } : {}) };
  if (kind < 0.58) return { ...at, type: 'guest-left' };
  if (kind < 0.66) return { ...at, type: 'order-queued', queueId: 'tables', withinS: 600 };
  if (kind < 0.78) {
    const served = order.cups.filter(({ status }) => status === 'served').map(({ cupId }) => cupId);
    return { ...at, type: 'cups-fetched', cupIds: served.length > 0 ? served : [ask.cupId] };
  }
  const other = random() < 0.5 ? newId() : (pick(Object.values(state.orders))?.id ?? 'none');
  return {
    ...at,
    type: 'cups-moved',
    toOrderId: other,
    cups: random() < 0.5 ? asks : [random() < 0.9 ? ask : { ...ask, cupMl: 333 }],
  };
}
