/**
 * The Log's part of the API's description.
 */
import {
  archiveSchema,
  brewPageSchema,
  dayQuerySchema,
  importQuerySchema,
  importSchema,
  importsSchema,
  daySchema,
  handsSchema,
  houseSchema,
  learntQuerySchema,
  learntSchema,
  logPageSchema,
  logQuerySchema,
  traceSchema,
} from '@even-kettle/core/contract';
import { json, problem, ref, schemaOf } from './openapi-parts';

type Query = Parameters<typeof schemaOf>[0];
const queryOf = (schema: Query) =>
  Object.entries(schemaOf(schema, 'input').properties ?? {}).map(([name, of]) => ({
    name,
    in: 'query',
    required: (schemaOf(schema, 'input').required ?? []).includes(name),
    schema: of,
  }));
const id = { name: 'id', in: 'path', required: true, schema: { type: 'string' } };
const file = (type: string, description: string) => ({
  description,
  content: { [type]: { schema: { type: 'string' } } },
});

const rowsIn = (operationId: string, summary: string) => ({
  post: {
    operationId,
    summary,
    parameters: [
      {
        name: 'take',
        in: 'query',
        description: '1 takes the file; left out, it is only looked at.',
        schema: { enum: ['1'] },
      },
    ],
    requestBody: { required: true, content: { 'text/csv': { schema: { type: 'string' } } } },
    responses: {
      200: { description: 'Each line as it would be taken, or what would be right. Nothing was changed.' },
      201: { description: 'All of it was taken.' },
      415: problem('The body is not declared as CSV.'),
      422: problem('A line cannot be taken, so none was; or it is no table.'),
    },
  },
});

// eslint-disable-next-line max-lines-per-function -- a list of routes
export const logPaths = () => ({
  '/api/log': {
    get: {
      operationId: 'getLog',
      summary: 'Finished brews, latest first, filtered and searched.',
      parameters: queryOf(logQuerySchema),
      responses: { 200: json('LogPage', 'A page of records.'), 422: problem('A parameter is wrong.') },
    },
  },
  '/api/brews/{id}': {
    get: {
      operationId: 'getBrew',
      summary: 'One finished brew, and the one change that it asks for.',
      parameters: [id],
      responses: { 200: json('BrewPage', 'Record and advice.'), 404: problem('There is none.') },
    },
  },
  '/api/brews/{id}/trace': {
    get: {
      operationId: 'getTrace',
      summary: 'The weight over a brew that stood on a scale.',
      parameters: [id],
      responses: { 200: json('Trace', 'Points on straight lines.'), 404: problem('It stood on none.') },
    },
  },
  '/api/learnt': {
    get: {
      operationId: 'getLearnt',
      summary: 'What the log teaches of a recipe with a coffee.',
      parameters: queryOf(learntQuerySchema),
      responses: {
        200: json('Learnt', 'Its run, limits, slope and more.'),
        422: problem('A parameter is wrong.'),
      },
    },
  },
  '/api/day': {
    get: {
      operationId: 'getDay',
      summary: 'A day in figures; or any stretch of time.',
      parameters: queryOf(dayQuerySchema),
      responses: { 200: json('Day', 'The figures.'), 422: problem('A parameter is wrong.') },
    },
  },
  '/api/hands': {
    get: {
      operationId: 'getHands',
      summary: 'How long the hands’ own steps really take, of the bar and of each person.',
      responses: { 200: json('Hands', 'Medians and where eight of ten lie.') },
    },
  },
  '/api/house': {
    get: {
      operationId: 'getHouse',
      summary: 'Coffees with their stock, cloths with their care.',
      responses: { 200: json('House', 'As the log has it.') },
    },
  },
  '/api/files/log.csv': {
    get: {
      operationId: 'getLogCsv',
      summary: 'The log as a table (RFC 4180); filters as for the log.',
      parameters: queryOf(logQuerySchema),
      responses: { 200: file('text/csv', 'A line a brew.') },
    },
  },
  '/api/files/log.jsonl': {
    get: {
      operationId: 'getLogJsonl',
      summary: 'The log as JSON Lines; filters as for the log.',
      parameters: queryOf(logQuerySchema),
      responses: { 200: file('application/jsonl', 'A record a line.') },
    },
  },
  '/api/files/traces/{id}.csv': {
    get: {
      operationId: 'getTraceCsv',
      summary: 'The weight over a brew as a table.',
      parameters: [id],
      responses: { 200: file('text/csv', 'Seconds and grams.'), 404: problem('It stood on no scale.') },
    },
  },
  '/api/files/care.ics': {
    get: {
      operationId: 'getCareCalendar',
      summary: 'Cloth care and rest windows for a calendar (RFC 5545).',
      responses: { 200: file('text/calendar', 'A calendar.') },
    },
  },
  '/api/files/archive.json': {
    get: {
      operationId: 'getArchive',
      summary: 'The whole bar in one file.',
      responses: { 200: json('Archive', 'Settings, saved recipes, events, traces.') },
    },
  },
  '/api/imports': {
    get: {
      operationId: 'getImports',
      summary: 'The file that is being read in, how far it is, and the logs that were read in and stay.',
      responses: { 200: json('Imports', 'As it stands.') },
    },
    post: {
      operationId: 'postImport',
      summary:
        'Send a large file: a log from elsewhere (CSV) or an archive. It is then looked at, row by row.',
      parameters: queryOf(importQuerySchema),
      requestBody: {
        required: true,
        content: {
          'text/csv': { schema: { type: 'string' } },
          'application/json': { schema: ref('Archive') },
        },
      },
      responses: {
        202: json('Import', 'Received; the look at it goes on.'),
        409: problem('Another file is being read in.'),
        415: problem('The body is not declared as what it is.'),
        413: problem('The file is too large.'),
        422: problem('A parameter is wrong.'),
      },
    },
  },
  '/api/imports/{id}/take': {
    post: {
      operationId: 'takeImport',
      summary: 'Take what was looked at: all of it, or nothing.',
      parameters: [
        id,
        {
          name: 'faulty',
          in: 'query',
          description: 'Without it, a row that cannot be taken keeps all of them out.',
          schema: { enum: ['leave-out'] },
        },
      ],
      responses: {
        202: json('Import', 'It goes on.'),
        404: problem('There is none.'),
        409: problem('It is not looked at yet.'),
        422: problem('Rows are faulty.'),
      },
    },
  },
  '/api/imports/{id}': {
    delete: {
      operationId: 'endImport',
      summary: 'Stop an import, forget one that was looked at, or take a log that was read in out again.',
      parameters: [id],
      responses: { 204: { description: 'Done.' }, 404: problem('There is none.') },
    },
  },
  '/api/files/roasts': rowsIn('postRoasts', 'Coffees from a roast list.'),
  '/api/files/orders': rowsIn('postOrders', 'Orders from a table.'),
});

export const logSchemas = () => ({
  LogPage: schemaOf(logPageSchema),
  BrewPage: schemaOf(brewPageSchema),
  Trace: schemaOf(traceSchema),
  Learnt: schemaOf(learntSchema),
  Day: schemaOf(daySchema),
  Hands: schemaOf(handsSchema),
  House: schemaOf(houseSchema),
  Import: schemaOf(importSchema),
  Imports: schemaOf(importsSchema),
  Archive: schemaOf(archiveSchema, 'input'),
});
