/**
 * What screens see of the bar: one object that is replaced with every change, and those who are told of it.
 */
import { EMPTY_BAR, type BarState } from '@even-kettle/core/brew';
import type { Bar, Me, PublishedPlan, StorageState } from '@even-kettle/core/contract';
import type { Plan } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf, latestOf, withSaved, type Recipe, type RecipeBook } from '@even-kettle/core/recipe';
import type { Link } from './live';

export type Notice = { id: string; text: string };

/** A change of what was planned next. */
export type PlanChange = Pick<PublishedPlan, 'moves' | 'because'> & { atMs: number };

export type BarView = {
  status: 'loading' | 'ready' | 'unreachable';
  link: Link;
  state: BarState;
  bar: Bar | null;
  /** The latest of each recipe, shipped or saved on this bar. */
  recipes: Recipe[];
  /** Every version that a cup or brew may name. */
  book: RecipeBook;
  plan: Plan | null;
  /** About when each order is out that waits behind those that are planned, seconds of bar time. */
  rough: Record<string, number>;
  /** Cups that cannot be brewed as the bench stands, and why. */
  unplannable: PublishedPlan['unplannable'];
  /** Room on the server's disk. */
  storage: StorageState;
  /** What of the next steps was planned anew last, and why. */
  change: PlanChange | null;
  /** What a page must know to show the bar truly, as the server says it (`CONTRACT_VERSION`). */
  contract: number;
  /** Who the server takes this device for; null until it has said so. */
  me: Me | null;
  /** Why the bar is not shown to this device: it is not paired, it was taken off, or it is for something else than the bar. */
  shut: 'not-paired' | 'revoked' | 'other-role' | null;
  /** Taps that wait to be stored at the server. */
  waiting: number;
  /** What was refused, and why, until it has been read. */
  refusals: Notice[];
  /** The latest tap here, while it can be taken back from the hands card. */
  undoable: { eventIds: string[]; label: string; untilRealMs: number } | null;
};

export type ViewHolder = {
  now: () => BarView;
  show: (change: Partial<BarView>) => void;
  subscribe: (listener: () => void) => () => void;
  /** Recipes that were saved on this bar, besides those that ship. */
  saved: () => Recipe[];
  takeRecipes: (recipes: Recipe[]) => void;
  /** Says something that stays until it has been read; the last three do. */
  tell: (text: string) => void;
};

export const NOTHING_LOADED: BarView = {
  status: 'loading',
  link: 'connecting',
  state: EMPTY_BAR,
  bar: null,
  recipes: latestOf(SCHOOLS),
  book: bookOf(SCHOOLS),
  plan: null,
  rough: {},
  unplannable: [],
  storage: { level: 'enough', freeMb: null },
  change: null,
  contract: 0,
  me: null,
  shut: null,
  waiting: 0,
  refusals: [],
  undoable: null,
};

/** @param changed is told of every change, before anybody draws it */
export function openView(newId: () => string, changed: (change: Partial<BarView>) => void): ViewHolder {
  const listeners = new Set<() => void>();
  let saved: Recipe[] = [];
  let view = NOTHING_LOADED;
  const show = (change: Partial<BarView>) => {
    view = { ...view, ...change };
    changed(change);
    for (const listener of listeners) listener();
  };
  return {
    now: () => view,
    show,
    subscribe: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    saved: () => saved,
    takeRecipes: (recipes) => {
      saved = recipes;
      const all = withSaved(saved);
      show({ recipes: latestOf(all), book: bookOf(all) });
    },
    tell: (text) => show({ refusals: [...view.refusals, { id: newId(), text }].slice(-3) }),
  };
}
