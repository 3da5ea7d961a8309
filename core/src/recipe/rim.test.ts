/** Pours that would spill, in brewers made small on purpose. */
import { DEFAULT_PLACE, SCHOOLS, brewCard, brewerById, type Recipe } from './index';

const recipe = (id: string): Recipe => SCHOOLS.find((school) => school.id === id)!;
const inBrewer = (id: string, doseG: number, brewerId: string, maxWaterG: number, of = recipe(id)) =>
  brewCard(of, { doseG }, { ...DEFAULT_PLACE, brewer: { ...brewerById(brewerId)!, maxWaterG } });
const pours = (card: ReturnType<typeof brewCard>) => card.steps.filter(({ kind }) => kind === 'pour');

test('a bloom that is split keeps the timer with its first part, a last water with its last', () => {
  const card = inBrewer('cone-thirds', 18, 'cone-s', 30);
  const bloom = pours(card).filter(({ id }) => id.startsWith('bloom'));
  expect(bloom.length).toBeGreaterThan(1);
  expect(bloom.map(({ anchor }) => anchor)).toEqual(['start', ...bloom.slice(1).map(() => undefined)]);
  expect(bloom[0]!.startS).toBe(0);
  expect(pours(card).at(-1)!.targetG).toBe(card.brewWaterG);

  const ended: Recipe = {
    ...recipe('cone-onepour'),
    steps: recipe('cone-onepour').steps.map((step) =>
      step.id === 'pour' ? { ...step, anchor: 'end' as const } : step,
    ),
  };
  const late = pours(inBrewer('cone-onepour', 19, 'cone-s', 60, ended));
  expect(late.length).toBeGreaterThan(1);
  expect(late.map(({ anchor }) => anchor)).toEqual([...late.slice(1).map(() => undefined), 'end']);
  expect(late.at(-1)!.endS).toBe(0);
});

test('parts are pauses of at least 3 s apart, eight at the most, and what is not split stays as it was', () => {
  const card = inBrewer('hourglass-steady', 34, 'hourglass-s', 60);
  const parts = pours(card).filter(({ id }) => id.startsWith('pour-2'));
  expect(parts).toHaveLength(8);
  for (const [index, part] of parts.entries()) {
    if (index === 0) continue;
    expect(part.startS - parts[index - 1]!.endS).toBeGreaterThanOrEqual(3);
    expect(part.lag.idealS).toBe(part.startS - parts[index - 1]!.endS);
  }
  expect(parts.reduce((sum, { pourG }) => sum + pourG!, 0)).toBe(
    card.brewWaterG - card.steps.find(({ id }) => id === 'bloom')!.targetG!,
  );
  const whole = brewCard(recipe('hourglass-steady'), { doseG: 34 });
  expect(inBrewer('hourglass-steady', 34, 'hourglass-s', 400)).toEqual(whole);
  expect(pours(inBrewer('hourglass-steady', 34, 'hourglass-s', 100))[0]).toEqual(pours(whole)[0]);
});

test('what steeps or stands over a flame is never split: its brewer either holds it or does not', () => {
  expect(pours(inBrewer('press-long', 18, 'press-350', 100))).toHaveLength(1);
  expect(pours(inBrewer('siphon-late', 26, 'siphon-m', 100))).toHaveLength(0);
  // A pour that ends by eye and has no drawdown to fit the drain to is left alone as well.
  expect(pours(inBrewer('sock-dense', 24, 'sock', 100))).toHaveLength(1);
});

test('a later pour waits for the parts before it, and the card says by how much', () => {
  const card = inBrewer('cone-thirds', 20, 'cone-s', 60);
  const notes = card.notes.join(' ');
  expect(notes).toMatch(/in \d parts with \d+ s/);
  const starts = card.steps
    .filter(({ id }) => ['pour-2.1', 'pour-3.1', 'pour-4.1'].includes(id))
    .map(({ startS }) => startS);
  expect(starts[1]!).toBeGreaterThan(70);
  expect(starts[2]! - starts[1]!).toBeGreaterThanOrEqual(30);
});
