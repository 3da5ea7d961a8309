/**
 * The server, as the app talks to it.
 */
import type { BarEvent } from '@even-kettle/core/brew';
import { rebaseChange } from '@even-kettle/core/contract/rebase';
import type { Plan, PlanProblem } from '@even-kettle/core/plan';
import type { Recipe } from '@even-kettle/core/recipe';
import type {
  Bar,
  BarChange,
  BrewPage,
  DayPage,
  Devices,
  HandsLearnt,
  House,
  ImportJob,
  ImportKind,
  Imports,
  KettleOrder,
  KettleState,
  Learnt,
  LiveEvent,
  LogPage,
  Problem,
  PublishedPlan,
  Recipes,
  SaveRecipe,
  ScaleOrder,
  ScaleState,
  Snapshot,
  StorageState,
} from '@even-kettle/core/contract';

/** The server's own refusal, as against one that cannot be reached. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.detail);
  }
}

export type Link = 'live' | 'connecting' | 'away';
export type LiveHandlers = {
  onEvent: (event: LiveEvent) => void;
  onPlan: (planned: PublishedPlan) => void;
  onBar: (bar: Bar) => void;
  onRecipes: (saved: Recipes) => void;
  onDevices: (devices: Devices) => void;
  onScale: (scale: ScaleState) => void;
  onKettle: (kettle: KettleState) => void;
  onStorage: (storage: StorageState) => void;
  /** The server's clock as it was a moment ago: the network's delay is in it. */
  onBeat: (barMs: number) => void;
  onLink: (link: Link) => void;
  onLost: () => void;
};

/** What a list of the log is narrowed to; left out, everything. */
export type LogAsked = Partial<
  Record<
    'coffee' | 'method' | 'recipeId' | 'stationId' | 'person' | 'taste' | 'fromMs' | 'toMs' | 'search',
    string
  >
>;
export type TableIn = {
  rows: ({ line: number; ok: true; shows: string } | { line: number; ok: false; reason: string })[];
  taken: boolean;
};
/** An address's parameters. */
export const paramsOf = (query: Record<string, string | undefined>): string =>
  new URLSearchParams(
    Object.entries(query).filter((entry): entry is [string, string] => !!entry[1]),
  ).toString();

export type Api = ReturnType<typeof apiClient>;

const PATIENCE_MS = 8000;
const CHANGE_TRIES = 4;
const LONG_PATIENCE_MS = 300_000;
/** The server beats every 4 s. A stream that is silent for longer than this is dead, whatever the browser thinks. */
const SILENCE_MS = 13_000;

