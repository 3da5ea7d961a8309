/**
 * The HTTP face: the API, the live stream, and the built app.
 */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express, type Request } from 'express';
import rateLimit from 'express-rate-limit';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import {
  barChangeSchema,
  kettleOrderSchema,
  postEventsSchema,
  saveRecipeSchema,
  scaleOrderSchema,
  type SaveRecipe,
} from '@even-kettle/core/contract';
import { recipeJsonSchema } from '@even-kettle/core/formats';
import type { AccessPolicy } from '../access/hosts';
import type { BarServer } from '../server';
import type { Refused } from '../store/log';
import { HttpProblem, answerErrors, invalid } from './problem';
import { GAP_MAX } from './broadcaster';
import { logRoutes } from './log-routes';
import { openapiDocument } from './openapi';

export type HttpOptions = {
  /** Which names the server answers to, and which pages may ask it. */
  access: AccessPolicy;
  appDir: string | null;
  logger: Logger;
  version: string;
  requestsPerMinute: number;
};

const NOT_FOUND = new HttpProblem(
  404,
  'not-found',
  'Nothing is here',
  'There is nothing at this address. The API is described at /api/openapi.json.',
);

const NO_SUCH_RECIPE = new HttpProblem(
  404,
  'no-such-recipe',
  'No such recipe',
  'There is no recipe of this id on the bar.',
);

const NOTHING_PLANNED = new HttpProblem(
  404,
  'nothing-planned',
  'Nothing is planned',
  'No cup waits and no brew runs, so there is no problem to plan.',
);

const NO_SUCH_DEVICE = new HttpProblem(
  404,
  'no-such-device',
  'No such device',
  'No scale or kettle of this name is connected that can do this. The Bench says which ones are.',
);

/** Faults that a schema cannot see, in the same shape as those that it can. */
const faulty = (what: string, faults: readonly { field: string; reason: string }[]): HttpProblem =>
  new HttpProblem(
    422,
    'not-valid',
    `The ${what} is not valid`,
    `${faults[0]!.field}: ${faults[0]!.reason}`,
    faults.map(({ field, reason }) => ({ field: `${what}.${field}`, reason, code: 'not-valid' })),
  );

export function httpApp(
  bar: BarServer,
  { appDir, logger, version, requestsPerMinute, access }: HttpOptions,
): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    pinoHttp({
      logger,
      customLogLevel: (_request, response) => (response.statusCode >= 500 ? 'error' : 'debug'),
    }),
  );
  app.use(
    helmet({
      contentSecurityPolicy: { useDefaults: false, directives: CONTENT_SECURITY_POLICY },
      strictTransportSecurity: false,
    }),
  );
  app.use((request, _response, next) => {
    // Addresses are the same in capitals.
    const judged = access.judge(request.headers, !/^\/api(\/|$)/i.test(request.path));
    if (judged.ok) return next();
    next(new HttpProblem(judged.status, 'not-from-here', 'This may not be asked from there', judged.reason));
  });
  app.use(compression());
  app.use('/api', apiRoutes(bar, version, requestsPerMinute));
  if (appDir) serveBuiltApp(app, appDir);
  app.use((_request, _response, next) => next(NOT_FOUND));
  app.use(answerErrors);
  return app;
}

/** Scripts come from here only, and none of them inline. Styles are inline because the app's style engine writes them so. */
const CONTENT_SECURITY_POLICY = {
  'default-src': ["'self'"],
  'script-src': ["'self'"],
  'style-src': ["'self'", "'unsafe-inline'"],
  'img-src': ["'self'", 'data:', 'blob:'],
  'font-src': ["'self'"],
  'connect-src': ["'self'"],
  'manifest-src': ["'self'"],
  'worker-src': ["'self'"],
  'object-src': ["'none'"],
  'base-uri': ["'self'"],
  'form-action': ["'self'"],
  'frame-ancestors': ["'none'"],
};

