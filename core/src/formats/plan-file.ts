/**
 * Planning problems and plans as open files: what crosses a border is checked here, and told by its field.
 */
import { z } from 'zod';
import { PLAN_FORMAT, PROBLEM_FORMAT, type Plan, type PlanProblem } from '../plan';

const seconds = z.int().min(-1e10).max(1e10);
const span = z.int().min(0).max(100_000);
const id = z.string().min(1).max(80);
const atSteps = z.record(z.string(), seconds);

const lagSchema = z
  .strictObject({ min: span, ideal: span, max: span.nullable(), penalty: z.number().min(0).max(1000) })
  .refine((lag) => lag.max === null || lag.max >= lag.min, {
    path: ['max'],
    message: 'must not be under min.',
  });

export const planProblemSchema = z.strictObject({
  format: z.literal(PROBLEM_FORMAT),
  now: seconds,
  hands: z.int().min(0).max(20),
  away: z
    .array(z.strictObject({ from: seconds, to: seconds, hands: z.int().min(0).max(20) }))
    .max(100)
    .optional(),
  tools: z.record(z.string(), z.int().min(0).max(1000)),
  orders: z
    .array(
      z.strictObject({
        id,
        placedAt: seconds,
        dueAt: seconds,
        promisedAt: seconds.optional(),
        weight: z.number().min(0).max(1000).default(1),
        serveWithin: span,
        brews: z.array(id).min(1).max(100),
      }),
    )
    .max(500),
  brews: z
    .array(
      z.strictObject({
        id,
        orders: z.array(id).min(1).max(20),
        steps: z
          .array(
            z.strictObject({
              id,
              attended: z.boolean(),
              duration: span,
              lag: lagSchema,
              serve: z.literal(true).optional(),
            }),
          )
          .min(1)
          .max(100),
        holds: z.array(z.strictObject({ tool: id, from: id, to: id })).max(50),
        coolS: span.optional(),
      }),
    )
    .max(500),
  started: atSteps.default({}),
  ended: atSteps.default({}),
  frozen: atSteps.default({}),
  startedHands: z.record(z.string(), z.int().min(0).max(20)).optional(),
  countedHands: z.record(z.string(), z.int().min(0).max(20)).optional(),
  goesBefore: z.record(z.string(), z.string()).optional(),
});

export const planSchema = z.object({
  format: z.literal(PLAN_FORMAT),
  starts: z.record(z.string(), z.int()).meta({ description: 'Whole seconds of bar time, by `brew/step`.' }),
  hands: z.record(z.string(), z.int()),
  startedHands: z
    .record(z.string(), z.int())
    .optional()
    .meta({ description: 'What the pairs of hands were at when the plan was made.' }),
  goesBefore: z
    .record(z.string(), z.string())
    .optional()
    .meta({ description: 'Of these, what a step goes before though the card asked for that first.' }),
  finish: z.record(z.string(), z.int()),
  cost: z.number(),
  bound: z.number(),
  optimal: z.boolean(),
  relaxed: z.array(z.object({ step: z.string(), rule: z.enum(['max-lag', 'frozen']), by: z.number() })),
  why: z.record(
    z.string(),
    z.object({
      for: z.enum(['hands', 'tool', 'partner']),
      tool: z.string().optional(),
      until: z.number(),
      step: z.string().nullable(),
    }),
  ),
}) satisfies z.ZodType<Plan>;

/** More than the largest bar's problem, characters. */
export const PLAN_FILE_MAX = 5_000_000;

type Read<Value> = { ok: true; value: Value } | { ok: false; faults: { field: string; reason: string }[] };

export const readPlanProblem = (text: string): Read<PlanProblem> => read(text, planProblemSchema);
/** A plan may come from elsewhere: what only explains it may be missing. */
export const readPlan = (text: string): Read<Plan> =>
  read(
    text,
    planSchema.extend({
      cost: z.number().default(NaN),
      bound: z.number().default(0),
      optimal: z.boolean().default(false),
      relaxed: planSchema.shape.relaxed.default([]),
      why: planSchema.shape.why.default({}),
      finish: planSchema.shape.finish.default({}),
    }),
  );

function read<Value>(text: string, schema: z.ZodType<Value>): Read<Value> {
  if (text.length > PLAN_FILE_MAX)
    return {
      ok: false,
      faults: [
        { field: 'file', reason: `is over ${PLAN_FILE_MAX / 1e6} MB; a bar's problem is far smaller.` },
      ],
    };
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return { ok: false, faults: [{ field: 'file', reason: `is not JSON: ${(error as Error).message}` }] };
  }
  const parsed = schema.safeParse(value);
  if (parsed.success) return { ok: true, value: parsed.data };
  return {
    ok: false,
    faults: parsed.error.issues.map(({ path, message }) => ({
      field: path.join('.') || 'file',
      reason: message,
    })),
  };
}
