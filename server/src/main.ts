/**
 * Starts the server: settings from the environment, the database, the bar, HTTP.
 */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { version } from '../package.json';
import { CannotStart } from './cannot-start';
import { accessPolicy } from './access/hosts';
import { httpApp } from './http/app';
import { NOT_AGAIN, lastResort } from './last-resort';
import { workerSolver } from './planning/solver';
import { openBar } from './server';
import { readSettings } from './settings';
import { lockDatabase, openDatabase } from './store/database';

/** How long a connection of the database may keep the thread waiting for a lock, milliseconds. */
const BUSY_MS = 20;

async function main(): Promise<void> {
  const settings = readSettings(process.env);
  const logger = pino({ level: settings.logLevel });
  const resort = lastResort(logger);
  lockDatabase(settings.databaseFile);
  const source = await openDatabase(settings.databaseFile, { busyMs: BUSY_MS });
  resort.close(() => source.destroy());
  const solver = workerSolver(new URL('./plan.worker.js', import.meta.url));
  const bar = await openBar({
    source,
    solver,
    importWorker: new URL('./import.worker.js', import.meta.url),
    clockRate: settings.clockRate,
    warn: (detail, message) => logger.warn(detail, message),
    rules: createHash('sha256')
      .update(readFileSync(fileURLToPath(import.meta.url)))
      .digest('hex'),
    fatal: resort.fatal,
  });
  const access = accessPolicy(settings.hosts);
  const http = createServer(
    httpApp(bar, {
      appDir: settings.appDir,
      logger,
      version,
      requestsPerMinute: settings.requestsPerMinute,
      access,
    }),
  );
  bar.devices.attach(http, access);

  const stop = () => {
    bar.broadcaster.close();
    http.close(() => void bar.close().then(() => process.exit(0), resort.fatal));
    http.closeAllConnections();
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  http.once('error', (error: NodeJS.ErrnoException) => {
    const detail =
      error.code === 'EADDRINUSE'
        ? `Port ${settings.port} is taken. Set PORT to another, or stop what uses it.`
        : error.message;
    logger.fatal(detail);
    process.exit(NOT_AGAIN);
  });
  http.listen(settings.port, settings.host, () => {
    const address = http.address();
    const port = typeof address === 'object' && address ? address.port : settings.port;
    logger.info(
      `Even Kettle is at http://${settings.host.includes(':') ? `[${settings.host}]` : settings.host}:${port}`,
    );
  });
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(error instanceof CannotStart ? NOT_AGAIN : 1);
});
