/**
 * The one table of the API: what goes into each route, what comes out of it, and what it refuses. The server registers and
 * checks by it, the OpenAPI document is made from it, and the app takes its types, and its reading of answers, from it.
 */
import { z } from 'zod';
import { planProblemSchema, recipeSchema } from '../formats';
import type { Recipe } from '../recipe';
import {
  accessSchema,
  changeAccessSchema,
  invitationSchema,
  inviteSchema,
  madeKeySchema,
  makeKeySchema,
  meSchema,
  pairSchema,
} from './access';
import { addressOf, type RouteId } from './addresses';
import { archiveSchema } from './archive';
import { boardSchema, cupLinkSchema, followedOrderSchema } from './board';
import {
  barChangeSchema,
  barSchema,
  clockSchema,
  copiesSchema,
  exportQuerySchema,
  healthSchema,
  logFileQuerySchema,
  logPageSchema,
  madeCopySchema,
  logQuerySchema,
} from './bar';
import { readTextSchema, recipeTextSchema } from './read-recipe';
import { devicesSchema, kettleOrderSchema, scaleOrderSchema, traceSchema } from './devices';
import {
  feedChangeSchema,
  feedSchema,
  outsideAnswerSchema,
  outsideOrderSchema,
  outsideOrderStandsSchema,
} from './outside';
import { postEventsSchema, postedEventsSchema, postedSchema, takeAdviceSchema } from './events';
import {
  importQuerySchema,
  importSchema,
  importsSchema,
  rowsInSchema,
  takeImportQuerySchema,
  takeRowsQuerySchema,
} from './imports';
import {
  brewPageSchema,
  dayQuerySchema,
  daySchema,
  handsSchema,
  houseSchema,
  learntQuerySchema,
  learntSchema,
  todaySchema,
} from './learnt';
import { ROUTE_ROLES } from './roles';
import { practiceItemSchema, practiceQuerySchema, practiceSchema } from './practice';
import {
  plannedSchema,
  recipesSchema,
  saveRecipeSchema,
  snapshotSchema,
  type Recipes,
  type SaveRecipe,
  type Snapshot,
} from './live';

export type Route = {
  summary: string;
  /** The parameters of the query. */
  query?: z.ZodObject;
  headers?: z.ZodObject;
  /** A JSON body. `called` is its name in an error; `described` is how the document shows it, where that is more exact. */
  body?: { called: string; schema: z.ZodType; described?: z.ZodType };
  /** Bodies that are files, read as they come, by media type. */
  file?: readonly string[];
  /** JSON, unless `media` says otherwise; left out where nothing is answered. */
  answer?: z.ZodType;
  media?: string;
  /** Statuses of success, the usual one first. */
  says: Record<number, string>;
  refuses?: Record<number, string>;
};

/** A schema whose shape is the core's own type, which says more than the schema does. */
const as = <Type>(schema: z.ZodType): z.ZodType<Type> => schema as z.ZodType<Type>;

const READING = { 404: 'There is none.' };
const PARAMETER = { 422: 'A parameter is wrong.' };
const DEVICE = {
  404: 'No such device is connected, or it cannot do this.',
  422: 'A field is wrong.',
};
const ROWS = {
  query: takeRowsQuerySchema,
  file: ['text/csv'],
  answer: rowsInSchema,
  says: {
    200: 'Each line as it would be taken, or what would be right. Nothing was changed.',
    201: 'All of it was taken.',
  },
  refuses: {
    415: 'The body is not declared as CSV.',
    422: 'A line cannot be taken, so none was; or it is no table.',
  },
} satisfies Partial<Route>;

