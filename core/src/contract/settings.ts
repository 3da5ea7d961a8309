/**
 * The settings of the Bench: one table of what each may be, what a new bar has, and what it is called.
 */
import { z } from 'zod';
import { OWN_TASTE_WORDS, STROKES } from '../brew';
import { QUEUE_PROMISES, STATION_SCALES } from '../plan';
import { CUP_RANGE_ML, ROAST_LEVELS, calibrationFault } from '../recipe';
import { METRIC } from '../units';
import { ALTITUDE_RANGE_M } from '../water';
import { brewerSchema } from './brewer';
import { grams, line, thingId } from './words';

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

type Setting<Schema extends z.ZodType> = {
  schema: Schema;
  /** What it is called where changes are listed. */
  label: string;
  /** What a new bar has, and a bar that was stored before there was such a setting. Only what may be missing has none. */
  initial?: z.infer<Schema>;
} & (undefined extends z.infer<Schema> ? unknown : { initial: z.infer<Schema> });
const setting = <Schema extends z.ZodType>(each: Setting<Schema>): Setting<Schema> => each;

/**
 * Every setting of the Bench. What is stored is completed by this table when it is read, so that a setting that a database lacks
 * is as a new bar has it.
 */
export const SETTINGS = {
  name: setting({ schema: line(40), initial: 'New bar', label: 'name' }),
  altitudeM: setting({ schema: altitudeSchema, initial: 0, label: 'altitude' }),
  roomC: setting({
    schema: z.number().min(-10, 'must be at least -10 °C').max(50, 'must be at most 50 °C'),
    initial: 21,
    label: 'room',
  }),
  units: setting({ schema: unitsSchema, initial: METRIC, label: 'units' }),
  hands: setting({ schema: z.number().int().min(1).max(2), initial: 1, label: 'pairs of hands' }),
  stations: setting({ schema: named(stationSchema, 0, 24, 'station'), initial: [], label: 'stations' }),
  brewers: setting({ schema: named(brewerSchema, 0, 20, 'brewer').optional(), label: 'own brewers' }),
  grinders: setting({ schema: named(grinderSchema, 0, 6, 'grinder'), initial: [], label: 'grinders' }),
  kettles: setting({ schema: named(kettleSchema, 0, 8, 'kettle'), initial: [], label: 'kettles' }),
  tapC: setting({
    schema: z.number().min(1, 'must be at least 1 °C').max(99, 'must be at most 99 °C'),
    initial: 15,
    label: 'filling temperature',
  }),
  burners: setting({
    schema: z.number().int().min(0, 'must not be negative').max(8, 'must be at most 8'),
    initial: 0,
    label: 'burners',
  }),
  water: setting({
    schema: z.strictObject({ name: line(40), hardnessPpm: z.number().min(0).max(1000).optional() }),
    initial: { name: 'Tap' },
    label: 'water',
  }),
  coffees: setting({ schema: named(coffeeSchema, 0, 60, 'coffee'), initial: [], label: 'coffees' }),
  queues: setting({ schema: named(queueSchema, 0, 8, 'queue').optional(), label: 'queues' }),
  menu: setting({ schema: named(menuLineSchema, 0, 40, 'line').optional(), label: 'menu' }),
  people: setting({ schema: named(personSchema, 0, 20, 'person'), initial: [], label: 'people' }),
  /** What is done before opening and after closing; the usual lines if left out. */
  opening: setting({ schema: named(taskSchema, 0, 30, 'line').optional(), label: 'opening list' }),
  closing: setting({ schema: named(taskSchema, 0, 30, 'line').optional(), label: 'closing list' }),
  cloths: setting({ schema: named(clothSchema, 0, 20, 'cloth'), initial: [], label: 'cloths' }),
  /** The first day: whether it is still open, and which of its steps are settled: done, or left out. A bar that says nothing of it was set up before there was one. */
  setUp: setting({
    schema: z.strictObject({ open: z.boolean(), steps: z.array(line(24)).max(12) }).optional(),
    label: 'first day',
  }),
  /** After so many days the names and words of guests are forgotten in the log. */
  guestsKeptDays: setting({
    schema: z
      .int('must be a whole number of days')
      .min(1, 'must be at least a day')
      .max(3650, 'must be at most 3650 days')
      .optional(),
    label: 'guests',
  }),
  /** One grind for all coffees and recipes: advice changes something else. */
  oneGrind: setting({ schema: z.boolean().optional(), label: 'one grind for all' }),
  /** How long a cup cools before its taste is asked for, minutes of bar time. */
  tasteAfterMin: setting({
    schema: z.number().min(1, 'must be at least a minute').max(60, 'must be at most an hour'),
    initial: 7,
    label: 'tasting',
  }),
  /** Words of the bar's own for how a cup tastes, beside those that every bar has. */
  tasteWords: setting({
    schema: z
      .array(line(20))
      .max(OWN_TASTE_WORDS, `takes at most ${OWN_TASTE_WORDS} words`)
      .refine((words) => new Set(words).size === words.length, 'has a word twice')
      .optional(),
    label: 'words for a taste',
  }),
};
type Settings = typeof SETTINGS;
const columnOf = (column: 'schema' | 'initial' | 'label'): unknown =>
  Object.fromEntries(
    Object.entries<Setting<z.ZodType>>(SETTINGS).flatMap(([name, each]) =>
      each[column] === undefined ? [] : [[name, each[column]]],
    ),
  );

export const settingsShape = columnOf('schema') as { [Name in keyof Settings]: Settings[Name]['schema'] };
export const INITIAL_SETTINGS = columnOf('initial') as z.infer<z.ZodObject<typeof settingsShape>>;
export const SETTING_LABELS = columnOf('label') as Record<string, string>;

export type Coffee = z.infer<typeof coffeeSchema>;
export type Person = z.infer<typeof personSchema>;
export type Cloth = z.infer<typeof clothSchema>;
