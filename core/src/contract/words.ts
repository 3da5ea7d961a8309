/**
 * The few shapes that events and settings share.
 */
import { z } from 'zod';

export const thingId = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$/, 'must be 1 to 64 letters, digits, dots, dashes or underscores');
export const line = (max: number) =>
  z
    .string()
    .trim()
    .min(1, 'must not be empty')
    .max(max, `must be at most ${max} characters`)
    .regex(/^[^\p{Cc}]*$/u, 'must be one line of text');
export const grams = (max: number) =>
  z.number().min(0, 'must not be negative').max(max, `must be at most ${max} g`);
