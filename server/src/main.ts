/**
 * Starts the server with settings from the environment.
 */
import { pino } from 'pino';
import { CannotStart } from './cannot-start';
import { NOT_AGAIN, lastResort } from './last-resort';
import { networkText } from './network/invitation-text';
import { asUrlHost } from './network/names';
import { serve, type Served } from './serve';
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
  if (served.network) await tell(served);
  else logger.info(`Even Kettle is at http://${asUrlHost(settings.host)}:${served.port}`);
}

/** On the terminal itself, whatever the log's level: it is said to the person who starts it. */
async function tell({ network, credentials }: Served): Promise<void> {
  const invited = credentials!.hasLead()
    ? null
    : await credentials!.invite({ role: 'lead', name: 'Lead’s device' }, 'link');
  const { addresses, fingerprint } = network!;
  console.log(
    await networkText({ addresses: addresses(), fingerprint: fingerprint(), secret: invited?.link ?? null }),
  );
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(error instanceof CannotStart ? NOT_AGAIN : 1);
});
