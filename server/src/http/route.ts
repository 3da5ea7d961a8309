/**
 * Registers a route of the API's table (`core/contract/routes.ts`): reads the request by the route's schemas and sends the
 * answer with the route's status.
 */
import { isDeepStrictEqual } from 'node:util';
import type { Request, Response, Router } from 'express';
import type { z } from 'zod';
import { addressOf, type RouteId } from '@even-kettle/core/contract/addresses';
import {
  ROUTES,
  usualStatus,
  type AnswerOf,
  type BodyRead,
  type QueryRead,
  type Route,
} from '@even-kettle/core/contract/routes';
import { callerOn, mustBeAllowed, type Caller } from '../access/gate';
import { HttpProblem, invalid } from './problem';

export type Asked<Id extends RouteId> = {
  /** The parameter of the address, like `{id}`. */
  id: string;
  query: QueryRead<Id>;
  body: BodyRead<Id>;
  /** Who asks. */
  caller: Caller;
  request: Request;
  /** For headers, and for streamed answers. */
  response: Response;
};
/** Returns undefined if there is no body, or if the answer has been sent already. */
type Handler<Id extends RouteId> = (
  asked: Asked<Id>,
) => AnswerOf<Id> | undefined | Promise<AnswerOf<Id> | undefined>;

export type AddRoute = <Id extends RouteId>(id: Id, handler: Handler<Id>) => void;

/** @param checksAnswers whether every answer is checked by its schema before it is sent; used in tests, since it takes time */
export function routesOn(api: Router, checksAnswers: boolean): AddRoute {
  return (id, handler) => {
    const { method, path } = addressOf(id);
    const route: Route = ROUTES[id];
    const verb = method.toLowerCase() as 'get' | 'post' | 'patch' | 'delete';
    api[verb](expressPath(path), async (request, response) => {
      const caller = callerOn(response);
      mustBeAllowed(id, caller);
      response.status(usualStatus(id));
      const answer = await handler({
        id: String(request.params['id'] ?? ''),
        query: readAs(route.query, () => request.query, 'query') as QueryRead<typeof id>,
        body: readAs(route.body?.schema, () => jsonOf(request), route.body?.called) as BodyRead<typeof id>,
        caller,
        request,
        response,
      });
      if (response.headersSent) return;
      if (answer === undefined) return void response.end();
      if (checksAnswers) mustBeWhole(id, answer);
      response.json(answer);
    });
  };
}

const expressPath = (path: string): string => path.replace(/^\/api/, '').replace(/\{(\w+)\}/g, ':$1');

/** The value, read by the schema; undefined if the route takes none. */
function readAs(schema: z.ZodType | undefined, given: () => unknown, called = ''): unknown {
  if (!schema) return undefined;
  const read = schema.safeParse(given());
  if (!read.success) throw invalid(read.error, called);
  return read.data;
}

/** @throws Error if the route's schema refuses its answer, or lacks a field of the answer */
function mustBeWhole<Id extends RouteId>(id: Id, answer: AnswerOf<Id>): void {
  const sent: unknown = JSON.parse(JSON.stringify(answer));
  const { answer: schema }: Route = ROUTES[id];
  if (!isDeepStrictEqual(schema?.parse(sent), sent))
    throw new Error(`The schema of the answer of ${id} leaves out something of it.`);
}

function jsonOf(request: Request): unknown {
  if (request.is('application/json')) return request.body as unknown;
  throw new HttpProblem(
    415,
    'not-declared-json',
    'The body is not declared as JSON',
    'Send the body with Content-Type: application/json.',
  );
}
