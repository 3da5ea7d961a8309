/**
 * The live stream: server-sent events to every page that is open on the bar.
 */
import { once } from 'node:events';
import type { Request, Response } from 'express';
import type { LiveEvent } from '@even-kettle/core/contract';
import { pausing } from '../store/pausing';

/** A page that hears nothing for three of these opens its stream anew. */
const HEARTBEAT_MS = 4000;
/** A page that reads this much slower than the bar writes is cut off, and resumes when it can, bytes. */
const BACKLOG_MAX = 4 * 1024 * 1024;
/** A page that has missed more than this loads the state instead: that is less, and quicker for both. */
export const GAP_MAX = 5000;
/** Streams of one address, and of all. */
const FROM_ONE_MAX = 40;
const IN_ALL_MAX = 150;

export type LiveName = 'plan' | 'bar' | 'recipes' | 'devices' | 'scale' | 'kettle' | 'storage';

type Listener = { address: string; send: (text: string, seq?: number) => void; end: () => void };

export type Broadcaster = {
  /** Whether one more stream may go to an address. */
  hasRoomFor: (address: string) => boolean;
  /** Streams to a page, from after a place in the log on. */
  join: (request: Request, response: Response, afterSeq: number) => Promise<void>;
  broadcastEvents: (events: LiveEvent[]) => void;
  /** What is not an event of the log: a plan, changed settings, saved recipes, what devices show. */
  broadcast: (name: LiveName, data: unknown) => void;
  listeners: () => number;
  close: () => void;
};

/**
 * @param readAfter pages of the log after a place in it; empty at its end
 * @param beat what goes out with every heartbeat
 */
export function openBroadcaster(
  readAfter: (seq: number) => Promise<LiveEvent[]>,
  greeting: () => { name: LiveName; data: unknown }[],
  beat: () => unknown = () => ({}),
): Broadcaster {
  const listeners = new Set<Listener>();
  const sendAll = (text: string, seq?: number) => {
    for (const listener of listeners) listener.send(text, seq);
  };
  const heartbeat = setInterval(() => sendAll(messageText('beat', beat())), HEARTBEAT_MS);
  heartbeat.unref();

  return {
    hasRoomFor: (address) =>
      listeners.size < IN_ALL_MAX &&
      [...listeners].filter((listener) => listener.address === address).length < FROM_ONE_MAX,
    join: async (request, response, afterSeq) => {
      response.writeHead(200, {
        'Content-Type': 'text/event-stream; charset=utf-8',
        // no-transform keeps the compression from holding events back.
        'Cache-Control': 'no-cache, no-transform',
        Connection: 'keep-alive',
        'X-Accel-Buffering': 'no',
      });
      response.write('retry: 1000\n\n');
      let sentSeq = afterSeq;
      let early: { text: string; seq?: number }[] | null = [];
      let gone = false;
      const write = (text: string, seq?: number) => {
        if (gone || (seq !== undefined && seq <= sentSeq)) return;
        if (seq !== undefined) sentSeq = seq;
        response.write(text);
        if (response.writableLength > BACKLOG_MAX) response.destroy();
      };
      // What is broadcast while the past is still being read waits its turn, so that nothing is missed or reordered.
      const listener: Listener = {
        address: request.ip ?? '',
        send: (text, seq) =>
          early ? early.push({ text, ...(seq === undefined ? {} : { seq }) }) : write(text, seq),
        end: () => response.end(),
      };
      listeners.add(listener);
      response.on('close', () => {
        gone = true;
        listeners.delete(listener);
      });
      // Recipes come first: an event may name a version that the page has not heard of.
      for (const { name, data } of greeting()) write(messageText(name, data));
      const rest = pausing();
      for (let page = await readAfter(sentSeq); page.length > 0 && !gone; page = await readAfter(sentSeq)) {
        for (const event of page) {
          write(eventText(event), event.seq);
          await rest();
        }
        if (response.writableNeedDrain && !gone) await drained(response);
      }
      for (const { text, seq } of early) write(text, seq);
      early = null;
    },
    broadcastEvents: (events) => {
      for (const event of events) sendAll(eventText(event), event.seq);
    },
    broadcast: (name, data) => sendAll(messageText(name, data)),
    listeners: () => listeners.size,
    close: () => {
      clearInterval(heartbeat);
      for (const listener of listeners) listener.end();
    },
  };
}

/** Resolves once the reader has taken what was written, or is gone. */
async function drained(response: Response): Promise<void> {
  const settled = new AbortController();
  const { signal } = settled;
  await Promise.race([once(response, 'drain', { signal }), once(response, 'close', { signal })]).finally(() =>
    settled.abort(),
  );
}

const eventText = (event: LiveEvent): string =>
  `id: ${event.seq}\nevent: bar-event\ndata: ${JSON.stringify(event)}\n\n`;
const messageText = (name: string, data: unknown): string =>
  `event: ${name}\ndata: ${JSON.stringify(data)}\n\n`;
