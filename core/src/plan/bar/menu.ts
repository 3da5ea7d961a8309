/**
 * What a bar offers, and why a line of its menu is off just now.
 */
import type { BarState, CupAsk } from '../../brew';
import type { Recipe, RecipeBook } from '../../recipe';
import { cardFor, type Bench } from './bench';

/** Coffee by a recipe, in some sizes. */
export type MenuLine = {
  id: string;
  coffeeId: string;
  recipeId: string;
  /** Offered sizes, ml; the first is what is meant where nothing is said. */
  sizesMl: number[];
  /** Sold out, or not offered today. */
  off?: boolean | undefined;
  /** Offered only before this time of the day, "11:00". */
  before?: string | undefined;
};

/** What the menu needs to know of the bar. */
export type MenuBar = Omit<Bench, 'coffees'> & {
  coffees: (NonNullable<Bench['coffees']>[number] & { id: string; roast: CupAsk['roast'] })[];
  menu?: MenuLine[] | undefined;
  stockG?: Record<string, number> | undefined;
};

export type OnMenu = {
  line: MenuLine;
  coffee: string;
  recipe: Recipe;
  /** Doses of its coffee that are left, where its stock is known. */
  dosesLeft: number | null;
  /** Why it is not offered just now; null where it is. */
  off: 'sold out' | 'no coffee left' | 'only before' | 'no station' | null;
};

/** Fewer doses than this are worth a word. */
export const FEW_DOSES = 3;

/**
 * The lines of the menu as they stand now; one whose coffee or recipe is gone is left out.
 * @param minuteOfDay minutes since local midnight
 */
export function menuNow(
  bar: MenuBar,
  recipes: readonly Recipe[],
  book: RecipeBook,
  state: BarState,
  minuteOfDay: number,
): OnMenu[] {
  return (bar.menu ?? []).flatMap((line) => {
    const coffee = bar.coffees.find(({ id }) => id === line.coffeeId);
    const recipe = recipes.find(({ id }) => id === line.recipeId);
    if (!coffee || !recipe) return [];
    const cup: CupAsk = {
      cupId: line.id,
      recipeId: recipe.id,
      recipeVersion: recipe.version,
      coffee: coffee.name,
      roast: coffee.roast,
      cupMl: line.sizesMl[0] ?? 0,
    };
    const found = cardFor(bar, cup, book);
    const leftG = coffeeLeftG(bar, book, state, coffee.name);
    const doses = leftG === null || !found.ok ? null : Math.max(0, Math.floor(leftG / found.card.doseG));
    return [
      {
        line,
        coffee: coffee.name,
        recipe,
        dosesLeft: doses,
        off: offBecause(line, found.ok, doses, minuteOfDay),
      },
    ];
  });
}

function offBecause(
  { off, before }: MenuLine,
  canBrew: boolean,
  dosesLeft: number | null,
  minuteOfDay: number,
): OnMenu['off'] {
  if (off) return 'sold out';
  if (!canBrew) return 'no station';
  if (dosesLeft === 0) return 'no coffee left';
  return before !== undefined && minuteOfDay >= minutesOf(before) ? 'only before' : null;
}

const minutesOf = (time: string): number => {
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  return hours * 60 + minutes;
};

/**
 * What is left of a coffee once everything that is ordered has been brewed, grams; null where its stock was never weighed.
 * The stock that the log knows has brews off it as they are over.
 */
function coffeeLeftG(bar: MenuBar, book: RecipeBook, state: BarState, coffee: string): number | null {
  const stockG = bar.stockG?.[coffee];
  if (stockG === undefined) return null;
  const running = Object.values(state.brews)
    .filter(({ status, ask }) => status === 'running' && ask.coffee === coffee)
    .reduce((sum, brew) => sum + (brew.doseG ?? brew.card.doseG), 0);
  const waiting = Object.values(state.orders)
    .flatMap(({ cups }) => cups)
    .filter((cup) => cup.status === 'waiting' && !cup.with && cup.coffee === coffee)
    .reduce((sum, cup) => {
      const found = cardFor(bar, cup, book);
      return sum + (found.ok ? found.card.doseG : 0);
    }, 0);
  return stockG - running - waiting;
}
