/**
 * A brewer of a bar's own, as the Bench has it and as a brew takes it along.
 */
import { z } from 'zod';
import { METHOD_IDS } from '../recipe';
import { line, thingId } from './words';

/** A brewer or a pot of the bar's own. */
export const brewerSchema = z
  .strictObject({
    id: thingId,
    name: line(24),
    method: z.enum(METHOD_IDS),
    minDoseG: z.number().min(3, 'must be at least 3 g').max(120, 'must be at most 120 g'),
    maxDoseG: z.number().min(3, 'must be at least 3 g').max(120, 'must be at most 120 g'),
    maxWaterG: z.number().min(50, 'must be at least 50 g').max(3000, 'must be at most 3000 g'),
    filter: line(80).optional(),
    retentionGPerG: z.number().min(0.5, 'must be at least 0.5').max(4, 'must be at most 4').optional(),
    drainShare: z.number().min(0.3, 'must be at least 0.3').max(3, 'must be at most 3').optional(),
    filledWhole: z.boolean().optional(),
  })
  .refine(({ minDoseG, maxDoseG }) => minDoseG < maxDoseG, {
    path: ['maxDoseG'],
    message: 'must be more than the least dose',
  });
