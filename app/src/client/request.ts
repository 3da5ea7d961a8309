/**
 * One request to the server: its address from the API's table, its answer read before anybody uses it.
 */
import { addressOf, addressWith, type RouteId } from '@even-kettle/core/contract/addresses';
import type { AnswerOf, BodySent, QueryName } from '@even-kettle/core/contract/routes';
import type { Problem } from '@even-kettle/core/contract';
import { loadSchemas } from './load-schemas';
import { isClock, isPosted, isSnapshot } from './shapes';

/** The server's own refusal, as against one that cannot be reached. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.detail);
  }
}

/** An answer that this page cannot read: of another version of the server, or of something on the way. */
export class Unreadable extends Error {
  constructor(
    /** What a page must know to read it, where the answer says so. */
    readonly contract: number,
  ) {
    super('The server’s answer cannot be read. Load the page again.');
  }
}

export type Asking<Id extends RouteId> = {
  /** What the address names. */
  id?: string;
  /** Names as the table has them; what stands there is the server's to judge. */
  query?: Partial<Record<QueryName<Id>, string | number>>;
  body?: BodySent<Id>;
  headers?: Record<string, string>;
  /** A table, sent as CSV. */
  csv?: string;
  patienceMs?: number;
};
export type Ask = <Id extends RouteId>(id: Id, asking?: Asking<Id>) => Promise<AnswerOf<Id>>;

const PATIENCE_MS = 8000;

export const openRequests =
  (base: string): Ask =>
  async (id, { id: named, query, body, headers, csv, patienceMs = PATIENCE_MS } = {}) => {
    const address = addressWith(id, named === undefined ? {} : { id: named }, query);
    const type = csv === undefined ? (body === undefined ? null : 'application/json') : 'text/csv';
    const response = await fetch(`${base}${address}`, {
      method: addressOf(id).method,
      headers: { ...(type ? { 'Content-Type': type } : {}), ...headers },
      body: csv ?? (body === undefined ? null : JSON.stringify(body)),
      signal: AbortSignal.timeout(patienceMs),
    });
    if (response.status === 204) return undefined as AnswerOf<typeof id>;
    if (response.ok) return read(id, await response.json());
    const isProblem = response.headers.get('content-type')?.includes('problem+json');
    if (isProblem && response.status < 500)
      throw new Refused(response.status, (await response.json()) as Problem);
    throw new Error(`The server answered ${response.status}.`);
  };

/** What a page needs before its schemas are there. */
const AT_ONCE: Partial<Record<RouteId, (answer: unknown) => boolean>> = {
  getState: isSnapshot,
  getClock: isClock,
  postEvents: isPosted,
};

/** @throws Unreadable, or Error with what is wrong of it, where it is no answer of that route */
export async function read<Id extends RouteId>(id: Id, answer: unknown): Promise<AnswerOf<Id>> {
  const fits = AT_ONCE[id];
  if (!fits) return (await loadSchemas()).readAnswer(id, answer);
  if (fits(answer)) return answer as AnswerOf<Id>;
  const said = (answer as { contract?: unknown } | null)?.contract;
  throw new Unreadable(typeof said === 'number' ? said : 0);
}
