/**
 * A whole bar in one file.
 */
import { z } from 'zod';
import { barSchema, brewRecordSchema } from './bar';
import { barEventSchema } from './events';
import { LATEST_MS } from './words';

export const ARCHIVE_FORMAT = 'even-kettle/archive@1';

/** The parts of an archive by name. Each item of a list is checked separately, since the whole may be larger than memory. */
export const archiveParts = {
  format: z.literal(ARCHIVE_FORMAT, `must be ${ARCHIVE_FORMAT}`),
  bar: barSchema,
  recipes: z.strictObject({ savedMs: z.number().int().min(0).max(LATEST_MS), recipe: z.unknown() }),
  events: barEventSchema,
  traces: z.strictObject({
    brewId: z.string().min(1).max(64),
    points: z.array(z.tuple([z.number().min(0).max(LATEST_MS), z.number().min(-5000).max(20_000)])),
  }),
  /** Logs that were read in from tables, and their brews. */
  imports: z.strictObject({
    id: z.string().min(1).max(64),
    name: z.string().min(1).max(120),
    brews: z.number().int().min(0).max(100_000_000),
    atMs: z.number().int().min(0).max(LATEST_MS),
  }),
  records: z.strictObject({ importId: z.string().min(1).max(64), record: brewRecordSchema }),
  /** What the bar could not read of itself when the archive was made: a number or an id of that part. */
  unreadable: z.strictObject({ part: z.enum(['events', 'traces', 'records']), of: z.string().max(80) }),
};
export type Unreadable = z.infer<(typeof archiveParts)['unreadable']>;

/** The whole, for those who write one. */
export const archiveSchema = z.strictObject({
  format: archiveParts.format,
  bar: archiveParts.bar,
  recipes: z.array(archiveParts.recipes).max(2000),
  events: z.array(archiveParts.events),
  traces: z.array(archiveParts.traces),
  imports: z.array(archiveParts.imports).optional(),
  records: z.array(archiveParts.records).optional(),
  unreadable: z.array(archiveParts.unreadable).optional(),
});
