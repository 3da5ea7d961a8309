/**
 * The ids of every order and cup that there has been: the live state forgets them after some hours, and one that came
 * again would take an old brew's place in the log.
 */
import type { EntityManager } from 'typeorm';
import type { OrderTaken } from '@even-kettle/core/brew';

export async function nameOrder(manager: EntityManager, { orderId, cups }: OrderTaken): Promise<void> {
  for (const name of [`o ${orderId}`, ...cups.map(({ cupId }) => `c ${cupId}`)])
    await manager.query('INSERT OR IGNORE INTO order_name (name) VALUES (?)', [name]);
}
