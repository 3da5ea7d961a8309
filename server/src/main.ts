/**
 * Starts the server with settings from the environment.
 */
import { pino } from 'pino';
import { CannotStart } from './cannot-start';
import { NOT_AGAIN, lastResort } from './last-resort';
import { serve } from './serve';
import { readSettings } from './settings';

async function main(): Promise<void> {
  const settings = readSettings(process.env);
  const logger = pino({ level: settings.logLevel });
  const resort = lastResort(logger);
  const served = await serve(settings, logger, resort).catch((error: NodeJS.ErrnoException) => {
    if (error.syscall !== 'listen') throw error;
    const detail =
      error.code === 'EADDRINUSE'
        ? `Port ${settings.port} is taken. Set PORT to another, or stop what uses it.`
        : error.message;
    logger.fatal(detail);
    return process.exit(NOT_AGAIN);
  });
  const stop = () => void served.close().then(() => process.exit(0), resort.fatal);
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  logger.info(
    `Even Kettle is at http://${settings.host.includes(':') ? `[${settings.host}]` : settings.host}:${served.port}`,
  );
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(error instanceof CannotStart ? NOT_AGAIN : 1);
});