// eslint-disable-next-line max-lines-per-function -- a list of routes
function apiRoutes(bar: BarServer, version: string, requestsPerMinute: number): express.Router {
  const api = express.Router();
  const openApi = openapiDocument(version);
  api.use((_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });

  api.use(
    rateLimit({
      windowMs: 60_000,
      limit: requestsPerMinute,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      handler: (_request, _response, next) =>
        next(
          new HttpProblem(
            429,
            'too-many',
            'Too many requests',
            'Wait a moment; this device has asked too often.',
          ),
        ),
    }),
  );
  api.get('/live', async (request, response) => {
    if (!bar.broadcaster.hasRoomFor(request.ip ?? '')) throw TOO_MANY_STREAMS;
    await bar.broadcaster.join(request, response, resumeAfter(request, bar.log.seq()));
  });
  api.use('/files', express.text({ limit: '256kb', type: 'text/csv' }));
  // What is read in from a file goes to disk as it comes.
  const json = express.json({ limit: '256kb', strict: true });
  api.use((request, response, next) =>
    request.path === '/imports' ? next() : json(request, response, next),
  );

  api.post('/events', async (request, response) => {
    const posted = postEventsSchema.safeParse(bodyOf(request));
    if (!posted.success) throw invalid(posted.error, 'post');
    const result = await bar.post(posted.data.events);
    if (result.ok)
      return void response.json({
        accepted: result.appended.map(({ event }) => event.id),
        duplicates: result.duplicates,
        seq: result.seq,
      });
    throw eventProblem(result.refused);
  });
  api.get('/state', (_request, response) => void response.json(bar.snapshot()));
  api.get('/recipes', (_request, response) => void response.json({ recipes: bar.recipes.latest() }));
  api.get('/recipes/:id/versions', (request, response) => {
    const recipes = bar.recipes.versions(request.params.id);
    if (recipes.length === 0) throw NO_SUCH_RECIPE;
    response.json({ recipes });
  });
  api.post('/recipes', async (request, response) => {
    const asked = saveRecipeSchema.safeParse(bodyOf(request));
    if (!asked.success) throw invalid(asked.error, 'recipe');
    const saved = await bar.saveRecipe(asked.data as SaveRecipe);
    if (saved.ok) return void response.status(201).json(saved.recipe);
    if (saved.why === 'not-valid') throw faulty('recipe', saved.faults);
    throw new HttpProblem(409, saved.why, 'The recipe was not saved', saved.reason);
  });
  const recipeSchema = recipeJsonSchema();
  api.get('/schemas/recipe.json', (_request, response) => void response.json(recipeSchema));
  api.get('/plan', (_request, response) =>
    response.json({ ...bar.planning.current(), calm: bar.planning.calm() }),
  );
  api.get('/plan/problem', (_request, response) => {
    const problem = bar.planning.problem();
    if (!problem) throw NOTHING_PLANNED;
    response.json(problem);
  });
  api.get('/bar', (_request, response) => void response.set('ETag', etagOf(bar)).json(bar.bar()));
  api.patch('/bar', async (request, response) => {
    const change = barChangeSchema.safeParse(bodyOf(request));
    if (!change.success) throw invalid(change.error, 'change');
    const changed = await bar.change(change.data, versionIn(request.get('If-Match')));
    if (changed.ok) return void response.set('ETag', etagOf(bar)).json(changed.bar);
    if (changed.why === 'changed-since')
      throw new HttpProblem(412, changed.why, 'The settings have changed meanwhile', changed.reason);
    throw new HttpProblem(409, 'in-use', 'The setting was not changed', changed.reason, [
      { field: changed.field, reason: changed.reason, code: 'in-use' },
    ]);
  });
  logRoutes(api, bar);
  api.get('/devices', (_request, response) => void response.json(bar.devices.shown()));
  api.post('/devices/scales/:id', (request, response) => {
    const order = scaleOrderSchema.safeParse(bodyOf(request));
    if (!order.success) throw invalid(order.error, 'order');
    if (!bar.devices.orderScale(request.params.id, order.data)) throw NO_SUCH_DEVICE;
    response.status(204).end();
  });
  api.post('/devices/kettles/:id', (request, response) => {
    const order = kettleOrderSchema.safeParse(bodyOf(request));
    if (!order.success) throw invalid(order.error, 'order');
    if (!bar.devices.orderKettle(request.params.id, order.data)) throw NO_SUCH_DEVICE;
    response.status(204).end();
  });
  api.get(
    '/clock',
    (_request, response) => void response.json({ barMs: bar.clock.nowMs(), rate: bar.clock.rate }),
  );
  api.get('/health', async (_request, response) => {
    const health = { ...(await bar.health()), version };
    response.status(health.status === 'ok' ? 200 : 503).json(health);
  });
  api.get('/openapi.json', (_request, response) => void response.json(openApi));
  api.use((_request, _response, next) => next(NOT_FOUND));
  return api;
}

const TOO_MANY_STREAMS = new HttpProblem(
  429,
  'too-many-streams',
  'Too many pages are open',
  'This server streams to as many pages as it can. Close some of them, then load this one again.',
);

const etagOf = (bar: BarServer): string => `"${bar.barVersion()}"`;
const versionIn = (header: string | undefined): string | undefined =>
  header === undefined || header === '*' ? undefined : header.replace(/^W\//, '').replace(/^"|"$/g, '');

/** Why an event was not taken, by its place in the post and its own name, so that a device can drop that one alone. */
function eventProblem({ index, eventId, refusal, issues }: Refused): HttpProblem {
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

/** Codes where the event itself is wrong; the others are at odds with what is on the bar. */
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

function bodyOf(request: Request): unknown {
  if (!request.is('application/json')) {
    throw new HttpProblem(
      415,
      'not-declared-json',
      'The body is not declared as JSON',
      'Send the body with Content-Type: application/json.',
    );
  }
  return request.body as unknown;
}

/** The place in the log that a page has already: the browser's own header on a reconnect, else the address. */
function resumeAfter(request: Request, latest: number): number {
  const given = request.get('Last-Event-ID') ?? request.query['after'];
  if (given === undefined || given === '') return latest;
  const seq = Number(given);
  if (Number.isInteger(seq) && seq >= 0 && seq <= latest) {
    if (latest - seq > GAP_MAX) throw TOO_FAR_BACK;
    return seq;
  }
  throw new HttpProblem(
    422,
    'not-a-place',
    'Not a place in the log',
    `after must be a whole number from 0 to ${latest}.`,
    [{ field: 'after', reason: `must be a whole number from 0 to ${latest}`, code: 'not-a-place' }],
  );
}

const TOO_FAR_BACK = new HttpProblem(
  409,
  'too-far-back',
  'The place in the log is too far back',
  `More than ${GAP_MAX} events have happened since. Load the state from /api/state, and stream from its place on.`,
);

function serveBuiltApp(app: Express, appDir: string): void {
  const page = join(appDir, 'index.html');
  if (!existsSync(page)) throw new Error(`The app is not built: there is no ${page}. Run npm run build.`);
  // Names under these carry a hash of their content, so they may be kept for good.
  for (const part of ['_expo', 'assets'])
    app.use(
      `/${part}`,
      express.static(join(appDir, part), { immutable: true, maxAge: '1y', fallthrough: false }),
    );
  app.use(express.static(appDir, { index: false, maxAge: 0 }));
  app.get('/{*path}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(page);
  });
}
