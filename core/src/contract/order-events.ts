/**
 * The schemas of orders' events.
 */
import { z } from 'zod';
import { ADDITIONS, CUP_RANGE_ML, PLAIN_FILTERS, ROAST_LEVELS } from '../recipe';
import { MILKS, MOST_CUPS_OF_A_BREW, MOST_CUPS_OF_AN_ORDER, STROKES } from '../brew';
import { barMs, eventBase, line, thingId } from './words';

const recipeRef = { recipeId: thingId, recipeVersion: z.number().int().min(1).max(100_000) };

/** The letter that a sample stands behind. */
export const sampleLetter = z.string().regex(/^[A-Z]$/, 'must be a letter from A to Z');
/** What is changed of a recipe to compare it. */
export const trial = {
  grindBy: z.number().min(-20).max(20).optional().meta({ description: 'Steps of the first grinder.' }),
  waterByC: z.number().min(-20).max(20).optional(),
  ratioBy: z.number().min(-5).max(5).optional(),
  filter: z.enum(PLAIN_FILTERS).optional().meta({ description: 'Brewed through another filter.' }),
  recipeId: thingId.optional().meta({ description: 'Its recipe, where recipes are compared.' }),
};

export const cupAskSchema = z.strictObject({
  cupId: thingId,
  ...recipeRef,
  coffee: line(40),
  roast: z.enum(ROAST_LEVELS),
  cupMl: z
    .number('must be a number of ml')
    .min(CUP_RANGE_ML.min, `must be at least ${CUP_RANGE_ML.min} ml`)
    .max(CUP_RANGE_ML.max, `must be at most ${CUP_RANGE_ML.max} ml`),
  addition: z.enum(ADDITIONS).optional(),
  cups: z
    .int()
    .min(2)
    .max(MOST_CUPS_OF_A_BREW, `one brew makes at most ${MOST_CUPS_OF_A_BREW} cups`)
    .optional()
    .meta({ description: 'Cups of that size poured out of the one brew.' }),
  gassy: z
    .literal(true)
    .optional()
    .meta({ description: 'Its coffee was roasted less than four days before: it still holds much gas.' }),
  besides: z
    .array(z.enum(ADDITIONS))
    .min(1)
    .max(ADDITIONS.length)
    .optional()
    .meta({ description: 'What goes in or beside it besides the addition, and changes no figure.' }),
  milk: z.enum(MILKS).optional(),
  toGo: z.literal(true).optional().meta({ description: 'Taken along.' }),
  allergy: line(80).optional().meta({ description: 'What this guest must not have.' }),
  note: line(120).optional().meta({ description: 'A wish.' }),
  decaf: z.literal(true).optional(),
  sample: z
    .strictObject({ roundId: thingId, letter: sampleLetter, ...trial })
    .optional()
    .meta({ description: 'It is tasted behind a letter, brewed with these changes, and sold to nobody.' }),
  with: z
    .strictObject({ orderId: thingId, cupId: thingId })
    .optional()
    .meta({ description: 'A waiting cup of another order: this one is poured out of its brew.' }),
});

const inQueue = {
  queueId: thingId.optional().meta({ description: 'One of the bench’s queues; its first if left out.' }),
  withinS: z
    .number()
    .int()
    .min(60)
    .max(86_400)
    .optional()
    .meta({ description: 'Out within so many seconds.' }),
  pickUpMs: barMs.optional().meta({ description: 'Wanted at this time and not much before it.' }),
  share: z.number().min(0.1).max(5).optional().meta({ description: 'How much its waiting counts.' }),
};

const orderTaken = z.strictObject({
  ...eventBase,
  type: z.literal('order-taken'),
  orderId: thingId,
  name: line(40).optional(),
  nameShown: z
    .literal(true)
    .optional()
    .meta({ description: 'The guest is called by the name: the board may show it.' }),
  till: line(40).optional().meta({ description: 'The till that posted it.' }),
  cups: z.array(cupAskSchema).min(1, 'an order has at least one cup').max(6, 'an order has at most six cups'),
  ...inQueue,
  stroke: z.enum(STROKES).optional().meta({ description: 'The ring of its badge.' }),
  promisedMs: barMs.optional().meta({ description: 'By when it was promised to be out.' }),
  expectedMs: barMs.optional().meta({ description: 'When the plan had it out then.' }),
});
const orderUrged = z.strictObject({
  ...eventBase,
  type: z.literal('order-urged'),
  orderId: thingId,
  weight: z.number().min(0.1).max(100),
  wantedMs: barMs.optional(),
});
const cupCancelled = z.strictObject({
  ...eventBase,
  type: z.literal('cup-cancelled'),
  orderId: thingId,
  cupId: thingId,
});
const cupRemade = z.strictObject({
  ...eventBase,
  type: z.literal('cup-remade'),
  orderId: thingId,
  cupId: thingId,
  brewId: thingId,
  reason: line(200),
});
const orderQueued = z.strictObject({
  ...eventBase,
  type: z.literal('order-queued'),
  orderId: thingId,
  ...inQueue,
});
const orderRenamed = z.strictObject({
  ...eventBase,
  type: z.literal('order-renamed'),
  orderId: thingId,
  name: line(40).optional(),
  nameShown: z.literal(true).optional(),
});
const guestLeft = z.strictObject({ ...eventBase, type: z.literal('guest-left'), orderId: thingId });
const cupAdded = z.strictObject({
  ...eventBase,
  type: z.literal('cup-added'),
  orderId: thingId,
  cup: cupAskSchema,
});
const cupChanged = z.strictObject({
  ...eventBase,
  type: z.literal('cup-changed'),
  orderId: thingId,
  cup: cupAskSchema.meta({ description: 'The whole of what the cup is now.' }),
});
const cupsMoved = z.strictObject({
  ...eventBase,
  type: z.literal('cups-moved'),
  orderId: thingId,
  toOrderId: thingId.meta({ description: 'An order that is there, or the id of a new one.' }),
  cups: z.array(cupAskSchema).min(1, 'name at least one cup').max(MOST_CUPS_OF_AN_ORDER),
  name: line(40).optional(),
});
const cupsFetched = z.strictObject({
  ...eventBase,
  type: z.literal('cups-fetched'),
  orderId: thingId,
  cupIds: z.array(thingId).min(1, 'name at least one cup').max(MOST_CUPS_OF_AN_ORDER),
});

export const ORDER_SCHEMAS = {
  'order-taken': orderTaken,
  'order-urged': orderUrged,
  'order-queued': orderQueued,
  'order-renamed': orderRenamed,
  'guest-left': guestLeft,
  'cup-added': cupAdded,
  'cup-changed': cupChanged,
  'cup-cancelled': cupCancelled,
  'cup-remade': cupRemade,
  'cups-moved': cupsMoved,
  'cups-fetched': cupsFetched,
};
