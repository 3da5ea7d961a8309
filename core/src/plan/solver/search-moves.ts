/**
 * The moves of the search: each takes the plan that stands and writes another wish for it.
 */
import type { Draft } from './draft';
import { range } from './sequence';
import type { Tables } from './tables';

/** @returns makes one move, drawn at random, from `current` to `next` */
// eslint-disable-next-line max-lines-per-function -- one move is one function within, all on the same two plans
export function searchMoves(
  t: Tables,
  random: () => number,
  draft: Draft,
  current: Int32Array,
  next: Int32Array,
): () => void {
  const { open, isOpen, lengthS } = draft;
  const free = range(t.steps).filter((i) => i >= t.next[t.brewOf[i]!]!);
  const whole = (below: number) => Math.floor(random() * below);
  const choose = (brews: number[], anywhere: boolean) => draft.choose(brews, anywhere, current, next);
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

  return () => {
    let draw = random();
    for (const [share, move] of MOVES) {
      draw -= share;
      if (draw < 0) return move();
    }
    choose([anyOf(open)], false);
  };
}
