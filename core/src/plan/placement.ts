/**
 * Where one brew can go among what is booked already. Worked out backwards over its steps and seconds, so that a start
 * is known to lead to the end of the brew before anything is placed: no trial, no dead end.
 */
import type { Ledger } from './ledger';
import type { PlanBrew } from './problem';

export type Placed = { start: number; end: number };

/** For the steps of a brew from `first` on: the seconds at which each can start so that all after it find hands too. */
export type Openings = { first: number; now: number; perStep: Uint8Array[] };

/**
 * The openings of a brew's steps from `first` on. For step i at second s: hands are free for its whole length, and
 * some start of step i + 1 within that step's lag window is an opening too. Linear in steps x seconds, by running counts.
 * @param seconds how far ahead is looked
 */
export function openingsOf(
  ledger: Ledger,
  brew: PlanBrew,
  first: number,
  now: number,
  seconds: number,
): Openings {
  const fullUpTo = ledger.handsFullUpTo();
  const perStep: Uint8Array[] = [];
  let nextUpTo: Int32Array | null = null;
  // Where the next step may start, counted from the end of this one.
  let soonest = 0;
  let latest = 0;
  for (let index = brew.steps.length - 1; index >= first; index -= 1) {
    const { duration, attended, lag } = brew.steps[index]!;
    const open = new Uint8Array(seconds);
    const upTo = new Int32Array(seconds + 1);
    let count = 0;
    for (let start = 0; start < seconds; start += 1) {
      const end = start + duration < seconds ? start + duration : seconds;
      let isOpen = !attended || fullUpTo[end] === fullUpTo[start];
      if (isOpen && nextUpTo !== null) {
        const from = end + soonest;
        const to = end + latest + 1;
        isOpen = from < seconds && nextUpTo[to < seconds ? to : seconds]! > nextUpTo[from]!;
      }
      if (isOpen) {
        open[start] = 1;
        count += 1;
      }
      upTo[start + 1] = count;
    }
    perStep[index - first] = open;
    nextUpTo = upTo;
    soonest = lag.min;
    latest = lag.max ?? seconds;
  }
  return { first, now, perStep };
}

/** The first opening of the first of the steps at or after a time; null where there is none in sight. */
export function firstOpening(openings: Openings, from: number): number | null {
  const at = openings.perStep[0]!.indexOf(1, Math.max(0, from - openings.now));
  return at < 0 ? null : at + openings.now;
}

/** The opening of a step nearest to a time, within bounds; of two as near, the later. Null where there is none. */
export function nearestOpening(
  openings: Openings,
  step: number,
  ideal: number,
  soonest: number,
  latest: number,
): number | null {
  const open = openings.perStep[step - openings.first]!;
  const isOpen = (time: number) => time >= soonest && time <= latest && open[time - openings.now] === 1;
  const middle = Math.min(Math.max(ideal, soonest), latest);
  const reach = Math.max(latest - middle, middle - soonest);
  for (let away = 0; away <= reach; away += 1) {
    if (isOpen(middle + away)) return middle + away;
    if (isOpen(middle - away)) return middle - away;
  }
  return null;
}

/** The steps from the openings' first on, that one at `start` (an opening), each other as near to its ideal as there is an opening. */
export function follow(openings: Openings, brew: PlanBrew, start: number): Placed[] {
  const placed: Placed[] = [];
  let previousEnd = start;
  for (let index = openings.first; index < brew.steps.length; index += 1) {
    const { duration, lag } = brew.steps[index]!;
    const horizon = openings.now + openings.perStep[0]!.length;
    const latest = lag.max === null ? horizon : previousEnd + lag.max;
    const at =
      index === openings.first
        ? start
        : nearestOpening(openings, index, previousEnd + lag.ideal, previousEnd + lag.min, latest);
    if (at === null) throw new Error(`${brew.id}: an opening led nowhere; the horizon is too short.`);
    placed.push({ start: at, end: at + duration });
    previousEnd = at + duration;
  }
  return placed;
}