export const ROUTES = {
  postEvents: {
    summary: 'Append events: all of a post, or nothing of it. Posting the same event again changes nothing.',
    body: { called: 'post', schema: postEventsSchema, described: postedEventsSchema },
    answer: postedSchema,
    says: { 200: 'Stored, and durable.' },
    refuses: {
      409: 'An event does not follow from what is on the bar.',
      422: 'A field is wrong; `errors` names the event.',
      503: 'The database cannot be written to just now. Keep the events and post them again.',
      507: 'The disk is full. Keep the events and post them again.',
    },
  },
  takeOrder: {
    summary: 'Take an order from outside, by lines of the menu. The same key again answers the same order.',
    body: { called: 'order', schema: outsideOrderSchema },
    answer: outsideAnswerSchema,
    says: { 200: 'Taken before; as it stands.', 201: 'Taken, with its badge and the promised time.' },
    refuses: {
      409: 'What is asked for is not offered just now.',
      422: 'A field is wrong.',
      503: 'The database cannot be written to just now. Ask again with the same key.',
    },
  },
  getOrder: {
    summary: 'How an order from outside stands, by its key. A till sees its own.',
    answer: outsideOrderStandsSchema,
    says: { 200: 'As it stands.' },
    refuses: { 404: 'There is no such order.' },
  },
  getFeed: {
    summary: 'The simulated order feed: whether it runs, and when its next boat lands.',
    answer: feedSchema,
    says: { 200: 'As it stands.' },
  },
  runFeed: {
    summary: 'Start or stop the simulated order feed.',
    body: { called: 'feed', schema: feedChangeSchema },
    answer: feedSchema,
    says: { 200: 'As it stands now.' },
    refuses: { 422: 'A field is wrong.' },
  },
  getState: {
    summary: 'The bar as it stands, and the plan.',
    answer: as<Snapshot>(snapshotSchema),
    says: { 200: 'State, settings, plan and clock.' },
  },
  live: {
    summary:
      'Server-sent events: `recipes`, `bar`, `devices`, `plan`, `scale`, `kettle`, `storage`, `beat` (every 4 s), `bar-event` (with its place in the log as id). Resumes after `Last-Event-ID`, or after `after`.',
    query: z.object({ after: z.int().min(0).optional() }),
    headers: z.object({ 'Last-Event-ID': z.int().min(0).optional() }),
    media: 'text/event-stream',
    says: { 200: 'A stream.' },
    refuses: {
      409: 'The place is too far back: load the state instead.',
      422: 'Not a place in the log.',
      429: 'Too many streams are open.',
    },
  },
  getRecipes: {
    summary: 'Every recipe in its latest version, as data.',
    answer: as<Recipes>(recipesSchema),
    says: { 200: 'The recipes.' },
  },
  saveRecipe: {
    summary: 'Save a new recipe, or the next version of one. Nothing is overwritten.',
    body: { called: 'recipe', schema: as<SaveRecipe>(saveRecipeSchema) },
    answer: as<Recipe>(recipeSchema),
    says: { 201: 'Saved, with the version that it got.' },
    refuses: {
      409: 'There is a later version than the one that was edited.',
      422: 'A field is wrong.',
    },
  },
  readRecipe: {
    summary: 'Read a recipe out of a text, as people say and write it. Nothing is saved.',
    body: { called: 'text', schema: recipeTextSchema },
    answer: readTextSchema,
    says: { 200: 'What the text says, what is doubtful, and what was not understood.' },
    refuses: { 422: 'The text is too long.' },
  },
  getRecipeVersions: {
    summary: 'All versions of a recipe, oldest first.',
    answer: as<Recipes>(recipesSchema),
    says: { 200: 'Its versions.' },
    refuses: { 404: 'There is no such recipe.' },
  },
  getRecipeSchema: {
    summary: 'The JSON Schema of a recipe, as files and the editor are checked with.',
    media: 'application/schema+json',
    says: { 200: 'A JSON Schema.' },
  },
  getBar: {
    summary: 'What stands on the bench.',
    answer: barSchema,
    says: { 200: 'The settings.' },
  },
  changeBar: {
    summary: 'Change settings. A list that is named is replaced, so name the version that it was made from.',
    headers: z.object({
      'If-Match': z
        .string()
        .optional()
        .meta({ description: 'The `ETag` of the settings that the change was made from.' }),
    }),
    body: { called: 'change', schema: barChangeSchema },
    answer: barSchema,
    says: { 200: 'The settings as they are now.' },
    refuses: {
      409: 'A station has a brew on it.',
      412: 'The settings have changed since that version.',
      422: 'A setting is wrong.',
    },
  },
  getLog: {
    summary: 'Finished brews, latest first, filtered and searched.',
    query: logQuerySchema,
    answer: logPageSchema,
    says: { 200: 'A page of records.' },
    refuses: PARAMETER,
  },
  getBrew: {
    summary: 'One finished brew, and the one change that it asks for.',
    answer: brewPageSchema,
    says: { 200: 'Record and advice.' },
    refuses: READING,
  },
  takeAdvice: {
    summary:
      'Take up what a brew’s record advises: it is kept for the coffee with that recipe, and the log says so; both, or neither.',
    body: { called: 'advice', schema: takeAdviceSchema },
    answer: barSchema,
    says: { 200: 'The settings as they are now.' },
    refuses: {
      404: 'There is no such brew.',
      409: 'The record advises something else by now, or its coffee or grinder is not on the bench.',
      422: 'A field is wrong.',
    },
  },
  getTrace: {
    summary: 'The weight over a brew that stood on a scale.',
    answer: traceSchema,
    says: { 200: 'Points on straight lines.' },
    refuses: { 404: 'It stood on none.' },
  },
  getLearnt: {
    summary: 'What the log teaches of a recipe with a coffee.',
    query: learntQuerySchema,
    answer: learntSchema,
    says: { 200: 'Its run, limits, slope and more.' },
    refuses: PARAMETER,
  },
  getDay: {
    summary: 'A day in figures; or any stretch of time.',
    query: dayQuerySchema,
    answer: daySchema,
    says: { 200: 'The figures.' },
    refuses: PARAMETER,
  },
  getToday: {
    summary:
      'For opening, handing over and closing: what is expected in some hours, what drifts, what is due.',
    query: dayQuerySchema,
    answer: todaySchema,
    says: { 200: 'As the log has it.' },
    refuses: PARAMETER,
  },
  getHands: {
    summary: 'How long the hands’ own steps really take, of the bar and of each person.',
    answer: handsSchema,
    says: { 200: 'Medians and where eight of ten lie.' },
  },
  getHouse: {
    summary: 'Coffees with their stock, cloths with their care.',
    answer: houseSchema,
    says: { 200: 'As the log has it.' },
  },
  getLogCsv: {
    summary: 'The log as a table (RFC 4180); filters as for the log.',
    query: logFileQuerySchema,
    media: 'text/csv',
    says: { 200: 'A line a brew.' },
  },
  getLogJsonl: {
    summary: 'The log as JSON Lines; filters as for the log.',
    query: logFileQuerySchema,
    media: 'application/jsonl',
    says: { 200: 'A record a line.' },
  },
  getTraceCsv: {
    summary: 'The weight over a brew as a table.',
    media: 'text/csv',
    says: { 200: 'Seconds and grams.' },
    refuses: { 404: 'It stood on no scale.' },
  },
  getCareCalendar: {
    summary: 'Cloth care and rest windows for a calendar (RFC 5545).',
    media: 'text/calendar',
    says: { 200: 'A calendar.' },
  },
  getArchive: {
    summary: 'The whole bar in one file.',
    query: exportQuerySchema,
    answer: archiveSchema,
    says: { 200: 'Settings, saved recipes, events, traces.' },
  },
  getImports: {
    summary: 'The file that is being read in, how far it is, and the logs that were read in and stay.',
    answer: importsSchema,
    says: { 200: 'As it stands.' },
  },
  postImport: {
    summary: 'Send a large file: a log from elsewhere (CSV) or an archive. It is then looked at, row by row.',
    query: importQuerySchema,
    file: ['text/csv', 'application/json'],
    answer: importSchema,
    says: { 202: 'Received; the look at it goes on.' },
    refuses: {
      409: 'Another file is being read in.',
      413: 'The file is too large.',
      415: 'The body is not declared as what it is.',
      ...PARAMETER,
    },
  },
  takeImport: {
    summary: 'Take what was looked at: all of it, or nothing.',
    query: takeImportQuerySchema,
    answer: importSchema,
    says: { 202: 'It goes on.' },
    refuses: { 404: 'There is none.', 409: 'It is not looked at yet.', 422: 'Rows are faulty.' },
  },
  endImport: {
    summary: 'Stop an import, forget one that was looked at, or take a log that was read in out again.',
    says: { 204: 'Done.' },
    refuses: READING,
  },
  postRoasts: { summary: 'Coffees from a roast list.', ...ROWS },
  postOrders: { summary: 'Orders from a table.', ...ROWS },
  getPlan: {
    summary: 'The plan that stands, and how calm planning has been.',
    answer: plannedSchema,
    says: { 200: 'The published plan.' },
  },
  getPlanProblem: {
    summary: 'The problem that the plan answers; `ek plan` reads it.',
    answer: planProblemSchema,
    says: { 200: 'The problem.' },
    refuses: { 404: 'Nothing is planned.' },
  },
  getDevices: {
    summary: 'The scales and kettles that the bar can hear, and what they show.',
    answer: devicesSchema,
    says: { 200: 'What they show.' },
  },
  orderScale: {
    summary: 'Tare a scale; pour on a stand-in, or let a practised hand pour on it.',
    body: { called: 'order', schema: scaleOrderSchema },
    says: { 204: 'Passed on.' },
    refuses: DEVICE,
  },
  orderKettle: {
    summary: 'Set a kettle, or fill a stand-in.',
    body: { called: 'order', schema: kettleOrderSchema },
    says: { 204: 'Passed on.' },
    refuses: DEVICE,
  },
  getPractice: {
    summary:
      'What Practice keeps: tries and drills on the record, pours to follow, kept variants, assigned lessons. Oldest first.',
    query: practiceQuerySchema,
    answer: practiceSchema,
    says: { 200: 'A page of it.' },
    refuses: PARAMETER,
  },
  keepPractice: {
    summary:
      'Keep a try, a drill, a pour, a variant or an assigned lesson, or another of the same id in its place.',
    body: { called: 'item', schema: practiceItemSchema },
    says: { 204: 'Kept.' },
    refuses: { 409: 'No more of this kind can be kept.', 422: 'A field is wrong.' },
  },
  removePractice: {
    summary: 'Remove what Practice keeps by its id.',
    says: { 204: 'Removed.' },
    refuses: READING,
  },
  getClock: {
    summary: 'The bar’s clock, for measuring a device’s offset.',
    answer: clockSchema,
    says: { 200: 'Bar time.' },
  },
  getHealth: {
    summary: 'Whether the server can do its work.',
    answer: healthSchema,
    says: { 200: 'It can.', 503: 'It cannot.' },
  },
  getBoard: {
    summary: 'What guests may see: every order by its badge, when it will be ready, what is ready now.',
    answer: boardSchema,
    says: { 200: 'The board.' },
  },
  liveBoard: {
    summary: 'The same as server-sent events: `board` whenever it changes, `beat` every 4 s.',
    media: 'text/event-stream',
    says: { 200: 'A stream.' },
    refuses: { 429: 'Too many streams are open.' },
  },
  getCup: {
    summary: 'One order, as its guest follows it, by the key of its address.',
    answer: followedOrderSchema,
    says: { 200: 'As it stands.' },
    refuses: { 404: 'There is no such order, or it is over for an hour.' },
  },
  liveCup: {
    summary:
      'The same as server-sent events: `cup` whenever it changes, `over` at its end, `beat` every 4 s.',
    media: 'text/event-stream',
    says: { 200: 'A stream.' },
    refuses: { 404: 'There is no such order, or it is over for an hour.', 429: 'Too many streams are open.' },
  },
  getCupLink: {
    summary: 'The address by which a guest follows an order.',
    answer: cupLinkSchema,
    says: { 200: 'The address.' },
    refuses: { 404: 'There is no such order.' },
  },
  getCopies: {
    summary: 'The copies of the bar, latest first.',
    answer: copiesSchema,
    says: { 200: 'The copies.' },
  },
  makeCopy: {
    summary: 'Make a copy of the bar now, and look it through.',
    answer: madeCopySchema,
    says: { 201: 'Made, and whole.' },
    refuses: { 409: 'There are as many as there may be.', 507: 'No copy could be made.' },
  },
  restoreCopy: {
    summary:
      'Put a copy, by its name, in the place of the bar. The bar as it is now is copied before; the server starts anew.',
    says: { 204: 'The copy is whole; the server starts anew with it.' },
    refuses: {
      404: 'There is no such copy.',
      409: 'The copy is not whole, or the server cannot start itself anew.',
    },
  },
  getMetrics: {
    summary: 'The server’s figures, as Prometheus reads them.',
    media: 'text/plain',
    says: { 200: 'The figures.' },
  },
  getMe: {
    summary: 'Who the server takes this device for.',
    answer: meSchema,
    says: { 200: 'Its name and role, or none.' },
  },
  pair: {
    summary: 'Pair this device by a code or a link; its token comes as a cookie.',
    body: { called: 'pairing', schema: pairSchema },
    answer: meSchema,
    says: { 201: 'Paired.' },
    refuses: {
      403: 'The code or link is not good, or not any more.',
      409: 'The bar is served to its own machine alone.',
      422: 'A field is wrong.',
    },
  },
  getAccess: {
    summary: 'The devices that are paired, the programs that have a key, and where the bar is found.',
    answer: accessSchema,
    says: { 200: 'As it stands.' },
  },
  invite: {
    summary: 'Invite a device: a code and a link, good once and for five minutes.',
    body: { called: 'invitation', schema: inviteSchema },
    answer: invitationSchema,
    says: { 201: 'Show it to whoever pairs the device.' },
    refuses: { 409: 'The bar is served to its own machine alone.', 422: 'A field is wrong.' },
  },
  makeKey: {
    summary: 'Make a key for a program: a till, a bridge of devices, or whatever reads the metrics.',
    body: { called: 'key', schema: makeKeySchema },
    answer: madeKeySchema,
    says: { 201: 'Made. It is not shown again.' },
    refuses: { 409: 'There are as many as there may be.', 422: 'A field is wrong.' },
  },
  changeAccess: {
    summary: 'Rename a paired device, or give it another role or person.',
    body: { called: 'change', schema: changeAccessSchema },
    says: { 204: 'Changed.' },
    refuses: {
      404: 'There is no such device.',
      409: 'It is the last device of the lead, or a key, which keeps its role.',
      422: 'A field is wrong.',
    },
  },
  revoke: {
    summary: 'Take a device’s or program’s access away, at once.',
    says: { 204: 'It is out.' },
    refuses: { 404: 'There is no such device.', 409: 'It is the last device of the lead.' },
  },
} as const satisfies Record<RouteId, Route>;

