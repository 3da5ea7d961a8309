/** Every sentence of every words file, and what is said of every method, without a hole in it. */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { SCHOOLS, brewCard, type BrewCard } from '@even-kettle/core/recipe';
import { stepLessonOf } from '@even-kettle/core/recipe/step-lessons';
import { METRIC, type Units } from '@even-kettle/core/units';
import { NOTHING_ASKED } from '../places/recipes/asked';
import { convert } from '../places/recipes/conversion';
import { factsOf, otherCupInWords } from '../places/recipes/facts';
import { OUNCES, TEST_BAR } from '../testing/bar';

/** What no sentence holds: what is missing, two spaces, a full stop after nothing, a figure that nobody rounded. */
const HOLE = /undefined|NaN|null|\[object| {2}| \.|\bto\.|\d\.\d{4}/;
/** One of something that is counted as several. */
const ONE_OF_MANY =
  /(?<!Cone )\b1 (brews|changes|cups|days|lines|minutes|orders|pours|shifts|stations|steps|things|tins|tries)\b/;

const src = join(__dirname, '..');
const files = readdirSync(src, { recursive: true, encoding: 'utf8' }).filter((file) =>
  /words\.ts$/.test(file),
);

/** The sentences of a words file; those that take names and counts with one, none and several of each. */
function sentences(words: unknown, path: string): [string, string][] {
  if (typeof words === 'string') return [[path, words]];
  if (typeof words === 'function')
    return ([1, 2, 'Cone 1'] as const).flatMap((given): [string, string][] => {
      let said: unknown;
      try {
        said = (words as (...values: unknown[]) => unknown)(...Array<unknown>(words.length + 3).fill(given));
      } catch {
        // It takes something else than names and counts; the places' own tests say it.
        return [];
      }
      return typeof said === 'string' ? [[`${path}(${given})`, said]] : [];
    });
  if (typeof words !== 'object' || words === null) return [];
  return Object.entries(words).flatMap(([key, value]) => sentences(value, `${path}.${key}`));
}

test('no sentence of any words file has a hole', () => {
  const all = files.flatMap((file) =>
    sentences((jest.requireActual(join(src, file)) as { WORDS?: unknown }).WORDS, file),
  );
  expect(all.length).toBeGreaterThan(1500);
  expect(all.filter(([, said]) => HOLE.test(said) || ONE_OF_MANY.test(said))).toEqual([]);
});

const keysOf = (words: unknown): string[] =>
  typeof words === 'object' && words !== null
    ? Object.entries(words).flatMap(([key, value]) => [key, ...keysOf(value)])
    : [];

test('every sentence is called by what it is for, in four words at most, and never by a sentence cut off', () => {
  const keys = files.flatMap((file) =>
    keysOf((jest.requireActual(join(src, file)) as { WORDS?: unknown }).WORDS).map((key) => `${file} ${key}`),
  );
  expect(keys.length).toBeGreaterThan(1000);
  expect(keys.filter((key) => key.split(' ')[1]!.split(/(?=[A-Z0-9])/).length > 4)).toEqual([]);
});

const of = (recipe: (typeof SCHOOLS)[number], units: Units): string[] => {
  const card: BrewCard = brewCard(recipe, { doseG: recipe.refDoseG });
  const lessons = card.steps.flatMap((step) => Object.values(stepLessonOf(step, card) ?? {}));
  const made = convert(recipe, { ...NOTHING_ASKED, text: units === METRIC ? '300' : '10' }, TEST_BAR, units);
  const facts = made.ok ? factsOf(recipe, TEST_BAR, units, made) : [];
  return [
    ...lessons,
    otherCupInWords(recipe, units),
    ...facts.flatMap(({ name, value }) => [name, value]),
    ...card.notes,
  ].filter((said) => said !== null);
};

test.each(SCHOOLS.map((recipe) => [recipe.id, recipe] as const))(
  'what is said of %s has no hole, in either kind of units',
  (_id, recipe) => {
    for (const units of [METRIC, OUNCES])
      expect(of(recipe, units).filter((said) => HOLE.test(said))).toEqual([]);
  },
);
