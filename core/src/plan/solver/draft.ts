/**
 * The plan during the search, on the board: built brew by brew, or changed by placing some of its brews again.
 */
import { boardOf } from './board';
import { range } from './sequence';
import { NEVER, type Tables } from './tables';

/** A second of over-booked hands costs from the first to the second of these in a move; a tool's half as much. */
const PRICES = [4, 160] as const;

/** A brew is looked for so far behind everything else, seconds. */
const REACH_S = 900;

export type Draft = {
  /** The starts of the plan that was built last. */
  start: Int32Array;
  /** Brews with steps that are still to come. */
  open: number[];
  isOpen: (brew: number) => boolean;
  /** What a brew takes with its lags, seconds. */
  lengthS: number[];
  /** The highest price of a second of over-booked hands that can be worth asking. */
  dearest: number;
  /** Orders by how soon they should be out: a mixture of promise, work and length, and some noise. */
  priority: (share: number, noise: number) => number[];
  /** Places every brew in turn: what runs, then order by order. */
  construct: (price: number, orders: number[], aroundRunning: boolean) => void;
  /** The last plan, with what it does not have placed at a price for over-booked hands. Gives whether there was any of that. */
  warm: (last: Int32Array, price: number) => boolean;
  /** Lets brews of the plan in `current` choose anew, one after another, and writes what comes of it to `wish`. */
  choose: (brews: number[], anywhere: boolean, current: Int32Array, wish: Int32Array) => void;
  /** To be told whenever `current` has become another plan. */
  stale: () => void;
};

/** @param running starts that suit the brews that have begun, the rest aside, to build around */
// eslint-disable-next-line max-lines-per-function -- one draft on one board; its parts are the functions within
export function draftOf(t: Tables, random: () => number, running: Int32Array | null): Draft {
  const board = boardOf(t);
  const isOpen = (b: number) => t.next[b]! < t.first[b + 1]!;
  const open = range(t.brews).filter(isOpen);
  const lengthS = range(t.brews).map((b) => sum(t, b, () => true, true));
  const handsS = range(t.brews).map((b) => sum(t, b, (i) => t.attended[i] === 1, false));
  // An order that counts many times would rather over-book than wait, unless that is as much dearer.
  const dearest = PRICES[1] * Math.max(1, ...t.orders.map(({ weight }) => weight));
  const isBegun = (b: number) => t.next[b]! > t.first[b]!;
  const hasFrozen = (b: number) => range(t.steps).some((i) => t.brewOf[i] === b && t.frozen[i] !== NEVER);
  /** What runs goes first, since it can give way least; then what is promised to start. */
  const bound = [
    ...holdersFirst(t, open.filter(isBegun)),
    ...open.filter((b) => !isBegun(b) && hasFrozen(b)).sort((a, b) => t.soonest[a]! - t.soonest[b]!),
  ];
  /** Until then hands or tools may be taken by what has begun, or be away. */
  const takenUntil = Math.max(
    0,
    ...t.away.map(({ to }) => to),
    ...range(t.steps)
      .filter((i) => i < t.next[t.brewOf[i]!]!)
      .map((i) => t.pinnedEnd[i]!),
  );
  let boardIsCurrent = false;

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

  function construct(price: number, orders: number[], aroundRunning: boolean): void {
    liftAll();
    if (running && aroundRunning) putAt(running, open.filter(isBegun));
    let end = endOfAll(board.start);
    const place = (b: number) => {
      if (board.finish[b] !== NEVER || !isOpen(b)) return;
      const reach = Math.max(end, takenUntil, t.soonest[b]!) + lengthS[b]! + REACH_S;
      placeOrThrow(b, price, 0, reach);
      const last = t.first[b + 1]! - 1;
      end = Math.max(end, board.start[last]! + t.duration[last]!);
    };
    bound.forEach(place);
    for (const o of orders) t.orders[o]!.brews.toSorted((a, b) => lengthS[b]! - lengthS[a]!).forEach(place);
    boardIsCurrent = false;
  }

  function priority(share: number, noise: number): number[] {
    const key = t.orders.map((order) => {
      const soonest = Math.max(...order.brews.map((b) => lengthS[b]! + t.soonest[b]!));
      const work = order.brews.reduce((all, b) => all + handsS[b]!, 0) / Math.max(0.1, order.weight);
      return share * order.dueAt + (1 - share) * soonest + 0.7 * work + noise * (random() - 0.5);
    });
    return range(t.orders.length).sort((a, b) => key[a]! - key[b]!);
  }

  function warm(starts: Int32Array, price: number): boolean {
    liftAll();
    const placed = open.filter((b) =>
      range(t.first[b + 1]! - t.next[b]!).every((n) => starts[t.next[b]! + n] !== NEVER),
    );
    putAt(starts, placed);
    const fresh = open.filter((b) => board.finish[b] === NEVER);
    for (const b of fresh) placeOrThrow(b, price, 0, t.horizon);
    boardIsCurrent = false;
    return fresh.length > 0;
  }

  function show(current: Int32Array): void {
    if (boardIsCurrent) return;
    liftAll();
    board.start.set(current);
    for (const b of open) board.put(b);
    boardIsCurrent = true;
  }

  function choose(brews: number[], anywhere: boolean, current: Int32Array, wish: Int32Array): void {
    show(current);
    const end = endOfAll(current);
    const from = Math.min(...brews.map((b) => current[t.next[b]!]!));
    const price = PRICES[0] * Math.pow(dearest / PRICES[0], random());
    for (const b of brews) board.lift(b);
    for (const b of brews) {
      const wide = anywhere || random() < 0.1;
      const reach = from + lengthS[b]! + (brews.length > 1 ? 400 : 200);
      placeOrThrow(b, price, wide ? 0 : Math.max(0, from - 200), wide ? end + 300 : reach);
    }
    wish.set(board.start);
    // The board goes back to what stands; whether this is better is seen later.
    for (const b of brews) board.lift(b);
    board.start.set(current);
    for (const b of brews) board.put(b);
  }

  return {
    start: board.start,
    open,
    isOpen,
    lengthS,
    dearest,
    priority,
    construct,
    warm,
    choose,
    stale: () => {
      boardIsCurrent = false;
    },
  };
}

function sum(t: Tables, b: number, counts: (i: number) => boolean, lags: boolean): number {
  let all = 0;
  for (let i = t.next[b]!; i < t.first[b + 1]!; i += 1)
    all += (counts(i) ? t.duration[i]! : 0) + (lags ? Math.max(t.lagMin[i]!, t.lagIdeal[i]!) : 0);
  return all;
}

/**
 * Brews that have begun, each behind those that hold what it has yet to take: a tool that is held stays so, and nobody
 * can be placed before that there. Of the rest, and where each waits for the other, the soonest goes first.
 */
function holdersFirst(t: Tables, begun: readonly number[]): number[] {
  const isHeldBy = (tool: number, b: number) =>
    t.holds[b]!.some((hold) => hold.tool === tool && hold.from < t.next[b]! && hold.to >= t.next[b]!);
  const waitsFor = (b: number, other: number) =>
    other !== b && t.holds[b]!.some(({ tool, from }) => from >= t.next[b]! && isHeldBy(tool, other));
  const left = begun.toSorted((a, b) => t.soonest[a]! - t.soonest[b]!);
  const inTurn: number[] = [];
  while (left.length > 0) {
    const free = left.findIndex((b) => !left.some((other) => waitsFor(b, other)));
    inTurn.push(...left.splice(Math.max(0, free), 1));
  }
  return inTurn;
}
