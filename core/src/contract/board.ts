/** What guests may see of the bar (`plan/bar/board.ts`). */
import { z } from 'zod';
import { STROKES } from '../brew';
import type { Board, BoardOrder, FollowedOrder } from '../plan';
import { barMs } from './words';

const badge = z.object({ letter: z.string(), stroke: z.enum(STROKES) });

const boardOrderSchema = z.object({
  badge,
  badgeNumber: z.int(),
  name: z.string().optional().meta({ description: 'Where the guest gave it to be called by.' }),
  queueId: z.string().nullable(),
  cups: z.int(),
  ready: z.int().meta({ description: 'How many of them stand ready.' }),
  readyMs: barMs.nullable().meta({
    description:
      'When all of it will be ready, or since when it is, bar milliseconds; null while nobody knows.',
  }),
}) satisfies z.ZodType<BoardOrder>;

export const boardSchema = z.object({
  barName: z.string(),
  queues: z.array(z.object({ id: z.string(), name: z.string() })),
  ready: z.array(boardOrderSchema),
  coming: z.array(boardOrderSchema),
}) satisfies z.ZodType<Board>;

export const followedOrderSchema = z.object({
  barName: z.string(),
  badge,
  cups: z.array(
    z.object({
      coffee: z.string(),
      status: z.enum(['waiting', 'brewing', 'ready', 'fetched', 'cancelled']),
    }),
  ),
  readyMs: barMs.nullable(),
}) satisfies z.ZodType<FollowedOrder>;

export const cupLinkSchema = z.object({ address: z.string() });
