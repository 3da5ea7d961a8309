/**
 * The server, as the app talks to it.
 */
import type { BarEvent } from '@even-kettle/core/brew';
import { addressWith } from '@even-kettle/core/contract/addresses';
import { rebaseChange } from '@even-kettle/core/contract/rebase';
import type { AnswerOf, BodySent, QueryName } from '@even-kettle/core/contract/routes';
import type {
  Bar,
  BarChange,
  ImportJob,
  ImportKind,
  KettleOrder,
  PracticeItem,
  Problem,
  SaveRecipe,
  ScaleOrder,
  TakeAdvice,
} from '@even-kettle/core/contract';
import { openLive, type LiveHandlers } from './live';
import { Refused, openRequests, read, type Ask } from './request';

/** What a list of the log is narrowed to; left out, everything. */
export type LogAsked = Partial<Record<Exclude<QueryName<'getLog'>, 'before' | 'limit'>, string>>;

export type Api = ReturnType<typeof apiClient>;

const CHANGE_TRIES = 4;
const PAGE = 30;
const LONG_PATIENCE_MS = 300_000;

export function apiClient(base = '') {
  const ask = openRequests(base);
  /** If another device changed the settings first, the same change is made on top of them. */
  const changeBar = async (change: BarChange, made: Bar): Promise<Bar> => {
    for (let tries = 1; ; tries += 1) {
      const headers: Record<string, string> =
        made.version === undefined ? {} : { 'If-Match': `"${made.version}"` };
      try {
        return await ask('changeBar', { body: change, headers });
      } catch (error) {
        if (!(error instanceof Refused) || error.status !== 412 || tries >= CHANGE_TRIES) throw error;
        const now = await ask('getBar');
        change = rebaseChange(made, change, now);
        made = now;
      }
    }
  };

  return {
    state: () => ask('getState'),
    clock: () => ask('getClock'),
    versions: (id: string) => ask('getRecipeVersions', { id }),
    saveRecipe: (asked: SaveRecipe) => ask('saveRecipe', { body: asked }),
    log: (query: LogAsked, before: string | null) =>
      ask('getLog', { query: { ...query, limit: PAGE, ...(before === null ? {} : { before }) } }),
    brew: (id: string) => ask('getBrew', { id }),
    takeAdvice: (brewId: string, asked: TakeAdvice) => ask('takeAdvice', { id: brewId, body: asked }),
    learnt: (recipeId: string, coffee: string) => ask('getLearnt', { query: { recipeId, coffee } }),
    day: (fromMs: number, toMs: number) => ask('getDay', { query: { fromMs, toMs } }),
    today: (fromMs: number, toMs: number) => ask('getToday', { query: { fromMs, toMs } }),
    house: () => ask('getHouse'),
    hands: () => ask('getHands'),
    /** Checks a table of roasts or orders, or imports all of it. */
    tableIn: (what: 'roasts' | 'orders', csv: string, take: boolean) =>
      ask(what === 'roasts' ? 'postRoasts' : 'postOrders', {
        csv,
        ...(take ? { query: { take: '1' } } : {}),
      }),
    imports: () => ask('getImports'),
    /** Uploads a large file; `onSent` is called with the share that has been sent. */
    sendFile: (kind: ImportKind, file: File, onSent: (share: number) => void, signal: AbortSignal) =>
      sendLarge(`${base}${addressWith('postImport', {}, { kind, name: file.name.slice(0, 120) })}`, file, {
        type: kind === 'log' ? 'text/csv' : 'application/json',
        onSent,
        signal,
      }),
    takeFile: (id: string, leaveOutFaulty: boolean) =>
      ask('takeImport', { id, ...(leaveOutFaulty ? { query: { faulty: 'leave-out' } } : {}) }),
    /** May take as long as the present data takes to be deleted. */
    endFile: (id: string) => ask('endImport', { id, patienceMs: LONG_PATIENCE_MS }),
    /** All of it, page by page. */
    practice: async () => {
      const items: PracticeItem[] = [];
      for (let after: string | null = ''; after !== null;) {
        const page: AnswerOf<'getPractice'> = await ask(
          'getPractice',
          after === '' ? {} : { query: { after } },
        );
        items.push(...page.items);
        after = page.next;
      }
      return items;
    },
    keepPractice: (item: PracticeItem) => ask('keepPractice', { body: item }),
    removePractice: (id: string) => ask('removePractice', { id }),
    planProblem: () => ask('getPlanProblem'),
    plan: () => ask('getPlan'),
    feed: () => ask('getFeed'),
    ...accessApi(ask),
    runFeed: (running: boolean) => ask('runFeed', { body: { running } }),
    postEvents: (events: BarEvent[]) => ask('postEvents', { body: { events } }),
    orderScale: (id: string, order: ScaleOrder) => ask('orderScale', { id, body: order }),
    orderKettle: (id: string, order: KettleOrder) => ask('orderKettle', { id, body: order }),
    /** @param made the settings that the change was made from */
    changeBar,
    live: (after: number, handlers: LiveHandlers) => openLive(base, after, handlers),
  };
}

/** Pairing, devices, copies: what the lead sees to. */
const accessApi = (ask: Ask) => ({
  pair: (secret: string, name: string) => ask('pair', { body: { secret, ...(name === '' ? {} : { name }) } }),
  access: () => ask('getAccess'),
  invite: (body: BodySent<'invite'>) => ask('invite', { body }),
  makeKey: (body: BodySent<'makeKey'>) => ask('makeKey', { body }),
  changeAccess: (id: string, body: BodySent<'changeAccess'>) => ask('changeAccess', { id, body }),
  revoke: (id: string) => ask('revoke', { id }),
  copies: () => ask('getCopies'),
  makeCopy: () => ask('makeCopy', { patienceMs: LONG_PATIENCE_MS }),
  restoreCopy: (id: string) => ask('restoreCopy', { id, patienceMs: LONG_PATIENCE_MS }),
  cupLink: (orderId: string) => ask('getCupLink', { id: orderId }),
});

type Sending = { type: string; onSent: (share: number) => void; signal: AbortSignal };

/** `fetch` reports no progress of an upload, so this uses XMLHttpRequest. */
function sendLarge(url: string, file: File, { type, onSent, signal }: Sending): Promise<ImportJob> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', url);
    request.setRequestHeader('Content-Type', type);
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) => onSent(total === 0 ? 0 : loaded / total);
    request.onload = () => {
      const answer: unknown = request.response;
      if (request.status === 202) read('postImport', answer).then(resolve, reject);
      else if (request.status < 500 && answer) reject(new Refused(request.status, answer as Problem));
      else reject(new Error(`The server answered ${request.status}.`));
    };
    request.onerror = () => reject(new Error('The server could not be reached.'));
    request.onabort = () => reject(new DOMException('Stopped', 'AbortError'));
    signal.addEventListener('abort', () => request.abort());
    request.send(file);
  });
}
