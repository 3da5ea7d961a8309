/**
 * The bench's settings, and what the server answers.
 */
import { z } from 'zod';
import { brewerSchema } from './brewer';
import { CUP_RANGE_ML, METHOD_IDS, PHASES, ROAST_LEVELS, STEP_KINDS, calibrationFault } from '../recipe';
import { NOTES, STROKES, TASTES } from '../brew';
import { QUEUE_PROMISES, STATION_SCALES, stationOfNoBrewer } from '../plan';
import { ALTITUDE_RANGE_M } from '../water';
import { tasteSchema } from './events';
import { LATEST_MS, grams, line, thingId } from './words';

const unitsSchema = z.strictObject({
  mass: z.enum(['g', 'oz']),
  temperature: z.enum(['C', 'F']),
  volume: z.enum(['ml', 'fl oz']),
});
const altitudeSchema = z
  .number('must be a number of metres')
  .min(ALTITUDE_RANGE_M.min, `must be at least ${ALTITUDE_RANGE_M.min} m`)
  .max(ALTITUDE_RANGE_M.max, `must be at most ${ALTITUDE_RANGE_M.max} m`);
/** Settings of a list are told apart by their ids. */
const named = <Item extends z.ZodType<{ id: string }>>(item: Item, min: number, max: number, what: string) =>
  z
    .array(item)
    .min(min, `needs at least ${min} ${what}`)
    .max(max, `takes at most ${max} ${what}s`)
    .superRefine((items, context) => {
      items.forEach(({ id }, index) => {
        if (items.findIndex((other) => other.id === id) < index)
          context.addIssue({
            code: 'custom',
            path: [index, 'id'],
            message: `is already used by another ${what}`,
          });
      });
    });

const isoDay = z.iso.date('must be a day, like 2026-11-20');
const coffeeSchema = z.strictObject({
  id: thingId,
  name: line(40),
  roast: z.enum(ROAST_LEVELS),
  roastedOn: isoDay.optional(),
  notes: line(200).or(z.literal('')),
  decaf: z.boolean(),
  /** Steps by grinder that this coffee is ground off the recipe's band. */
  grindOffsets: z.record(thingId, z.number().min(-50).max(50)).optional(),
  /** What was found good for this coffee with a recipe: ratio, degrees, and steps by grinder beside the offsets. */
  recipeChanges: z
    .record(
      thingId,
      z.strictObject({
        ratioBy: z.number().min(-5).max(5).optional(),
        waterByC: z.number().min(-20).max(20).optional(),
        grindBy: z.record(thingId, z.number().min(-50).max(50)).optional(),
      }),
    )
    .optional(),
});

const stationSchema = z.strictObject({
  id: thingId,
  name: line(24),
  /** One that every bar knows, or one of this bar's own. */
  brewerId: thingId,
  scale: z.enum(STATION_SCALES).optional(),
  handHeld: z.boolean().optional(),
  intoCup: z.boolean().optional(),
  out: z.boolean().optional(),
});

const grinderSchema = z.strictObject({
  id: thingId,
  name: line(24),
  points: z
    .array(z.strictObject({ band: z.number().min(0).max(100), setting: z.number().min(-1000).max(1000) }))
    .max(12, 'takes at most 12 points')
    .superRefine((points, context) => {
      // Without points it is set by the feel of what it grinds.
      const fault = points.length === 0 ? null : calibrationFault(points);
      if (fault) context.addIssue({ code: 'custom', message: fault });
    }),
  keepsG: grams(20).optional(),
  purgeG: grams(50).optional(),
});

const kettleSchema = z.strictObject({
  id: thingId,
  name: line(24),
  powerW: z
    .number('must be a number of watts')
    .min(100, 'must be at least 100 W')
    .max(5000, 'must be at most 5000 W'),
  sizeMl: z
    .number('must be a number of ml')
    .min(200, 'must be at least 200 ml')
    .max(6000, 'must be at most 6000 ml'),
  maxFlowGPerS: z.number().min(1, 'must be at least 1 g a second').max(60).optional(),
  /** Newton's k, learnt from two readings. */
  coolingPerMin: z.number().min(0.0005).max(1).optional(),
  /** How its temperature is measured: not at all, by the simulated kettle, or by a bridge. */
  device: z.enum(['none', 'simulated', 'bridge']).optional(),
});

