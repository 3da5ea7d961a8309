/**
 * Which kettle of the bench a brew has: from its filling to its last pour nobody else's water goes into it.
 */
import type { BarState, BrewState } from '../../brew';
import { METHODS, type BrewCard, type RecipeBook } from '../../recipe';
import { kettleFor, waysFor, type Bench, type BenchKettle } from './bench';
import type { AgendaItem } from './agenda';

/** It still has water to come. */
export const stillPours = ({ status, card, marks }: BrewState): boolean =>
  status === 'running' &&
  card.steps.some(
    (step) => (step.pourG !== undefined || step.kind === 'bypass') && marks[step.id]?.doneMs === undefined,
  );

/**
 * The kettle that a waiting cup's water would go into now; undefined where its method needs none, or there is none.
 * @param claimed kettles that are spoken for, though nothing is in them yet
 */
export function freeKettleFor(
  state: BarState,
  bench: Bench,
  card: BrewCard,
  claimed: ReadonlySet<string> = new Set(),
): BenchKettle | undefined {
  if (METHODS[card.method].heatedIn !== 'kettle') return undefined;
  const inUse = new Set(
    Object.values(state.brews)
      .filter(stillPours)
      .map(({ kettleId }) => kettleId),
  );
  const empty = bench.kettles.filter(({ id }) => !inUse.has(id));
  const free = empty.filter(({ id }) => !claimed.has(id));
  const kettles = [free, empty, bench.kettles].find(({ length }) => length > 0) ?? [];
  return kettleFor({ ...bench, kettles }, card);
}

type Waiting = Pick<AgendaItem, 'brewId' | 'brew' | 'card' | 'cup' | 'station' | 'step'>;

/**
 * Names each item's kettle: a running brew's own; for what waits, in the items' order, one that is free. What is asked of
 * a kettle that is smaller or weaker than the one that was reckoned with is worked out for it.
 */
export function withKettles<Item extends Waiting>(
  items: readonly Item[],
  state: BarState,
  bench: Bench,
  book: RecipeBook,
): (Item & { kettle?: BenchKettle | undefined })[] {
  const claimed = new Set<string>();
  const chosen = new Map<string, { kettle: BenchKettle | undefined; card: BrewCard }>();
  const choose = (item: Item) => {
    const kettle = freeKettleFor(state, bench, item.card, claimed);
    if (kettle) claimed.add(kettle.id);
    const choice = { kettle, card: kettle ? cardWith(kettle, item, bench, book) : item.card };
    chosen.set(item.brewId, choice);
    return choice;
  };
  return items.map((item) => {
    const { brew } = item;
    if (brew) return { ...item, kettle: bench.kettles.find(({ id }) => id === brew.kettleId) };
    const { kettle, card } = chosen.get(item.brewId) ?? choose(item);
    const step = card === item.card ? item.step : card.steps.find(({ id }) => id === item.step.id);
    return { ...item, kettle, ...(step ? { card, step } : {}) };
  });
}

function cardWith(kettle: BenchKettle, { card, cup, station }: Waiting, bench: Bench, book: RecipeBook) {
  const reckoned = kettleFor(bench, card);
  const isAlike =
    reckoned?.sizeMl === kettle.sizeMl &&
    reckoned.powerW === kettle.powerW &&
    reckoned.maxFlowGPerS === kettle.maxFlowGPerS;
  if (isAlike) return card;
  const found = waysFor({ ...bench, kettles: [kettle] }, cup, book);
  if (!found.ok) return card;
  return found.ways.find(({ stations }) => stations.some(({ id }) => id === station.id))?.card ?? card;
}
