/** Recipes as people say and write them: each is read right, what is doubtful is asked or marked, and any text is read quickly. */
import fc from 'fast-check';
import {
  DEFAULT_PLACE,
  brewCard,
  checkRecipe,
  recipeFromPlain,
  type BrewCard,
  type Recipe,
} from '../../recipe';
import { runsOf, seedOr } from '../../testing/random';
import { TEXTS, type TextCase } from '../../testing/recipe-texts';
import { plainFrom, readSteps, readRecipeText, type ReadPour, type ReadText } from './index';

const inShort = ({ atS, waitS, toG, path, then, cue, waterC }: ReadPour): string => {
  const start =
    atS !== undefined ? `${cue ? '~' : ''}${String(atS)}` : waitS === undefined ? '?' : `+${String(waitS)}`;
  return [start, toG, path, then, cue && atS === undefined ? 'cue' : undefined, waterC]
    .filter((part) => part !== undefined)
    .join(' ');
};

/** What was read, as the table has it. */
function asCase({ found: _, pours, stirs, unread, asked, usual, ...is }: ReadText): Omit<TextCase, 'text'> {
  return {
    is: Object.fromEntries(Object.entries(is).filter(([field]) => !usual.includes(field))),
    pours: pours.map(inShort).join(', '),
    stirs: stirs
      .map(({ times, forS }) =>
        times !== undefined ? `x${String(times)}` : forS === undefined ? '' : `/${String(forS)}`,
      )
      .join(', '),
    asks: asked,
    unread,
  };
}

/** A band is right within what is meant by the word. */
const inBand = (band: unknown, read: unknown) =>
  Array.isArray(band) && typeof read === 'number' && read >= band[0] && read <= band[1];

test.each(TEXTS.map((each) => [each.text.slice(0, 60), each] as const))(
  '%j',
  (_, { text, is, pours = '', stirs = '', asks = [], unread = [] }) => {
    const read = asCase(readRecipeText(text));
    const grindBand = inBand(is['grindBand'], read.is['grindBand'])
      ? { grindBand: read.is['grindBand'] }
      : {};
    expect(read).toEqual({ is: { ...is, ...grindBand }, pours, stirs, asks, unread });
  },
);

/** A text's card for its own dose and roast, where the text says all of a recipe. */
function cardOf(text: string): { read: ReadText; recipe: Recipe; card: BrewCard } | null {
  const read = readRecipeText(text);
  const from = plainFrom(read, 'From a text');
  if (!from.ok || read.asked.length > 0) return null;
  const made = recipeFromPlain(from.plain, 'from-a-text');
  if (!made.ok) throw new Error(`${text}: ${JSON.stringify(made.faults)}`);
  const { recipe } = made;
  const roast = read.roast ?? 'medium';
  return { read, recipe, card: brewCard(recipe, { doseG: recipe.refDoseG }, { ...DEFAULT_PLACE, roast }) };
}

