/**
 * The schemas of events.
 */
import { z } from 'zod';
import { CARD_VERSION, DOSE_RANGE_G, METHOD_IDS, PAPER_METHODS, PLAIN_FILTERS } from '../recipe';
import {
  DAY_LISTS,
  NOTES,
  READY_THINGS,
  OWN_TASTE_WORDS,
  SEEN,
  type BarEventType,
  type EventOf,
} from '../brew';
import { brewerSchema } from './brewer';
import { ORDER_SCHEMAS, sampleLetter, trial } from './order-events';
import { barMs, eventBase, eventId, grams, line, thingId } from './words';

const handsAway = z.strictObject({
  ...eventBase,
  type: z.literal('hands-away'),
  fromMs: barMs,
  toMs: barMs,
});
const brewStarted = z.strictObject({
  ...eventBase,
  type: z.literal('brew-started'),
  brewId: thingId,
  orderId: thingId,
  cupId: thingId,
  stationId: thingId,
  stationName: line(40),
  brewerId: thingId,
  altitudeM: z.number().min(-400).max(5000),
  kettleId: thingId.optional(),
  kettlePowerW: z.number().min(100).max(5000),
  kettleFilledAtC: z.number().min(0).max(100),
  kettleSizeMl: z.number().min(200).max(6000).optional(),
  kettleMaxFlowGPerS: z.number().min(1).max(60).optional(),
  retentionGPerG: z.number().min(0).max(4).optional(),
  drawdownExponent: z.number().min(0).max(3).optional(),
  drawdownExponentSd: z.number().min(0).max(1).optional(),
  ratioBy: z.number().min(-5).max(5).optional(),
  waterByC: z.number().min(-20).max(20).optional(),
  filter: z.enum(PLAIN_FILTERS).optional(),
  roastedOn: z.iso.date().optional(),
  grinderId: thingId.optional(),
  grindSetting: z.number().min(-2000).max(2000).optional(),
  water: line(40).optional(),
  withoutScale: z.literal(true).optional(),
  handHeld: z.literal(true).optional(),
  intoCup: z.literal(true).optional(),
  fromTin: z.literal(true).optional(),
  ownBrewer: brewerSchema.optional(),
  prepVersion: z
    .int()
    .min(2)
    .max(CARD_VERSION)
    .optional()
    .meta({ description: 'The version of the rules that made its card; left out, the first.' }),
});
const pair = z.literal([0, 1]).meta({ description: 'The pair of hands, numbered from 0.' });
const readC = z
  .number('must be a number of °C')
  .min(0, 'must be at least 0 °C')
  .max(110, 'must be at most 110 °C')
  .meta({ description: 'What the thermometer said.' });
const stepBegun = z.strictObject({
  ...eventBase,
  type: z.literal('step-begun'),
  brewId: thingId,
  stepId: thingId,
  readC: readC.optional(),
  pair: pair.optional(),
});
const stepDone = z.strictObject({
  ...eventBase,
  type: z.literal('step-done'),
  brewId: thingId,
  stepId: thingId,
  readingG: grams(3000).optional(),
  readC: readC.optional(),
  leadG: z.number().min(0).max(50).optional(),
  notOverMs: barMs.optional().meta({
    description: 'Where its end was asked for late: the last time at which it was surely not over.',
  }),
  pair: pair.optional(),
});
const stepSkipped = z.strictObject({
  ...eventBase,
  type: z.literal('step-skipped'),
  brewId: thingId,
  stepId: thingId,
});
const stepCorrected = z
  .strictObject({
    ...eventBase,
    type: z.literal('step-corrected'),
    brewId: thingId,
    stepId: thingId,
    begunMs: barMs.optional(),
    doneMs: barMs.optional(),
    readingG: grams(3000).optional(),
  })
  .refine(
    ({ begunMs, doneMs, readingG }) => (begunMs ?? doneMs ?? readingG) !== undefined,
    'say what was wrong: begunMs, doneMs or readingG',
  );
