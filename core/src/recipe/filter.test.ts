/** A recipe through another filter: prepared, kept and cleaned as that filter wants, poured as itself. */
import { DEFAULT_PLACE, METHODS, PLAIN_FILTERS, SCHOOLS, brewCard, checkRecipe, withFilter } from './index';

const recipe = (id: string) => SCHOOLS.find((each) => each.id === id)!;

test('every school through every filter is sound, and pours what it poured', () => {
  for (const school of SCHOOLS)
    for (const kind of PLAIN_FILTERS) {
      const other = withFilter(school, kind);
      expect([school.id, kind, checkRecipe(other)]).toEqual([school.id, kind, []]);
      const pours = (of: typeof school) => of.steps.filter(({ phase }) => phase === 'brew');
      expect(pours(other)).toEqual(pours(school));
      expect([other.ratio, other.grindBand, other.waterC]).toEqual([
        school.ratio,
        school.grindBand,
        school.waterC,
      ]);
      expect(other.filter).toMatch(kind === 'thick-paper' ? /thick paper/ : kind);
    }
});

test('cloth in an hourglass is rinsed and kept as cloth, keeps less water, and its card says so', () => {
  const paper = recipe('hourglass-steady');
  const cloth = withFilter(paper, 'cloth');
  const [one, other] = [paper, cloth].map((each) => brewCard(each, { cupMl: 400 }, DEFAULT_PLACE));
  const step = (card: typeof one, id: string) => card!.steps.find((each) => each.id === id)!.name;
  expect([step(one, 'set-filter'), step(other, 'set-filter')]).toEqual([
    'Set and rinse the thick filter',
    'Set and rinse the reusable filter',
  ]);
  expect(step(other, 'clean')).toMatch(/Rinse the cloth/);
  expect(other!.filter).toMatch(/cloth/);
  expect(other!.retainedG / other!.doseG).toBeLessThan(one!.retainedG / one!.doseG);
  expect(withFilter(paper, 'thick-paper')).toBe(paper);
  expect(METHODS.hourglass.retentionGPerG).toBeGreaterThan(cloth.retentionGPerG!);
});

test('a recipe whose brewer is held by steps of its own keeps them, so that it still holds its brewer', () => {
  const paper = recipe('hourglass-steady');
  const steps = paper.steps.map((step) => (step.id === 'fill' ? { ...step, id: 'own-fill' } : step));
  const holds = paper.holds.map((hold) => (hold.from === 'fill' ? { ...hold, from: 'own-fill' } : hold));
  const other = withFilter({ ...paper, id: 'ours', steps, holds }, 'cloth');
  expect(other.holds).toEqual(holds);
  expect(checkRecipe(other)).toEqual([]);
  expect(other.filter).toMatch(/cloth/);
});
