/** What can still be saved: a bed too slow or too fast, water too much, a rinse forgotten, a brew forgotten. */
import { METHODS, SCHOOLS, brewCard } from '../recipe';
import { T0, begun, book, cup, done, order, started } from '../testing/bench';
import {
  factsOf,
  forgottenMs,
  pourOutcome,
  reduce,
  remakeS,
  rescueOf,
  rinseLeft,
  type BarEvent,
  type BrewState,
  type Note,
} from './index';

const at = (seconds: number) => T0 + seconds * 1000;
/** cone-thirds for 250 ml, its first water at 100 s: dry between 2:44 and 3:18 of its timer. */
const bloomed: BarEvent[] = [
  order('A', 0, cup('a1')),
  started('a1', 'A', 'cone-1', 0),
  ...[12, 24, 64, 94].map((s, n) => done('a1.1', ['fill', 'set-filter', 'weigh', 'load'][n]!, s)),
  begun('a1.1', 'bloom', 100),
  done('a1.1', 'bloom', 107),
];
const poured: BarEvent[] = [
  ...bloomed,
  done('a1.1', 'pour-2', 158),
  done('a1.1', 'pour-3', 188),
  done('a1.1', 'pour-4', 215),
];
const note = (what: Note, seconds: number): BarEvent => ({
  id: `${what}-${seconds}`,
  type: 'brew-noted',
  atMs: at(seconds),
  brewId: 'a1.1',
  note: what,
});
const brewOf = (...events: BarEvent[]): BrewState => {
  const { state, refused } = reduce(events, book);
  expect(refused).toEqual([]);
  return state.brews['a1.1']!;
};

test('a bed past its window is helped, each remedy with its share of the drawdown; within it nobody speaks', () => {
  const brew = brewOf(...poured);
  const { to } = brew.card.brewWindowS;
  expect(rescueOf(brew, at(100 + to))).toBeNull();
  const late = rescueOf(brew, at(101 + to))!;
  expect(late.runs).toBe('slow');
  const drawdownS = brew.card.steps.find(({ kind }) => kind === 'drawdown')!.durationS;
  expect(late.remedies.map(({ byS }) => byS)).toEqual([
    Math.round(-0.2 * drawdownS),
    Math.round(-0.1 * drawdownS),
  ]);
  expect(late.remedies[0]!.words).toContain('Lift the filter');
  // Said sooner, it is helped sooner; dry, nothing helps any more.
  expect(rescueOf(brewOf(...poured, note('stalled', 240)), at(241))!.runs).toBe('slow');
  expect(rescueOf(brewOf(...poured, done('a1.1', 'drawdown', 330)), at(400))).toBeNull();
});

test('too fast: while water is still to come it is poured more gently; after that the bed is swirled', () => {
  const pouring = rescueOf(brewOf(...bloomed, note('ran-fast', 120)), at(121))!;
  expect(pouring.remedies.map(({ words }) => words)).toEqual([
    'Pour what is left low and gently, in the middle',
    'Split what is left into two pours',
  ]);
  expect(pouring.remedies.every(({ byS }) => byS > 0)).toBe(true);
  const draining = rescueOf(brewOf(...poured, note('ran-fast', 220)), at(221))!;
  expect(draining.remedies.map(({ words }) => words)).toEqual([
    'Swirl once, gently: fine grounds settle over the holes',
  ]);
});

test('every method that drains has help for both; the hourglass frees its spout first', () => {
  for (const method of Object.values(METHODS)) {
    const drains = method.drawdownExponent !== null;
    expect([method.id, method.helps.slow.length > 0]).toEqual([method.id, drains]);
    expect(method.helps.slow.every(({ share }) => share < 0)).toBe(true);
    expect(method.helps.fast.every(({ share }) => share > 0)).toBe(true);
  }
  expect(METHODS.hourglass.helps.slow[0]!.words).toContain('Free the spout');
});

test('over the mark with bypass to come: so much of it is left out, and the drink is as large as planned', () => {
  const [, dense] = SCHOOLS.filter(({ method }) => method === 'sock');
  const ask = { ...cup('a1'), recipeId: dense!.id, recipeVersion: dense!.version };
  const { state } = reduce(
    [
      order('A', 0, ask),
      {
        ...started('a1', 'A', 'cone-1', 0),
        stationId: 'sock-1',
        stationName: 'Sock',
        brewerId: 'sock',
      } as BarEvent,
      ...['fill', 'set-filter', 'weigh', 'load'].map((step, n) => done('a1.1', step, 20 * (n + 1))),
      begun('a1.1', 'pour', 100),
    ],
    book,
  );
  const { planned } = state.brews['a1.1']!;
  const after = reduce([done('a1.1', 'pour', 190, planned.brewWaterG + 12)], book, state).state.brews[
    'a1.1'
  ]!;
  expect(after.card.bypassG).toBe(planned.bypassG - 12);
  expect(after.card.beverageG).toBe(planned.beverageG);
  expect(pourOutcome(planned, after.card, factsOf(after))).toMatchObject({ final: true, bypassLessG: 12 });
  // More than there is cannot be left out.
  const far = reduce([done('a1.1', 'pour', 190, planned.brewWaterG + 60)], book, state).state.brews['a1.1']!;
  expect(far.card.bypassG).toBe(0);
});

test('rinse water that stays in the server is told in figures; a remake takes as long as its card', () => {
  const card = brewCard(SCHOOLS[0]!, { cupMl: 250 });
  // 250 g of coffee and 60 g of rinse; (285 + 60) / 17.6.
  const { rinseG, strengthShare, ratio } = rinseLeft(card);
  expect([rinseG, Math.round(strengthShare * 1000), Math.round(ratio * 10)]).toEqual([60, 806, 196]);
  const first = card.steps[0]!;
  const serve = card.steps.find(({ kind }) => kind === 'serve')!;
  expect(remakeS(card)).toBe(serve.endS - first.startS);
});

test('a brew that nobody touched for long is asked after once, and again only if it is forgotten again', () => {
  const brew = brewOf(...poured);
  // Dry at about 3:05 of its timer, 285 s here; eight minutes later it is asked after.
  expect(forgottenMs(brew, at(600))).toBeNull();
  expect(forgottenMs(brew, at(900))).toBeGreaterThan(8 * 60_000);
  const answered = brewOf(...poured, note('still-brewing', 900));
  expect(forgottenMs(answered, at(2000))).toBeNull();
  const moved = brewOf(...poured, note('still-brewing', 900), done('a1.1', 'drawdown', 910));
  expect(forgottenMs(moved, at(2000))).toBeGreaterThan(0);
  const stopped = brewOf(...poured, {
    id: 'x',
    type: 'brew-abandoned',
    atMs: at(400),
    brewId: 'a1.1',
    reason: 'spilt',
  });
  expect(forgottenMs(stopped, at(4000))).toBeNull();
});
