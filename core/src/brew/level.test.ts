/** How full the drawn vessels are, from the marks of a real brew. */
import { CARD_VERSION, SCHOOLS, bookOf } from '../recipe';
import { EMPTY_BAR, bedShowsMs, levelOf, reduce, type BarEvent } from './index';

const book = bookOf(SCHOOLS);
const T0 = 1_000_000_000;

/** A brew with its steps done when its card has them, up to a moment from the anchor. */
function brewUpTo(recipeId: string, brewerId: string, cupMl: number, untilS: number) {
  const cup = { cupId: 'c', recipeId, recipeVersion: 1, coffee: 'x', roast: 'medium' as const, cupMl };
  const start: BarEvent[] = [
    { id: 'o', type: 'order-taken', atMs: T0, orderId: 'A', cups: [cup] },
    {
      id: 's',
      type: 'brew-started',
      atMs: T0,
      brewId: 'c.1',
      orderId: 'A',
      cupId: 'c',
      stationId: 's',
      stationName: 'S',
      brewerId,
      altitudeM: 0,
      kettlePowerW: 1200,
      kettleFilledAtC: 90,
      prepVersion: CARD_VERSION,
    },
  ];
  const { card } = reduce(start, book, EMPTY_BAR).state.brews['c.1']!;
  const zeroMs = T0 - card.steps[0]!.startS * 1000;
  const at = (s: number) => zeroMs + s * 1000;
  const done = card.steps
    .filter(
      (step) => step.end !== 'clock' && step.endS <= untilS && step.kind !== 'serve' && step.kind !== 'clean',
    )
    .map((step): BarEvent => ({
      id: step.id,
      type: 'step-done',
      atMs: at(step.endS),
      brewId: 'c.1',
      stepId: step.id,
    }));
  const { state, refused } = reduce([...start, ...done], book, EMPTY_BAR);
  expect(refused).toEqual([]);
  return { brew: state.brews['c.1']!, card, at };
}

test('a cone rises with each pour, falls between them, and is dry after its drawdown', () => {
  const { brew, at } = brewUpTo('cone-thirds', 'cone-m', 250, 120);
  const level = (s: number) => levelOf(brew, at(s)).level;
  expect(level(58)).toBeGreaterThan(level(42));
  expect(level(69)).toBeLessThan(level(58));
  expect(level(115)).toBeGreaterThan(0.2);
  expect(level(115)).toBeLessThan(1);
  expect(level(187)).toBeLessThan(0.02);
  const waiting = brewUpTo('cone-thirds', 'cone-m', 250, 60);
  const { target } = levelOf(waiting.brew, waiting.at(62));
  expect(target).toBeGreaterThan(levelOf(waiting.brew, waiting.at(62)).level);
});

test('a press stays as full as it was poured until it is served', () => {
  const { brew, at } = brewUpTo('press-long', 'press-350', 250, 300);
  expect(levelOf(brew, at(10)).level).toBeCloseTo(295 / 300, 2);
  expect(levelOf(brew, at(300)).level).toBeCloseTo(295 / 300, 2);
});

test('a siphon’s top is empty, fills as the water rises, and empties as it is drawn down', () => {
  const { brew, at } = brewUpTo('siphon-late', 'siphon-m', 350, 60);
  const level = (s: number) => levelOf(brew, at(s)).level;
  expect(level(30)).toBeCloseTo(422 / 430, 2);
  expect(level(83)).toBeLessThan(level(60));
  // 422 g rise in 122 s, and have risen 8 s before the coffee comes in.
  const early = brewUpTo('siphon-late', 'siphon-m', 350, -130);
  expect(levelOf(early.brew, early.at(-135)).level).toBe(0);
  expect(levelOf(early.brew, early.at(-20)).level).toBeGreaterThan(0.2);
});

test('between two pours the card can say when the bed will show; before the first and after the last it says nothing', () => {
  const { brew, at } = brewUpTo('cone-thirds', 'cone-m', 250, 60);
  const showsMs = bedShowsMs(brew, at(65))!;
  expect(showsMs).toBeGreaterThan(at(66));
  expect(showsMs).toBeLessThan(at(120));
  // Bare is bare: the drawn vessel is nearly empty then.
  expect(levelOf(brew, showsMs).level).toBeCloseTo(8 / 340, 3);
  const all = brewUpTo('cone-thirds', 'cone-m', 250, 130);
  expect(bedShowsMs(all.brew, all.at(140))).toBeNull();
  const press = brewUpTo('press-long', 'press-350', 250, 10);
  expect(bedShowsMs(press.brew, press.at(20))).toBeNull();
});
