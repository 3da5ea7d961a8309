/**
 * Which things are worth moving together: the set with the least total price, where some pull others along. A minimum
 * cut by Dinic's blocking flows (E. A. Dinic, 1970), on arrays that are used again for every cut.
 */
const TINY = 1e-9;

export type Cut = {
  clear: () => void;
  /** Adds to what it costs to have a node in the set; negative is a gain. */
  price: (node: number, cost: number) => void;
  /** What it costs to have one in the set and not the other; Infinity where it is pulled along. */
  pull: (from: number, to: number, cost: number) => void;
  /** Marks the cheapest set (empty where nothing gains); gives its size. */
  solve: (inSet: Uint8Array, set: Int32Array) => number;
};

// eslint-disable-next-line max-lines-per-function -- one graph in shared arrays; its parts are the functions within
export function cutOf(nodes: number, arcs: number): Cut {
  const source = nodes;
  const sink = nodes + 1;
  const head = new Int32Array(nodes + 2);
  const most = 2 * (arcs + nodes);
  const nextArc = new Int32Array(most);
  const to = new Int32Array(most);
  const room = new Float64Array(most);
  const unary = new Float64Array(nodes);
  const level = new Int32Array(nodes + 2);
  const at = new Int32Array(nodes + 2);
  const queue = new Int32Array(nodes + 2);
  let count = 0;

  const arc = (a: number, b: number, capacity: number) => {
    to[count] = b;
    room[count] = capacity;
    nextArc[count] = head[a]!;
    head[a] = count;
    to[count + 1] = a;
    room[count + 1] = 0;
    nextArc[count + 1] = head[b]!;
    head[b] = count + 1;
    count += 2;
  };

  function reach(): boolean {
    level.fill(-1);
    level[source] = 0;
    queue[0] = source;
    let end = 1;
    for (let n = 0; n < end; n += 1) {
      const a = queue[n]!;
      for (let e = head[a]!; e >= 0; e = nextArc[e]!) {
        const b = to[e]!;
        if (level[b]! >= 0 || room[e]! <= TINY) continue;
        level[b] = level[a]! + 1;
        queue[end] = b;
        end += 1;
      }
    }
    return level[sink]! >= 0;
  }

  function push(a: number, most: number): number {
    if (a === sink) return most;
    for (; at[a]! >= 0; at[a] = nextArc[at[a]!]!) {
      const e = at[a]!;
      const b = to[e]!;
      if (room[e]! <= TINY || level[b] !== level[a]! + 1) continue;
      const pushed = push(b, Math.min(most, room[e]!));
      if (pushed > 0) {
        room[e]! -= pushed;
        room[e ^ 1]! += pushed;
        return pushed;
      }
    }
    return 0;
  }

  return {
    clear: () => {
      head.fill(-1);
      unary.fill(0);
      count = 0;
    },
    price: (node, cost) => {
      unary[node]! += cost;
    },
    pull: (from, node, cost) => arc(from, node, cost),
    solve: (inSet, set) => {
      let gains = false;
      for (let n = 0; n < nodes; n += 1) {
        if (unary[n]! < -TINY) {
          arc(source, n, -unary[n]!);
          gains = true;
        } else if (unary[n]! > TINY) arc(n, sink, unary[n]!);
      }
      if (!gains) return 0;
      while (reach()) {
        at.set(head);
        while (push(source, Infinity) > 0);
      }
      let size = 0;
      for (let n = 0; n < nodes; n += 1) {
        if (level[n]! < 0) continue;
        inSet[n] = 1;
        set[size] = n;
        size += 1;
      }
      return size;
    },
  };
}
