/**
 * Errors as RFC 9457 problem documents, with words that say what would be right.
 */
import type { ErrorRequestHandler, Response } from 'express';
import type { ZodError } from 'zod';
import type { Problem } from '@even-kettle/core/contract';
import type { Refused } from '../store/log';
import { failureOf } from '../store/transaction';

type FieldError = NonNullable<Problem['errors']>[number];

/** A problem to answer with; any code of a request may throw it. */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly title: string,
    readonly detail: string,
    readonly errors?: FieldError[],
  ) {
    super(detail);
  }
}

/** The faults that a schema found, by field. A field is a path: `events.0.cups.1.cupMl`. */
export function invalid(error: ZodError, what: string): HttpProblem {
  const errors = error.issues.map((issue) => ({
    field: issue.path.join('.') || what,
    reason: issue.message,
    code: issue.code,
  }));
  const first = errors[0]!;
  return new HttpProblem(
    422,
    'not-valid',
    `The ${what} is not valid`,
    `${first.field}: ${first.reason}`,
    errors,
  );
}

/** Why an event was refused, with its index in the request and its id, so that a device can drop that one alone. */
export function eventProblem({ index, eventId, refusal, issues }: Refused): HttpProblem {
  const at = (field: string) => (field === '' ? `events.${index}` : `events.${index}.${field}`);
  const named = eventId === null ? {} : { eventId };
  const found = issues ?? [refusal];
  return new HttpProblem(
    UNPROCESSABLE.has(refusal.code) ? 422 : 409,
    refusal.code,
    'The event was not taken',
    refusal.code === 'not-valid' ? `${at(refusal.field)}: ${refusal.reason}` : refusal.reason,
    found.map(({ field, reason, code }) => ({ field: at(field), reason, code, ...named })),
  );
}

/** Codes for an event that is wrong in itself; the other codes say that it does not fit the state of the bar. */
const UNPROCESSABLE: ReadonlySet<string> = new Set([
  'does-not-make-a-cup',
  'in-the-future',
  'not-fitting',
  'not-valid',
  'too-long-ago',
  'too-many',
  'unknown',
  'unknown-recipe',
]);

export function sendProblem(response: Response, problem: HttpProblem): void {
  const body: Problem = {
    type: `urn:even-kettle:problem:${problem.code}`,
    title: problem.title,
    status: problem.status,
    detail: problem.detail,
    ...(problem.errors ? { errors: problem.errors } : {}),
  };
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(body));
}

/** The last handler: errors of the body parser by their kind, our own as they are, all others as internal errors. */
export const answerErrors: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) return next(error);
  const kind = (error as { type?: string }).type;
  if (error instanceof HttpProblem) return sendProblem(response, error);
  if (kind === 'entity.too.large') {
    return sendProblem(
      response,
      new HttpProblem(
        413,
        'too-large',
        'The body is too large',
        'A post may be at most 256 KB; send fewer events at once.',
      ),
    );
  }
  if (kind === 'entity.parse.failed') {
    return sendProblem(
      response,
      new HttpProblem(400, 'not-json', 'The body is not JSON', 'The body must be a JSON object, in UTF-8.'),
    );
  }
  const failed = failureOf(error);
  if (failed) {
    request.log?.error({ err: error }, 'the store did not take it');
    const status = failed.code === 'full' ? 507 : 503;
    return sendProblem(
      response,
      new HttpProblem(status, `store-${failed.code}`, 'Nothing was stored', failed.message),
    );
  }
  const status = (error as { status?: number }).status;
  if (status !== undefined && status >= 400 && status < 500) {
    return sendProblem(
      response,
      new HttpProblem(status, 'bad-request', 'The request cannot be read', (error as Error).message),
    );
  }
  request.log?.error({ err: error }, 'request failed');
  sendProblem(
    response,
    new HttpProblem(
      500,
      'fault',
      'The server failed',
      'Nothing was stored. Try again; if it stays, look at the server’s log.',
    ),
  );
};
