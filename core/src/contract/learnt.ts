/**
 * What the log teaches, as it is answered.
 */
import { z } from 'zod';
import { METHOD_IDS, PAPER_METHODS, STEP_KINDS } from '../recipe';
import { brewRecordSchema } from './bar';
import { LATEST_MS, thingId } from './words';

export const learntQuerySchema = z.object({ recipeId: thingId, coffee: z.string().min(1).max(40) });

const learntFrom = {
  plusMinus: z.number().meta({ description: 'Half of the range that holds four cases of five.' }),
  outliers: z.array(z.string()),
};

/** One recipe with one coffee: its run, and what can be said from it. */
export const learntSchema = z.object({
  recipeId: z.string(),
  coffee: z.string(),
  versions: z
    .array(z.int())
    .meta({ description: 'The versions of the recipe whose brews these are: they are brewed alike.' }),
  run: z.array(
    z.object({ brewId: z.string(), endedMs: z.number(), brewS: z.number(), setting: z.number().nullable() }),
  ),
  /** Of the brews at the latest setting; null while they are fewer than twelve. */
  chart: z
    .object({
      fromIndex: z
        .number()
        .int()
        .meta({ description: 'The place in `run` of the first brew that the limits are of.' }),
      centreS: z.number(),
      lowS: z.number(),
      highS: z.number(),
      outside: z.array(z.boolean()),
      shift: z
        .object({ fromIndex: z.number().int(), seenIndex: z.number().int(), byS: z.number() })
        .nullable(),
    })
    .nullable(),
  grind: z
    .object({
      grinderId: z.string(),
      grinderName: z.string(),
      setting: z.number(),
      secondsPerStep: z.number(),
      plusMinusS: z.number(),
      brews: z.number().int(),
    })
    .nullable(),
  retention: z.object({ ...learntFrom, gPerG: z.number(), cups: z.number().int() }).nullable(),
  drawdown: z
    .object({
      usualS: z.number(),
      usualG: z.number(),
      exponent: z.number(),
      exponentSd: z.number(),
      level: z
        .number()
        .meta({ description: 'How long it takes, times what cards expect. It is planned with.' }),
      brews: z.number().int(),
      outliers: z.array(z.string()),
    })
    .nullable(),
  /** Changes that were taken up, latest first, each with the first brew that it shows in. */
  tried: z.array(
    z.object({
      atMs: z.number(),
      words: z.string(),
      expectS: z.number().nullable(),
      plusMinusS: z.number().nullable(),
      result: z.object({ brewId: z.string(), brewS: z.number() }).nullable(),
    }),
  ),
});
export type Learnt = z.infer<typeof learntSchema>;

const changeSchema = z.discriminatedUnion('what', [
  z.object({
    what: z.literal('grind'),
    stepsCoarser: z.number(),
    expect: z.object({ brewS: z.number(), plusMinusS: z.number() }).nullable(),
  }),
  z.object({ what: z.literal('temperature'), byC: z.number() }),
  z.object({ what: z.literal('ratio'), by: z.number() }),
  z.object({ what: z.literal('by-hand'), words: z.string() }),
]);
const because = z.array(z.string());
export const adviceSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('leave'), because }),
  z.object({ kind: z.literal('change'), change: changeSchema, words: z.string(), because }),
  z.object({
    kind: z.literal('contradiction'),
    words: z.string(),
    checkFirst: z.array(z.string()),
    because,
  }),
]);
export const brewPageSchema = z.object({
  record: brewRecordSchema,
  trace: z
    .array(z.object({ atMs: z.number(), massG: z.number() }))
    .nullable()
    .meta({ description: 'The weight over it; null where it stood on no scale.' }),
  advice: adviceSchema.nullable().meta({ description: 'Null for a brew that was given up.' }),
});
export type BrewPage = z.infer<typeof brewPageSchema>;

/** A day's page is of a day; a little more where clocks are changed, or where a night shift is one. */
const DAY_MOST_MS = 3 * 86_400_000;
export const dayQuerySchema = z
  .object({
    fromMs: z.coerce.number().int().min(0).max(LATEST_MS),
    toMs: z.coerce.number().int().min(0).max(LATEST_MS),
  })
  .refine(({ fromMs, toMs }) => toMs > fromMs && toMs - fromMs <= DAY_MOST_MS, {
    path: ['toMs'],
    message: 'must be after fromMs, by three days at most',
  });
