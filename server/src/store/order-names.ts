/**
 * The ids of every order and cup that ever was. The live state forgets them after some hours, and a repeated id would
 * overwrite an old brew in the log.
 */
import type { EntityManager } from 'typeorm';
import type { OrderTaken } from '@even-kettle/core/brew';

export async function nameOrder(manager: EntityManager, { orderId, cups }: OrderTaken): Promise<void> {
  for (const name of [`o ${orderId}`, ...cups.map(({ cupId }) => `c ${cupId}`)])
    await manager.query('INSERT OR IGNORE INTO order_name (name) VALUES (?)', [name]);
}
