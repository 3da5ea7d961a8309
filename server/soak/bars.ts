/**
 * Opens bars in one process and closes them again, as its parent says: a test of the browser needs a server of its own, and
 * loading the server's code takes longer than opening a bar. Their time can be skipped, and people work at them who need no screen.
 */
import { setTimeout as pause } from 'node:timers/promises';
import { movesThePlan } from '@even-kettle/core/brew';
import { EXACT_PEOPLE, workRush } from '@even-kettle/core/rush';
import { pino } from 'pino';
import { v7 as uuid } from 'uuid';
import { lastResort } from '../src/last-resort';
import { serve, type Served } from '../src/serve';
import { readSettings } from '../src/settings';

/** What a test asks of this process; a bar is named by its port. */
type AskedOfBars =
  | { open: Record<string, string> }
  | { close: number }
  /** Bar time goes on by so much at once, milliseconds. */
  | { skip: number; byMs: number }
  /** Its orders are worked off as the cards say; up to where one shows this step, or what is seen in it. */
  | { work: number; until?: string | undefined };

const logger = pino({ level: 'warn' });
const resort = lastResort(logger);
const bars = new Map<number, { served: Served; skip: (byMs: number) => number }>();
/** As long as anybody works at a bar of a test, milliseconds. */
const LONGEST_MS = 4 * 3600_000;

/** The system's clocks, which can be set forward. */
function skippingClock() {
  let skippedMs = 0;
  return {
    sources: { realNow: () => Date.now() + skippedMs, steadyNow: () => performance.now() + skippedMs },
    skip: (byMs: number) => void (skippedMs += byMs),
  };
}

async function open(env: Record<string, string>): Promise<number> {
  const { sources, skip } = skippingClock();
  const served = await serve(readSettings(env), logger, resort, { clockSources: sources });
  bars.set(served.port, {
    served,
    skip: (byMs) => {
      skip(byMs / served.bar.clock.rate);
      // Every page follows at once.
      served.bar.broadcaster.beat();
      return served.bar.clock.nowMs();
    },
  });
  return served.port;
}

async function work(port: number, until?: string): Promise<void> {
  const { served, skip } = bars.get(port)!;
  const { clock, planning, log, post, ...bar } = served.bar;
  const planned = async (seq: number) => {
    for (let looks = 0; (planning.current()?.seq ?? -1) < seq; looks += 1) {
      if (looks > 4000) throw new Error(`The bar has made no plan of its event ${seq}.`);
      await pause(5);
    }
  };
  await planning.replan('event');
  await workRush(
    {
      nowMs: clock.nowMs,
      state: log.state,
      plan: () => planning.current()?.plan ?? null,
      tell: async (events) => {
        const told = await post(events);
        // A remark is no reason for a plan.
        if (told.ok && told.appended.some(({ event }) => movesThePlan(event))) await planned(told.seq);
        return told.ok;
      },
      passUntil: async (atMs) => {
        skip(Math.max(1, atMs - clock.nowMs()) / clock.rate);
        await pause(0);
      },
    },
    {
      bench: bar.bar(),
      book: bar.recipes.book,
      orders: [],
      // Neither more nor less than what the card says.
      random: () => 0.4,
      newId: uuid,
      manners: EXACT_PEOPLE,
      untilMs: clock.nowMs() + LONGEST_MS,
      ...(until === undefined
        ? {}
        : { stopsAt: ({ step, awaited }) => step.id === until || awaited?.id === until }),
    },
  );
}

/** A bar's port where one was opened, its time where that was skipped. */
async function answer(asked: AskedOfBars): Promise<number> {
  if ('open' in asked) return open(asked.open);
  if ('skip' in asked) return bars.get(asked.skip)!.skip(asked.byMs);
  if ('work' in asked) {
    await work(asked.work, asked.until);
    return asked.work;
  }
  await bars.get(asked.close)?.served.close();
  bars.delete(asked.close);
  return asked.close;
}

process.on('message', ({ job, ...asked }: { job: number } & AskedOfBars) => {
  answer(asked).then(
    (is) => process.send?.({ job, is }),
    (error: unknown) => process.send?.({ job, error: String(error) }),
  );
});
// Its parent is gone.
process.on('disconnect', () => process.exit(0));