type Table = typeof ROUTES;
/** What a route answers, read. */
export type AnswerOf<Id extends RouteId> = Table[Id] extends { answer: z.ZodType<infer Answer> }
  ? Answer
  : undefined;
/** What a route is asked with: the names behind the question mark, and what is read of them. */
export type QueryName<Id extends RouteId> = Table[Id] extends { query: z.ZodType }
  ? keyof z.input<Table[Id]['query']> & string
  : never;
export type QueryRead<Id extends RouteId> = Table[Id] extends { query: z.ZodType }
  ? z.output<Table[Id]['query']>
  : undefined;
/** What is sent as JSON, and what is read of it. */
export type BodySent<Id extends RouteId> = Table[Id] extends { body: { schema: z.ZodType } }
  ? z.input<Table[Id]['body']['schema']>
  : undefined;
export type BodyRead<Id extends RouteId> = Table[Id] extends { body: { schema: z.ZodType } }
  ? z.output<Table[Id]['body']['schema']>
  : undefined;

const OF_JSON: Record<number, string> = {
  400: 'The body is not JSON.',
  413: 'The body is too large.',
  415: 'The body is not declared as JSON.',
};

const OF_ROLES: Record<number, string> = {
  401: 'Devices have to be paired here, and this one is not.',
  403: 'The device’s role may not do this, or the request came from another site.',
};

