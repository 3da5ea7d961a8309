/**
 * The settings for screens and planner: the bar's own, with what the log has taught about its people and coffees.
 * The learnt part is never stored.
 */
import type { BarEvent } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import type { Learning } from '../learnt';
import type { Settings } from './settings';

/** After so many served cups the pace of hands and the behaviour of beds are worked out again. */
const LEARN_EVERY = 10;

type Learnt = Pick<Bar, 'pace' | 'beds' | 'promiseShares'>;

/** After these, other coffee is left than before. */
const MOVES_STOCK: ReadonlySet<BarEvent['type']> = new Set([
  'brew-served',
  'brew-abandoned',
  'coffee-weighed',
  'event-undone',
]);

export type LearntSettings = {
  shown: () => Bar;
  /** Learns again and says so if something changed. With one pair of hands their pace is that of the person. */
  again: (by?: string) => Promise<void>;
  /** Tells it of an event; after a number of served cups it learns again. */
  happened: (events: readonly BarEvent[]) => Promise<void>;
};

/**
 * @param nothing called if the log could not be learnt from
 * @param changed called when the settings that are shown have changed
 */
export async function openLearntSettings(
  learning: Learning,
  settings: Settings,
  nothing: (error: unknown) => void,
  changed: () => void,
): Promise<LearntSettings> {
  const learn = async (by?: string): Promise<Learnt> => ({
    pace: await learning.pace(by),
    beds: await learning.beds(),
    promiseShares: await learning.promiseShares(),
  });
  // What was learnt is only a help: the bar starts without it.
  let learnt = await learn().catch((error: unknown): Learnt => {
    nothing(error);
    return { pace: {}, beds: {} };
  });
  let stockG = await learning.stock().catch((error: unknown): Record<string, number> => {
    nothing(error);
    return {};
  });
  const weighStock = async () => {
    const next = await learning.stock();
    if (JSON.stringify(next) === JSON.stringify(stockG)) return;
    stockG = next;
    changed();
  };
  let servedSince = 0;
  const again = async (by?: string) => {
    servedSince = 0;
    await weighStock();
    const next = await learn(settings.now().hands === 1 ? by : undefined);
    if (JSON.stringify(next) === JSON.stringify(learnt)) return;
    learnt = next;
    changed();
  };
  return {
    shown: () => ({ ...settings.now(), ...learnt, stockG, version: settings.version() }),
    again,
    happened: async (events) => {
      if (events.some(({ type }) => MOVES_STOCK.has(type))) await weighStock();
      servedSince += events.filter(({ type }) => type === 'brew-served').length;
      if (servedSince >= LEARN_EVERY) await again(events.at(-1)?.by);
    },
  };
}
