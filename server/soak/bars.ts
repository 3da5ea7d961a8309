/**
 * Opens bars in one process and closes them again, as its parent says: a test of the browser needs a server of its own, and
 * loading the server's code takes longer than opening a bar.
 */
import { pino } from 'pino';
import { lastResort } from '../src/last-resort';
import { serve, type Served } from '../src/serve';
import { readSettings } from '../src/settings';

type Asked = { job: number } & ({ open: Record<string, string> } | { close: number });

const logger = pino({ level: 'warn' });
const resort = lastResort(logger);
const bars = new Map<number, Served>();

async function answer(asked: Asked): Promise<number> {
  if ('open' in asked) {
    const served = await serve(readSettings(asked.open), logger, resort);
    bars.set(served.port, served);
    return served.port;
  }
  await bars.get(asked.close)?.close();
  bars.delete(asked.close);
  return asked.close;
}

process.on('message', (asked: Asked) => {
  answer(asked).then(
    (port) => process.send?.({ job: asked.job, port }),
    (error: unknown) => process.send?.({ job: asked.job, error: String(error) }),
  );
});
// Its parent is gone.
process.on('disconnect', () => process.exit(0));
