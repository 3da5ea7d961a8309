/**
 * Small schemas that events and settings share.
 */
import { z } from 'zod';

/** Names that every JavaScript object has already. */
const TAKEN_BY_OBJECTS: ReadonlySet<string> = new Set(Object.getOwnPropertyNames(Object.prototype));
export const thingId = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$/, 'must be 1 to 64 letters, digits, dots, dashes or underscores')
  .refine((id) => !TAKEN_BY_OBJECTS.has(id), 'must be another id; this one is reserved');
/** No bar has a time after this, milliseconds since 1970: the year 2200. */
export const LATEST_MS = Date.UTC(2200, 0, 1);
export const line = (max: number) =>
  z
    .string()
    .trim()
    .min(1, 'must not be empty')
    .max(max, `must be at most ${max} characters`)
    .regex(/^[^\p{Cc}]*$/u, 'must be one line of text');
export const grams = (max: number) =>
  z.number().min(0, 'must not be negative').max(max, `must be at most ${max} g`);