export const daySchema = z.object({
  cups: z.number(),
  orders: z.number(),
  waitS: z.object({ median: z.number(), p90: z.number(), longest: z.number() }).nullable(),
  late: z.array(
    z.object({
      orderId: z.string(),
      guest: z.string().nullable(),
      badge: z.number(),
      byS: z.number(),
      cause: z.string(),
    }),
  ),
  queues: z.array(
    z.object({ queueId: z.string(), orders: z.number(), medianWaitS: z.number(), late: z.number() }),
  ),
  handsByMethod: z.array(z.object({ method: z.enum(METHOD_IDS), cups: z.number(), handsS: z.number() })),
  remade: z.number(),
  abandoned: z.array(z.object({ reason: z.string(), count: z.number() })),
  waste: z.object({ coffeeG: z.number(), waterG: z.number() }),
  inWindow: z.object({ of: z.number(), inside: z.number() }),
  learnt: z.array(z.string()).meta({ description: 'What was tried and what came of it, in a line each.' }),
});
export type DayPage = z.infer<typeof daySchema>;

/** What whoever opens, takes over or closes the bar has to know of the log. */
export const todaySchema = z.object({
  rush: z
    .object({
      doses: z.array(
        z.object({
          coffee: z.string(),
          method: z.enum(METHOD_IDS),
          doseG: z.number(),
          brews: z.number().int(),
        }),
      ),
      cups: z.number().int(),
      weeks: z.number().int(),
    })
    .meta({ description: 'What the same hours of the weeks before ask for, and how many weeks that is of.' }),
  drifts: z
    .array(
      z.object({ recipeId: z.string(), coffee: z.string(), byS: z.number(), sinceMs: z.number().nullable() }),
    )
    .meta({ description: 'Brew times that have moved, of what was brewed in the last two days.' }),
  changes: z.array(z.object({ atMs: z.number(), settings: z.array(z.string()) })).meta({
    description: 'Settings that were changed in the last two days, by what they are called, the latest last.',
  }),
  kettles: z.object({
    litres: z.number().meta({ description: 'About how much water went through the kettles since.' }),
    descaleAfterL: z.number().nullable(),
    descaledMs: z.number().nullable(),
  }),
});
export type Today = z.infer<typeof todaySchema>;

/** How long the hands' own steps really take: the bar's, and each person's where enough is known. */
export const handsSchema = z.object({
  people: z.array(
    z.object({
      /** Null for the bar as a whole. */
      id: z.string().nullable(),
      steps: z.array(
        z.object({
          kind: z.enum(STEP_KINDS),
          cardS: z.number().meta({ description: 'What cards give it, in the middle.' }),
          medianS: z.number(),
          fromS: z.number().meta({ description: 'Eight of ten lie from here' }),
          toS: z.number().meta({ description: 'to here.' }),
          steps: z.number().int(),
        }),
      ),
    }),
  ),
});
export type HandsLearnt = z.infer<typeof handsSchema>;

export const houseSchema = z.object({
  coffees: z.array(
    z.object({
      name: z.string(),
      stockG: z
        .number()
        .nullable()
        .meta({ description: 'What is left by the log; null where it was never weighed.' }),
      brews: z.number().int(),
      /** Of the latest that were tasted: how many, and the middle of their balance, strength and body. */
      tasted: z
        .object({
          cups: z.number().int(),
          balance: z.number(),
          strength: z.number(),
          body: z.number().nullable().meta({ description: 'Null where nobody said one.' }),
        })
        .nullable(),
    }),
  ),
  papers: z.array(
    z.object({
      method: z.enum(PAPER_METHODS),
      sheets: z
        .number()
        .int()
        .nullable()
        .meta({ description: 'What is left by the log; null where they were never counted.' }),
      perDay: z.number().meta({ description: 'Used a day, over the last week.' }),
    }),
  ),
  cloths: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      stationName: z.string(),
      uses: z.number().int(),
      lastBoiledMs: z.number().nullable(),
      creep: z.number().nullable(),
      due: z.array(z.string()),
    }),
  ),
});
export type House = z.infer<typeof houseSchema>;
