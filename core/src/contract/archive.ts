/**
 * A whole bar in one file.
 */
import { z } from 'zod';
import { barSchema } from './bar';
import { barEventSchema } from './events';

export const ARCHIVE_FORMAT = 'even-kettle/archive@1';

export const archiveSchema = z.strictObject({
  format: z.literal(ARCHIVE_FORMAT, `must be ${ARCHIVE_FORMAT}`),
  bar: barSchema,
  recipes: z.array(z.strictObject({ savedMs: z.number().int().min(0), recipe: z.unknown() })).max(2000),
  events: z.array(barEventSchema),
  traces: z.array(
    z.strictObject({
      brewId: z.string().min(1).max(64),
      points: z.array(z.tuple([z.number().min(0).max(8.64e15), z.number().min(-5000).max(20_000)])),
    }),
  ),
});
export type Archive = z.infer<typeof archiveSchema>;
