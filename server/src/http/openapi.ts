/**
 * The API's description (OpenAPI 3.1), made from the table of routes and the schemas that the server checks with.
 */
import { z } from 'zod';
import { ADDRESSES, addressOf, type RouteId } from '@even-kettle/core/contract/addresses';
import { ROUTES, refusalsOf, type Route } from '@even-kettle/core/contract/routes';
import { ROUTE_ROLES, isKeyRole } from '@even-kettle/core/contract/roles';
import { COOKIE } from '../access/gate';
import { archiveSchema, problemSchema } from '@even-kettle/core/contract';

type Json = Record<string, unknown>;
type Way = 'input' | 'output';

const schemaOf = (schema: z.ZodType, way: Way): Json => {
  const { $schema: _dialect, ...rest } = z.toJSONSchema(schema, { io: way });
  return rest;
};

/** Schemas with a name in the document. A schema that is used both in requests and in answers has two names. */
function components() {
  const named = new Map<z.ZodType, string>();
  const schemas: Record<string, Json> = {};
  const add = (name: string, schema: z.ZodType, way: Way) => {
    if (named.has(schema)) return;
    named.set(schema, name);
    schemas[name] = schemaOf(schema, way);
  };
  add('Problem', problemSchema, 'output');
  // The archive has the same form when it is exported and when it is imported.
  add('Archive', archiveSchema, 'input');
  for (const id of Object.keys(ADDRESSES) as RouteId[]) {
    const { body, answer }: Route = ROUTES[id];
    const asked = body?.described ?? body?.schema;
    if (asked) add(titleOf(id), asked, 'input');
    if (answer) add(`${titleOf(id)}Answer`, answer, 'output');
  }
  return { schemas, ref: (schema: z.ZodType) => ({ $ref: `#/components/schemas/${named.get(schema)!}` }) };
}

const titleOf = (id: string): string => id[0]!.toUpperCase() + id.slice(1);

/** The OpenAPI 3.1 document. */
export function openapiDocument(version: string) {
  const { schemas, ref } = components();
  const paths: Record<string, Json> = {};
  for (const id of Object.keys(ADDRESSES) as RouteId[]) {
    const { method, path } = addressOf(id);
    paths[path] = { ...paths[path], [method.toLowerCase()]: operationOf(id, path, ref) };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Even Kettle',
      version,
      description:
        'The brew bar’s own API. Everything that happens is an event in one append-only log; the state is what the log makes of it. Bar time is this server’s, in milliseconds since 1970.',
    },
    paths,
    components: {
      schemas,
      securitySchemes: {
        device: {
          type: 'apiKey',
          in: 'cookie',
          name: COOKIE,
          description: 'A paired device. Where the bar is served to its own machine alone, nobody needs one.',
        },
        key: { type: 'http', scheme: 'bearer', description: 'The key of a program, as the Bench made it.' },
      },
    },
  };
}

type Ref = (schema: z.ZodType) => Json;

function operationOf(id: RouteId, path: string, ref: Ref): Json {
  const { summary, query, headers, body, file, answer, media, says }: Route = ROUTES[id];
  const parameters = [
    ...[...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
      name,
      in: 'path',
      required: true,
      schema: { type: 'string' },
    })),
    ...parametersOf(query, 'query'),
    ...parametersOf(headers, 'header'),
  ];
  const asked = body?.described ?? body?.schema;
  const content: Json = {
    ...(asked ? { 'application/json': { schema: ref(asked) } } : {}),
    ...Object.fromEntries(
      (file ?? []).map((type) => [
        type,
        { schema: type === 'application/json' ? ref(archiveSchema) : { type: 'string' } },
      ]),
    ),
  };
  const answered: Json = answer
    ? { content: { 'application/json': { schema: ref(answer) } } }
    : media
      ? { content: { [media]: { schema: media.endsWith('json') ? {} : { type: 'string' } } } }
      : {};
  return {
    operationId: id,
    summary,
    ...securityOf(id),
    ...(parameters.length > 0 ? { parameters } : {}),
    ...(Object.keys(content).length > 0 ? { requestBody: { required: true, content } } : {}),
    responses: {
      ...mapped(says, (description) => ({ description, ...answered })),
      ...mapped(refusalsOf(id), (description) => ({
        description,
        content: { 'application/problem+json': { schema: ref(problemSchema) } },
      })),
    },
  };
}

/** Who may: paired devices, programs with a key, or anybody; which of them stands in `x-roles`. */
function securityOf(id: RouteId): Json {
  const roles = ROUTE_ROLES[id];
  if (roles.includes('nobody')) return { security: [], 'x-roles': roles };
  return { security: [{ device: [] }, ...(roles.some(isKeyRole) ? [{ key: [] }] : [])], 'x-roles': roles };
}

const mapped = (of: Record<number, string>, make: (description: string) => Json): Json =>
  Object.fromEntries(Object.entries(of).map(([status, description]) => [status, make(description)]));

function parametersOf(schema: z.ZodObject | undefined, where: 'query' | 'header') {
  if (!schema) return [];
  const { properties = {}, required = [] } = z.toJSONSchema(schema, { io: 'input' });
  return Object.entries(properties).map(([name, of]) => {
    const { description, ...rest } = of as Json;
    return {
      name,
      in: where,
      required: required.includes(name),
      ...(description ? { description } : {}),
      schema: rest,
    };
  });
}
