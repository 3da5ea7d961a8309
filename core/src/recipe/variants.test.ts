/** A recipe under other circumstances: a very fresh coffee, a cold cup, a cup that stands under the brewer. */
import {
  DEFAULT_PLACE,
  SCHOOLS,
  brewCard,
  checkRecipe,
  withoutStep,
  type BrewCard,
  type BrewSite,
} from './index';
import { underCircumstances } from './variants';

const recipe = (id: string) => SCHOOLS.find((each) => each.id === id)!;
const card = (id: string, part: Partial<BrewSite> = {}, addition?: 'ice') =>
  brewCard(recipe(id), { cupMl: 250, ...(addition ? { addition } : {}) }, { ...DEFAULT_PLACE, ...part });
const step = (of: BrewCard, id: string) => of.steps.find((each) => each.id === id);

test('a very fresh coffee gets a deeper well, a slower first pour and ten seconds more of bloom, and the card says why', () => {
  const [usual, fresh] = [card('cone-thirds'), card('cone-thirds', { gassy: true })];
  expect([usual.bed, fresh.bed]).toEqual(['level', 'shallow well']);
  expect(step(fresh, 'bloom')!.flowGPerS).toBe(4.5);
  for (const id of ['pour-2', 'pour-3', 'pour-4'])
    expect(step(fresh, id)!.startS - step(usual, id)!.startS).toBe(10);
  expect(fresh.brewTimeS - usual.brewTimeS).toBe(10);
  expect(fresh.brewWindowS.from - usual.brewWindowS.from).toBe(10);
  // Dose, water and every target are the recipe's own.
  expect([fresh.doseG, fresh.brewWaterG]).toEqual([usual.doseG, usual.brewWaterG]);
  expect(fresh.notes[0]).toMatch(/^Roasted less than four days ago.*10 s more of bloom/);
  expect(usual.notes.join(' ')).not.toMatch(/four days/);
});

test('without a bloom only the opening is slower; what steeps stays as it is', () => {
  const [usual, fresh] = [card('cone-onepour'), card('cone-onepour', { gassy: true })];
  expect(step(fresh, 'pour')!.opening!.flowGPerS).toBeLessThan(step(usual, 'pour')!.opening!.flowGPerS);
  expect(step(fresh, 'pour')!.flowGPerS).toBe(step(usual, 'pour')!.flowGPerS);
  expect(fresh.notes[0]).not.toMatch(/bloom/);
  expect(card('press-long', { gassy: true })).toEqual(card('press-long'));
});

test('the cup is warmed with what is left in the kettle, but not for ice, nor where it stands under the brewer', () => {
  expect(step(card('cone-thirds'), 'warm-cup')).toMatchObject({ kind: 'warm', end: 'clock', attended: true });
  expect(step(card('cone-thirds', {}, 'ice'), 'warm-cup')).toBeUndefined();
  expect(step(card('sock-fours', { handHeld: true }), 'warm-cup')).toBeUndefined();
  expect(step(card('sock-fours'), 'warm-cup')).toBeDefined();
  const into = card('cone-thirds', { intoCup: true });
  expect(step(into, 'warm-cup')).toBeUndefined();
  expect(step(into, 'serve')!.name).toBe('Swirl the cup, hand over');
  expect(step(into, 'load')!.hint).toMatch(/^The cup stands under the brewer/);
  // Nothing holds a tool to a step that is not there.
  for (const hold of into.holds) for (const id of [hold.from, hold.to]) expect(step(into, id)).toBeDefined();
  const shared = brewCard(
    recipe('cone-thirds'),
    { cups: 2, eachMl: 125 },
    { ...DEFAULT_PLACE, intoCup: true },
  );
  expect(step(shared, 'warm-cup')).toBeDefined();
});

test('every school is sound under every circumstance, and each variant is made once', () => {
  for (const school of SCHOOLS)
    for (const gassy of [false, true])
      for (const coldCup of [false, true])
        for (const intoCup of [false, true]) {
          const variant = underCircumstances(school, { gassy, coldCup, intoCup });
          expect([school.id, checkRecipe(variant)]).toEqual([school.id, []]);
          expect(underCircumstances(school, { gassy, coldCup, intoCup })).toBe(variant);
        }
  expect(underCircumstances(recipe('cone-thirds'), {})).toBe(recipe('cone-thirds'));
  expect(withoutStep(recipe('cone-thirds'), 'grind').holds.some(({ tool }) => tool === 'grinder')).toBe(
    false,
  );
});

test('a recipe’s own ice is on every card of it, whatever is ordered, and counts as bypass that nobody pours', () => {
  const iced = { ...recipe('cone-thirds'), ratio: 10.2, iceTimesDose: 6 };
  const made = brewCard(iced, { doseG: 20 });
  expect(made).toMatchObject({
    brewWaterG: 204,
    addition: 'ice',
    additionG: 120,
    bypassG: 120,
    beverageG: 284,
    // Ground as it says, not finer for its ice.
    grindBand: iced.grindBand,
    servedC: 6,
  });
  expect(step(made, 'warm-cup')).toBeUndefined();
  expect(made.steps.reduce((sum, { pourG = 0 }) => sum + pourG, 0)).toBe(204);
  expect(made.notes.join(' ')).toMatch(/120 g of ice, which are the recipe’s own, into the server/);
  for (const addition of ['ice', 'milk', 'sugar'] as const)
    expect(brewCard(iced, { doseG: 20, addition })).toEqual(made);
  // A cup of any size has its share, and the card of a medium one is led back to the same dose.
  expect(brewCard(iced, { cupMl: made.beverageG })).toEqual(made);
  expect(brewCard(iced, { cupMl: 142 })).toMatchObject({ doseG: 10, additionG: 60 });
});

test('a recipe that makes several cups gives each the same share, where nobody says a size', () => {
  const three = { ...recipe('press-long'), servings: 3 };
  const each = brewCard(three, { cups: 3 });
  expect(each.doseG).toBeCloseTo(three.refDoseG, 0);
  expect(each.perCupG).toHaveLength(3);
  expect(brewCard(three, { cups: 1 }).doseG).toBeCloseTo(three.refDoseG / 3, 0);
  expect(brewCard(three, { cups: 3, eachMl: 100 }).beverageG).toBeCloseTo(300, -1);
});
