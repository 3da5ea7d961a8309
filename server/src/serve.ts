/** One bar, served: its database, its planner, its devices, HTTP. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import type { Logger } from 'pino';
import { version } from '../package.json';
import { accessPolicy } from './access/hosts';
import type { ClockSources } from './bar-clock';
import { httpApp } from './http/app';
import type { LastResort } from './last-resort';
import { workerQuoter } from './planning/quoter';
import { workerSolver } from './planning/solver';
import { openBar, type BarServer } from './server';
import type { Settings } from './settings';
import { lockDatabase, openDatabase } from './store/database';

/** How long a connection of the database may keep the thread waiting for a lock, milliseconds. */
const BUSY_MS = 20;

export type Served = {
  /** The port that it listens on, where the settings left that open. */
  port: number;
  bar: BarServer;
  close: () => Promise<void>;
};

/**
 * @param clockSources clocks other than the system's, for tests that skip time
 * @throws CannotStart where the database is in use; the error of the network where the port cannot be listened on
 */
export async function serve(
  settings: Settings,
  logger: Logger,
  resort: LastResort,
  clockSources?: Omit<ClockSources, 'isIdle'>,
): Promise<Served> {
  const unlock = lockDatabase(settings.databaseFile);
  const source = await openDatabase(settings.databaseFile, { busyMs: BUSY_MS });
  resort.close(() => source.destroy());
  const bar = await openBar({
    source,
    solver: workerSolver(new URL('./plan.worker.js', import.meta.url)),
    quoter: workerQuoter(new URL('./quote.worker.js', import.meta.url), (error) =>
      logger.warn({ err: error }, 'an order from outside was taken without its times'),
    ),
    importWorker: new URL('./import.worker.js', import.meta.url),
    clockRate: settings.clockRate,
    ...(clockSources ? { clockSources } : {}),
    warn: (detail, message) => logger.warn(detail, message),
    rules: createHash('sha256')
      .update(readFileSync(fileURLToPath(import.meta.url)))
      .digest('hex'),
    fatal: resort.fatal,
  });
  const access = accessPolicy(settings.hosts);
  const { appDir, requestsPerMinute } = settings;
  const http = createServer(httpApp(bar, { appDir, logger, version, requestsPerMinute, access }));
  bar.devices.attach(http, access);
  await new Promise<void>((resolve, reject) => {
    http.once('error', reject);
    http.listen(settings.port, settings.host, resolve);
  });
  http.on('error', resort.fatal);
  const address = http.address();
  return {
    port: typeof address === 'object' && address ? address.port : settings.port,
    bar,
    close: async () => {
      bar.broadcaster.close();
      const ended = new Promise((resolve) => http.close(resolve));
      http.closeAllConnections();
      await ended;
      await bar.close();
      unlock();
    },
  };
}
