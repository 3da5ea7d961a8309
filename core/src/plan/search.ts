/**
 * Looks for the bar's best timetable: simulated annealing over the sequences in which hands and tools are used, each
 * with its best times (`timing`). A move takes brews out and lets them choose anew at a price for over-booked hands
 * (`board`), or shifts what is planned by hand's breadths; `timing` makes a plan of what comes out, or there is none.
 */
import { boardOf } from './board';
import { seededRandom } from './random';
import { range } from './sequence';
import { NEVER, type Tables } from './tables';
import { timingOf } from './timing';

export type Search = {
  /** Goes on for so many moves. */
  run: (moves: number) => void;
  best: () => { start: Int32Array; cost: number };
  /** The starts of the plan that it began with, in which nothing was looked for. */
  first: Int32Array;
};

/** So dear that nothing is over-booked for any wait or lateness. */
const NEVER_OVERBOOK = 1e9;
/** A second of over-booked hands costs from the first to the second of these in a move; a tool's half as much. */
const PRICES = [4, 160] as const;
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
 * @param before starts of the last plan by step number, NEVER where it has none
 * @param running starts that suit the brews that have begun, the rest aside, to build around
 */
export function startSearch(
  t: Tables,
  seed: number,
  before: Int32Array | null,
  running: Int32Array | null = null,
): Search {
  const random = seededRandom(seed);
  const whole = (below: number) => Math.floor(random() * below);
  const board = boardOf(t);
  const timing = timingOf(t);
  const open = range(t.brews).filter((b) => t.next[b]! < t.first[b + 1]!);
  const free = range(t.steps).filter((i) => i >= t.next[t.brewOf[i]!]!);
  const lengthS = range(t.brews).map((b) => sum(t, b, () => true, true));
  const handsS = range(t.brews).map((b) => sum(t, b, (i) => t.attended[i] === 1, false));
  // An order that counts many times would rather over-book than wait, unless that is as much dearer.
  const dearest = PRICES[1] * Math.max(1, ...t.orders.map(({ weight }) => weight));
  const isBegun = (b: number) => t.next[b]! > t.first[b]!;
  const hasFrozen = (b: number) => range(t.steps).some((i) => t.brewOf[i] === b && t.frozen[i] !== NEVER);
  /** What runs goes first, since it can give way least; then what is promised to start. */
  const bound = open
    .filter((b) => isBegun(b) || hasFrozen(b))
    .sort((a, b) => Number(isBegun(b)) - Number(isBegun(a)) || t.soonest[a]! - t.soonest[b]!);

  const current = new Int32Array(t.steps);
  const next = new Int32Array(t.steps);
  const bestStart = new Int32Array(t.steps);
  const firstStart = new Int32Array(t.steps);
  let currentCost = Infinity;
  let bestCost = Infinity;
  let boardIsCurrent = false;

  const keepBest = (start: Int32Array, cost: number) => {
    if (cost >= bestCost - 1e-9) return;
    bestCost = cost;
    bestStart.set(start);
  };

  function liftAll(): void {
    for (const b of open) if (board.finish[b] !== NEVER) board.lift(b);
  }

  function placeOrThrow(b: number, price: number, from: number, to: number): void {
    const prices = { hands: price, tool: price / 2 };
    if (!board.place(b, prices, from, to) && !board.place(b, prices, 0, t.horizon))
      throw new Error(`${t.problem.brews[b]!.id}: no place in sight; the horizon is too short.`);
    board.put(b);
  }

  function putAt(starts: Int32Array, brews: readonly number[]): void {
    for (const b of brews) {
      for (let i = t.next[b]!; i < t.first[b + 1]!; i += 1) board.start[i] = Math.max(0, starts[i]!);
      board.put(b);
    }
  }

  /** The end of the last step that is planned. */
  function endOfAll(start: Int32Array): number {
    let end = 0;
    for (const b of open) {
      const i = t.first[b + 1]! - 1;
      if (board.finish[b] !== NEVER) end = Math.max(end, start[i]! + t.duration[i]!);
    }
    return end;
  }

  /** Places every brew in turn: what runs, then order by order. */
  function construct(price: number, orders: number[], aroundRunning: boolean): void {
    liftAll();
    if (running && aroundRunning) putAt(running, open.filter(isBegun));
    let end = endOfAll(board.start);
    const place = (b: number) => {
      if (board.finish[b] !== NEVER || t.next[b] === t.first[b + 1]) return;
      placeOrThrow(b, price, 0, Math.max(end, t.soonest[b]!) + lengthS[b]! + 900);
      const last = t.first[b + 1]! - 1;
      end = Math.max(end, board.start[last]! + t.duration[last]!);
    };
    bound.forEach(place);
    for (const o of orders) t.orders[o]!.brews.toSorted((a, b) => lengthS[b]! - lengthS[a]!).forEach(place);
    boardIsCurrent = false;
  }

  /** Orders by how soon they should be out: a mixture of promise, work and length, and some noise. */
  function priority(share: number, noise: number): number[] {
    const key = t.orders.map((order) => {
      const soonest = Math.max(...order.brews.map((b) => lengthS[b]! + t.soonest[b]!));
      const work = order.brews.reduce((all, b) => all + handsS[b]!, 0) / Math.max(0.1, order.weight);
      return share * order.dueAt + (1 - share) * soonest + 0.7 * work + noise * (random() - 0.5);
    });
    return range(t.orders.length).sort((a, b) => key[a]! - key[b]!);
  }

  /** Turns a wish into the best plan of its sequence; Infinity where there is none. */
  function planOf(start: Int32Array): number {
    return timing.settle(start) ? timing.perfect(start) : Infinity;
  }

  /** A valid plan, whatever happens: nothing over-booked. */
  function first(): void {
    construct(NEVER_OVERBOOK, priority(1, 0), true);
    next.set(board.start);
    keepBest(next, timing.costOf(next));
    firstStart.set(next);
    keepBest(next, planOf(next));
    if (before) {
      warm(before);
      next.set(board.start);
      keepBest(next, planOf(next));
    }
  }

  /** The last plan, with what is new or has become impossible placed anew. */
  function warm(starts: Int32Array): void {
    liftAll();
    const placed = open.filter((b) =>
      range(t.first[b + 1]! - t.next[b]!).every((n) => starts[t.next[b]! + n] !== NEVER),
    );
    putAt(starts, placed);
    for (const b of open) if (board.finish[b] === NEVER) placeOrThrow(b, dearest, 0, t.horizon);
    boardIsCurrent = false;
  }

  function beginCycle(cycle: number): void {
    // Every other cycle goes on from the best there is, the rest from something new.
    if (cycle % 2 === 1 || (cycle === 0 && before !== null)) {
      current.set(bestStart);
      currentCost = bestCost;
    } else {
      currentCost = Infinity;
      for (let n = 0; n < CONSTRUCTIONS; n += 1) {
        construct(15 * Math.pow(dearest / 32, random()), priority(random(), 300 * random()), random() < 0.5);
        next.set(board.start);
        const cost = planOf(next);
        keepBest(next, cost);
        if (cost < currentCost) {
          current.set(next);
          currentCost = cost;
        }
      }
      if (currentCost === Infinity) {
        current.set(bestStart);
        currentCost = bestCost;
      }
    }
    boardIsCurrent = false;
  }

  function showCurrentOnBoard(): void {
    if (boardIsCurrent) return;
    liftAll();
    board.start.set(current);
    for (const b of open) board.put(b);
    boardIsCurrent = true;
  }

  /** Lets brews choose anew, one after another. */
  function choose(brews: number[], anywhere: boolean): void {
    showCurrentOnBoard();
    const end = endOfAll(current);
    const from = Math.min(...brews.map((b) => current[t.next[b]!]!));
    const price = PRICES[0] * Math.pow(dearest / PRICES[0], random());
    for (const b of brews) board.lift(b);
    for (const b of brews) {
      const wide = anywhere || random() < 0.1;
      const reach = from + lengthS[b]! + (brews.length > 1 ? 400 : 200);
      placeOrThrow(b, price, wide ? 0 : Math.max(0, from - 200), wide ? end + 300 : reach);
    }
    next.set(board.start);
    // The board goes back to what stands; whether this is better is seen later.
    for (const b of brews) board.lift(b);
    board.start.set(current);
    for (const b of brews) board.put(b);
  }

  const finishOf = (b: number) => current[t.serve[b]!]!;
  const near = (b: number) =>
    open
      .filter((other) => other !== b)
      .sort((a, c) => Math.abs(finishOf(a) - finishOf(b)) - Math.abs(finishOf(c) - finishOf(b)));

  const MOVES: [share: number, move: () => void][] = [
    [0.1, shiftBrew],
    [0.15, shiftStep],
    [0.35, swapNeighbours],
    [0.08, () => choose([anyOf(open)], false)],
    [0.04, () => choose(shuffled(t.orders[anyOf(t.ordersOf[anyOf(open)]!)]!.brews.filter(isOpen)), false)],
    [0.08, choosePair],
    [0.16, moveOrder],
    [0.04, chooseNear],
  ];
  const isOpen = (b: number) => t.next[b]! < t.first[b + 1]!;
  function anyOf<Item>(items: readonly Item[]): Item {
    return items[whole(items.length)]!;
  }

  function choosePair(): void {
    const b = anyOf(open);
    const others = near(b);
    // The nearer in time, the likelier.
    const other = others[Math.floor(random() * random() * others.length)];
    choose(shuffled(other === undefined ? [b] : [b, other]), false);
  }

  function chooseNear(): void {
    const b = anyOf(open);
    choose(shuffled([b, ...near(b).slice(0, 2 + whole(4))]), true);
  }

  /** An order goes before, or after, up to three others that are out just before it. */
  function moveOrder(): void {
    const out = (o: number) => Math.max(...t.orders[o]!.brews.map(finishOf));
    const orders = range(t.orders.length)
      .filter((o) => t.orders[o]!.brews.some(isOpen))
      .sort((a, b) => out(a) - out(b));
    if (orders.length < 2) return choose([anyOf(open)], true);
    const at = 1 + whole(orders.length - 1);
    const from = at - 1 - whole(Math.min(3, at));
    const sequence =
      random() < 0.5
        ? [orders[at]!, ...orders.slice(from, at)]
        : [...orders.slice(from + 1, at + 1), orders[from]!];
    const noise = range(t.brews).map(() => 60 * (random() - 0.5));
    const brews = sequence.flatMap((o) =>
      t.orders[o]!.brews.filter(isOpen).sort((a, b) => lengthS[b]! + noise[b]! - lengthS[a]! - noise[a]!),
    );
    choose([...new Set(brews)], true);
  }

  function shiftBrew(): void {
    const b = anyOf(open);
    const by = (random() < 0.5 ? -1 : 1) * Math.round(5 + random() * random() * 300);
    next.set(current);
    for (let i = t.next[b]!; i < t.first[b + 1]!; i += 1) next[i] = Math.max(0, next[i]! + by);
  }

  function shiftStep(): void {
    const i = anyOf(free);
    const by = (random() < 0.5 ? -1 : 1) * Math.round(5 + random() * 60);
    const end = random() < 0.5 ? t.first[t.brewOf[i]! + 1]! : i + 1;
    next.set(current);
    for (let j = i; j < end; j += 1) next[j] = Math.max(0, next[j]! + by);
  }

  /** A step and the next one of another brew change places; or the step and all after it in its brew go behind that one. */
  function swapNeighbours(): void {
    next.set(current);
    const i = anyOf(free);
    if (!t.attended[i]) return;
    const middle = 2 * current[i]! + t.duration[i]!;
    let j = -1;
    let nearest = Infinity;
    for (const other of free) {
      if (!t.attended[other] || t.brewOf[other] === t.brewOf[i]) continue;
      const its = 2 * current[other]! + t.duration[other]!;
      if (its > middle && its < nearest) {
        nearest = its;
        j = other;
      }
    }
    if (j < 0) return;
    if (random() < 0.5) {
      next[j] = current[i]!;
      next[i] = current[i]! + t.duration[j]!;
      return;
    }
    const by = current[j]! + t.duration[j]! - current[i]!;
    for (let k = i; k < t.first[t.brewOf[i]! + 1]!; k += 1) next[k]! += by;
  }

  function shuffled(brews: number[]): number[] {
    const out = [...brews];
    for (let n = out.length - 1; n > 0; n -= 1) {
      const other = whole(n + 1);
      [out[n], out[other]] = [out[other]!, out[n]!];
    }
    return out;
  }

  /** What easing has gained lately: no plan that would need more is worth easing. */
  let gain = 300;
  function tryMove(temperature: number): void {
    let draw = random();
    for (const [share, move] of MOVES) {
      draw -= share;
      if (draw < 0) {
        move();
        break;
      }
    }
    if (draw >= 0) choose([anyOf(open)], false);
    if (!timing.settle(next)) return;
    const most = currentCost - temperature * Math.log(random() + 1e-12);
    const soonest = timing.costOf(next);
    if (soonest - gain > most) return;
    const cost = timing.perfect(next);
    gain = Math.max(gain * 0.98, soonest - cost);
    if (cost > most) return;
    currentCost = cost;
    current.set(next);
    boardIsCurrent = false;
    keepBest(current, cost);
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

function sum(t: Tables, b: number, counts: (i: number) => boolean, lags: boolean): number {
  let all = 0;
  for (let i = t.next[b]!; i < t.first[b + 1]!; i += 1)
    all += (counts(i) ? t.duration[i]! : 0) + (lags ? Math.max(t.lagMin[i]!, t.lagIdeal[i]!) : 0);
  return all;
}
