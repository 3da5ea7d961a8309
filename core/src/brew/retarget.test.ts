/** Spilt, overshot, forgotten, wrongly weighed: what the card asks for then. */
import { SCHOOLS, brewCard } from '../recipe';
import { T0, begun, book, cup, done, order, started } from '../testing/bench';
import { factsOf, pourOutcome, reduce, type BarEvent, type BrewState } from './index';
import { retargetedCard } from './retarget';

const at = (seconds: number) => T0 + seconds * 1000;
/** cone-thirds for 250 ml: 17.6 g, and readings of 42, 128, 214 and 285 g. */
const bloomed = (readingG?: number): BarEvent[] => [
  order('A', 0, cup('a1')),
  started('a1', 'A', 'cone-1', 0),
  done('a1.1', 'fill', 12),
  done('a1.1', 'set-filter', 24),
  done('a1.1', 'weigh', 64),
  done('a1.1', 'load', 94),
  begun('a1.1', 'bloom', 100),
  done('a1.1', 'bloom', 107, readingG),
];
const brewOf = (...events: BarEvent[]): BrewState => {
  const { state, refused } = reduce(events, book);
  expect(refused).toEqual([]);
  return state.brews['a1.1']!;
};
const targets = ({ card }: BrewState) =>
  card.steps.filter(({ targetG }) => targetG !== undefined).map(({ id, targetG }) => `${id} ${targetG}`);
const outcomeOf = (brew: BrewState) => pourOutcome(brew.planned, brew.card, factsOf(brew));
const skip = (stepId: string, seconds: number): BarEvent => ({
  id: `skip-${stepId}`,
  type: 'step-skipped',
  atMs: at(seconds),
  brewId: 'a1.1',
  stepId,
});
const dose = (doseG: number, seconds = 99): BarEvent => ({
  id: 'dose',
  type: 'dose-corrected',
  atMs: at(seconds),
  brewId: 'a1.1',
  doseG,
});

test('as planned: 42, 128, 214, 285', () => {
  expect(targets(brewOf(...bloomed()))).toEqual(['bloom 42', 'pour-2 128', 'pour-3 214', 'pour-4 285']);
});

test('an overshoot within the next target changes the next pour’s size and nothing else', () => {
  const brew = brewOf(...bloomed(60));
  expect(targets(brew)).toEqual(['bloom 42', 'pour-2 128', 'pour-3 214', 'pour-4 285']);
  const [, second] = brew.card.steps.filter(({ targetG }) => targetG !== undefined);
  // 68 g at 5 g/s instead of 86.
  expect([second!.pourG, second!.durationS]).toEqual([68, 14]);
  expect(outcomeOf(brew)).toMatchObject({
    verdict: 'over',
    offG: 18,
    final: false,
    nextTargetG: 128,
    leftOut: [],
  });
});

test('past the next target that pour is left out, and the rest share what is left in proportion', () => {
  const brew = brewOf(...bloomed(140));
  // From 140 to 285: of the 157 g that lay between 128 and 285, 85 are now 79.
  expect(targets(brew)).toEqual(['bloom 42', 'pour-3 219', 'pour-4 285']);
  expect(outcomeOf(brew)).toMatchObject({
    verdict: 'over',
    leftOut: ['First of three pours'],
    nextTargetG: 219,
  });
  // The next pour keeps its place on the timer: 1:10 less the seconds that the bloom took.
  const next = brew.card.steps.find(({ id }) => id === 'pour-3')!;
  expect([next.startS, next.lag.minS, next.lag.maxS]).toEqual([70, 56, 67].map((s, i) => (i === 0 ? 70 : s)));
});

test('past the brew water the brew is over, and says its real ratio and strength', () => {
  const brew = brewOf(...bloomed(), done('a1.1', 'pour-2', 158, 128), done('a1.1', 'pour-3', 188, 310));
  expect(targets(brew)).toEqual(['bloom 42', 'pour-2 128', 'pour-3 214']);
  expect([brew.card.brewWaterG, brew.card.ratio]).toEqual([310, 17.61]);
  expect(outcomeOf(brew)).toMatchObject({
    verdict: 'over',
    final: true,
    ratio: 17.61,
    // What the bed keeps, 2 g a gram, is in neither: (16.19 - 2) / (17.61 - 2).
    strengthShare: 0.909,
    nextTargetG: null,
  });
  // The kettle is free with the pour that came last; the swirl and the drawdown follow as before.
  expect(brew.card.holds.find(({ tool }) => tool === 'kettle')!.to).toBe('pour-3');
  expect(brew.card.steps.map(({ id }) => id).slice(-6)).toEqual([
    'pour-3',
    'swirl-end',
    'drawdown',
    'off',
    'serve',
    'clean',
  ]);
});

test('within 2 % of the brew water it is fine; short of it at the end it says so', () => {
  const end = (readingG: number) =>
    outcomeOf(
      brewOf(
        ...bloomed(),
        done('a1.1', 'pour-2', 158),
        done('a1.1', 'pour-3', 188),
        done('a1.1', 'pour-4', 215, readingG),
      ),
    );
  expect(end(290)).toMatchObject({ verdict: 'fine', final: true });
  expect(end(262)).toMatchObject({
    verdict: 'short',
    offG: -23,
    final: true,
    ratio: 14.89,
    strengthShare: 1.101,
  });
});

