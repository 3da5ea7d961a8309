/** How large the board can be written, so that all of it is on it: read from as far as it may be. */
import type { Board, BoardOrder } from '@even-kettle/core/plan';

/** A line's height as a share of the window's shorter side, the largest first. */
const SHARES = [1 / 6, 1 / 7, 1 / 8, 1 / 10, 1 / 12, 1 / 14, 1 / 17];
/** What a part needs beside its orders, in lines: its own name, and each queue's. */
const HEAD = 1.4;
const QUEUE_HEAD = 0.6;
export const ROW = 1.15;

export type Fit = {
  /** The height of a line, pixels. */
  line: number;
  /** How many orders of a part there is room for. */
  most: number;
};

/** @param width @param height of a part, pixels */
export function fitOf(board: Board, width: number, height: number, shorter: number): Fit {
  for (const share of SHARES) {
    const line = shorter * share;
    if ([board.ready, board.coming].every((orders) => linesOf(board, orders, width / line) * line <= height))
      return { line, most: Infinity };
  }
  const line = shorter * SHARES.at(-1)!;
  const rows = Math.floor(height / line - HEAD - QUEUE_HEAD * board.queues.length) / ROW;
  return { line, most: Math.max(1, Math.floor(rows) * perRow(board.coming, width / line) - 1) };
}

function linesOf(board: Board, orders: readonly BoardOrder[], width: number): number {
  const each = perRow(orders, width);
  const queues = board.queues.length > 1 ? board.queues.map(({ id }) => id) : [null];
  return queues.reduce((lines, id) => {
    const mine = orders.filter(({ queueId }) => id === null || queueId === id);
    return mine.length === 0 ? lines : lines + QUEUE_HEAD + Math.ceil(mine.length / each) * ROW;
  }, HEAD);
}

/** Widths in lines: a badge with its gaps, a time of day or a name beside it. */
function perRow(orders: readonly BoardOrder[], width: number): number {
  const widest = Math.max(1.6, ...orders.map(({ name = '' }) => 0.3 * name.length));
  return Math.max(1, Math.floor(width / (1.75 + widest)));
}
