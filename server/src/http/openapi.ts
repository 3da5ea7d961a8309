/**
 * The API's description, made from the schemas that the server checks with.
 */
import { planProblemSchema, planSchema, recipeSchema } from '@even-kettle/core/formats';
import {
  barChangeSchema,
  barSchema,
  clockSchema,
  devicesSchema,
  healthSchema,
  kettleOrderSchema,
  postedEventsSchema,
  plannedSchema,
  postedSchema,
  problemSchema,
  recipesSchema,
  saveRecipeSchema,
  scaleOrderSchema,
  snapshotSchema,
} from '@even-kettle/core/contract';
import { logPaths, logSchemas } from './openapi-log';
import { json, problem, ref, schemaOf } from './openapi-parts';

/** The OpenAPI 3.1 document. */
// eslint-disable-next-line max-lines-per-function -- a list of routes
export function openapiDocument(version: string) {
  return {
    openapi: '3.1.0',
    info: {
      title: 'Even Kettle',
      version,
      description:
        'The brew bar’s own API. Everything that happens is an event in one append-only log; the state is what the log makes of it. Bar time is this server’s, in milliseconds since 1970.',
    },
    paths: {
      '/api/events': {
        post: {
          operationId: 'postEvents',
          summary:
            'Append events: all of a post, or nothing of it. Posting the same event again changes nothing.',
          requestBody: { required: true, content: { 'application/json': { schema: ref('PostEvents') } } },
          responses: {
            200: json('Posted', 'Stored, and durable.'),
            400: problem('The body is not JSON.'),
            409: problem('An event does not follow from what is on the bar.'),
            413: problem('The body is too large.'),
            415: problem('The body is not declared as JSON.'),
            422: problem('A field is wrong; `errors` names the event.'),
            429: problem('Too many requests.'),
            503: problem('The database cannot be written to just now. Keep the events and post them again.'),
            507: problem('The disk is full. Keep the events and post them again.'),
          },
        },
      },
      '/api/state': {
        get: {
          operationId: 'getState',
          summary: 'The bar as it stands, and the plan.',
          responses: { 200: json('Snapshot', 'State, settings, plan and clock.') },
        },
      },
      '/api/live': {
        get: {
          operationId: 'live',
          summary:
            'Server-sent events: `recipes`, `bar`, `devices`, `plan`, `scale`, `kettle`, `storage`, `beat` (every 4 s), `bar-event` (with its place in the log as id). Resumes after `Last-Event-ID`, or after `after`.',
          parameters: [
            { name: 'after', in: 'query', schema: { type: 'integer', minimum: 0 } },
            { name: 'Last-Event-ID', in: 'header', schema: { type: 'integer', minimum: 0 } },
          ],
          responses: {
            200: {
              description: 'A stream.',
              content: { 'text/event-stream': { schema: { type: 'string' } } },
            },
            409: problem('The place is too far back: load the state instead.'),
            422: problem('Not a place in the log.'),
            429: problem('Too many streams are open.'),
          },
        },
      },
      '/api/recipes': {
        get: {
          operationId: 'getRecipes',
          summary: 'Every recipe in its latest version, as data.',
          responses: { 200: json('Recipes', 'The recipes.') },
        },
        post: {
          operationId: 'saveRecipe',
          summary: 'Save a new recipe, or the next version of one. Nothing is overwritten.',
          requestBody: { required: true, content: { 'application/json': { schema: ref('SaveRecipe') } } },
          responses: {
            201: json('Recipe', 'Saved, with the version that it got.'),
            409: problem('There is a later version than the one that was edited.'),
            422: problem('A field is wrong.'),
          },
        },
      },
      '/api/recipes/{id}/versions': {
        get: {
          operationId: 'getRecipeVersions',
          summary: 'All versions of a recipe, oldest first.',
          parameters: [{ name: 'id', in: 'path', required: true, schema: { type: 'string' } }],
          responses: { 200: json('Recipes', 'Its versions.'), 404: problem('There is no such recipe.') },
        },
      },
      '/api/schemas/recipe.json': {
        get: {
          operationId: 'getRecipeSchema',
          summary: 'The JSON Schema of a recipe, as files and the editor are checked with.',
          responses: { 200: { description: 'A JSON Schema.', content: { 'application/schema+json': {} } } },
        },
      },
      '/api/bar': {
        get: {
          operationId: 'getBar',
          summary: 'What stands on the bench.',
          responses: { 200: json('Bar', 'The settings.') },
        },
        patch: {
          operationId: 'changeBar',
          summary:
            'Change settings. A list that is named is replaced, so name the version that it was made from.',
          parameters: [
            {
              name: 'If-Match',
              in: 'header',
              description: 'The `ETag` of the settings that the change was made from.',
              schema: { type: 'string' },
            },
          ],
          requestBody: { required: true, content: { 'application/json': { schema: ref('BarChange') } } },
          responses: {
            200: json('Bar', 'The settings as they are now.'),
            409: problem('A station has a brew on it.'),
            412: problem('The settings have changed since that version.'),
            422: problem('A setting is wrong.'),
          },
        },
      },
      ...logPaths(),
      '/api/plan': {
        get: {
          operationId: 'getPlan',
          summary: 'The plan that stands, and how calm planning has been.',
          responses: { 200: json('Planned', 'The published plan.') },
        },
      },
      '/api/plan/problem': {
        get: {
          operationId: 'getPlanProblem',
          summary: 'The problem that the plan answers; `ek plan` reads it.',
          responses: { 200: json('PlanProblem', 'The problem.'), 404: problem('Nothing is planned.') },
        },
      },
      '/api/devices': {
        get: {
          operationId: 'getDevices',
          summary: 'The scales and kettles that the bar can hear, and what they show.',
          responses: { 200: json('Devices', 'What they show.') },
        },
      },
      '/api/devices/scales/{id}': {
        post: {
          operationId: 'orderScale',
          summary: 'Tare a scale; pour on a stand-in, or let a practised hand pour on it.',
          parameters: [{ name: 'id', in: 'path', required: true, schema: { type: 'string' } }],
          requestBody: {
            required: true,
            content: { 'application/json': { schema: ref('ScaleOrder') } },
          },
          responses: {
            204: { description: 'Passed on.' },
            404: problem('No such device is connected, or it cannot do this.'),
            422: problem('A field is wrong.'),
          },
        },
      },
      '/api/devices/kettles/{id}': {
        post: {
          operationId: 'orderKettle',
          summary: 'Set a kettle, or fill a stand-in.',
          parameters: [{ name: 'id', in: 'path', required: true, schema: { type: 'string' } }],
          requestBody: {
            required: true,
            content: { 'application/json': { schema: ref('KettleOrder') } },
          },
          responses: {
            204: { description: 'Passed on.' },
            404: problem('No such device is connected, or it cannot do this.'),
            422: problem('A field is wrong.'),
          },
        },
      },
      '/api/clock': {
        get: {
          operationId: 'getClock',
          summary: 'The bar’s clock, for measuring a device’s offset.',
          responses: { 200: json('Clock', 'Bar time.') },
        },
      },
      '/api/health': {
        get: {
          operationId: 'getHealth',
          summary: 'Whether the server can do its work.',
          responses: { 200: json('Health', 'It can.'), 503: json('Health', 'It cannot.') },
        },
      },
    },
    components: {
      schemas: {
        PostEvents: schemaOf(postedEventsSchema, 'input'),
        Posted: schemaOf(postedSchema),
        Snapshot: schemaOf(snapshotSchema),
        Plan: schemaOf(planSchema),
        PlanProblem: schemaOf(planProblemSchema),
        Planned: schemaOf(plannedSchema),
        Recipes: schemaOf(recipesSchema),
        Recipe: schemaOf(recipeSchema),
        SaveRecipe: schemaOf(saveRecipeSchema, 'input'),
        Bar: schemaOf(barSchema),
        BarChange: schemaOf(barChangeSchema, 'input'),
        ...logSchemas(),
        Devices: schemaOf(devicesSchema),
        ScaleOrder: schemaOf(scaleOrderSchema, 'input'),
        KettleOrder: schemaOf(kettleOrderSchema, 'input'),
        Clock: schemaOf(clockSchema),
        Health: schemaOf(healthSchema),
        Problem: schemaOf(problemSchema),
      },
    },
  };
}