test('the card asks for all that a text says, at its time: every gram, degree, stir, flame, plunge and end', () => {
  const counts: Record<string, number> = {};
  for (const { text } of TEXTS) {
    const made = cardOf(text);
    if (!made) continue;
    const { read, recipe, card } = made;
    const saying = (is: boolean, what: string) => {
      counts[what] = (counts[what] ?? 0) + 1;
      if (!is)
        throw new Error(`${what} is not on the card of: ${text}\n${JSON.stringify(card.steps, null, 1)}`);
    };
    expect(checkRecipe(recipe)).toEqual([]);
    saying(Math.abs(card.doseG - read.doseG!) < 0.06, 'dose');
    saying(Math.abs(card.brewWaterG - read.waterG!) <= 1, 'water');
    if (typeof read.waterC === 'number')
      saying(Math.abs(card.waterC - Math.min(read.waterC, 100)) < 0.2, 'temperature');
    const asked = recipe.steps.filter(({ pour }) => pour);
    read.pours.forEach(({ atS, toG, then, waterC, cue }, n) => {
      // A pour that would rise over the rim comes in parts.
      const parts = card.steps.filter(({ id }) => id === asked[n]!.id || id.startsWith(`${asked[n]!.id}-`));
      const last = parts.at(-1)!;
      // Equal pours stay equal in whole grams.
      saying(Math.abs(last.targetG! - toG!) <= 2, 'grams of a pour');
      if (typeof atS === 'number' && !cue) saying(Math.abs(parts[0]!.startS - atS) < 1, 'start of a pour');
      if (waterC !== undefined) saying(parts[0]!.waterC !== undefined, 'water of a pour');
      if (then) saying(card.steps[card.steps.indexOf(last) + 1]?.kind === then, 'what is done after a pour');
    });
    for (const { times, forS, atS } of read.stirs) {
      if (times !== undefined)
        saying(
          card.steps.some(({ stirs }) => stirs === times),
          'count of stirs',
        );
      if (forS !== undefined)
        saying(
          card.steps.some(({ kind, durationS }) => kind === 'stir' && durationS === forS),
          'seconds of a stir',
        );
      if (typeof atS === 'number' && atS > 30)
        saying(
          card.steps.some(({ startS }) => Math.abs(startS - atS) <= 1),
          'time of a stir',
        );
    }
    const begins = (id: string, atS: number) =>
      card.steps.some((step) => step.id === id && Math.abs(step.startS - atS) <= 6);
    const downS = read.plungeS ?? (read.method === 'siphon' ? undefined : read.steepS);
    if (downS !== undefined) saying(begins(read.method === 'press' ? 'plunge' : 'press', downS), 'plunge');
    if (read.flameOffS !== undefined && read.method === 'siphon')
      saying(begins('flame-off', read.flameOffS), 'flame off');
    if (typeof read.pressForS === 'number')
      saying(
        card.steps.some(({ id, durationS }) => /^pl?(?:unge|ress)$/.test(id) && durationS === read.pressForS),
        'length of a press',
      );
    if (read.bypassG !== undefined)
      saying(
        card.bypassG === Math.round(read.bypassG) && card.steps.some(({ kind }) => kind === 'bypass'),
        'bypass',
      );
    if (read.doneS)
      saying(card.brewWindowS.from <= read.doneS[1] + 11 && card.brewWindowS.to >= read.doneS[0] - 11, 'end');
  }
  // Each of these is asked of some card, and so are they all.
  expect(Object.keys(counts).toSorted()).toEqual([
    'bypass',
    'count of stirs',
    'dose',
    'end',
    'flame off',
    'grams of a pour',
    'length of a press',
    'plunge',
    'seconds of a stir',
    'start of a pour',
    'temperature',
    'time of a stir',
    'water',
    'water of a pour',
    'what is done after a pour',
  ]);
});

test.each([
  ['For dark roasts. Cone, 18 g, 290 g, 96 °C, 0:00 50 g, 0:40 rest', 'dark', 96],
  ['For light roasts. Cone, 18 g, 290 g, 97 °C, 0:00 50 g, 0:40 rest', 'light', 97],
] as const)('with its own roast the water is as it was said, near boiling too: %s', (text, roast, waterC) => {
  const { recipe } = cardOf(text)!;
  expect(checkRecipe(recipe)).toEqual([]);
  const at = (roastOfCup: typeof roast | 'medium') =>
    brewCard(recipe, { doseG: 18 }, { ...DEFAULT_PLACE, roast: roastOfCup }).waterC;
  expect(at(roast)).toBe(waterC);
  // Nothing is hotter than boiling.
  expect(at('medium')).toBeLessThanOrEqual(100);
});

