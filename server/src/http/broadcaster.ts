/**
 * The live stream: server-sent events to every page that is open on the bar.
 */
import { once } from 'node:events';
import type { Request, Response } from 'express';
import type { LiveEvent } from '@even-kettle/core/contract';
import { pausing } from '../store/pausing';

/** A page that hears nothing for three heartbeats opens its stream again. */
const HEARTBEAT_MS = 4000;
/** A page with this many unread bytes is cut off; it resumes when it can. */
const BACKLOG_MAX = 4 * 1024 * 1024;
/** A page that has missed more than this loads the state instead, which is smaller. */
export const GAP_MAX = 5000;
/** The most streams for one address, and for all. */
const FROM_ONE_MAX = 40;
const IN_ALL_MAX = 150;

export type LiveName = 'plan' | 'bar' | 'recipes' | 'devices' | 'scale' | 'kettle' | 'storage';

type Listener = {
  address: string;
  callerId: string | undefined;
  send: (text: string, seq?: number) => void;
  end: () => void;
};

export type Broadcaster = {
  /** Whether an address may open one more stream. */
  hasRoomFor: (address: string) => boolean;
  /**
   * Opens a stream to a page, from after an event's number in the log.
   * @param callerId of a paired device
   */
  join: (request: Request, response: Response, afterSeq: number, callerId?: string) => Promise<void>;
  /** Ends the streams of a device that may not hear them any more. */
  expel: (callerId: string) => void;
  broadcastEvents: (events: LiveEvent[]) => void;
  /** Sends what is not an event of the log: a plan, changed settings, saved recipes, device readings. */
  broadcast: (name: LiveName, data: unknown) => void;
  /** A heartbeat out of turn: pages follow a clock that has been set. */
  beat: () => void;
  listeners: () => number;
  close: () => void;
};

/**
 * @param readAfter reads a page of the log after a number; empty at its end
 * @param beat what every heartbeat sends
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
  const beatNow = () => sendAll(messageText('beat', beat()));
  const heartbeat = setInterval(beatNow, HEARTBEAT_MS);
  heartbeat.unref();

  return {
    hasRoomFor: (address) =>
      listeners.size < IN_ALL_MAX &&
      [...listeners].filter((listener) => listener.address === address).length < FROM_ONE_MAX,
    join: async (request, response, afterSeq, callerId) => {
      response.writeHead(200, STREAM_HEADERS);
      response.write('retry: 1000\n\n');
      let sentSeq = afterSeq;
      let early: { text: string; seq?: number }[] | null = [];
      let earlyBytes = 0;
      let gone = false;
      const write = (text: string, seq?: number) => {
        if (gone || (seq !== undefined && seq <= sentSeq)) return;
        if (seq !== undefined) sentSeq = seq;
        response.write(text);
        if (response.writableLength > BACKLOG_MAX) response.destroy();
      };
      // While past events are still being read, new ones wait, so that none is missed or out of order.
      const wait = (text: string, seq?: number) => {
        earlyBytes += text.length;
        if (earlyBytes > BACKLOG_MAX) response.destroy();
        else early!.push({ text, ...(seq === undefined ? {} : { seq }) });
      };
      const listener: Listener = {
        address: request.ip ?? '',
        callerId,
        send: (text, seq) => (early ? wait(text, seq) : write(text, seq)),
        end: () => response.end(),
      };
      listeners.add(listener);
      response.on('close', () => {
        gone = true;
        listeners.delete(listener);
      });
      // Recipes are sent first, because an event may name a version that the page does not have.
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
    expel: (callerId) => {
      for (const listener of [...listeners].filter((each) => each.callerId === callerId)) {
        listener.send(messageText('me', {}));
        listener.end();
      }
    },
    broadcastEvents: (events) => {
      for (const event of events) sendAll(eventText(event), event.seq);
    },
    broadcast: (name, data) => sendAll(messageText(name, data)),
    beat: beatNow,
    listeners: () => listeners.size,
    close: () => {
      clearInterval(heartbeat);
      for (const listener of listeners) listener.end();
    },
  };
}

export const STREAM_HEADERS = {
  'Content-Type': 'text/event-stream; charset=utf-8',
  // Without no-transform, compression would hold the events back.
  'Cache-Control': 'no-cache, no-transform',
  Connection: 'keep-alive',
  'X-Accel-Buffering': 'no',
};

/** Resolves when the reader has taken what was written, or has disconnected. */
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
