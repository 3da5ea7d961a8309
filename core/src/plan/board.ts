/**
 * Who has the hands and the tools, second by second, while a plan is being looked for; and where one brew would stand
 * best among the others. Over-booking is allowed, at a price: a plan is good when its price is nought.
 */
import { APART_PER_S, FROZEN_BROKEN, LATE_PER_S, RELAXED_PER_S } from './price';
import { NEVER, type Tables } from './tables';

/** What a second of over-booked hands, or tool, costs. */
export type Prices = { hands: number; tool: number };

const OUT_OF_REACH = 1e14;

export type Board = {
  /** The planned start of every step; NEVER while its brew is not placed. */
  start: Int32Array;
  /** The finish of every brew; NEVER while it is not placed. */
  finish: Int32Array;
  lift: (brew: number) => void;
  put: (brew: number) => void;
  /** Sets the brew's starts to the best for these prices, begun no sooner than `from` and over by `to`; false where there is none. */
  place: (brew: number, prices: Prices, from: number, to: number, bump: Bump | null) => boolean;
};

/** A stretch of time made dearer, to push a brew out of it. */
export type Bump = { from: number; to: number; price: number };

export function boardOf(t: Tables): Board {
  const size = t.horizon + 2;
  const handsTaken = new Int16Array(size);
  for (const gap of t.away) add(handsTaken, gap.from, gap.to, gap.hands);
  const toolsTaken = Array.from(t.units, () => new Int16Array(size));
  const start = new Int32Array(t.steps).fill(NEVER);
  const finish = new Int32Array(t.brews).fill(NEVER);

  // What has begun stands, and takes its room.
  for (let b = 0; b < t.brews; b += 1) {
    for (let i = t.first[b]!; i < t.next[b]!; i += 1) {
      start[i] = t.pinnedStart[i]!;
      if (t.attended[i]) add(handsTaken, start[i]!, t.pinnedEnd[i]!, 1);
    }
    for (const { tool, from, to } of t.holds[b]!)
      if (to < t.next[b]!) add(toolsTaken[tool]!, start[from]!, t.pinnedEnd[to]!, 1);
  }

  const endOf = (i: number) => (i < t.next[t.brewOf[i]!]! ? t.pinnedEnd[i]! : start[i]! + t.duration[i]!);

  function lift(b: number): void {
    for (let i = t.next[b]!; i < t.first[b + 1]!; i += 1)
      if (t.attended[i]) add(handsTaken, start[i]!, start[i]! + t.duration[i]!, -1);
    for (const { tool, from, to } of t.holds[b]!)
      if (to >= t.next[b]!)
        add(toolsTaken[tool]!, start[from]!, endOf(to), -1);
    finish[b] = NEVER;
  }

  function put(b: number): void {
    for (let i = t.next[b]!; i < t.first[b + 1]!; i += 1)
      if (t.attended[i]) add(handsTaken, start[i]!, start[i]! + t.duration[i]!, 1);
    for (const { tool, from, to } of t.holds[b]!)
      if (to >= t.next[b]!) add(toolsTaken[tool]!, start[from]!, endOf(to), 1);
    finish[b] = endOf(t.serve[b]!);
  }

  // Room for the placement, made once: what it would cost from each step on, by its start.
  const longest = Math.max(1, ...t.problem.brews.map((brew) => brew.steps.length));
  const fromHere = Array.from({ length: longest }, () => new Float64Array(size + 1));
  const rest = new Float64Array(size + 1);
  const handsPrice = new Float64Array(size + 1);
  const toolPrice = Array.from(t.units, () => new Float64Array(size + 1));
  const finishPrice = new Float64Array(size + 1);
  const queue = new Int32Array(size + 1);

  function priceUp(
    into: Float64Array,
    taken: Int16Array,
    limit: number,
    price: number,
    lo: number,
    hi: number,
    bump: Bump | null,
  ): void {
    let sum = 0;
    into[lo] = 0;
    for (let s = lo; s < hi; s += 1) {
      if (taken[s]! >= limit) sum += price;
      if (bump !== null && s >= bump.from && s < bump.to) sum += bump.price;
      into[s + 1] = sum;
    }
  }

  /** What the brew's finish adds to its orders, by the second of it. */
  function priceFinish(b: number, lo: number, hi: number): void {
    finishPrice.fill(0, lo, hi + 1);
    for (const o of t.ordersOf[b]!) {
      const { brews, dueAt, weight, serveWithin } = t.orders[o]!;
      let last = -NEVER;
      let first = NEVER;
      for (const other of brews) {
        const at = other === b ? NEVER : finish[other]!;
        if (at === NEVER) continue;
        if (at > last) last = at;
        if (at < first) first = at;
      }
      for (let s = lo; s <= hi; s += 1) {
        const latest = s > last ? s : last;
        const apart = latest - (s < first ? s : first) - serveWithin;
        const late = latest - dueAt;
        finishPrice[s]! +=
          weight * (latest + (late > 0 ? LATE_PER_S * late : 0) + (apart > 0 ? APART_PER_S * apart : 0));
      }
    }
  }

  /**
   * rest[u] = the least of `of[u + lag]` + the lag's penalty, for a step that may start from lag.min to lag.max after u.
   * Wide windows by two running minima, since the penalty is a straight line on either side of the ideal.
   */
  function afterLag(of: Float64Array, step: number, lo: number, hi: number): void {
    const min = t.lagMin[step]!;
    const max = t.lagMax[step]!;
    const ideal = t.lagIdeal[step]!;
    const penalty = t.penalty[step]!;
    if (max === min) {
      const flat = penalty * Math.abs(min - ideal);
      const edge = Math.min(hi, hi - min);
      for (let u = lo; u <= edge; u += 1) rest[u] = of[u + min]! + flat;
      rest.fill(OUT_OF_REACH, Math.max(lo, edge + 1), hi + 1);
      return;
    }
    if (max - min <= 14) {
      for (let u = lo; u <= hi; u += 1) {
        let least = OUT_OF_REACH;
        const end = u + max < hi ? max : hi - u;
        for (let lag = min; lag <= end; lag += 1) {
          const cost = of[u + lag]! + penalty * (lag < ideal ? ideal - lag : lag - ideal);
          if (cost < least) least = cost;
        }
        rest[u] = least;
      }
      return;
    }
    const turn = Math.min(Math.max(ideal, min), max);
    slide(of, turn, Math.min(max, hi - lo), penalty, -ideal, lo, hi, false);
    if (turn > min) slide(of, min, turn, -penalty, -ideal, lo, hi, true);
  }

  /** The running minimum over s in [u + a, u + b] of of[s] + slope * (s - u + shift), u from the last to the first. */
  function slide(
    of: Float64Array,
    a: number,
    b: number,
    slope: number,
    shift: number,
    lo: number,
    hi: number,
    keep: boolean,
  ): void {
    let head = 0;
    let tail = 0;
    for (let u = hi; u >= lo; u -= 1) {
      const s = u + a;
      if (s <= hi) {
        const value = of[s]! + slope * s;
        while (tail > head && of[queue[tail - 1]!]! + slope * queue[tail - 1]! >= value) tail -= 1;
        queue[tail] = s;
        tail += 1;
      }
      while (tail > head && queue[head]! > u + b) head += 1;
      if (tail > head) {
        const at = queue[head]!;
        const least = of[at]! + slope * (at - u + shift);
        if (!keep || least < rest[u]!) rest[u] = least;
      } else if (!keep) rest[u] = OUT_OF_REACH;
    }
  }

  function place(b: number, prices: Prices, from: number, to: number, bump: Bump | null): boolean {
    const next = t.next[b]!;
    const end = t.first[b + 1]!;
    if (next === end) return true;
    const begun = next > t.first[b]!;
    const lo = Math.max(t.soonest[b]!, begun ? 0 : from);
    const hi = Math.min(t.horizon, to);
    if (lo > hi) return false;
    priceUp(handsPrice, handsTaken, t.hands, prices.hands, lo, hi, bump);
    for (const { tool, to: last } of t.holds[b]!)
      if (last >= next) priceUp(toolPrice[tool]!, toolsTaken[tool]!, t.units[tool]!, prices.tool, lo, hi, null);
    if (t.serve[b]! >= next) priceFinish(b, lo, hi);

    for (let i = end - 1; i >= next; i -= 1) {
      const here = fromHere[i - next]!;
      const d = t.duration[i]!;
      if (i === end - 1) rest.fill(0, lo, hi + 1);
      else afterLag(fromHere[i + 1 - next]!, i + 1, lo, hi);
      const edge = hi - d;
      for (let s = lo; s <= edge; s += 1) here[s] = rest[s + d]!;
      here.fill(OUT_OF_REACH, Math.max(lo, edge + 1), hi + 1);
      if (t.attended[i]) for (let s = lo; s <= edge; s += 1) here[s]! += handsPrice[s + d]! - handsPrice[s]!;
      if (i === t.serve[b]) for (let s = lo; s <= edge; s += 1) here[s]! += finishPrice[s + d]!;
      for (const { tool, from: holdFrom, to: holdTo } of t.holds[b]!) {
        const price = toolPrice[tool]!;
        if (i === holdTo) for (let s = lo; s <= edge; s += 1) here[s]! += price[s + d]!;
        if (i === holdFrom) for (let s = lo; s <= edge; s += 1) here[s]! -= price[s]!;
      }
      const keep = t.frozen[i]!;
      if (keep !== NEVER)
        for (let s = lo; s <= hi; s += 1) if (s !== keep) here[s]! += FROZEN_BROKEN + Math.abs(s - keep);
    }

    // Forwards along the cheapest way.
    let least = OUT_OF_REACH / 2;
    let at = -1;
    const first = fromHere[0]!;
    const since = begun ? t.pinnedEnd[next - 1]! : 0;
    for (let s = lo; s <= hi; s += 1) {
      let cost = first[s]!;
      if (begun) {
        const lag = s - since;
        cost += t.penalty[next]! * Math.abs(lag - t.lagIdeal[next]!);
        if (lag > t.lagMax[next]!) cost += RELAXED_PER_S * (lag - t.lagMax[next]!);
      }
      if (cost < least) {
        least = cost;
        at = s;
      }
    }
    if (at < 0) return false;
    start[next] = at;
    for (let i = next + 1; i < end; i += 1) {
      const of = fromHere[i - next]!;
      const before = start[i - 1]! + t.duration[i - 1]!;
      const latest = Math.min(hi, before + t.lagMax[i]!);
      let leastHere = OUT_OF_REACH;
      for (let s = before + t.lagMin[i]!; s <= latest; s += 1) {
        const cost = of[s]! + t.penalty[i]! * Math.abs(s - before - t.lagIdeal[i]!);
        if (cost < leastHere) {
          leastHere = cost;
          at = s;
        }
      }
      start[i] = at;
    }
    return true;
  }

  return { start, finish, lift, put, place };
}

function add(taken: Int16Array, from: number, to: number, by: number): void {
  const end = Math.min(to, taken.length);
  for (let s = Math.max(0, from); s < end; s += 1) taken[s]! += by;
}
