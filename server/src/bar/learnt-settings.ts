/**
 * The settings as they are shown and planned with: the bar's own, with what the log has taught of its people and coffees.
 * That is never stored.
 */
import type { BarEvent } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import type { Learning } from '../learnt';
import type { Settings } from './settings';

/** Hands' pace and what beds do are learnt anew after so many cups. */
const LEARN_EVERY = 10;

type Learnt = Pick<Bar, 'pace' | 'beds' | 'promiseShare'>;

export type LearntSettings = {
  shown: () => Bar;
  /** Learns anew and says so where something is another; the hands are those of the person, where there is one pair. */
  again: (by?: string) => Promise<void>;
  /** What has happened: now and then it is worth learning again. */
  happened: (events: readonly BarEvent[]) => Promise<void>;
};

/**
 * @param nothing what to do where the log could not be learnt from
 * @param changed whoever shows the settings
 */
export async function openLearntSettings(
  learning: Learning,
  settings: Settings,
  nothing: (error: unknown) => void,
  changed: () => void,
): Promise<LearntSettings> {
  const learn = async (by?: string): Promise<Learnt> => {
    const promiseShare = await learning.promiseShare();
    return {
      pace: await learning.pace(by),
      beds: await learning.beds(),
      ...(promiseShare === null ? {} : { promiseShare }),
    };
  };
  // What was learnt is a help, and no reason not to start.
  let learnt = await learn().catch((error: unknown): Learnt => {
    nothing(error);
    return { pace: {}, beds: {} };
  });
  let servedSince = 0;
  const again = async (by?: string) => {
    servedSince = 0;
    const next = await learn(settings.now().hands === 1 ? by : undefined);
    if (JSON.stringify(next) === JSON.stringify(learnt)) return;
    learnt = next;
    changed();
  };
  return {
    shown: () => ({ ...settings.now(), ...learnt, version: settings.version() }),
    again,
    happened: async (events) => {
      servedSince += events.filter(({ type }) => type === 'brew-served').length;
      if (servedSince >= LEARN_EVERY) await again(events.at(-1)?.by);
    },
  };
}
