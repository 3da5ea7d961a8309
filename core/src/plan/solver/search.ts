/**
 * Looks for the bar's best timetable: simulated annealing over the sequences in which hands and tools are used, each
 * with its best times (`timing`). A move takes brews out and lets them choose anew at a price for over-booked hands
 * (`board`), or shifts what is planned by hand's breadths; `timing` makes a plan of what comes out, or there is none.
 */
import { draftOf } from './draft';
import { seededRandom } from './random';
import type { Tables } from './tables';
import { timingOf } from './timing';
import { searchMoves } from './search-moves';

export type Search = {
  /** Goes on for so many moves. */
  run: (moves: number) => void;
  best: () => { start: Int32Array; cost: number };
  /** The plan that it began with, in which nothing was looked for. */
  first: Int32Array;
};

/** So dear that nothing is over-booked for any wait or lateness. */
const NEVER_OVERBOOK = 1e9;
/** Annealing starts by taking plans so much dearer, or by this share of the cost where that is more, and ends so. */
const HOT = 15;
const HOT_SHARE = 0.006;
const HOTTEST = 300;
const COLD = 1;
/** Constructions of which the best begins a cycle; moves of the first cycle, by brew. Each pair of cycles is longer than the one before. */
const CONSTRUCTIONS = 6;
const FIRST_CYCLE = 45;
const LONGER = 1.7;

/**
 * A search that has its first plan. The same tables, seed and number of moves give the same plan.
 * @param before the last plan: starts by step number, NEVER where it has none
 * @param running starts that suit the brews that have begun, the rest aside, to build around
 */
// eslint-disable-next-line max-lines-per-function -- one search over shared arrays; its parts are the functions within
export function startSearch(
  t: Tables,
  seed: number,
  before: Int32Array | null,
  running: Int32Array | null = null,
): Search {
  const random = seededRandom(seed);
  const draft = draftOf(t, random, running);
  const timing = timingOf(t);
  const { open } = draft;
  const current = new Int32Array(t.steps);
  const next = new Int32Array(t.steps);
  const bestStart = new Int32Array(t.steps);
  const firstStart = new Int32Array(t.steps);
  let currentCost = Infinity;
  let bestCost = Infinity;
  const makeMove = searchMoves(t, random, draft, current, next);

  const keepBest = (start: Int32Array, cost: number) => {
    if (cost >= bestCost - 1e-9) return;
    bestCost = cost;
    bestStart.set(start);
  };

  /** Turns the wish into the best plan of its sequence; Infinity where there is none. */
  function planOfNext(): number {
    return timing.settle(next) ? timing.perfect(next) : Infinity;
  }

  function takeBest(): void {
    current.set(bestStart);
    currentCost = bestCost;
  }

  function takeNext(cost: number): void {
    current.set(next);
    currentCost = cost;
    draft.stale();
    keepBest(next, cost);
  }

  /** A valid plan, whatever happens: nothing over-booked. What its sequence gives is known to be valid, and goes before it. */
  function first(): void {
    draft.construct(NEVER_OVERBOOK, draft.priority(1, 0), true);
    firstStart.set(draft.start);
    next.set(firstStart);
    keepBest(next, planOfNext());
    if (bestCost === Infinity) keepBest(firstStart, timing.costOf(firstStart));
    if (!before) return;
    const hasNew = warm(before, draft.dearest);
    // The best place for what is new may push the rest about; then one that leaves the rest alone is better.
    if (hasNew) warm(before, NEVER_OVERBOOK);
  }

  function warm(last: Int32Array, price: number): boolean {
    const hasNew = draft.warm(last, price);
    next.set(draft.start);
    keepBest(next, planOfNext());
    return hasNew;
  }

  function beginCycle(cycle: number): void {
    // Every other cycle goes on from the best there is, the rest from something new.
    if (cycle % 2 === 1 || (cycle === 0 && before !== null)) {
      takeBest();
    } else {
      currentCost = Infinity;
      for (let n = 0; n < CONSTRUCTIONS; n += 1) {
        draft.construct(
          15 * Math.pow(draft.dearest / 32, random()),
          draft.priority(random(), 300 * random()),
          random() < 0.5,
        );
        next.set(draft.start);
        const cost = planOfNext();
        keepBest(next, cost);
        if (cost < currentCost) {
          current.set(next);
          currentCost = cost;
        }
      }
      if (currentCost === Infinity) {
        takeBest();
      }
    }
    draft.stale();
  }

  /** What easing has gained lately: no plan that would need more is worth easing. */
  let gain = 300;
  function tryMove(temperature: number): void {
    makeMove();
    if (!timing.settle(next)) return;
    const most = currentCost - temperature * Math.log(random() + 1e-12);
    const soonest = timing.costOf(next);
    if (soonest - gain > most) return;
    const cost = timing.perfect(next);
    gain = Math.max(gain * 0.98, soonest - cost);
    if (cost > most) return;
    takeNext(cost);
  }

  first();
  let cycle = -1;
  let moved = 0;
  let length = 0;
  return {
    run: (moves) => {
      if (open.length === 0) return;
      for (let n = 0; n < moves; n += 1) {
        if (moved >= length) {
          cycle += 1;
          moved = 0;
          length = Math.ceil(FIRST_CYCLE * open.length * Math.pow(LONGER, cycle >> 1));
          beginCycle(cycle);
        }
        // What a moved promise adds is no measure of what plans differ by, hence the most.
        const hot = Math.min(HOTTEST, Math.max(HOT, HOT_SHARE * bestCost));
        tryMove(hot * Math.pow(COLD / hot, moved / length));
        moved += 1;
      }
    },
    best: () => ({ start: bestStart, cost: bestCost }),
    first: firstStart,
  };
}
