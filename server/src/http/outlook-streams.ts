/** Live streams of what guests see: each page is sent its view whenever that has changed. */
import type { Request, Response } from 'express';
import { STREAM_HEADERS } from './broadcaster';

const HEARTBEAT_MS = 4000;
/** A change is shown within this; several at once are one. */
const SOON_MS = 200;
/** The most streams for one address, and for all. A board is one; guests share the router's address at worst. */
const FROM_ONE_MAX = 60;
const IN_ALL_MAX = 400;

type Page = { address: string; callerId: string | undefined; look: () => void; end: (word?: string) => void };

export type OutlookStreams = {
  hasRoomFor: (address: string) => boolean;
  /**
   * @param view what the page shows; null once there is nothing more to show
   * @param name of the message that carries it
   */
  join: (request: Request, response: Response, name: string, view: () => unknown, callerId?: string) => void;
  /** Something has happened on the bar. */
  changed: () => void;
  expel: (callerId: string) => void;
  close: () => void;
};

export function openOutlookStreams(beat: () => unknown): OutlookStreams {
  const pages = new Set<Page>();
  let soon: NodeJS.Timeout | null = null;
  const lookAll = () => {
    soon = null;
    for (const page of pages) page.look();
  };
  const heartbeat = setInterval(lookAll, HEARTBEAT_MS);
  heartbeat.unref();
  return {
    hasRoomFor: (address) =>
      pages.size < IN_ALL_MAX && [...pages].filter((page) => page.address === address).length < FROM_ONE_MAX,
    join: (request, response, name, view, callerId) => {
      response.writeHead(200, STREAM_HEADERS);
      response.write('retry: 2000\n\n');
      let sent = '';
      const page: Page = {
        address: request.ip ?? '',
        callerId,
        look: () => {
          const shown = view();
          if (shown === null) {
            response.end('event: over\ndata: {}\n\n');
            return;
          }
          const text = JSON.stringify(shown);
          if (text !== sent) response.write(`event: ${name}\ndata: ${text}\n\n`);
          sent = text;
          response.write(`event: beat\ndata: ${JSON.stringify(beat())}\n\n`);
        },
        end: (word = '') => response.end(word),
      };
      pages.add(page);
      response.on('close', () => pages.delete(page));
      page.look();
    },
    changed: () => {
      soon ??= setTimeout(lookAll, SOON_MS).unref();
    },
    expel: (callerId) => {
      for (const page of pages) if (page.callerId === callerId) page.end('event: me\ndata: {}\n\n');
    },
    close: () => {
      clearInterval(heartbeat);
      if (soon) clearTimeout(soon);
      for (const page of pages) page.end();
    },
  };
}
