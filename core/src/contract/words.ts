/**
 * Small schemas that events and settings share.
 */
import { z } from 'zod';

/** What a schema says where it has no words of its own: the same at a field, in an answer and for a file. */
z.config({
  customError: (issue) => {
    switch (issue.code) {
      case 'too_small':
        return atBound('at least', issue.minimum, issue.origin, issue.inclusive);
      case 'too_big':
        return atBound('at most', issue.maximum, issue.origin, issue.inclusive);
      case 'invalid_type':
        return issue.input === undefined
          ? 'is missing'
          : `must be ${A_TYPE[issue.expected] ?? issue.expected}`;
      case 'invalid_value':
        return `must be ${issue.values.length === 1 ? '' : 'one of '}${issue.values.map(String).join(', ')}`;
      case 'unrecognized_keys':
        return `has a field that is not known here: ${issue.keys.join(', ')}`;
      case 'invalid_union':
        return 'must be of a kind that is known here';
      case 'invalid_format':
        return 'is not written as it should be';
      default:
        return 'is not right';
    }
  },
});
const A_TYPE: Record<string, string> = {
  number: 'a number',
  int: 'a whole number',
  string: 'text',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
};
const COUNTED: Record<string, string> = { string: ' characters', array: ' entries' };
const atBound = (bound: string, value: number | bigint, origin: string, inclusive = true): string =>
  COUNTED[origin]
    ? `must have ${bound} ${value}${COUNTED[origin]}`
    : `must be ${inclusive ? bound : bound === 'at least' ? 'more than' : 'less than'} ${value}`;

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

export const eventId = z.uuid('must be a UUID').meta({ description: 'Chosen by the device (UUIDv7).' });
export const barMs = z.number().int().min(0).max(LATEST_MS);
/** What every event says. */
export const eventBase = {
  id: eventId,
  atMs: barMs.meta({ description: 'Bar time, milliseconds since 1970.' }),
  by: thingId.optional().meta({ description: 'The person of the bench whose hands they were.' }),
};