test('what was read scales to another cup, with its sums exact', () => {
  const { recipe } = cardOf('cone, 17.4 g, 272 ml, 92 °C, bloom 41 g 36 s, 0:36 +94, 1:12 rest')!;
  const readings = (dose: number) =>
    brewCard(recipe, { doseG: dose })
      .steps.filter(({ pourG }) => pourG)
      .map(({ startS, targetG }) => [startS, targetG]);
  expect(readings(17.4)).toEqual([
    [0, 41],
    [36, 135],
    [72, 272],
  ]);
  // Half as much again: 61.5, 202.5 and 408 g, a gram being what a scale is read to.
  expect(readings(26.1).map(([, grams]) => grams)).toEqual([61, 202, 408]);
});

test('in a field for pours alone the first figure is a pour, and what is no pour is marked', () => {
  const pours = (text: string, inOunces = false) => {
    const read = readSteps(text, { method: 'cone', inOunces, doseG: 18, waterG: 288 });
    return [read.pours.map(inShort), read.unread];
  };
  expect(pours('0:00 41,0:36 +94,1:12 rest')).toEqual([['0 41', '36 135', '72 288'], []]);
  expect(pours('41, 0:36 +94, rest')).toEqual([['0 41', '36 135', '? 288'], []]);
  expect(pours('bloom 2x, wait 30 s, 50 %, 1:20 rest')[0]).toEqual(['0 36', '+30 144', '80 288']);
  expect(pours('0:00 1.5, 0:40 rest', true)[0]).toEqual(['0 42.5', '40 288']);
  expect(pours('swirl, 0:36 +94')[1]).toEqual(['swirl']);
  expect(pours('93 °C')[1]).toEqual(['93 °C']);
});

test('a figure that nobody used is marked, and pours in which one may be missing are asked for and not filled in', () => {
  const read = readRecipeText('cone, 18 g coffee, 300 g water, 0:00 50 g, flamingo 900 g, 1:20 rest');
  expect(read.unread).toEqual(['900 g']);
  expect(read).toMatchObject({ doseG: 18, waterG: 300, pours: [], asked: ['pours'] });
});

test.each([
  ['cone, paper, 18 g, 300 g, bloom 50 g 40 s, 0:45 rest. Lift the cloth out at 3:00.', 'filter'],
  ['cone, 18 g, 300 g, 0:00 60 g, 1:00 to 180 g, 2:00 to 300 g. Dry by 1:45.', 'doneS'],
  ['Press, 30 g, 450 g, 94 °C. Steep for 4 minutes. Plunge at 6:00.', 'plungeS'],
  ['Siphon, 25 g, 380 g. Stir 5. Steep 40 s. Flame off at 1:30.', 'flameOffS'],
  ['cone, 18 g coarse, 300 g, grind it fine, 0:00 60 g, 0:40 rest', 'grindBand'],
  ['sock, 24 g, 1:14, 90 °C. 20 g of coffee. 0:00 50 g, 0:40 rest', 'doseG'],
])('what a text says twice otherwise is asked: %s', (text, field) => {
  expect(readRecipeText(text).asked).toContain(field);
});

const piece = fc.oneof(
  fc
    .constantFrom(...TEXTS.map(({ text }) => text))
    .chain((text) =>
      fc
        .tuple(fc.nat({ max: text.length }), fc.nat({ max: text.length }))
        .map(([from, to]) => text.slice(Math.min(from, to), Math.max(from, to))),
    ),
  fc.string({ unit: 'binary', maxLength: 12 }),
  fc.stringMatching(/^[0-9:.,+ %–½/gmlsx°CF@()|\n-]{0,20}$/),
);
test('any splice of texts, figures and signs is read without a throw, and is read the same again', () => {
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 40 }), fc.integer({ min: 1, max: 400 }), (pieces, times) => {
      const text = pieces.join('').repeat(times).slice(0, 65_536);
      const read = readRecipeText(text);
      for (const { from, to } of read.found) expect(from).toBeLessThan(to);
      expect(readRecipeText(text)).toEqual(read);
    }),
    { numRuns: runsOf(60), seed: seedOr(33) },
  );
});

test('a gap of any length takes no time', () => {
  const gap = ' '.repeat(300);
  expect(readRecipeText(`15${gap}g, 250${gap}ml`).pours).toEqual([]);
});
