/**
 * Where one brew would stand best among the others: dynamic programming over its steps and the seconds they may begin at,
 * over-booking allowed at a price. Letters are those of the tables (`tables.ts`); besides, `n` is a step counted from the
 * brew's next one, `k` a point of its grid, `lo` the second that the grid begins at.
 */
import type { Board, Prices } from './board';
import { BENT_PER_S, FROZEN_PER_S, LATE_PER_S, APART_PER_S, TOLD_PER_S } from './price';
import { NEVER, type Tables } from './tables';

const { abs, ceil, floor, max, min } = Math;

const OUT_OF_REACH = 1e16;

/** Starts are looked for this far apart, seconds; the timing that follows is exact to the second. */
const GRID = 3;

/** Who has the hands and the tools, second by second. */
export type Occupancy = Pick<Board, 'start' | 'finish'> & {
  handsTaken: Int16Array;
  toolsTaken: readonly Int16Array[];
  /** By tool: how many brews have it in use. */
  holders: Int32Array;
};

// eslint-disable-next-line max-lines-per-function -- one placement in shared arrays; its parts are the functions within
export function placementOn(
  t: Tables,
  { start, finish, handsTaken, toolsTaken, holders }: Occupancy,
): Board['place'] {
  const size = t.horizon + 2;
  // Room for the placement, made once. By step of the brew and grid point: the least that it costs from there on.
  const longest = max(1, ...t.problem.brews.map((brew) => brew.steps.length));
  const fromHere = Array.from({ length: longest }, () => new Float64Array(size));
  const rest = new Float64Array(size);
  const handsPrice = new Float64Array(size);
  const toolPrice = Array.from(t.units, () => new Float64Array(size));
  const queue = new Int32Array(size);
  const queued = new Float64Array(size);
  /** By step of the brew: where its grid begins after `lo`, and its first and last point that can be part of a whole brew. */
  const phase = new Int32Array(longest);
  const firstPoint = new Int32Array(longest);
  const lastPoint = new Int32Array(longest);
  const grids = Int32Array.from({ length: t.brews }, (_, b) => gridOf(t, b));

  function layGrid(next: number, end: number, grid: number, reach: number): void {
    let least = 0;
    phase[0] = 0;
    for (let i = next; i < end; i += 1) {
      const n = i - next;
      if (n > 0) {
        least += t.duration[i - 1]! + t.lagMin[i]!;
        const fixed = t.lagMin[i] === t.lagMax[i];
        phase[n] = fixed ? (phase[n - 1]! + t.duration[i - 1]! + t.lagMin[i]!) % grid : 0;
      }
      firstPoint[n] = max(0, ceil((least - phase[n]!) / grid));
    }
    let after = 0;
    for (let i = end - 1; i >= next; i -= 1) {
      after += t.duration[i]!;
      lastPoint[i - next] = floor((reach - after - phase[i - next]!) / grid);
      after += t.lagMin[i]!;
    }
  }

  /** What the brew's finish adds to one of its orders, by the second of it, as the others of the order stand. */
  function finishPriceOf(b: number, o: number): (at: number) => number {
    const { brews, dueAt, promisedAt, weight, serveWithin } = t.orders[o]!;
    let last = -NEVER;
    let first = NEVER;
    for (const other of brews) {
      const at = other === b ? NEVER : finish[other]!;
      if (at === NEVER) continue;
      if (at > last) last = at;
      if (at < first) first = at;
    }
    return (at) => {
      const latest = at > last ? at : last;
      const late = latest - dueAt;
      const apart = latest - (at < first ? at : first) - serveWithin;
      const told = latest > promisedAt ? TOLD_PER_S * (latest - promisedAt) : 0;
      return (
        told + weight * (latest + (late > 0 ? LATE_PER_S * late : 0) + (apart > 0 ? APART_PER_S * apart : 0))
      );
    };
  }

  /**
   * rest[k] = the least over the points of the next step within its lag of what it costs from there, and of the lag's
   * penalty. Wide windows by two running minima, since the penalty is a straight line on either side of the ideal.
   */
  function afterLag(n: number, step: number, grid: number): void {
    const of = fromHere[n + 1]!;
    const from = firstPoint[n]!;
    const to = lastPoint[n]!;
    // A next point that is j further on starts grid * j + offset after this step's end.
    const offset = phase[n + 1]! - phase[n]! - t.duration[step - 1]!;
    const soonest = ceil((t.lagMin[step]! - offset) / grid);
    const latest = min(floor((t.lagMax[step]! - offset) / grid), lastPoint[n + 1]! - from);
    const ideal = t.lagIdeal[step]! - offset;
    const penalty = t.penalty[step]!;
    if (latest - soonest <= 6) {
      for (let k = from; k <= to; k += 1) {
        let least = OUT_OF_REACH;
        const end = min(k + latest, lastPoint[n + 1]!);
        for (let q = max(k + soonest, firstPoint[n + 1]!); q <= end; q += 1) {
          const off = grid * (q - k) - ideal;
          const cost = of[q]! + penalty * (off < 0 ? -off : off);
          if (cost < least) least = cost;
        }
        rest[k] = least;
      }
      return;
    }
    const turn = min(max(ceil(ideal / grid), soonest), latest);
    rest.fill(OUT_OF_REACH, from, to + 1);
    slide(n, turn, latest, grid, penalty, ideal);
    if (turn > soonest) slide(n, soonest, turn - 1, grid, -penalty, ideal);
  }

  /** Lowers rest[k] to the running minimum over the next step's points from k + a to k + b of its cost + slope * (lag - ideal). */
  function slide(n: number, a: number, b: number, grid: number, slope: number, ideal: number): void {
    const of = fromHere[n + 1]!;
    const least = firstPoint[n + 1]!;
    const step = slope * grid;
    let head = 0;
    let tail = 0;
    let coming = min(lastPoint[n]! + b, lastPoint[n + 1]!);
    for (let k = lastPoint[n]!; k >= firstPoint[n]!; k -= 1) {
      for (; coming >= k + a && coming >= least; coming -= 1) {
        const value = of[coming]! + step * coming;
        while (tail > head && queued[tail - 1]! >= value) tail -= 1;
        queue[tail] = coming;
        queued[tail] = value;
        tail += 1;
      }
      while (tail > head && queue[head]! > k + b) head += 1;
      if (tail === head) continue;
      const cost = queued[head]! - step * k - slope * ideal;
      if (cost < rest[k]!) rest[k] = cost;
    }
  }

  function place(b: number, prices: Prices, from: number, to: number): boolean {
    const next = t.next[b]!;
    const end = t.first[b + 1]!;
    if (next === end) return true;
    const begun = next > t.first[b]!;
    const lo = max(t.soonest[b]!, begun ? 0 : from);
    const hi = min(t.horizon, to);
    const grid = grids[b]!;
    layGrid(next, end, grid, hi - lo);
    if (lastPoint[0]! < firstPoint[0]!) return false;
    priceUp(handsPrice, handsTaken, t.hands, prices.hands, lo, hi);
    for (const { tool, from: first, to: last } of t.holds[b]!) {
      if (last < next) continue;
      // What is held already is held, also where more hold it than there is of it: that is no reason to hurry.
      const limit = first < next ? max(t.units[tool]!, holders[tool]!) : t.units[tool]!;
      priceUp(toolPrice[tool]!, toolsTaken[tool]!, limit, prices.tool, lo, hi);
    }

    for (let i = end - 1; i >= next; i -= 1) {
      const n = i - next;
      const here = fromHere[n]!;
      const d = t.duration[i]!;
      const k0 = firstPoint[n]!;
      const k1 = lastPoint[n]!;
      const s0 = lo + phase[n]!;
      if (i === end - 1) rest.fill(0, k0, k1 + 1);
      else afterLag(n, i + 1, grid);
      if (t.attended[i])
        for (let k = k0, s = s0 + k0 * grid; k <= k1; k += 1, s += grid)
          here[k] = rest[k]! + handsPrice[s + d]! - handsPrice[s]!;
      else for (let k = k0; k <= k1; k += 1) here[k] = rest[k]!;
      if (i === t.serve[b])
        for (const o of t.ordersOf[b]!) {
          const priceAt = finishPriceOf(b, o);
          const outS = s0 + d + t.coolS[b]!;
          for (let k = k0; k <= k1; k += 1) here[k]! += priceAt(outS + k * grid);
        }
      for (const { tool, from: holdFrom, to: holdTo } of t.holds[b]!) {
        const price = toolPrice[tool]!;
        if (i === holdTo) for (let k = k0; k <= k1; k += 1) here[k]! += price[s0 + k * grid + d]!;
        if (i === holdFrom) for (let k = k0; k <= k1; k += 1) here[k]! -= price[s0 + k * grid]!;
      }
      const keep = t.frozen[i]!;
      if (keep !== NEVER)
        for (let k = k0; k <= k1; k += 1) {
          const off = abs(s0 + k * grid - keep);
          here[k]! += FROZEN_PER_S * off;
        }
    }
    return follow(b, lo, grid);
  }

  /** Sets the starts along the cheapest way. */
  function follow(b: number, lo: number, grid: number): boolean {
    const next = t.next[b]!;
    const begun = next > t.first[b]!;
    let least = OUT_OF_REACH / 2;
    let at = -1;
    for (let k = firstPoint[0]!; k <= lastPoint[0]!; k += 1) {
      let cost = fromHere[0]![k]!;
      if (begun) {
        const lag = lo + k * grid - t.pinnedEnd[next - 1]!;
        cost += t.penalty[next]! * abs(lag - t.lagIdeal[next]!);
        if (lag > t.lagMax[next]!) cost += BENT_PER_S * (lag - t.lagMax[next]!);
      }
      if (cost < least) {
        least = cost;
        at = k;
      }
    }
    if (at < 0) return false;
    let end = begin(next, lo + at * grid);
    for (let i = next + 1; i < t.first[b + 1]!; i += 1) {
      const n = i - next;
      const origin = lo + phase[n]!;
      const last = min(lastPoint[n]!, floor((end + t.lagMax[i]! - origin) / grid));
      let leastHere = OUT_OF_REACH;
      let point = -1;
      for (let k = max(firstPoint[n]!, ceil((end + t.lagMin[i]! - origin) / grid)); k <= last; k += 1) {
        const cost = fromHere[n]![k]! + t.penalty[i]! * abs(origin + k * grid - end - t.lagIdeal[i]!);
        if (cost < leastHere) {
          leastHere = cost;
          point = k;
        }
      }
      if (point >= 0) end = begin(i, origin + point * grid);
    }
    return true;

    function begin(i: number, at: number): number {
      start[i] = at;
      return at + t.duration[i]!;
    }
  }

  return place;
}

/** Running sums of the price of each second, so that a stretch costs a difference. */
function priceUp(
  into: Float64Array,
  taken: Int16Array,
  limit: number,
  price: number,
  from: number,
  to: number,
): void {
  let sum = 0;
  into[from] = 0;
  for (let s = from; s < to; s += 1) {
    if (taken[s]! >= limit) sum += price;
    into[s + 1] = sum;
  }
}

/** Every second where a coarser grid could step over a narrow window, or over a start that is promised. */
function gridOf(t: Tables, b: number): number {
  for (let i = t.next[b]!; i < t.first[b + 1]!; i += 1) {
    const width = t.lagMax[i]! - t.lagMin[i]!;
    if (t.frozen[i] !== NEVER || (i > t.next[b]! && width > 0 && width < GRID)) return 1;
  }
  return GRID;
}
