/**
 * A bar worked by a script over HTTP: does what the agenda says as fast as it can, keeps what it tapped until the server
 * has acknowledged it, and goes on from whatever the server says after a break.
 */
import { v7 as uuid } from 'uuid';
import {
  rebase,
  confirm,
  drop,
  freshReplica,
  receiveLogged,
  applyLocally,
  unsent,
  optimisticState,
  type BarEvent,
  type BarState,
  type Replica,
} from '@even-kettle/core/brew';
import type { LiveEvent, Problem, Snapshot } from '@even-kettle/core/contract';
import { agenda, buildProblem, solve, tapEvents, type Bench } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf } from '@even-kettle/core/recipe';

const book = bookOf(SCHOOLS);
const MENU = ['cone-thirds', 'cone-steady', 'press-long', 'cone-onepour', 'press-short'];
const OPEN_ORDERS = 4;
const BATCH = 20;

export type ScriptedBar = {
  /** Works until it is told to stop. */
  work: (stop: () => boolean) => Promise<void>;
  /** Posts what waits until nothing does, and reads the bar anew. */
  settle: () => Promise<void>;
  acknowledged: ReadonlySet<string>;
  refused: ReadonlyMap<string, string>;
  state: () => BarState;
  seq: () => number;
  waiting: () => number;
  tries: () => number;
};

export function scriptedBar(url: string, bench: Bench, random: () => number): ScriptedBar {
  let replica: Replica = freshReplica();
  let offsetMs = 0;
  let rate = 1;
  let tries = 0;
  const acknowledged = new Set<string>();
  const refused = new Map<string, string>();
  const nowMs = () => Math.round(offsetMs + performance.now() * rate);
  const pick = <Item>(items: readonly Item[]): Item => items[Math.floor(random() * items.length)]!;

  const call = async <Answer>(
    path: string,
    init: RequestInit = {},
  ): Promise<{ status: number; body: Answer }> => {
    const answer = await fetch(`${url}${path}`, { ...init, signal: AbortSignal.timeout(4000) });
    return { status: answer.status, body: (await answer.json()) as Answer };
  };

  /** Everything anew, as a page does that has missed something. */
  const load = async (): Promise<void> => {
    const { body } = await call<Snapshot>('/api/state');
    offsetMs = body.barMs - performance.now() * body.rate;
    rate = body.rate;
    replica = rebase(replica, body);
  };

  /** @returns whether the server was there */
  const post = async (): Promise<boolean> => {
    const batch = unsent(replica).slice(0, BATCH);
    if (batch.length === 0) return true;
    tries += 1;
    try {
      const { status, body } = await call<{ seq: number } & Problem>('/api/events', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ events: batch }),
      });
      if (status === 200) {
        const ids = batch.map(({ id }) => id);
        ids.forEach((id) => acknowledged.add(id));
        replica = confirm(replica, ids, body.seq);
        return true;
      }
      // The disk is full, or the file is held: the taps wait.
      if (status >= 500) return false;
      const fault = body.errors?.find(({ eventId }) => eventId !== undefined);
      if (!fault) throw new Error(`The server answered ${status}: ${body.detail}`);
      refused.set(fault.eventId!, fault.reason);
      replica = drop(replica, [fault.eventId!]);
      return true;
    } catch (error) {
      if (error instanceof Error && error.message.startsWith('The server answered')) throw error;
      return false;
    }
  };

  /** The live stream, read until it breaks. */
  const hear = async (stop: () => boolean): Promise<void> => {
    const answer = await fetch(`${url}/api/live?after=${replica.seq}`);
    if (!answer.ok || !answer.body) throw new Error('no stream');
    let text = '';
    for await (const chunk of answer.body as unknown as AsyncIterable<Uint8Array>) {
      text += Buffer.from(chunk).toString();
      const messages = text.split('\n\n');
      text = messages.pop()!;
      for (const message of messages) {
        const data = /^event: bar-event\ndata: (.*)$/m.exec(message)?.[1];
        if (!data) continue;
        const next = receiveLogged(replica, JSON.parse(data) as LiveEvent, book);
        if (next) replica = next;
        else return load();
      }
      if (stop()) return;
    }
  };

  const newOrder = (): BarEvent => ({
    id: uuid(),
    type: 'order-taken',
    atMs: nowMs(),
    orderId: uuid(),
    cups: Array.from({ length: 1 + Math.floor(random() * 2) }, () => ({
      cupId: uuid(),
      recipeId: pick(MENU),
      recipeVersion: 1,
      coffee: 'Saltmarsh',
      roast: 'light' as const,
      cupMl: 200 + Math.floor(random() * 5) * 10,
    })),
  });

  /** One tap of what is asked; now and then an order, an undo, a brew given up, a correction. */
  const oneTap = (): void => {
    const state = optimisticState(replica, book);
    const open = Object.values(state.orders).filter(({ cups }) =>
      cups.some(({ status }) => status === 'waiting' || status === 'brewing'),
    );
    const take = (events: BarEvent[]) => {
      const tapped = applyLocally(replica, state, events, book);
      if (tapped.ok) replica = tapped.replica;
    };
    if (open.length < OPEN_ORDERS) return take([newOrder()]);
    const brews = Object.values(state.brews).filter(({ status }) => status === 'running');
    const chance = random();
    if (chance < 0.03 && brews.length > 0) {
      const last = pick(brews).events.at(-1)!;
      return take([{ id: uuid(), type: 'event-undone', atMs: nowMs(), eventId: last.id }]);
    }
    if (chance < 0.04 && brews.length > 0)
      return take([
        { id: uuid(), type: 'brew-abandoned', atMs: nowMs(), brewId: pick(brews).id, reason: 'spilt' },
      ]);
    const { problem } = buildProblem(state, bench, book, Math.ceil(nowMs() / 1000));
    const plan = problem.brews.length > 0 ? solve(problem) : null;
    const items = agenda(state, bench, book, plan, nowMs()).filter(
      (item) => item.asks !== 'runs' && (item.brew || item.station.free),
    );
    const item = items[0];
    if (!item) return;
    const reading =
      item.asks === 'finish' && item.step.targetG !== undefined
        ? { readingG: item.step.targetG + Math.round((random() - 0.4) * 4) }
        : {};
    take(tapEvents(item, bench, nowMs(), uuid, reading));
  };

  const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
  const keepOn = async (stop: () => boolean): Promise<void> => {
    while (!stop()) {
      try {
        await load();
        await hear(stop);
      } catch {
        await pause(30);
      }
    }
  };

  return {
    work: async (stop) => {
      const listening = keepOn(stop);
      while (!stop()) {
        if (rate !== 1 && unsent(replica).length < 60) oneTap();
        if (!(await post())) await pause(15 + random() * 40);
        await pause(2);
      }
      await Promise.race([listening, pause(200)]);
    },
    settle: async () => {
      for (let round = 0; round < 400 && unsent(replica).length > 0; round += 1)
        if (!(await post())) await pause(50);
      await load();
    },
    acknowledged,
    refused,
    state: () => optimisticState(replica, book),
    seq: () => replica.seq,
    waiting: () => unsent(replica).length,
    tries: () => tries,
  };
}
