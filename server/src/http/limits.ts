/** How often somebody may ask, and how many streams there may be. */
import type { Response } from 'express';
import rateLimit, { type Options } from 'express-rate-limit';
import { callerOn } from '../access/gate';
import { HttpProblem } from './problem';

const TOO_MANY = new HttpProblem(
  429,
  'too-many',
  'Too many requests',
  'Wait a moment; this device has asked too often.',
);

export const TOO_MANY_STREAMS = new HttpProblem(
  429,
  'too-many-streams',
  'Too many pages are open',
  'This server streams to as many pages as it can. Close some of them, or wait a moment, then load this one again.',
);

/** So many requests a minute from each address, or from each of whatever `more` tells apart. */
export const minuteLimit = (limit: number, more: Partial<Options> = {}) =>
  rateLimit({
    windowMs: 60_000,
    limit,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, _response, next) => next(TOO_MANY),
    ...more,
  });

/** What a till may ask in a minute: more than any counter sells, and too little to fill a bar at once. */
const TILL_A_MINUTE = 60;

/** A till is known by its key; two of them may stand behind one address. */
export const tillLimit = () =>
  minuteLimit(TILL_A_MINUTE, {
    keyGenerator: (_request, response) => callerOn(response as Response).known?.id ?? '',
    skip: (_request, response) => callerOn(response as Response).asker !== 'till',
  });
