/**
 * The Log over HTTP: records, what is learnt from them, and files for export and import.
 */
import type { Request } from 'express';
import type { BrewRecord, ImportKind, LogFileQuery } from '@even-kettle/core/contract';
import { careCalendar } from '../files/calendar';
import { FileFault, csvOf } from '../files/csv';
import { readOrders, readRoasts, type ImportRow } from '../files/imports';
import { logHead, logRow, traceRows } from '../files/tables';
import { LARGEST, type ImportResult, type ImportRefusal } from '../imports/import-service';
import type { BarServer } from '../server';
import { recordWithoutGuests } from '../store/guests';
import { failureOf } from '../store/transaction';
import { asFile, type Downloads } from './downloads';
import { HttpProblem, eventProblem } from './problem';
import type { AddRoute } from './route';

const NO_SUCH_BREW = new HttpProblem(
  404,
  'no-such-brew',
  'No such brew',
  'There is no finished brew of this id in the log.',
);

const NO_TRACE = new HttpProblem(
  404,
  'no-trace',
  'No trace of this brew',
  'This brew did not stand on a scale that the bar can hear.',
);

export function logRoutes(route: AddRoute, bar: BarServer, downloads: Downloads): void {
  route('getLog', ({ query }) => bar.records.page(query));
  route('getBrew', async ({ id }) => {
    const page = await bar.learning.brew(id);
    if (!page) throw NO_SUCH_BREW;
    return page;
  });
  route('takeAdvice', async ({ id, body }) => {
    const taken = await bar.takeAdvice(id, body);
    if (taken.ok) return bar.bar();
    if (taken.why === 'refused') throw eventProblem(taken.refused);
    if (taken.why === 'no-such-brew') throw NO_SUCH_BREW;
    throw new HttpProblem(409, taken.why, 'The advice was not taken up', taken.reason);
  });
  route('getTrace', async ({ id }) => ({ brewId: id, points: await traceOf(bar, id) }));
  route('getLearnt', ({ query }) => bar.learning.of(query.recipeId, query.coffee));
  route('getDay', ({ query }) => bar.learning.day(query.fromMs, query.toMs));
  route('getToday', ({ query }) => bar.learning.today(query, bar.settingsChanges()));
  route('getHands', () => bar.learning.hands());
  route('getHouse', () => bar.learning.house());
  fileRoutes(route, bar, downloads);
  importRoutes(route, bar);
  rowRoutes(route, bar);
}

function fileRoutes(route: AddRoute, bar: BarServer, downloads: Downloads): void {
  route('getLogCsv', async ({ query, response }) => {
    await downloads.send(response, { type: 'text/csv; charset=utf-8', name: 'log.csv' }, logCsv(bar, query));
    return undefined;
  });
  route('getLogJsonl', async ({ query, response }) => {
    await downloads.send(response, { type: 'application/jsonl', name: 'log.jsonl' }, logLines(bar, query));
    return undefined;
  });
  route('getTraceCsv', async ({ id, response }) => {
    const points = await traceOf(bar, id);
    asFile(response, { type: 'text/csv; charset=utf-8', name: `trace-${id}.csv` });
    response.send(csvOf(traceRows(points)));
    return undefined;
  });
  route('getCareCalendar', async ({ response }) => {
    asFile(response, { type: 'text/calendar; charset=utf-8', name: 'care.ics' });
    response.send(careCalendar(bar.bar(), await bar.learning.house(), bar.clock.nowMs()));
    return undefined;
  });
  route('getArchive', async ({ query, response }) => {
    await downloads.send(
      response,
      { type: 'application/json', name: 'even-kettle-archive.json' },
      bar.archive(query.guests === 'without'),
    );
    return undefined;
  });
}

/** Small tables: checked as a whole, then imported as a whole. */
function rowRoutes(route: AddRoute, bar: BarServer): void {
  route('postRoasts', async ({ query, request, response }) => {
    const { rows } = parsed(() => readRoasts(textOf(request), bar.bar()));
    if (!query.take) return { rows: shownRows(rows), taken: false };
    refuseFaulty(rows);
    // Read again with the current bench, since another device may have changed it meanwhile.
    const changed = await bar.change((now) => ({ coffees: readRoasts(textOf(request), now).coffees }));
    if (!changed.ok) throw badFile('roasts', changed.field, changed.reason);
    response.status(201);
    return { rows, taken: true };
  });
  route('postOrders', async ({ query, request, response }) => {
    const { rows, events } = parsed(() =>
      readOrders(textOf(request), bar.bar(), bar.recipes.latest(), Math.floor(bar.clock.nowMs())),
    );
    if (!query.take) return { rows: shownRows(rows), taken: false };
    refuseFaulty(rows);
    const posted = await bar.post(events);
    if (!posted.ok)
      throw badFile('orders', `order ${posted.refused.index + 1}`, posted.refused.refusal.reason);
    response.status(201);
    return { rows, taken: true };
  });
}

/** Large files: stored as they arrive, then checked and imported. Each answer reports the progress. */
function importRoutes(route: AddRoute, { imports }: BarServer): void {
  const answered = <Answer>(result: ImportResult<Answer>): Answer => {
    if (result.ok) return result.answer;
    throw REFUSAL_SAYS[result.why];
  };
  route('getImports', () => imports.shown());
  route('postImport', async ({ query: { kind, name }, request }) => {
    if (!request.is(TYPE_OF[kind])) throw notDeclared(TYPE_OF[kind]);
    if (Number(request.get('Content-Length') ?? 0) > LARGEST) throw REFUSAL_SAYS['too-large'];
    return answered(await imports.receive(kind, name, request));
  });
  route('takeImport', async ({ id, query }) =>
    answered(await imports.take(id, query.faulty === 'leave-out')),
  );
  route('endImport', async ({ id }) => void answered(await imports.end(id)));
}

