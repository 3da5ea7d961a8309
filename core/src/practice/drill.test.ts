/** The pour drill: an exact hand scores high, a careless one low, and what lies between is told apart. */
import { DEFAULT_PLACE, SCHOOLS, brewCard, brewerById, type BrewCard, type Recipe } from '../recipe';
import { runsOf } from '../testing/random';
import { bedOfCard } from '../brew';
import { seededRandom } from '../rush';
import { EXERCISES, exercise, recipeDrill, shouldFlow, shouldReadG, type Drill } from './drill';
import { exactRun, scorePour, scoreTrace } from './score';
import { noisyHand, pourAtRandom, pourBy } from './scripted-hand';

const cardOf = (recipe: Recipe): BrewCard => brewCard(recipe, { doseG: recipe.refDoseG }, DEFAULT_PLACE);
const DRILLS: [string, Drill][] = [
  ...SCHOOLS.flatMap((recipe): [string, Drill][] => {
    const drill = recipeDrill(cardOf(recipe));
    return drill ? [[recipe.id, drill]] : [];
  }),
  ...EXERCISES.map((id): [string, Drill] => [id, exercise(id)]),
];
const drillOf = (name: string) => DRILLS.find(([each]) => each === name)![1];

test('recipes whose water is weighed in before have no pours to practise; all others have their card’s', () => {
  const without = SCHOOLS.filter((recipe) => !recipeDrill(cardOf(recipe))).map(({ id }) => id);
  expect(without).toEqual([
    'siphon-late',
    'siphon-slow',
    'siphon-early',
    'pot-pressure',
    'pot-heaped',
    'pot-foam',
  ]);
  const card = cardOf(SCHOOLS[0]!);
  const drill = recipeDrill(card)!;
  expect(drill.pours.map(({ startS, targetG }) => [startS, targetG])).toEqual([
    [0, 43],
    [40, 131],
    [70, 219],
    [100, 292],
  ]);
  expect(shouldReadG(drill, 44)).toBeCloseTo(43 + 4 * 5, 5);
  expect(shouldFlow(drill, 44)).toBe(5);
  expect(shouldFlow(drill, 65)).toBe(0);
});

test.each(DRILLS)('%s: exact over 95, careless under 60, random under 30', (_name, drill) => {
  expect(scorePour(exactRun(drill), drill).score).toBeGreaterThan(95);
  for (const seed of [1, 2]) {
    expect(scorePour(pourBy(noisyHand(1), drill, seededRandom(seed)), drill).score).toBeLessThan(60);
    expect(scorePour(pourAtRandom(drill, seededRandom(seed)), drill).score).toBeLessThan(30);
  }
});

test.each(DRILLS.filter(([, { dryS }]) => dryS))(
  '%s: poured exactly, the bed from above is dry within the recipe’s own window',
  (_name, drill) => {
    const { dryS } = scorePour(exactRun(drill), drill);
    expect(dryS).toBeGreaterThanOrEqual(drill.dryS!.from);
    expect(dryS).toBeLessThanOrEqual(drill.dryS!.to);
  },
);

test('twenty hands of growing noise are ranked rightly', () => {
  const ranks = ['cone-thirds', 'sock-fours', 'flat-few', 'hourglass-pulses']
    .slice(0, runsOf(2))
    .map((name) => {
      const drill = drillOf(name);
      const scores = Array.from(
        { length: 20 },
        (_, n) => scorePour(pourBy(noisyHand(n / 19), drill, seededRandom(100 + n)), drill).score,
      );
      return {
        name,
        rank: spearman(
          scores,
          scores.map((_, n) => -n),
        ),
      };
    });
  console.log(ranks.map(({ name, rank }) => `${name}: Spearman ${rank.toFixed(3)}`).join(', '));
  for (const { rank } of ranks) expect(rank).toBeGreaterThan(0.9);
});

test('the one thing that is wrong is what is advised', () => {
  const drill = drillOf('cone-thirds');
  const adviceFor = (fault: Parameters<typeof pourBy>[0]) =>
    scorePour(pourBy(fault, drill, seededRandom(3)), drill).advice;
  const fine = { straysBy: 0, flowBy: 0, lateS: 0, stopsOffG: 0 };
  expect(adviceFor(fine)).toBeNull();
  expect(adviceFor({ ...fine, stopsOffG: 25 })).toBe('overshootG');
  expect(['rhythmS', 'lineG']).toContain(adviceFor({ ...fine, lateS: 9 }));
  expect(['wallShare', 'pathOff', 'dryShare', 'uneven']).toContain(adviceFor({ ...fine, straysBy: 0.45 }));
});

test('a real pour is scored by its scale alone: what of the bed nobody saw counts for nothing', () => {
  const drill = drillOf('cone-thirds');
  const strayed = pourBy({ straysBy: 0.5, flowBy: 0, lateS: 0, stopsOffG: 0 }, drill, seededRandom(5));
  expect(scoreTrace(strayed.samples, drill)).toMatchObject({
    measures: { pathOff: null, wallShare: null, dryShare: null },
  });
  expect(scoreTrace(strayed.samples, drill).score).toBeGreaterThan(95);
  expect(scorePour(strayed, drill).score).toBeLessThan(80);
  expect(scoreTrace([], drill).score).toBeLessThan(10);
});

test('larger and smaller cups of a recipe are practised alike, and a brewer’s own card too', () => {
  for (const cupMl of [200, 400]) {
    const card = brewCard(SCHOOLS[0]!, { cupMl }, { ...DEFAULT_PLACE, brewer: brewerById('cone-m')! });
    const drill = recipeDrill(card)!;
    expect(drill.pours.at(-1)!.targetG).toBe(card.brewWaterG);
    expect(scorePour(exactRun(drill), drill).score).toBeGreaterThan(95);
    expect(bedOfCard(card, [{ startS: 0, endS: 10, pourG: 100 }]).tauS).toBeGreaterThan(0);
  }
});

/** Rank correlation; equal values share their rank. */
function spearman(a: readonly number[], b: readonly number[]): number {
  const ranks = (values: readonly number[]) =>
    values.map((value) => {
      const below = values.filter((each) => each < value).length;
      const same = values.filter((each) => each === value).length;
      return below + (same - 1) / 2;
    });
  const [x, y] = [ranks(a), ranks(b)];
  const meanOf = (values: number[]) => values.reduce((sum, each) => sum + each, 0) / values.length;
  const [mx, my] = [meanOf(x), meanOf(y)];
  const over = x.reduce((sum, each, n) => sum + (each - mx) * (y[n]! - my), 0);
  const under = Math.sqrt(
    x.reduce((sum, each) => sum + (each - mx) ** 2, 0) * y.reduce((sum, each) => sum + (each - my) ** 2, 0),
  );
  return over / under;
}
