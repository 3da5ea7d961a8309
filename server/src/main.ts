/**
 * Starts the server: settings from the environment, the database, the bar, HTTP.
 */
import { createServer } from 'node:http';
import { pino } from 'pino';
import { version } from '../package.json';
import { httpApp } from './http/app';
import { workerSolver } from './planning/solver';
import { openBar } from './server';
import { readSettings } from './settings';
import { openDatabase } from './store/database';

const REQUESTS_PER_MINUTE = 6000;

async function main(): Promise<void> {
  const settings = readSettings(process.env);
  const logger = pino({ level: settings.logLevel });
  const source = await openDatabase(settings.databaseFile);
  const solver = workerSolver(new URL('./plan.worker.js', import.meta.url));
  const bar = await openBar({
    source,
    solver,
    importWorker: new URL('./import.worker.js', import.meta.url),
    clockRate: settings.clockRate,
    warn: (detail, message) => logger.warn(detail, message),
  });
  const http = createServer(
    httpApp(bar, { appDir: settings.appDir, logger, version, requestsPerMinute: REQUESTS_PER_MINUTE }),
  );

  bar.devices.attach(http);

  const stop = () => {
    bar.hub.close();
    http.close(() => void bar.close().then(() => process.exit(0)));
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
    process.exit(1);
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
  process.exit(1);
});
