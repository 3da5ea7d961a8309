/**
 * Orders that come in from outside, and the feed that stands in for their source.
 */
import { z } from 'zod';
import { MILKS, STROKES } from '../brew';
import { CUP_RANGE_ML } from '../recipe';
import { barMs, line, thingId } from './words';

const cupSchema = z
  .strictObject({
    menuLineId: thingId.optional().meta({ description: 'A line of the menu; or coffeeId and recipeId.' }),
    coffeeId: thingId.optional(),
    recipeId: thingId.optional(),
    cupMl: z
      .number('must be a number of ml')
      .min(CUP_RANGE_ML.min, `must be at least ${CUP_RANGE_ML.min} ml`)
      .max(CUP_RANGE_ML.max, `must be at most ${CUP_RANGE_ML.max} ml`)
      .optional()
      .meta({ description: 'The line’s usual size if left out.' }),
    milk: z.enum(MILKS).optional(),
    toGo: z.literal(true).optional(),
    allergy: line(80).optional(),
    note: line(120).optional(),
  })
  .refine(
    ({ menuLineId, coffeeId, recipeId }) =>
      menuLineId !== undefined || (coffeeId !== undefined && recipeId !== undefined),
    'name a line of the menu, or a coffee and a recipe',
  );

export const outsideOrderSchema = z.strictObject({
  key: thingId.meta({
    description: 'Chosen by whoever asks. The same key again is the same order, and is taken once.',
  }),
  name: line(40).optional(),
  queueId: thingId.optional().meta({ description: 'One of the bar’s queues; its first if left out.' }),
  wantedMs: barMs.optional().meta({ description: 'When it is fetched, for a queue of such orders.' }),
  cups: z.array(cupSchema).min(1, 'an order has at least one cup').max(6, 'an order has at most six cups'),
});
export type OutsideOrder = z.infer<typeof outsideOrderSchema>;

export const outsideAnswerSchema = z.object({
  orderId: z.string(),
  badge: z
    .object({ letter: z.string(), stroke: z.enum(STROKES) })
    .nullable()
    .meta({ description: 'Null where the order is long over and was never brewed.' }),
  promisedMs: barMs.nullable().meta({ description: 'By when it is promised, bar milliseconds.' }),
  expectedMs: barMs.nullable(),
  follow: z
    .string()
    .optional()
    .meta({ description: 'The address by which the guest follows it, for a printed slip.' }),
  isNew: z.boolean().meta({ description: 'False where this key was taken before.' }),
});

/** `GET /api/orders/{key}`: the same, with how far its cups are. */
export const outsideOrderStandsSchema = outsideAnswerSchema.omit({ isNew: true }).extend({
  cups: z
    .array(z.enum(['waiting', 'brewing', 'served', 'fetched', 'cancelled']))
    .nullable()
    .meta({ description: 'Null where the order is long over.' }),
});
export type OutsideOrderStands = z.infer<typeof outsideOrderStandsSchema>;

/** Boats come by a timetable, each with guests: orders from outside that need no outside. */
export const feedChangeSchema = z.strictObject({ running: z.boolean() });
export const feedSchema = z.object({
  running: z.boolean(),
  everyMin: z.number(),
  nextBoatMs: barMs.nullable().meta({ description: 'When the next boat lands, bar milliseconds.' }),
});
export type Feed = z.infer<typeof feedSchema>;
