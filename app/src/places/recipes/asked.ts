/**
 * The cup that Recipes is asked about. Kept for the page's life, so that the same cup can be looked at in one recipe
 * after another.
 */
import { useSyncExternalStore } from 'react';
import type { Addition, RoastLevel } from '@even-kettle/core/recipe';

export type Lead = 'cup' | 'dose' | 'water' | 'drink';

export type ConverterInput = {
  /** The field that leads, and what was typed into it, in the bar's unit. */
  lead: Lead;
  text: string;
  cups: string;
  /** Null or blank: the recipe's own. */
  ratio: string | null;
  addition: Addition | 'nothing';
  /** Null: the bar's first. */
  coffeeId: string | null;
  /** Null: the coffee's own. */
  roast: RoastLevel | null;
  grinderId: string | null;
  /** Null: the first that fits. */
  brewerId: string | null;
  /** Null or blank: the bar's own, metres. */
  altitude: string | null;
  /** The units that `text` was typed in. */
  unitsKey: string;
  /** The recipe in which ratio, brewer and altitude were tried: a trial in one says nothing of the next. */
  triedIn: string | null;
};

/** What is asked before anybody has typed. */
export const NOTHING_ASKED: ConverterInput = {
  lead: 'cup',
  text: '',
  cups: '1',
  ratio: null,
  addition: 'nothing',
  coffeeId: null,
  roast: null,
  grinderId: null,
  brewerId: null,
  altitude: null,
  unitsKey: '',
  triedIn: null,
};

let asked = NOTHING_ASKED;
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

function change(part: Partial<ConverterInput>): void {
  asked = { ...asked, ...part };
  for (const listener of listeners) listener();
}

/**
 * What is asked of a recipe, in these units; a figure typed in others is dropped for the usual cup, and what was tried in
 * another recipe for this one's own.
 */
export function useConverterInput(
  recipeId: string,
  unitsKey: string,
  usualCup: string,
): [ConverterInput, (part: Partial<ConverterInput>) => void] {
  const now = useSyncExternalStore(subscribe, () => asked);
  const typed = now.unitsKey === unitsKey ? now : { ...now, lead: 'cup' as const, text: usualCup, unitsKey };
  const current =
    typed.triedIn === recipeId
      ? typed
      : { ...typed, ratio: null, brewerId: null, altitude: null, triedIn: recipeId };
  return [current, (part) => change({ ...current, ...part })];
}

/** For tests: as a page that has just been opened. */
export const resetConverterInput = (): void => change(NOTHING_ASKED);