// eslint-disable-next-line max-lines-per-function -- a list of requests
export function apiClient(base = '') {
  const call = async <Answer>(
    path: string,
    init?: RequestInit,
    patienceMs = PATIENCE_MS,
  ): Promise<Answer> => {
    const response = await fetch(`${base}${path}`, { ...init, signal: AbortSignal.timeout(patienceMs) });
    if (response.status === 204) return undefined as Answer;
    if (response.ok) return (await response.json()) as Answer;
    const isProblem = response.headers.get('content-type')?.includes('problem+json');
    if (isProblem && response.status < 500)
      throw new Refused(response.status, (await response.json()) as Problem);
    throw new Error(`The server answered ${response.status}.`);
  };
  const send = <Answer>(method: string, path: string, body: unknown, headers: Record<string, string> = {}) =>
    call<Answer>(path, {
      method,
      headers: { 'Content-Type': 'application/json', ...headers },
      body: JSON.stringify(body),
    });
  /** Where another device was quicker, the same change is made on top of what it left. */
  const changeBar = async (change: BarChange, base: Bar): Promise<Bar> => {
    for (let tries = 1; ; tries += 1) {
      const match: Record<string, string> =
        base.version === undefined ? {} : { 'If-Match': `"${base.version}"` };
      try {
        return await send<Bar>('PATCH', '/api/bar', change, match);
      } catch (error) {
        if (!(error instanceof Refused) || error.status !== 412 || tries >= CHANGE_TRIES) throw error;
        const now = await call<Bar>('/api/bar');
        change = rebaseChange(base, change, now);
        base = now;
      }
    }
  };

  return {
    state: () => call<Snapshot>('/api/state'),
    clock: () => call<{ barMs: number; rate: number }>('/api/clock'),
    versions: (id: string) => call<Recipes>(`/api/recipes/${encodeURIComponent(id)}/versions`),
    saveRecipe: (asked: SaveRecipe) => send<Recipe>('POST', '/api/recipes', asked),
    log: (query: LogAsked, before: string | null) =>
      call<LogPage>(
        `/api/log?${paramsOf({ ...query, limit: '30', ...(before === null ? {} : { before }) })}`,
      ),
    brew: (id: string) => call<BrewPage>(`/api/brews/${encodeURIComponent(id)}`),
    learnt: (recipeId: string, coffee: string) =>
      call<Learnt>(`/api/learnt?${paramsOf({ recipeId, coffee })}`),
    day: (fromMs: number, toMs: number) =>
      call<DayPage>(`/api/day?${paramsOf({ fromMs: String(fromMs), toMs: String(toMs) })}`),
    house: () => call<House>('/api/house'),
    hands: () => call<HandsLearnt>('/api/hands'),
    /** Looks at a table of roasts or orders, or takes all of it. */
    tableIn: (what: 'roasts' | 'orders', text: string, take: boolean) =>
      call<TableIn>(`/api/files/${what}${take ? '?take=1' : ''}`, {
        method: 'POST',
        headers: { 'Content-Type': 'text/csv' },
        body: text,
      }),
    imports: () => call<Imports>('/api/imports'),
    /** Sends a large file as it lies on the device; `onSent` is told which share is out. */
    sendFile: (kind: ImportKind, file: File, onSent: (share: number) => void, signal: AbortSignal) =>
      sendLarge(`${base}/api/imports?${paramsOf({ kind, name: file.name.slice(0, 120) })}`, file, {
        type: kind === 'log' ? 'text/csv' : 'application/json',
        onSent,
        signal,
      }),
    takeFile: (id: string, leaveOutFaulty: boolean) =>
      send<ImportJob>(
        'POST',
        `/api/imports/${encodeURIComponent(id)}/take${leaveOutFaulty ? '?faulty=leave-out' : ''}`,
        {},
      ),
    /** May take as long as what is there takes to go out again. */
    endFile: (id: string) =>
      call<undefined>(`/api/imports/${encodeURIComponent(id)}`, { method: 'DELETE' }, LONG_PATIENCE_MS),
    planProblem: () => call<PlanProblem>('/api/plan/problem'),
    plan: () => call<{ plan?: Plan | null }>('/api/plan'),
    postEvents: (events: BarEvent[]) =>
      send<{ accepted: string[]; duplicates: string[]; seq: number }>('POST', '/api/events', { events }),
    orderScale: (stationId: string, order: ScaleOrder) =>
      send<undefined>('POST', `/api/devices/scales/${encodeURIComponent(stationId)}`, order),
    orderKettle: (kettleId: string, order: KettleOrder) =>
      send<undefined>('POST', `/api/devices/kettles/${encodeURIComponent(kettleId)}`, order),
    /** @param base the settings that the change was made from */
    changeBar,
    /** Opens the live stream after a place in the log; the browser resumes it by itself after short breaks. */
    live: (after: number, handlers: LiveHandlers): (() => void) => {
      const stream = new EventSource(`${base}/api/live?after=${after}`);
      const on = <Data>(name: string, take: (data: Data) => void) =>
        stream.addEventListener(name, (message) => {
          heardMs = performance.now();
          take(JSON.parse((message as MessageEvent<string>).data) as Data);
        });
      let heardMs = performance.now();
      on('bar-event', handlers.onEvent);
      on('plan', handlers.onPlan);
      on('bar', handlers.onBar);
      on('recipes', handlers.onRecipes);
      on('devices', handlers.onDevices);
      on('scale', handlers.onScale);
      on('kettle', handlers.onKettle);
      on('storage', handlers.onStorage);
      on<{ barMs: number }>('beat', ({ barMs }) => handlers.onBeat(barMs));
      const silence = setInterval(() => {
        if (performance.now() - heardMs < SILENCE_MS) return;
        close();
        handlers.onLink('away');
        handlers.onLost();
      }, SILENCE_MS / 4);
      const close = () => {
        clearInterval(silence);
        stream.close();
      };
      stream.onopen = () => handlers.onLink('live');
      stream.onerror = () => {
        handlers.onLink('away');
        // Closed for good: the server refused the place, or the browser gave up. The bar has to be loaded anew.
        if (stream.readyState !== EventSource.CLOSED) return;
        close();
        handlers.onLost();
      };
      return close;
    },
  };
}

type Sending = { type: string; onSent: (share: number) => void; signal: AbortSignal };

/** `fetch` does not say how far it is, so this is the older way. */
function sendLarge(url: string, file: File, { type, onSent, signal }: Sending): Promise<ImportJob> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', url);
    request.setRequestHeader('Content-Type', type);
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) => onSent(total === 0 ? 0 : loaded / total);
    request.onload = () => {
      const answer: unknown = request.response;
      if (request.status === 202) resolve(answer as ImportJob);
      else if (request.status < 500 && answer) reject(new Refused(request.status, answer as Problem));
      else reject(new Error(`The server answered ${request.status}.`));
    };
    request.onerror = () => reject(new Error('The server could not be reached.'));
    request.onabort = () => reject(new DOMException('Stopped', 'AbortError'));
    signal.addEventListener('abort', () => request.abort());
    request.send(file);
  });
}
