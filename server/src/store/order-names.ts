/**
 * The ids of every order and cup that ever was. The live state forgets them after some hours, and a repeated id would
 * overwrite an old brew in the log.
 */
import type { EntityManager } from 'typeorm';
import type { BarEvent } from '@even-kettle/core/brew';

/** The ids that an event gives away for the first time. */
export function namesOf(event: BarEvent): string[] {
  if (event.type === 'order-taken')
    return [`o ${event.orderId}`, ...event.cups.map(({ cupId }) => `c ${cupId}`)];
  if (event.type === 'cup-added') return [`c ${event.cup.cupId}`];
  return event.type === 'cups-moved' ? [`o ${event.toOrderId}`] : [];
}

export async function nameOrder(manager: EntityManager, event: BarEvent): Promise<void> {
  for (const name of namesOf(event))
    await manager.query('INSERT OR IGNORE INTO order_name (name) VALUES (?)', [name]);
}
