/**
 * Looks for the bar's best timetable: simulated annealing over the sequences in which hands and tools are used, each
 * with its best times (`timing`). A move takes brews out and lets them choose anew at a price for over-booked hands
 * (`board`), or shifts what is planned by hand's breadths; `timing` makes a plan of what comes out, or there is none.
 */
import { alone, mayJoin, type Mates } from './batches';
import { draftOf } from './draft';
import { joinsOf, type Timetable } from './joins';
import { seededRandom } from './random';
import type { Tables } from './tables';
import { timingOf } from './timing';
import { searchMoves } from './search-moves';

export type Search = {
  /** Goes on for so many moves. */
  run: (moves: number) => void;
  best: () => Timetable & { cost: number };
  /** The plan that it began with, in which nothing was looked for. */
  first: Timetable;
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
/** How many of the moves are about what is done together, where anything may be. */
const JOINING = 0.1;

/**
 * A search that has its first plan. The same tables, seed and number of moves give the same plan.
 * @param before the last plan: starts by step number, NEVER where it has none; what was to be done together
 * @param running starts that suit the brews that have begun, the rest aside, to build around
 */
// eslint-disable-next-line max-lines-per-function -- one search over shared arrays; its parts are the functions within
export function startSearch(
  t: Tables,
  seed: number,
  before: Timetable | null,
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
  const joins = joinsOf(t, random);
  const apart = alone(t);
  const currentMates = alone(t);
  const nextMates = alone(t);
  const bestMates = alone(t);
  const currentPlan: Timetable = { start: current, mates: currentMates };
  const nextPlan: Timetable = { start: next, mates: nextMates };
  let currentCost = Infinity;
  let bestCost = Infinity;
  /** Whether the neighbours of a kind have been tried together in the best plan. */
  let isJoined = false;
  const makeMove = searchMoves(t, random, draft, currentPlan, nextPlan);

  const keepBest = (start: Int32Array, mates: Mates, cost: number) => {
    if (cost >= bestCost - 1e-9) return;
    bestCost = cost;
    bestStart.set(start);
    bestMates.set(mates);
    isJoined = false;
  };

  /** Turns the wish into the best plan of its sequence; Infinity where there is none. */
  function planOfNext(): number {
    return timing.settle(next, nextMates) ? timing.perfect(next) : Infinity;
  }

  /** Tries neighbours of a kind together in the best plan, each once: the later sooner, and the sooner later. */
  function joinNeighbours(): void {
    if (isJoined) return;
    for (const [i, j] of joins?.neighbours({ start: bestStart, mates: bestMates }) ?? [])
      for (const [one, other] of [
        [i, j],
        [j, i],
      ] as const) {
        if (!mayJoin(t, bestMates, one, other)) break;
        next.set(bestStart);
        nextMates.set(bestMates);
        joins!.bring(nextPlan, one, other);
        keepBest(next, nextMates, planOfNext());
      }
    isJoined = true;
  }

  function takeBest(): void {
    current.set(bestStart);
    currentMates.set(bestMates);
    currentCost = bestCost;
  }

  function takeNext(cost: number): void {
    current.set(next);
    currentMates.set(nextMates);
    currentCost = cost;
    draft.stale();
    keepBest(next, nextMates, cost);
  }

  /** A valid plan, whatever happens: nothing over-booked. What its sequence gives is known to be valid, and goes before it. */
  function first(): void {
    draft.construct(NEVER_OVERBOOK, draft.priority(1, 0), true, false);
    firstStart.set(draft.start);
    next.set(firstStart);
    keepBest(next, apart, planOfNext());
    if (bestCost === Infinity) keepBest(firstStart, apart, timing.costOf(firstStart));
    if (joins) {
      draft.construct(NEVER_OVERBOOK, draft.priority(1, 0), true, true);
      next.set(draft.start);
      nextMates.set(draft.mates);
      keepBest(next, nextMates, planOfNext());
    }
    if (before) {
      draft.warm(before);
      next.set(draft.start);
      nextMates.set(draft.mates);
      keepBest(next, nextMates, planOfNext());
    }
    joinNeighbours();
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
          true,
        );
        next.set(draft.start);
        nextMates.set(draft.mates);
        const cost = planOfNext();
        keepBest(next, nextMates, cost);
        if (cost < currentCost) {
          current.set(next);
          currentMates.set(nextMates);
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
    if (joins) nextMates.set(currentMates);
    if (joins && random() < JOINING) {
      next.set(current);
      joins.move(nextPlan);
    } else {
      makeMove();
      joins?.follow(nextPlan, current);
    }
    if (!timing.settle(next, nextMates)) return;
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
      joinNeighbours();
    },
    best: () => ({ start: bestStart, mates: bestMates, cost: bestCost }),
    first: { start: firstStart, mates: apart },
  };
}
