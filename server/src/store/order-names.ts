/**
 * The ids of every order and cup that there has been: the live state forgets them after some hours, and one that came
 * again would take an old brew's place in the log.
 */
import type { EntityManager } from 'typeorm';
import type { OrderTaken } from '@even-kettle/core/brew';
import { OrderNameRow } from './rows';

export async function nameOrder(manager: EntityManager, { orderId, cups }: OrderTaken): Promise<void> {
  const names = [`o ${orderId}`, ...cups.map(({ cupId }) => `c ${cupId}`)].map((name) => ({ name }));
  await manager.createQueryBuilder().insert().into(OrderNameRow).values(names).orIgnore().execute();
}