const doseCorrected = z.strictObject({
  ...eventBase,
  type: z.literal('dose-corrected'),
  brewId: thingId,
  doseG: z
    .number('must be a number of grams')
    .min(DOSE_RANGE_G.min, `must be at least ${DOSE_RANGE_G.min} g`)
    .max(DOSE_RANGE_G.max, `must be at most ${DOSE_RANGE_G.max} g`),
});
const brewMoved = z.strictObject({
  ...eventBase,
  type: z.literal('brew-moved'),
  brewId: thingId,
  stationId: thingId,
  stationName: line(40),
  brewerId: thingId,
});
const brewGiven = z.strictObject({
  ...eventBase,
  type: z.literal('brew-given'),
  brewId: thingId,
  fromOrderId: thingId,
  fromCupId: thingId,
  orderId: thingId,
  cupId: thingId,
  otherBrewId: thingId.optional(),
});
const brewNoted = z.strictObject({
  ...eventBase,
  type: z.literal('brew-noted'),
  brewId: thingId,
  note: z.enum(NOTES),
});
const notch = z.literal([-2, -1, 0, 1, 2]);
export const tasteSchema = z.strictObject({
  balance: notch.optional().meta({ description: 'From sour (-2) to bitter (2).' }),
  strength: notch.optional().meta({ description: 'From weak (-2) to strong (2).' }),
  body: notch.optional().meta({ description: 'From light (-2) to heavy (2).' }),
  own: z
    .array(line(20))
    .min(1)
    .max(OWN_TASTE_WORDS)
    .optional()
    .meta({ description: 'Of the words that the bar has for its cups.' }),
  seen: z.array(z.enum(SEEN)).max(SEEN.length).optional(),
  words: line(200).optional(),
  tdsPct: z
    .number('must be a number of per cent')
    .min(0.1, 'must be at least 0.1 %')
    .max(25, 'must be at most 25 %')
    .optional(),
  beverageG: grams(3000).optional(),
});
const cupTasted = z.strictObject({
  ...eventBase,
  type: z.literal('cup-tasted'),
  brewId: thingId,
  taste: tasteSchema.refine((taste) => Object.keys(taste).length > 0, 'say at least one thing of it'),
});
const readyDoseG = z
  .number('must be a number of grams')
  .min(DOSE_RANGE_G.min, `must be at least ${DOSE_RANGE_G.min} g`)
  .max(DOSE_RANGE_G.max, `must be at most ${DOSE_RANGE_G.max} g`);
const madeReady = z
  .strictObject({
    ...eventBase,
    type: z.literal('made-ready'),
    thing: z.enum(READY_THINGS),
    count: z.int('must be a whole number').min(1, 'must be at least one').max(200, 'must be at most 200'),
    coffee: line(40).optional(),
    doseG: readyDoseG.optional(),
    method: z.enum(METHOD_IDS).optional(),
  })
  .refine(
    ({ thing, coffee, doseG }) =>
      [coffee, doseG].every((part) => (part !== undefined) === (thing === 'tins')),
    {
      path: ['coffee'],
      message: 'tins have a coffee and a dose, and nothing else has',
    },
  )
  .refine(({ thing, method }) => (thing === 'filters') === (method !== undefined), {
    path: ['method'],
    message: 'filters have a method, and nothing else has',
  });
const tinsEmptied = z.strictObject({
  ...eventBase,
  type: z.literal('tins-emptied'),
  coffee: line(40),
  doseG: readyDoseG,
});
const taskDone = z.strictObject({
  ...eventBase,
  type: z.literal('task-done'),
  list: z.enum(DAY_LISTS),
  taskId: thingId,
});
const shiftHandedOver = z.strictObject({ ...eventBase, type: z.literal('shift-handed-over') });
const coffeeWeighed = z.strictObject({
  ...eventBase,
  type: z.literal('coffee-weighed'),
  coffee: line(40),
  stockG: z.number().min(0, 'must not be negative').max(1_000_000, 'must be at most 1000 kg'),
});
const papersCounted = z.strictObject({
  ...eventBase,
  type: z.literal('papers-counted'),
  method: z.enum(PAPER_METHODS),
  sheets: z
    .number()
    .int('must be a whole number')
    .min(0, 'must not be negative')
    .max(100_000, 'must be at most 100,000'),
});
const clothBoiled = z.strictObject({ ...eventBase, type: z.literal('cloth-boiled'), clothId: thingId });
const clothReplaced = z.strictObject({ ...eventBase, type: z.literal('cloth-replaced'), clothId: thingId });
const changeTried = z.strictObject({
  ...eventBase,
  type: z.literal('change-tried'),
  coffee: line(40),
  recipeId: thingId,
  fromBrewId: thingId,
  words: line(200),
  expectS: z.number().min(0).max(86_400).optional(),
  plusMinusS: z.number().min(0).max(86_400).optional(),
});
/** Accepting what a brew's record advises: the event's id, time and person, and the words that the person read. */
export const takeAdviceSchema = changeTried.pick({ id: true, atMs: true, by: true, words: true });
export type TakeAdvice = z.infer<typeof takeAdviceSchema>;
const roundBegun = z.strictObject({
  ...eventBase,
  type: z.literal('round-begun'),
  roundId: thingId,
  recipeId: thingId,
  sampleOrderId: thingId.optional().meta({ description: 'The order whose cups are tasted.' }),
  cups: z
    .array(z.strictObject({ letter: sampleLetter, coffee: line(40), ...trial }))
    .min(2, 'compares at least two cups')
    .max(8, 'takes at most eight cups')
    .refine((cups) => new Set(cups.map((cup) => cup.letter)).size === cups.length, 'has a letter twice'),
});
const roundScored = z.strictObject({
  ...eventBase,
  type: z.literal('round-scored'),
  roundId: thingId,
  letter: sampleLetter,
  taster: line(24),
  score: z.number().min(1, 'must be at least 1').max(10, 'must be at most 10'),
  body: notch.optional(),
  words: line(200).optional(),
});
const roundRevealed = z.strictObject({ ...eventBase, type: z.literal('round-revealed'), roundId: thingId });
const stepTaken = z.strictObject({
  ...eventBase,
  type: z.literal('step-taken'),
  brewId: thingId,
  stepId: thingId,
  pair,
});
const brewServed = z.strictObject({
  ...eventBase,
  type: z.literal('brew-served'),
  brewId: thingId,
  beverageG: grams(3000).optional(),
  pair: pair.optional(),
});
const brewAbandoned = z.strictObject({
  ...eventBase,
  type: z.literal('brew-abandoned'),
  brewId: thingId,
  reason: line(200),
});
const eventUndone = z.strictObject({ ...eventBase, type: z.literal('event-undone'), eventId });