/** A cloth in use: a sock, or the filter of a siphon, at its station. */
const clothSchema = z.strictObject({ id: thingId, name: line(24), stationId: thingId });

const personSchema = z.strictObject({ id: thingId, name: line(24) });

const queueSchema = z.strictObject({
  id: thingId,
  name: line(24),
  promise: z.enum(QUEUE_PROMISES),
  withinMin: z
    .number('must be a number of minutes')
    .min(1, 'must be at least a minute')
    .max(240, 'must be at most 240 minutes')
    .optional(),
  share: z.number('must be a number').min(0.1, 'must be at least 0.1').max(5, 'must be at most 5').optional(),
  stroke: z.enum(STROKES).optional(),
});

const menuLineSchema = z.strictObject({
  id: thingId,
  coffeeId: thingId,
  recipeId: thingId,
  sizesMl: z
    .array(
      z
        .number('must be a number of ml')
        .min(CUP_RANGE_ML.min, `must be at least ${CUP_RANGE_ML.min} ml`)
        .max(CUP_RANGE_ML.max, `must be at most ${CUP_RANGE_ML.max} ml`),
    )
    .min(1, 'needs at least one size')
    .max(6, 'takes at most 6 sizes'),
  off: z.boolean().optional(),
  before: z
    .string()
    .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'must be a time of the day, like 11:00')
    .optional(),
});

/** A line of the opening or the closing list. */
const taskSchema = z.strictObject({ id: thingId, name: line(80) });

/** Everything that stands on the bench. */
const barShape = {
  name: line(40),
  altitudeM: altitudeSchema,
  roomC: z.number().min(-10, 'must be at least -10 °C').max(50, 'must be at most 50 °C'),
  units: unitsSchema,
  hands: z.number().int().min(1).max(2),
  stations: named(stationSchema, 0, 24, 'station'),
  brewers: named(brewerSchema, 0, 20, 'brewer').optional(),
  grinders: named(grinderSchema, 0, 6, 'grinder'),
  kettles: named(kettleSchema, 0, 8, 'kettle'),
  tapC: z.number().min(1, 'must be at least 1 °C').max(99, 'must be at most 99 °C'),
  burners: z.number().int().min(0, 'must not be negative').max(8, 'must be at most 8'),
  water: z.strictObject({ name: line(40), hardnessPpm: z.number().min(0).max(1000).optional() }),
  coffees: named(coffeeSchema, 0, 60, 'coffee'),
  queues: named(queueSchema, 0, 8, 'queue').optional(),
  menu: named(menuLineSchema, 0, 40, 'line').optional(),
  people: named(personSchema, 0, 20, 'person'),
  /** What is done before opening and after closing; the usual lines if left out. */
  opening: named(taskSchema, 0, 30, 'line').optional(),
  closing: named(taskSchema, 0, 30, 'line').optional(),
  cloths: named(clothSchema, 0, 20, 'cloth'),
  /** The first day: whether it is still open, and which of its steps are settled: done, or left out. */
  setUp: z.strictObject({ open: z.boolean(), steps: z.array(line(24)).max(12) }).optional(),
  /** After so many days the names and words of guests are forgotten in the log. */
  guestsKeptDays: z
    .int('must be a whole number of days')
    .min(1, 'must be at least a day')
    .max(3650, 'must be at most 3650 days')
    .optional(),
  /** One grind for all coffees and recipes: advice changes something else. */
  oneGrind: z.boolean().optional(),
  /** How long a cup cools before its taste is asked for, minutes of bar time. */
  tasteAfterMin: z.number().min(1, 'must be at least a minute').max(60, 'must be at most an hour'),
};
export const NO_SUCH_BREWER = 'must be a brewer that there is';