const TYPE_OF: Record<ImportKind, string> = { log: 'text/csv', archive: 'application/json' };

const REFUSAL_SAYS: Record<ImportRefusal, HttpProblem> = {
  full: new HttpProblem(
    409,
    'full',
    'No more logs can be read in',
    'This bar has as many logs from elsewhere as it can hold. Remove one of them first.',
  ),
  busy: new HttpProblem(409, 'busy', 'Another file is being read in', 'Wait until it is done, or stop it.'),
  'too-large': new HttpProblem(
    413,
    'too-large',
    'The file is too large',
    `A file may have ${LARGEST / 1e9} GB.`,
  ),
  unknown: new HttpProblem(
    404,
    'no-such-import',
    'No such import',
    'The server has no such file. Choose it again.',
  ),
  'not-looked-at': new HttpProblem(
    409,
    'not-looked-at',
    'The file is not ready',
    'It is taken once it was looked at.',
  ),
  faulty: new HttpProblem(
    422,
    'not-valid',
    'The file was not read in',
    'Some rows cannot be taken, so none was. Mend them, or have them left out.',
  ),
};

async function traceOf(bar: BarServer, brewId: string) {
  const points = await bar.traces.read(brewId);
  if (!points) throw NO_TRACE;
  return points;
}

/** What of the records could not be read: so many brews, or all from some place on. */
type Lost = { brews: number; rest: boolean };

/** Latest first, a page in memory at a time. What cannot be read is left out and counted. */
async function* everyRecord(
  bar: BarServer,
  { guests, ...query }: LogFileQuery,
  lost: Lost,
): AsyncGenerator<BrewRecord> {
  for (let before = query.before; ;) {
    const page = await bar.records
      .page({ ...query, limit: 200, ...(before === undefined ? {} : { before }) })
      .catch((error: unknown) => {
        if (failureOf(error)?.code !== 'damaged') throw error;
        return null;
      });
    lost.rest = page === null;
    if (!page) return;
    lost.brews += page.unreadable ?? 0;
    yield* guests === 'without' ? page.records.map(recordWithoutGuests) : page.records;
    if (page.next === null) return;
    before = page.next;
  }
}

/** What a file says at its end of what is not in it; null where nothing is missing. */
const lostWords = ({ brews, rest }: Lost): string | null => {
  if (rest) return 'The brews before these could not be read: the database is damaged there.';
  return brews > 0 ? `${brews} brews could not be read: the database is damaged there.` : null;
};

async function* logCsv(bar: BarServer, query: LogFileQuery): AsyncGenerator<string> {
  const lost: Lost = { brews: 0, rest: false };
  yield csvOf([logHead()]);
  for await (const record of everyRecord(bar, query, lost)) yield csvOf([logRow(record)]);
  const words = lostWords(lost);
  if (words) yield csvOf([[words]]);
}

async function* logLines(bar: BarServer, query: LogFileQuery): AsyncGenerator<string> {
  const lost: Lost = { brews: 0, rest: false };
  for await (const record of everyRecord(bar, query, lost)) yield `${JSON.stringify(record)}\n`;
  const unreadable = lostWords(lost);
  if (unreadable) yield `${JSON.stringify({ unreadable })}\n`;
}

function textOf(request: Request): string {
  if (typeof request.body === 'string') return request.body;
  throw notDeclared('text/csv');
}

const notDeclared = (type: string): HttpProblem =>
  new HttpProblem(
    415,
    'not-declared',
    `The body is not declared as ${type}`,
    `Send the file with Content-Type: ${type}.`,
  );

function parsed<Read>(read: () => Read): Read {
  try {
    return read();
  } catch (error) {
    if (error instanceof FileFault) throw badFile('file', 'csv', error.message);
    throw error;
  }
}

/** The most faults that are listed; more would not help anybody to correct a file. */
const FAULTS_MAX = 100;
/** All rows that can be imported, and the first of those that cannot. */
function shownRows(rows: readonly ImportRow[]): ImportRow[] {
  let faults = 0;
  return rows.filter((row) => row.ok || (faults += 1) <= FAULTS_MAX);
}

function refuseFaulty(rows: readonly ImportRow[]): void {
  const wrong = rows.filter((row) => !row.ok);
  if (rows.length === 0) throw badFile('file', 'csv', 'There is no line in it.');
  if (wrong.length > 0)
    throw new HttpProblem(
      422,
      'not-valid',
      'The file was not read in',
      `${wrong.length} of ${rows.length} lines cannot be taken, so none was.`,
      wrong.slice(0, FAULTS_MAX).map(({ line, ...row }) => ({
        field: `line ${line}`,
        reason: 'reason' in row ? row.reason : '',
        code: 'not-valid',
      })),
    );
}

const badFile = (what: string, field: string, reason: string): HttpProblem =>
  new HttpProblem(422, 'not-valid', `The ${what} was not read in`, `${field}: ${reason}`, [
    { field, reason, code: 'not-valid' },
  ]);