/** What a route refuses, with what every route does and every one that takes JSON. */
export const refusalsOf = (id: RouteId): Record<number, string> => {
  const { body, refuses }: Route = ROUTES[id];
  const isForAnybody = ROUTE_ROLES[id].includes('nobody');
  return {
    ...(body ? OF_JSON : {}),
    ...(isForAnybody ? {} : OF_ROLES),
    429: 'Too many requests.',
    ...refuses,
  };
};

/** The status of a route's usual answer. */
export const usualStatus = (id: RouteId): number => Number(Object.keys(ROUTES[id].says)[0]);

/** An answer, read by the schema of its route. @throws Error where it is no answer of that route */
export function readAnswer<Id extends RouteId>(id: Id, answer: unknown): AnswerOf<Id> {
  const { answer: schema }: Route = ROUTES[id];
  if (!schema) return undefined as AnswerOf<Id>;
  const read = schema.safeParse(answer);
  if (read.success) return read.data as AnswerOf<Id>;
  // A newer server says more than this page knows.
  if (read.error.issues.every(({ code }) => code === 'unrecognized_keys')) return answer as AnswerOf<Id>;
  const { path, message } = read.error.issues[0]!;
  throw new Error(
    `The answer of ${addressOf(id).path} is not what was asked for: ${path.join('.')} ${message}.`,
  );
}
