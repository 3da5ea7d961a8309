/**
 * For knowing, second by second, how many hands and tools are taken. Counts are kept per second in typed arrays from
 * `now` on; anything before counts as free, since the past cannot be booked.
 */
import type { PlanProblem } from './problem';

export type Ledger = {
  /** How many seconds from `now` up to each second (that one left out) have all hands taken. */
  handsFullUpTo: () => Int32Array;
  toolFree: (tool: string, from: number, to: number) => boolean;
  takeHands: (from: number, to: number, who: string) => void;
  takeTool: (tool: string, from: number, to: number, who: string) => void;
  /** Who has the hands, or a tool, in a stretch of time; the last to end, which is the one that frees it. */
  whoFrees: (tool: string | null, from: number, to: number) => { who: string; end: number } | null;
};

type Booking = { tool: string | null; from: number; to: number; who: string };

/** A ledger from the problem's `now` for `seconds`. */
export function openLedger(problem: PlanProblem, seconds: number): Ledger {
  const { now } = problem;
  const handsTaken = new Int16Array(seconds);
  const toolsTaken = new Map(Object.keys(problem.tools).map((tool) => [tool, new Int16Array(seconds)]));
  const bookings: Booking[] = [];
  for (const gap of problem.away ?? []) add(handsTaken, gap.from - now, gap.to - now, gap.hands);

  return {
    handsFullUpTo: () => {
      const upTo = new Int32Array(seconds + 1);
      for (let second = 0; second < seconds; second += 1)
        upTo[second + 1] = upTo[second]! + (handsTaken[second]! >= problem.hands ? 1 : 0);
      return upTo;
    },
    toolFree: (tool, from, to) => under(toolsTaken.get(tool)!, from - now, to - now, problem.tools[tool]!),
    takeHands: (from, to, who) => {
      add(handsTaken, from - now, to - now, 1);
      bookings.push({ tool: null, from, to, who });
    },
    takeTool: (tool, from, to, who) => {
      const taken = toolsTaken.get(tool);
      if (taken) add(taken, from - now, to - now, 1);
      bookings.push({ tool, from, to, who });
    },
    whoFrees: (tool, from, to) => {
      const inTheWay = bookings.filter(
        (booking) => booking.tool === tool && booking.from < to && from < booking.to,
      );
      const last = inTheWay.reduce<Booking | null>(
        (latest, booking) => (latest && latest.to >= booking.to ? latest : booking),
        null,
      );
      return last && { who: last.who, end: last.to };
    },
  };
}

function add(counts: Int16Array, from: number, to: number, by: number): void {
  for (let second = Math.max(0, from); second < Math.min(to, counts.length); second += 1)
    counts[second]! += by;
}

function under(counts: Int16Array, from: number, to: number, limit: number): boolean {
  for (let second = Math.max(0, from); second < Math.min(to, counts.length); second += 1) {
    if (counts[second]! >= limit) return false;
  }
  return true;
}