const SCHEMAS = {
  ...ORDER_SCHEMAS,
  'hands-away': handsAway,
  'brew-started': brewStarted,
  'step-begun': stepBegun,
  'step-done': stepDone,
  'step-skipped': stepSkipped,
  'step-corrected': stepCorrected,
  'dose-corrected': doseCorrected,
  'brew-moved': brewMoved,
  'brew-given': brewGiven,
  'brew-noted': brewNoted,
  'cup-tasted': cupTasted,
  'coffee-weighed': coffeeWeighed,
  'papers-counted': papersCounted,
  'cloth-boiled': clothBoiled,
  'cloth-replaced': clothReplaced,
  'change-tried': changeTried,
  'round-begun': roundBegun,
  'round-scored': roundScored,
  'round-revealed': roundRevealed,
  'made-ready': madeReady,
  'tins-emptied': tinsEmptied,
  'task-done': taskDone,
  'shift-handed-over': shiftHandedOver,
  'step-taken': stepTaken,
  'brew-served': brewServed,
  'brew-abandoned': brewAbandoned,
  'event-undone': eventUndone,
} satisfies { [Type in BarEventType]: z.ZodType<EventOf<Type>> };

/** Whether two types are equal: each fits the other, and neither has a field, optional or not, that the other lacks. */
type AreSame<A, B> = [A, B] extends [B, A]
  ? A extends readonly (infer InA)[]
    ? B extends readonly (infer InB)[]
      ? AreSame<InA, InB>
      : false
    : A extends object
      ? [keyof A, keyof B] extends [keyof B, keyof A]
        ? false extends {
            [Key in keyof A & keyof B]-?: AreSame<NonNullable<A[Key]>, NonNullable<B[Key]>>;
          }[keyof A & keyof B]
          ? false
          : true
        : false
      : true
  : false;
/** Types whose schema differs from the event's type. */
type NotExact = {
  [Type in BarEventType]: AreSame<z.output<(typeof SCHEMAS)[Type]>, EventOf<Type>> extends true
    ? never
    : Type;
}[BarEventType];
type None<Type extends never> = Type;
/** Does not compile if an event has a field that its schema would refuse, or the other way round. */
export type EventsFitSchemas = None<NotExact>;

type EventSchema = (typeof SCHEMAS)[BarEventType];
export const barEventSchema = z.discriminatedUnion(
  'type',
  Object.values(SCHEMAS) as [EventSchema, ...EventSchema[]],
);

/** Most events in one post. */
export const BATCH_MAX = 200;
/** The request; each event is checked separately, so that an error can name the one at fault. */
export const postEventsSchema = z.strictObject({
  events: z
    .array(z.unknown())
    .min(1, 'needs at least one event')
    .max(BATCH_MAX, `takes at most ${BATCH_MAX} events`),
});
/** The whole request, for readers of the API's description. */
export const postedEventsSchema = z.strictObject({ events: z.array(barEventSchema).min(1).max(BATCH_MAX) });
export const postedSchema = z.object({
  accepted: z.array(z.uuid()),
  duplicates: z.array(z.uuid()),
  seq: z.number().int().meta({ description: 'Place in the log of the latest event.' }),
});
