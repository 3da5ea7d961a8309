/**
 * Accepting the advice of a brew: the new value for the coffee, and the event that records it, in one transaction.
 */
import type { BarEvent, BarState } from '@even-kettle/core/brew';
import type { TakeAdvice } from '@even-kettle/core/contract';
import { coffeesWithChange, isKept } from '@even-kettle/core/learn';
import type { Learning } from '../learnt';
import type { Appended } from '../store/log';
import type { EntityManager } from 'typeorm';
import type { Settings, Staged } from './settings';

export type AdviceTaken =
  | { ok: true }
  | { ok: false; why: 'no-such-brew' | 'advice-changed' | 'not-on-the-bench' | 'in-use'; reason: string }
  | { ok: false; why: 'refused'; refused: Extract<Appended, { ok: false }>['refused'] };

/** The longest text that the event keeps. */
const lineOf = (words: string): string => words.slice(0, 200).trim();

const NO_SUCH_BREW = 'There is no finished brew of this id in the log.';
const ADVICE_CHANGED = 'The record advises something else by now. Look at the brew again.';
const NOT_ON_THE_BENCH = 'This coffee or its grinder is not on the bench now. Set it by hand.';

/** Thrown if the settings cannot be changed now, so that nothing of the command is stored. */
class NotNow extends Error {}

type Parts = {
  state: () => BarState;
  learning: Learning;
  settings: Settings;
  /** Appends an event, and writes more in the same transaction. */
  append: (event: BarEvent, beside: (writer: EntityManager) => Promise<void>) => Promise<Appended>;
};

export const adviceTaker =
  ({ state, learning, settings, append }: Parts) =>
  async (brewId: string, { words, ...signed }: TakeAdvice): Promise<AdviceTaken> => {
    // Sent again because the answer to the first request was lost.
    if (state().houseEvents?.some(({ id }) => id === signed.id)) return { ok: true };
    const page = await learning.brew(brewId);
    if (!page) return { ok: false, why: 'no-such-brew', reason: NO_SUCH_BREW };
    const { record, advice } = page;
    const change = advice?.kind === 'change' && lineOf(advice.words) === words ? advice.change : null;
    const grinder = settings.now().grinders.find(({ id }) => id === record.grind?.grinderId);
    const keeping = () =>
      change && isKept(change) ? coffeesWithChange(settings.now().coffees, record, change, grinder) : null;
    if (change && isKept(change) && !keeping())
      return { ok: false, why: 'not-on-the-bench', reason: NOT_ON_THE_BENCH };
    let staged: Extract<Staged, { ok: true }> | null = null;
    const event: BarEvent = {
      ...signed,
      type: 'change-tried',
      coffee: record.coffee,
      recipeId: record.recipeId,
      fromBrewId: record.brewId,
      words,
      ...(change?.what === 'grind' && change.expect
        ? { expectS: change.expect.brewS, plusMinusS: change.expect.plusMinusS }
        : {}),
    };
    try {
      const appended = await append(event, async (writer) => {
        if (!change) throw new NotNow(ADVICE_CHANGED);
        const coffees = keeping();
        if (!coffees) return;
        const now = settings.stage({ coffees });
        if (!now.ok) throw new NotNow(now.reason);
        await now.write(writer);
        staged = now;
      });
      if (!appended.ok) return { ok: false, why: 'refused', refused: appended.refused };
      (staged as Extract<Staged, { ok: true }> | null)?.commit();
      return { ok: true };
    } catch (error) {
      if (!(error instanceof NotNow)) throw error;
      return { ok: false, why: change ? 'in-use' : 'advice-changed', reason: error.message };
    }
  };
