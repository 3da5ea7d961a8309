/**
 * When an order from outside would be out if it were taken now: worked out in a worker thread of its own, as the form's quotes
 * are in the page's.
 */
import { forgetClosed, type BarState, type CupAsk, type InQueue } from '@even-kettle/core/brew';
import { quoteOrder, standingPlan, type Bench, type Plan, type Quote } from '@even-kettle/core/plan';
import { SCHOOLS, bookOf, type Recipe, type RecipeBook } from '@even-kettle/core/recipe';
import { workerJobs } from './worker-jobs';

export type QuoteAsked = {
  state: BarState;
  bench: Bench;
  /** The recipes of the cups that wait and of those that are asked for. */
  recipes: Recipe[];
  nowMs: number;
  plan: Plan | null;
  cups: CupAsk[];
  queue: InQueue;
};

export type Quoter = {
  /** Null where it could not be worked out in time. */
  quote: (asked: Omit<QuoteAsked, 'recipes'>, book: RecipeBook) => Promise<Quote | null>;
  close: () => Promise<void>;
};

/** An order is taken without its times rather than wait longer, real milliseconds. */
const WITHIN_MS = 4000;

/** @param failed told why a quote could not be worked out */
export function workerQuoter(file: URL, failed: (error: unknown) => void, withinMs = WITHIN_MS): Quoter {
  const jobs = workerJobs<QuoteAsked, Quote>(file, 'quoter');
  return {
    quote: (asked, book) =>
      jobs.ask(withRecipes(asked, book), withinMs).catch((error: unknown) => {
        failed(error);
        return null;
      }),
    close: jobs.close,
  };
}

/** Only what the answer depends on goes to the worker, since all of it is copied. */
function withRecipes({ state, ...asked }: Omit<QuoteAsked, 'recipes'>, book: RecipeBook): QuoteAsked {
  // What was got ready is used up by closed orders too.
  const isReady = state.houseEvents?.some(({ type }) => type === 'made-ready');
  const open = isReady ? state : forgetClosed(state, asked.nowMs);
  const refs = [...asked.cups, ...Object.values(open.orders).flatMap(({ cups }) => cups)];
  const recipes = new Set(refs.flatMap((ref) => book(ref) ?? []));
  return { ...asked, state: open, recipes: [...recipes] };
}

/** @returns when the order would be out, or why it cannot be taken */
export function quoteHere({ state, bench, recipes, nowMs, plan, cups, queue }: QuoteAsked): Quote {
  const book = bookOf([...SCHOOLS, ...recipes]);
  const standing = { state, bench, book, nowS: Math.ceil(nowMs / 1000), plan };
  return quoteOrder(standing, standingPlan(standing), cups, undefined, queue);
}

/** Works it out in this thread, for tests and for a bar that has no worker. */
export const quoterHere: Quoter = {
  quote: (asked, book) => Promise.resolve(quoteHere(withRecipes(asked, book))),
  close: () => Promise.resolve(),
};
