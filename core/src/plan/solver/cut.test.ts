/** The two exact methods under the planner, against trying everything. */
import { cheapestAssignment } from './bound';
import { cutOf } from './cut';
import { seededRandom } from './random';

type Pull = [from: number, to: number, cost: number];

/** The cheapest set of nodes by trying every set. */
function bestSet(prices: number[], pulls: Pull[]): number {
  let least = 0;
  for (let set = 1; set < 1 << prices.length; set += 1) {
    const has = (node: number) => (set >> node) % 2 === 1;
    least = Math.min(least, costOf(prices, pulls, has));
  }
  return least;
}

const costOf = (prices: number[], pulls: Pull[], has: (node: number) => boolean): number =>
  prices.reduce((sum, price, node) => sum + (has(node) ? price : 0), 0) +
  pulls.reduce((sum, [from, to, cost]) => sum + (has(from) && !has(to) ? cost : 0), 0);

test('the set that it chooses is the cheapest of all sets, with pulls that bind and pulls that cost', () => {
  const random = seededRandom(7);
  const below = (most: number) => Math.floor(random() * most);
  let empty = 0;
  // One for all, as the planner uses it: what is left of the cut before would be found out.
  const cut = cutOf(8, 24);
  for (let run = 0; run < 400; run += 1) {
    const nodes = 2 + below(7);
    const prices = Array.from({ length: nodes }, () => below(21) - 10);
    const pulls: Pull[] = [];
    for (let n = below(24); n > 0; n -= 1) {
      const [from, to] = [below(nodes), below(nodes)];
      if (from !== to) pulls.push([from, to, random() < 0.3 ? Infinity : below(12)]);
    }
    cut.clear();
    prices.forEach((price, node) => cut.price(node, price));
    for (const [from, to, cost] of pulls) cut.pull(from, to, cost);
    const inSet = new Uint8Array(8);
    const set = new Int32Array(8);
    const size = cut.solve(inSet, set);
    expect([...set.slice(0, size)].sort()).toEqual([...inSet.keys()].filter((node) => inSet[node] === 1));
    expect([run, costOf(prices, pulls, (node) => inSet[node] === 1)]).toEqual([run, bestSet(prices, pulls)]);
    if (size === 0) empty += 1;
  }
  expect(empty).toBeGreaterThan(20);
  expect(empty).toBeLessThan(300);
});

/** The least sum of one entry a row and column, by trying every order of the columns. */
function leastSum(costs: number[][], row = 0, taken: ReadonlySet<number> = new Set()): number {
  if (row === costs.length) return 0;
  return Math.min(
    ...costs[row]!.flatMap((cost, column) =>
      taken.has(column) ? [] : [cost + leastSum(costs, row + 1, new Set([...taken, column]))],
    ),
  );
}

test('each order gets a place of its own, and no other assignment is cheaper', () => {
  const random = seededRandom(11);
  for (let run = 0; run < 120; run += 1) {
    const size = 1 + Math.floor(random() * 6);
    // Ties and zeros are the rule with orders of one kind.
    const costs = Array.from({ length: size }, () =>
      Array.from({ length: size }, () => (run % 2 ? Math.floor(random() * 5) : random() * 1000)),
    );
    expect(cheapestAssignment(costs)).toBeCloseTo(leastSum(costs), 6);
  }
  expect(cheapestAssignment([])).toBe(0);
});