export const barSchema = z
  .strictObject({
    ...barShape,
    /** Learnt: how long each kind of step takes these hands, times the card's length. The log's to say, not the Bench's. */
    pace: z.partialRecord(z.enum(STEP_KINDS), z.number()).optional(),
    /** Learnt: the share of the wait that a promise adds to the plan's time. */
    promiseShare: z.number().optional(),
    /** Learnt: what is left of each coffee that was weighed, by its name, grams. */
    stockG: z.record(z.string(), z.number()).optional(),
    /** Guests whose names and words will be forgotten at a time: those of so many orders, the first of which came at `sinceMs`. */
    guestsDue: z.strictObject({ orders: z.int(), sinceMs: z.number(), atMs: z.number() }).optional(),
    /** The version of these settings: it differs after every change. A change says which version it was made from. */
    version: z.string().optional(),
    /**
     * Learnt of a recipe with a coffee: what a gram keeps, g/g; the power with which drawdown grows with the dose, and its
     * standard deviation; how long it takes, times what cards expect.
     */
    beds: z
      .record(
        z.string(),
        z.object({
          retentionGPerG: z.number().optional(),
          drawdownExponent: z.number().optional(),
          drawdownExponentSd: z.number().optional(),
          drawdownLevel: z.number().optional(),
        }),
      )
      .optional(),
  })
  .superRefine((bar, context) => {
    const index = stationOfNoBrewer(bar);
    if (index >= 0)
      context.addIssue({ code: 'custom', path: ['stations', index, 'brewerId'], message: NO_SUCH_BREWER });
  });
export type Bar = z.infer<typeof barSchema>;
export type Coffee = z.infer<typeof coffeeSchema>;
export type Person = z.infer<typeof personSchema>;
export type Cloth = z.infer<typeof clothSchema>;

/** What may be changed from the Bench: any of it, one or more settings at once. */
export const barChangeSchema = z
  .strictObject(barShape)
  .partial()
  .refine((change) => Object.keys(change).length > 0, 'name at least one setting to change');
export type BarChange = z.infer<typeof barChangeSchema>;

export const clockSchema = z.object({
  barMs: z.number().meta({ description: 'Bar time at the moment of answering, milliseconds since 1970.' }),
  rate: z
    .number()
    .meta({ description: 'Bar seconds in one real second; 1 outside demos, practice and tests.' }),
});

export const healthSchema = z.object({
  status: z.enum(['ok', 'failing']),
  store: z.enum(['ok', 'failing']),
  planner: z.enum(['ok', 'failing']),
  storage: z.enum(['enough', 'low', 'full']).meta({ description: 'Room on the disk.' }),
  faults: z.array(z.string()).meta({ description: 'What is wrong, in words, with what to do about it.' }),
  version: z.string(),
  uptimeS: z.number(),
  seq: z.number().int(),
});

