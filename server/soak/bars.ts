/**
 * Opens bars in one process and closes them again, as its parent says: a test of the browser needs a server of its own, and
 * loading the server's code takes longer than opening a bar.
 */
import { pino } from 'pino';
import { lastResort } from '../src/last-resort';
import { serve, type Served } from '../src/serve';
import { readSettings } from '../src/settings';

type Asked = { job: number } & (
  | { open: Record<string, string> }
  | { close: number }
  // Bar time goes on by so much at once, milliseconds of a clock at rate 1.
  | { skip: number; byMs: number }
);

const logger = pino({ level: 'warn' });
const resort = lastResort(logger);
const bars = new Map<number, { served: Served; skip: (byMs: number) => void }>();

/** The system's clocks, which can be set forward. */
function skippingClock() {
  let skippedMs = 0;
  return {
    sources: { realNow: () => Date.now() + skippedMs, steadyNow: () => performance.now() + skippedMs },
    skip: (byMs: number) => void (skippedMs += byMs),
  };
}

async function answer(asked: Asked): Promise<number> {
  if ('open' in asked) {
    const { sources, skip } = skippingClock();
    const served = await serve(readSettings(asked.open), logger, resort, sources);
    bars.set(served.port, { served, skip });
    return served.port;
  }
  if ('skip' in asked) {
    const bar = bars.get(asked.skip);
    bar?.skip(asked.byMs);
    // Every page follows at once.
    bar?.served.beat();
    return asked.skip;
  }
  await bars.get(asked.close)?.served.close();
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
