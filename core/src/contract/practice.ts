/**
 * What Practice keeps with the server: tries and drills that their people wish to have on the record, pours to follow, variants
 * of the lab, and lessons that are asked of somebody. It is kept apart from the log: nothing of it is a brew.
 */
import { z } from 'zod';
import { EXERCISES, LESSON_IDS, MEASURES, RUSH_LEVELS, SURPRISES, type PourTry } from '../practice';
import { labVariantSchema } from './lab';
import { barMs, eventId, line, thingId } from './words';

const measure = z.number().min(0).max(100_000).nullable();
const drilled = {
  drill: z.enum([...EXERCISES, 'recipe']),
  recipeId: thingId.optional(),
  cupMl: z.number().min(1).max(5000).optional(),
};

const triedSchema = z.strictObject({
  kind: z.literal('try'),
  id: eventId,
  atMs: barMs,
  person: thingId,
  ...drilled,
  score: z.int().min(0, 'must be at least 0').max(100, 'must be at most 100'),
  onScale: z.literal(true).optional(),
  measures: z.strictObject(
    Object.fromEntries(MEASURES.map((name) => [name, measure])) as Record<
      (typeof MEASURES)[number],
      typeof measure
    >,
  ),
});

/** A pour for others to follow, packed by `packSamples`: ten minutes of it at most. */
const shownPourSchema = z.strictObject({
  kind: z.literal('pour'),
  id: eventId,
  atMs: barMs,
  by: line(40),
  ...drilled,
  packed: z.array(z.int().min(-100_000).max(100_000)).max(30_000, 'takes at most 6,000 readings'),
});

/** A variant of the rush lab that was kept by its name. */
const keptVariantSchema = z.strictObject({
  kind: z.literal('variant'),
  id: eventId,
  atMs: barMs,
  variant: labVariantSchema,
});

/** A rush drill on the record. */
const rushedSchema = z.strictObject({
  kind: z.literal('rush'),
  id: eventId,
  atMs: barMs,
  person: thingId,
  level: z.enum(RUSH_LEVELS),
  surprises: z.array(z.enum(SURPRISES)).max(SURPRISES.length),
  isMastered: z.boolean(),
  idleS: z.number().min(0).max(100_000),
});

/** A lesson that a person is asked to do. */
const assignedSchema = z.strictObject({
  kind: z.literal('assignment'),
  id: eventId,
  atMs: barMs,
  person: thingId,
  lesson: z.enum(LESSON_IDS),
});

export const practiceItemSchema = z.discriminatedUnion('kind', [
  triedSchema,
  shownPourSchema,
  keptVariantSchema,
  rushedSchema,
  assignedSchema,
]);
export const practiceSchema = z.object({
  items: z.array(practiceItemSchema),
  next: z
    .string()
    .nullable()
    .meta({ description: 'For `after`: the items behind this page; null where none are.' }),
});
export const practiceQuerySchema = z.object({
  after: z
    .string()
    .regex(/^\d+ .{1,64}$/, 'must be the `next` of a page')
    .optional(),
});

export type PracticeItem = z.infer<typeof practiceItemSchema>;

/** What Practice keeps at most: items and bytes of each kind, years of practice. Together they are what it keeps in all. */
export const PRACTICE_MAX: Record<PracticeItem['kind'], { items: number; bytes: number }> = {
  try: { items: 10_000, bytes: 5e6 },
  rush: { items: 5000, bytes: 1.5e6 },
  assignment: { items: 2000, bytes: 0.5e6 },
  variant: { items: 200, bytes: 2e6 },
  pour: { items: 200, bytes: 12e6 },
};
/** The record's try is the core's own, and always somebody's. */
true satisfies Extract<PracticeItem, { kind: 'try' }> extends PourTry & { kind: 'try' } ? true : false;
