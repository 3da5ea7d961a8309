/**
 * The live stream: server-sent events to every page that is open on the bar.
 */
import type { Request, Response } from 'express';
import type { LiveEvent } from '@even-kettle/core/contract';

/** A page that hears nothing for three of these opens its stream anew. */
const HEARTBEAT_MS = 4000;
/** A page that reads this much slower than the bar writes is cut off, and resumes when it can, bytes. */
const BACKLOG_MAX = 4 * 1024 * 1024;

export type LiveName = 'plan' | 'bar' | 'recipes' | 'devices' | 'scale' | 'kettle';

type Listener = { send: (text: string, seq?: number) => void; end: () => void };

export type LiveHub = {
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
export function openHub(
  readAfter: (seq: number) => Promise<LiveEvent[]>,
  greeting: () => { name: LiveName; data: unknown }[],
  beat: () => unknown = () => ({}),
): LiveHub {
  const listeners = new Set<Listener>();
  const sendAll = (text: string, seq?: number) => {
    for (const listener of listeners) listener.send(text, seq);
  };
  const heartbeat = setInterval(() => sendAll(messageText('beat', beat())), HEARTBEAT_MS);
  heartbeat.unref();

  return {
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
      const write = (text: string, seq?: number) => {
        if (seq !== undefined && seq <= sentSeq) return;
        if (seq !== undefined) sentSeq = seq;
        response.write(text);
        if (response.writableLength > BACKLOG_MAX) response.destroy();
      };
      // What is broadcast while the past is still being read waits its turn, so that nothing is missed or reordered.
      const listener: Listener = {
        send: (text, seq) =>
          early ? early.push({ text, ...(seq === undefined ? {} : { seq }) }) : write(text, seq),
        end: () => response.end(),
      };
      listeners.add(listener);
      request.on('close', () => listeners.delete(listener));
      // Recipes come first: an event may name a version that the page has not heard of.
      for (const { name, data } of greeting()) write(messageText(name, data));
      for (let page = await readAfter(sentSeq); page.length > 0; page = await readAfter(sentSeq)) {
        for (const event of page) write(eventText(event), event.seq);
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

const eventText = (event: LiveEvent): string =>
  `id: ${event.seq}\nevent: bar-event\ndata: ${JSON.stringify(event)}\n\n`;
const messageText = (name: string, data: unknown): string =>
  `event: ${name}\ndata: ${JSON.stringify(data)}\n\n`;
