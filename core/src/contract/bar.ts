/**
 * The bench's settings, and what the server answers.
 */
import { z } from 'zod';
import { ROAST_LEVELS } from '../recipe';
import { ALTITUDE_RANGE_M } from '../water';

const unitsSchema = z.strictObject({
  mass: z.enum(['g', 'oz']),
  temperature: z.enum(['C', 'F']),
  volume: z.enum(['ml', 'fl oz']),
});
const altitudeSchema = z
  .number('must be a number of metres')
  .min(ALTITUDE_RANGE_M.min, `must be at least ${ALTITUDE_RANGE_M.min} m`)
  .max(ALTITUDE_RANGE_M.max, `must be at most ${ALTITUDE_RANGE_M.max} m`);
export const coffeeSchema = z.object({
  id: z.string(),
  name: z.string(),
  roast: z.enum(ROAST_LEVELS),
  notes: z.string(),
  decaf: z.boolean(),
});

/** Everything that stands on the bench. */
export const barSchema = z.object({
  name: z.string(),
  altitudeM: altitudeSchema,
  units: unitsSchema,
  hands: z.number().int().min(1).max(2),
  grinders: z.number().int().min(1),
  kettles: z.number().int().min(1),
  kettle: z.object({ powerW: z.number(), filledAtC: z.number() }),
  stations: z.array(z.object({ id: z.string(), name: z.string(), brewerId: z.string() })),
  coffees: z.array(coffeeSchema),
});
export type Bar = z.infer<typeof barSchema>;
export type Coffee = z.infer<typeof coffeeSchema>;

/** What may be changed from the Bench. */
export const barChangeSchema = z
  .strictObject({ altitudeM: altitudeSchema.optional(), units: unitsSchema.optional() })
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
  version: z.string(),
  uptimeS: z.number(),
  seq: z.number().int(),
});

/** One finished brew: planned against real. */
export const brewRecordSchema = z.object({
  brewId: z.string(),
  badge: z.number().int(),
  coffee: z.string(),
  recipeId: z.string(),
  recipeVersion: z.number().int(),
  method: z.string(),
  stationName: z.string(),
  outcome: z.enum(['served', 'abandoned']),
  reason: z.string().nullable(),
  cupMl: z.number(),
  doseG: z.number(),
  brewWaterG: z.number(),
  pouredG: z.number().nullable(),
  plannedBrewS: z.number(),
  windowFromS: z.number(),
  windowToS: z.number(),
  realBrewS: z.number().nullable(),
  orderedMs: z.number(),
  startedMs: z.number(),
  endedMs: z.number(),
  steps: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      attended: z.boolean(),
      plannedStartS: z.number(),
      realStartS: z.number().nullable(),
      realEndS: z.number().nullable(),
      targetG: z.number().nullable(),
      readingG: z.number().nullable(),
    }),
  ),
});
export type BrewRecord = z.infer<typeof brewRecordSchema>;
export const logPageSchema = z.object({
  records: z.array(brewRecordSchema),
  next: z.number().nullable().meta({ description: 'Give as `before` for the page after this one.' }),
});
export type LogPage = z.infer<typeof logPageSchema>;
export const logQuerySchema = z.object({
  before: z.coerce.number().int().min(0).optional(),
  limit: z.coerce.number().int().min(1).max(200).default(50),
});

/** RFC 9457, with a list of fields and reasons where a body was at fault. */
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