const recordMs = z.number().min(0).max(LATEST_MS);
/** One finished brew: planned against real. */
export const brewRecordSchema = z.object({
  brewId: z.string(),
  badge: z.number().int(),
  orderId: z.string(),
  guest: z.string().nullable(),
  /** The nth brewing of its cup, and how many cups were poured of it. */
  attempt: z.number().int(),
  cups: z.number().int(),
  coffee: z.string(),
  roast: z.enum(ROAST_LEVELS),
  ageDays: z.number().nullable().meta({ description: 'Days since roasting, where the day is known.' }),
  recipeId: z.string(),
  recipeVersion: z.number().int(),
  method: z.enum(METHOD_IDS),
  stationId: z.string(),
  stationName: z.string(),
  /** Whose hands, each person once. */
  by: z.array(z.string()),
  outcome: z.enum(['served', 'abandoned']),
  reason: z.string().nullable(),
  cupMl: z.number(),
  /** As on the card, and as corrected. */
  plannedDoseG: z.number(),
  doseG: z.number(),
  brewWaterG: z.number(),
  bypassG: z.number(),
  iceG: z
    .number()
    .optional()
    .meta({ description: 'Ice that melted into the drink, within the bypass, grams.' }),
  lossG: z.number(),
  ratio: z.number(),
  plannedBeverageG: z.number(),
  beverageG: z.number().nullable().meta({ description: 'As weighed.' }),
  beverageFrom: z
    .literal('taste')
    .optional()
    .meta({ description: 'Where it was told with the taste, not as the cup was handed over.' }),
  waterC: z.number(),
  water: z.string().nullable(),
  grind: z.object({ grinderId: z.string(), setting: z.number() }).nullable(),
  drawdownS: z.number().nullable(),
  isSentBack: z
    .literal(true)
    .optional()
    .meta({ description: 'Served, then sent back: its cup was brewed again.' }),
  filledG: z
    .number()
    .optional()
    .meta({ description: 'What its kettle was filled with, rinsing and spare counted, grams.' }),
  handsS: z.number().meta({ description: 'Seconds in which it had a pair of hands.' }),
  notes: z.array(z.enum(NOTES)),
  taste: tasteSchema.extend({ atMs: recordMs }).nullable(),
  yieldPct: z.number().nullable().meta({ description: 'Extraction yield, where TDS was measured.' }),
  pouredG: z.number().nullable(),
  plannedBrewS: z.number(),
  windowFromS: z.number(),
  windowToS: z.number(),
  realBrewS: z.number().nullable(),
  aboutBrewS: z
    .object({ s: z.number(), plusMinusS: z.number() })
    .optional()
    .meta({ description: 'Where its end was asked for late: too unsure for charts and for learning.' }),
  zeroMs: recordMs.nullable().meta({ description: 'Bar time of the timer’s zero.' }),
  orderedMs: recordMs,
  promisedMs: recordMs.nullable(),
  queueId: z.string().optional().meta({ description: 'The queue that its order stood in.' }),
  expectedMs: recordMs.optional().meta({ description: 'When the plan had its order out, as it was taken.' }),
  startedMs: recordMs,
  endedMs: recordMs,
  steps: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      kind: z.enum(STEP_KINDS),
      phase: z.enum(PHASES),
      attended: z.boolean(),
      by: z.string().nullable(),
      plannedS: z.number().meta({ description: 'How long the card gives it.' }),
      plannedStartS: z.number().meta({ description: 'From the timer’s zero; before it below 0.' }),
      realStartS: z.number().nullable(),
      realEndS: z.number().nullable(),
      workedS: z.number().nullable().meta({
        description: 'From when these hands were free, or begun, until it was done.',
      }),
      targetG: z.number().nullable(),
      readingG: z.number().nullable(),
    }),
  ),
  sharers: z
    .array(
      z.object({
        orderId: z.string(),
        badge: z.number().int(),
        guest: z.string().nullable(),
        orderedMs: recordMs,
        promisedMs: recordMs.nullable(),
      }),
    )
    .optional()
    .meta({ description: 'Other orders that had a cup of it.' }),
  sample: z
    .object({ roundId: z.string(), letter: z.string() })
    .optional()
    .meta({ description: 'It was tasted behind a letter, and sold to nobody.' }),
  fromFile: z
    .literal(true)
    .optional()
    .meta({ description: 'It was read in from a table: its steps are not known.' }),
});
export type BrewRecord = z.infer<typeof brewRecordSchema>;
export const logPageSchema = z.object({
  records: z.array(brewRecordSchema),
  next: z.string().nullable().meta({ description: 'Give as `before` for the page after this one.' }),
  unreadable: z
    .int()
    .optional()
    .meta({ description: 'Brews of this page that the file does not give any more.' }),
});
export type LogPage = z.infer<typeof logPageSchema>;
const atMs = z.coerce.number().int().min(0).max(LATEST_MS);
export const logQuerySchema = z.object({
  before: z
    .string()
    .regex(/^\d+ .+$/, 'must be the `next` of a page')
    .optional(),
  limit: z.coerce.number().int().min(1).max(200).default(50),
  coffee: z.string().max(40).optional(),
  method: z.enum(METHOD_IDS).optional(),
  recipeId: thingId.optional(),
  stationId: thingId.optional(),
  person: thingId.optional(),
  taste: z.enum(TASTES).optional(),
  fromMs: atMs.optional(),
  toMs: atMs.optional(),
  search: z.string().trim().max(80).optional().meta({
    description: 'Words that must all be in it: guest, coffee, recipe, notes, what was tasted.',
  }),
});
export type LogQuery = z.infer<typeof logQuerySchema>;

/** For files that leave the bar. */
export const exportQuerySchema = z.object({
  guests: z.literal('without').optional().meta({
    description: '“without” leaves out the names and words of guests.',
  }),
});
export const logFileQuerySchema = logQuerySchema.extend(exportQuerySchema.shape);
export type LogFileQuery = z.infer<typeof logFileQuerySchema>;

/** RFC 9457, with a list of fields and reasons if a body was wrong. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string(),
  errors: z
    .array(
      z.object({ field: z.string(), reason: z.string(), code: z.string(), eventId: z.string().optional() }),
    )
    .optional(),
});
export type Problem = z.infer<typeof problemSchema>;
