/**
 * The bench's settings, and what the server answers.
 */
import { z } from 'zod';
import { METHOD_IDS, PHASES, ROAST_LEVELS, STEP_KINDS } from '../recipe';
import { NOTES, TASTES } from '../brew';
import { LOADS, stationOfNoBrewer } from '../plan';
import { tasteSchema } from './events';
import { settingsShape } from './settings';
import { LATEST_MS, thingId } from './words';

export const NO_SUCH_BREWER = 'must be a brewer that there is';

export const barSchema = z
  .strictObject({
    ...settingsShape,
    /** Learnt: how long each kind of step takes these hands, times the card's length. The log's to say, not the Bench's. */
    pace: z.partialRecord(z.enum(STEP_KINDS), z.number()).optional(),
    /** Learnt: the share of the wait that a promise adds to the plan's time, by how full the bar is. */
    promiseShares: z.partialRecord(z.enum(LOADS), z.number()).optional(),
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

/** What may be changed from the Bench: any of it, one or more settings at once. */
export const barChangeSchema = z
  .strictObject(settingsShape)
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
  copyAgeH: z
    .number()
    .nullable()
    .meta({ description: 'How old the latest good copy is, hours; null where there is none.' }),
  uptimeS: z.number(),
  seq: z.number().int(),
});

export const madeCopySchema = z.object({ name: z.string(), events: z.int() });
/** Copies of the bar beside its database. */
export const copiesSchema = z.object({
  copies: z.array(
    z.object({
      name: z.string(),
      kind: z.enum(['night', 'before-migration', 'before-restore', 'by-hand']),
      atMs: z.number().meta({ description: 'When it was made, real milliseconds since 1970.' }),
      bytes: z.number(),
    }),
  ),
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
      readC: z.number().optional().meta({ description: 'What the thermometer said, °C.' }),
      askedC: z.object({ from: z.number(), to: z.number() }).optional(),
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
