/**
 * The HTTP server: the API, the live stream, and the built app.
 */
import compression from 'compression';
import express, { type Express, type Request } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { readRecipeText, readTextJson, recipeJsonSchema } from '@even-kettle/core/formats';
import { askWho, callerOn, mustBeAllowed, type Gate } from '../access/gate';
import type { AccessPolicy } from '../access/hosts';
import type { BarServer } from '../server';
import { CONTENT_SECURITY_POLICY } from './content-security';
import { serveBuiltApp } from './built-app';
import { HttpProblem, answerErrors } from './problem';
import { GAP_MAX } from './broadcaster';
import { openDownloads } from './downloads';
import { openMetrics } from './metrics';
import { accessRoutes, type Pairing } from './access-routes';
import { barRoutes } from './bar-routes';
import { copyRoutes } from './copy-routes';
import { TOO_MANY_STREAMS, minuteLimit, tillLimit } from './limits';
import { logRoutes } from './log-routes';
import { followHere, outlookRoutes, type FollowAddress } from './outlook-routes';
import { requestLog } from './request-log';
import { openapiDocument } from './openapi';
import { routesOn, type AddRoute } from './route';

export type HttpOptions = {
  /** Which host names the server answers to, and which pages may send requests. */
  access: AccessPolicy;
  /** Who asks, and whether devices have to be paired. */
  gate: Gate;
  /** The address by which a guest follows the order with a key. */
  follow?: FollowAddress;
  /** Puts a copy's file in the place of the database and starts anew; left out where that cannot be done. */
  restore?: (file: string) => Promise<void>;
  /** Pages that the server writes itself, before the app's. */
  pages?: readonly express.Router[];
  /** Pairing; null where the bar keeps no devices. */
  pairing: Pairing | null;
  appDir: string | null;
  logger: Logger;
  version: string;
  requestsPerMinute: number;
  /** A download that nobody reads from for so long is ended, milliseconds; a minute if left out. */
  downloadIdleMs?: number;
  /** Checks every answer by its own schema before it is sent. Used in tests, since it takes time. */
  checksAnswers?: boolean;
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

const NO_SUCH_DEVICE = new HttpProblem(
  404,
  'no-such-device',
  'No such device',
  'No scale or kettle of this name is connected that can do this. The Bench says which ones are.',
);

/** Faults that a schema cannot find, reported in the same form as those that it can. */
const faulty = (what: string, faults: readonly { field: string; reason: string }[]): HttpProblem =>
  new HttpProblem(
    422,
    'not-valid',
    `The ${what} is not valid`,
    `${faults[0]!.field}: ${faults[0]!.reason}`,
    faults.map(({ field, reason }) => ({ field: `${what}.${field}`, reason, code: 'not-valid' })),
  );

export function httpApp(bar: BarServer, options: HttpOptions): Express {
  const { appDir, logger, access } = options;
  const app = express();
  app.disable('x-powered-by');
  app.use(requestLog(logger));
  app.use(
    helmet({
      contentSecurityPolicy: CONTENT_SECURITY_POLICY,
      strictTransportSecurity: false,
    }),
  );
  app.use((request, _response, next) => {
    // Addresses are not case-sensitive.
    const judged = access.judge(request.headers, !/^\/api(\/|$)/i.test(request.path), request.secure);
    if (judged.ok) return next();
    // An app of version 0.1 throws its taps away when they are refused. It keeps them while the server is not ready for them.
    const keepsTaps = judged.status === 421 && /^\/api\/events\/?$/i.test(request.path);
    next(
      new HttpProblem(
        keepsTaps ? 503 : judged.status,
        'not-from-here',
        'This may not be asked from there',
        judged.reason,
      ),
    );
  });
  app.use(compression());
  app.use('/api', apiRoutes(bar, options));
  for (const routes of options.pages ?? []) app.use(routes);
  if (appDir) serveBuiltApp(app, appDir);
  app.use((_request, _response, next) => next(NOT_FOUND));
  app.use(answerErrors);
  return app;
}

function apiRoutes(
  bar: BarServer,
  {
    version,
    requestsPerMinute,
    checksAnswers,
    downloadIdleMs,
    gate,
    pairing,
    follow = followHere,
    restore,
  }: HttpOptions,
): express.Router {
  const api = express.Router();
  // Made when it is first asked for: a start need not wait for it.
  let openApi: ReturnType<typeof openapiDocument> | null = null;
  api.use((_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  api.use(minuteLimit(requestsPerMinute));
  const metrics = openMetrics(bar);
  api.use(metrics.count);
  api.use(askWho(gate));
  api.use('/orders', tillLimit());
  api.get('/live', async (request, response) => {
    const caller = callerOn(response);
    mustBeAllowed('live', caller);
    if (!bar.broadcaster.hasRoomFor(request.ip ?? '')) throw TOO_MANY_STREAMS;
    await bar.broadcaster.join(request, response, resumeAfter(request, bar.log.seq()), caller.known?.id);
  });
  api.use('/files', express.text({ limit: '256kb', type: 'text/csv' }));
  // The body of an imported file is streamed to disk.
  const json = express.json({ limit: '256kb', strict: true });
  api.use((request, response, next) =>
    request.path === '/imports' ? next() : json(request, response, next),
  );

  const route = routesOn(api, checksAnswers ?? false);
  route('getMetrics', async ({ response }) => {
    response.type(metrics.contentType).send(await metrics.text());
    return undefined;
  });
  barRoutes(route, bar, gate, follow);
  recipeRoutes(route, bar);
  deviceRoutes(route, bar);
  practiceRoutes(route, bar);
  logRoutes(route, bar, openDownloads(downloadIdleMs));
  accessRoutes(route, gate, pairing);
  outlookRoutes(route, api, bar, follow);
  copyRoutes(route, bar, restore);
  route('getClock', () => ({ barMs: bar.clock.nowMs(), rate: bar.clock.rate }));
  route('getHealth', async ({ response }) => {
    const health = { ...(await bar.health()), version };
    if (health.status !== 'ok') response.status(503);
    return health;
  });
  api.get(
    '/openapi.json',
    (_request, response) => void response.json((openApi ??= openapiDocument(version))),
  );
  api.use((_request, _response, next) => next(NOT_FOUND));
  return api;
}

function recipeRoutes(route: AddRoute, bar: BarServer): void {
  const recipeSchema = recipeJsonSchema();
  route('getRecipes', () => ({ recipes: bar.recipes.latest() }));
  route('getRecipeVersions', ({ id }) => {
    const recipes = bar.recipes.versions(id);
    if (recipes.length === 0) throw NO_SUCH_RECIPE;
    return { recipes };
  });
  route('saveRecipe', async ({ body }) => {
    const saved = await bar.saveRecipe(body);
    if (saved.ok) return saved.recipe;
    if (saved.why === 'not-valid') throw faulty('recipe', saved.faults);
    throw new HttpProblem(409, saved.why, 'The recipe was not saved', saved.reason);
  });
  route('readRecipe', ({ body }) => readTextJson(readRecipeText(body.text)));
  route('getRecipeSchema', ({ response }) => void response.json(recipeSchema));
}

function deviceRoutes(route: AddRoute, bar: BarServer): void {
  route('getDevices', () => bar.devices.shown());
  route('orderScale', ({ id, body }) => {
    if (!bar.devices.orderScale(id, body)) throw NO_SUCH_DEVICE;
  });
  route('orderKettle', ({ id, body }) => {
    if (!bar.devices.orderKettle(id, body)) throw NO_SUCH_DEVICE;
  });
}

function practiceRoutes(route: AddRoute, { practice }: BarServer): void {
  route('getPractice', ({ query }) => practice.page(query.after));
  route('keepPractice', async ({ body }) => {
    if (!(await practice.keep(body))) throw PRACTICE_IS_FULL;
  });
  route('removePractice', async ({ id }) => {
    if (!(await practice.remove(id))) throw NO_SUCH_ITEM;
  });
}

const NO_SUCH_ITEM = new HttpProblem(
  404,
  'no-such-item',
  'No such item',
  'Practice keeps nothing of this id.',
);

const PRACTICE_IS_FULL = new HttpProblem(
  409,
  'full',
  'No more can be kept',
  'Practice keeps as much of this kind as it can. Remove what nobody looks at any more.',
);

/** The number of the last event that the page has: the browser's own header on a reconnect, else the query. */
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
