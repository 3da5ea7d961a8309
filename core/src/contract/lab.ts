/**
 * The rush lab's variants, as they are kept and as they come in a file.
 */
import { z } from 'zod';
import { ROAST_LEVELS } from '../recipe';
import { recipeSchema } from '../formats';
import type { Recipe } from '../recipe';
import { LAB_FORMAT, type LabVariant } from '../practice';
import { barSchema } from './bar';
import { line, thingId } from './words';

const count = (max: number) =>
  z.int('must be a whole number').min(0, 'must not be negative').max(max, `must be at most ${max}`);

export const labVariantSchema = z.strictObject({
  id: thingId,
  name: line(60),
  guests: z.strictObject({
    cupsAnHour: z.int('must be a whole number').min(1, 'must be at least 1').max(200, 'must be at most 200'),
    curve: z
      .array(z.number().min(0).max(100))
      .length(12, 'needs twelve weights, one for each five minutes')
      .refine((weights) => weights.some((weight) => weight > 0), 'needs a weight over 0'),
  }),
  menu: z
    .array(
      z.strictObject({
        recipeId: thingId,
        recipeVersion: z.int().min(1),
        coffee: line(40),
        roast: z.enum(ROAST_LEVELS),
        cupMl: z.number().min(30).max(2000),
        share: z.number().min(0, 'must not be negative').max(100),
      }),
    )
    .min(1, 'needs at least one line')
    .max(40)
    .refine((lines) => lines.some(({ share }) => share > 0), 'needs a line with a share over 0'),
  hands: z.int().min(1, 'must be at least 1').max(4, 'must be at most 4'),
  paceBy: z.number().min(0.5, 'must be at least 0.5').max(2, 'must be at most 2'),
  stations: z.record(thingId, count(8)),
  kettles: count(12),
  grinders: count(6),
  burners: count(6),
  ahead: z.boolean(),
  shared: z.boolean(),
  /** A habit that earlier versions could simulate; nothing follows from it. */
  batches: z.boolean().optional(),
  shortMenu: z.boolean(),
});
true satisfies z.infer<typeof labVariantSchema> extends LabVariant ? true : false;

/** A lab to be run anywhere: the bar as it is, the recipes that were saved there, and what is compared. */
export const labFileSchema = z.object({
  format: z.literal(LAB_FORMAT, `must be ${LAB_FORMAT}`),
  bar: barSchema,
  recipes: z.array(recipeSchema as z.ZodType<Recipe>).max(500),
  shifts: z.int().min(2, 'must be at least 2').max(200, 'must be at most 200'),
  variants: z.array(labVariantSchema).min(1, 'needs at least one variant').max(12),
});
export type LabFile = z.infer<typeof labFileSchema>;
