/**
 * Files that go out in pieces: as quickly as they are read, a few at once, and not for longer than somebody reads them.
 */
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Response } from 'express';
import { pausing } from '../store/pausing';
import { HttpProblem } from './problem';

/** The most that go out at once. */
const AT_ONCE = 4;
/** One that nobody has read from for so long is ended, milliseconds. */
const IDLE_MS = 60_000;
/** When to ask again, seconds. */
const RETRY_AFTER_S = 30;

const TOO_MANY_DOWNLOADS = new HttpProblem(
  503,
  'too-many-downloads',
  'Too many files are being sent',
  `This server sends ${AT_ONCE} large files at once. Ask for this one again when another is done.`,
);

export type FileNamed = { type: string; name: string };

/** Says that the answer is a file. The library escapes quotes and other special characters in its name. */
export const asFile = (response: Response, { type, name }: FileNamed): void =>
  void response.attachment(name).set('Content-Type', type);

export type Downloads = {
  /** Sends generated text as a file, and stops when the reader is gone. @throws HttpProblem where too many go out already */
  send: (response: Response, file: FileNamed, parts: AsyncGenerator<string>) => Promise<void>;
};

export function openDownloads(idleMs = IDLE_MS): Downloads {
  let sending = 0;
  return {
    send: async (response, file, parts) => {
      if (sending >= AT_ONCE) {
        response.set('Retry-After', String(RETRY_AFTER_S));
        throw TOO_MANY_DOWNLOADS;
      }
      sending += 1;
      asFile(response, file);
      let readMs = performance.now();
      const watching = setInterval(() => {
        if (performance.now() - readMs > idleMs) response.destroy();
      }, idleMs / 10);
      const read = () => (readMs = performance.now());
      response.on('drain', read);
      const paced = async function* () {
        const rest = pausing();
        for await (const part of parts) {
          // What comes before is on its way: somebody reads.
          read();
          yield part;
          await rest();
        }
        read();
      };
      await pipeline(Readable.from(paced()), response)
        .catch((error: unknown) => {
          // The reader has gone, or was too slow; everything was closed with it.
          if ((error as { code?: string }).code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
        })
        .finally(() => {
          clearInterval(watching);
          sending -= 1;
        });
    },
  };
}