test('a reading of nought after the last pour says nothing of a strength that cannot be', () => {
  const brew = brewOf(
    ...bloomed(),
    done('a1.1', 'pour-2', 158),
    done('a1.1', 'pour-3', 188),
    done('a1.1', 'pour-4', 215, 0),
  );
  expect(outcomeOf(brew)).toMatchObject({ final: true, ratio: 0, strengthShare: null });
});

test('a forgotten pulse is left out, and the next one pours for both', () => {
  const brew = brewOf(...bloomed(), skip('pour-2', 150));
  expect(targets(brew)).toEqual(['bloom 42', 'pour-3 214', 'pour-4 285']);
  expect(brew.card.steps.find(({ id }) => id === 'pour-3')!.pourG).toBe(172);
});

test('a dose that was not what was said moves every target, and those already poured count as they are', () => {
  const brew = brewOf(...bloomed().slice(0, 7), dose(16), done('a1.1', 'bloom', 107));
  expect(targets(brew)).toEqual(['bloom 38', 'pour-2 116', 'pour-3 195', 'pour-4 259']);
  expect([brew.card.doseG, brew.card.ratio]).toEqual([16, 16.19]);
  // Its drawdown, 78 s at 17.6 g, follows the dose with the power that the card was laid out with: the bar's own, if any.
  const drainS = (change: object) => {
    const [first, begins, ...rest] = bloomed();
    const { card } = brewOf(first!, { ...begins, ...change } as BarEvent, ...rest.slice(0, 5), dose(13.2));
    return card.steps.find(({ kind }) => kind === 'drawdown')!.durationS;
  };
  const whole = brewOf(...bloomed()).planned.steps.find(({ kind }) => kind === 'drawdown')!.durationS;
  expect(drainS({})).toBe(Math.ceil(whole * 0.75 ** 0.35));
  expect(Math.abs(drainS({ drawdownExponent: 1 }) - whole * 0.75)).toBeLessThanOrEqual(1);
  const late = brewOf(...bloomed(130), dose(15, 110));
  expect(late.marks['bloom']).toMatchObject({ readingG: 130, targetG: 42 });
  // 130 g is past the second target at 15 g (109), so it is left out.
  expect(targets(late)).toEqual(['bloom 42', 'pour-3 192', 'pour-4 243']);
});

test('a corrected reading re-targets, undoing it brings the old targets back', () => {
  const corrected: BarEvent = {
    id: 'c',
    type: 'step-corrected',
    atMs: at(120),
    brewId: 'a1.1',
    stepId: 'bloom',
    readingG: 140,
  };
  expect(targets(brewOf(...bloomed(), corrected))).toEqual(['bloom 42', 'pour-3 219', 'pour-4 285']);
  const undone: BarEvent = { id: 'u', type: 'event-undone', atMs: at(125), eventId: 'c' };
  expect(brewOf(...bloomed(), corrected, undone)).toEqual(brewOf(...bloomed()));
});

test.each<[string, BarEvent, string]>([
  ['leaving out the first water', skip('bloom', 98), 'cannot be left out'],
  ['leaving out what is done', { ...skip('weigh', 98) }, 'done already'],
  ['a dose of another brew', dose(40), 'can still be brewed with this card'],
  [
    'a correction of what is not done',
    { id: 'c', type: 'step-corrected', atMs: at(98), brewId: 'a1.1', stepId: 'pour-2', readingG: 130 },
    'nothing to correct',
  ],
  [
    'a time before the step before it',
    { id: 'c', type: 'step-corrected', atMs: at(98), brewId: 'a1.1', stepId: 'weigh', doneMs: at(20) },
    'must stay between the steps',
  ],
])('refuses %s, in words', (_what, event, words) => {
  const { refused } = reduce([...bloomed().slice(0, 6), event], book);
  expect(refused[0]?.refusal.reason).toContain(words);
});

test('a step of a brew that another device left out is told as left out', () => {
  const { refused } = reduce([...bloomed(), skip('pour-2', 150), done('a1.1', 'pour-2', 152)], book);
  expect(refused[0]!.refusal).toMatchObject({
    code: 'already-done',
    reason: '“First of three pours” has been left out of this brew.',
  });
});

test.each([
  // What was dissolved is in so much more drink: 300 g in 320, in 360; 33 g of bypass less, and still 27 more.
  ['cone-thirds', 'ice', 20, 0.938],
  ['press-short', 'ice', 60, 0.834],
  ['sock-dense', undefined, 60, 0.918],
] as const)('%s with %s, %d g over: the drink is %d times as strong', (recipeId, addition, overG, share) => {
  const recipe = SCHOOLS.find(({ id }) => id === recipeId)!;
  const planned = brewCard(recipe, { cupMl: 300, ...(addition ? { addition } : {}) });
  const pours = planned.steps.filter(({ targetG }) => targetG !== undefined);
  const marks = Object.fromEntries(
    pours.map(({ id, targetG }, n) => [
      id,
      { doneMs: n + 1, readingG: targetG! + (n === pours.length - 1 ? overG : 0) },
    ]),
  );
  const facts = { marks, skipped: new Set<string>() };
  const outcome = pourOutcome(planned, retargetedCard(planned, facts), facts)!;
  expect(outcome.strengthShare).toBeCloseTo(share, 2);
});
