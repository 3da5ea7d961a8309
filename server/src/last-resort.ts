/**
 * Handles an unexpected failure: it is logged, the database is closed, and the process ends. Whoever started it
 * (`npm start`) starts it again; what was acknowledged is on the disk.
 */
import type { Logger } from 'pino';

/** The exit code of a fault that a person has to remove: a restart is of no use. */
export const NOT_AGAIN = 78;
/** The exit code of a server that is to be started anew at once: a copy stands in the place of its database. */
export const START_ANEW = 75;
const CLOSE_MS = 3000;

export type LastResort = {
  /** Sets how to close what is open. */
  close: (work: () => Promise<void>) => void;
  fatal: (error: unknown) => void;
};

export function lastResort(
  logger: Pick<Logger, 'fatal'>,
  exit: (code: number) => void = process.exit,
): LastResort {
  let close: () => Promise<void> = () => Promise.resolve();
  let ending = false;
  const fatal = (error: unknown) => {
    if (ending) return;
    ending = true;
    logger.fatal({ err: error }, 'the server cannot go on and ends');
    // A close that hangs must not keep a broken server alive.
    const late = setTimeout(() => exit(1), CLOSE_MS);
    late.unref();
    void close()
      .catch((failed: unknown) => logger.fatal({ err: failed }, 'the database could not be closed'))
      .finally(() => exit(1));
  };
  process.on('uncaughtException', fatal);
  process.on('unhandledRejection', fatal);
  return { close: (work) => (close = work), fatal };
}
