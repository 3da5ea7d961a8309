/** Rushes of siphons and pots on few burners, with cues that come when they like: there is always a plan that can be. */
import { runsOf, seedOr } from '../testing/random';
import { BENCH, T0, book, counter, order } from '../testing/bench';
import { checkPlan, solve, type Bench } from '../plan';
import { BREWERS, SCHOOLS, brewCard, fitsBrewer, type Recipe } from '../recipe';
import { liveShift, seededRandom } from './index';

const FIRST_SEED = seedOr(1);
const SHIFTS = runsOf(4);

/** Two of every brewer that stands over a flame. */
const bench: Bench = {
  ...BENCH,
  stations: BREWERS.flatMap(({ id, name }) =>
    [1, 2].map((nth) => ({ id: `${id}-${nth}`, name: `${name} ${nth}`, brewerId: id })),
  ),
};
const OVER_A_FLAME = SCHOOLS.filter(({ holds }) => holds.some(({ tool }) => tool === 'burner'));

function cupFor(recipe: Recipe, cupId: string) {
  const cupMl = [75, 90, 120, 250, 350].find((ml) => {
    const card = brewCard(recipe, { cupMl: ml });
    return BREWERS.some((brewer) => brewer.method === recipe.method && fitsBrewer(brewer, card));
  })!;
  return {
    cupId,
    recipeId: recipe.id,
    recipeVersion: recipe.version,
    coffee: 'Saltmarsh',
    roast: 'light' as const,
    cupMl,
  };
}

test.each(Array.from({ length: SHIFTS }, (_, n) => FIRST_SEED + n))(
  'what holds a burner keeps it in the plan while the rest of the rush waits for one (seed %d)',
  (seed) => {
    const random = seededRandom(seed);
    const among = (most: number) => Math.floor(random() * most);
    const orders = Array.from({ length: 3 }, (_, o) =>
      order(
        `O${o}`,
        o * 60,
        ...Array.from({ length: 1 + among(3) }, (__, c) =>
          cupFor(OVER_A_FLAME[among(OVER_A_FLAME.length)]!, `c${o}${c}`),
        ),
      ),
    );
    const { state } = liveShift({
      bench: { ...bench, burners: 1 + (seed % 2), hands: 1 + Number(seed % 3 === 0) },
      book,
      orders,
      fromMs: T0,
      untilMs: T0 + 2 * 3600 * 1000,
      newId: counter(),
      random,
      cueOffS: () => (random() - 0.4) * 60,
      // `solve` throws where it has only plans that break a rule.
      planner: (problem, before) => {
        const plan = solve(problem, { moves: 8, before });
        expect(checkPlan(problem, plan)).toEqual([]);
        return plan;
      },
    });
    const cups = Object.values(state.orders).flatMap((each) => each.cups);
    expect(cups.map(({ status }) => status)).toEqual(cups.map(() => 'served'));
  },
);
