/** What is a default says so, with how far it may be off; what the log has taught is surer. */
import { DEFAULT_PLACE, SCHOOLS, brewCard, uncertaintiesOf, type BrewSite } from './index';

const recipe = (id: string) => SCHOOLS.find((each) => each.id === id)!;
const tell = (id: string, doseG: number, part: Partial<BrewSite> = {}, calibrated = true) => {
  const place = { ...DEFAULT_PLACE, ...part };
  return uncertaintiesOf(recipe(id), brewCard(recipe(id), { doseG }, place), place, calibrated);
};
const offBy = (found: ReturnType<typeof tell>) =>
  found.map(({ about, plusMinus, unit }) => `${about} ${plusMinus} ${unit}`);

test('at its own dose with a calibrated grinder only the cup is in doubt, by what the bed may keep', () => {
  expect(offBy(tell('cone-thirds', 18))).toEqual(['beverage 4 g']);
  expect(tell('cone-thirds', 18)[0]!.why).toMatch(/usual value; a few weighed cups/);
});

test('the further from the recipe’s own dose, the less is known of its time, until the log tells', () => {
  const seconds = (doseG: number, part: Partial<BrewSite> = {}) =>
    tell('flat-few', doseG, part).find(({ about }) => about === 'time')?.plusMinus ?? 0;
  expect(seconds(24)).toBe(0);
  expect(seconds(40)).toBeGreaterThan(seconds(30));
  expect(seconds(12)).toBeGreaterThan(0);
  expect(seconds(40, { drawdownExponent: 0.8, drawdownExponentSd: 0.05 })).toBeLessThan(seconds(40) / 2);
  expect(tell('flat-few', 40).find(({ about }) => about === 'time')!.why).toContain('timed at 24 g');
});

test('what the bar has learnt makes the cup surer; steam, feel and rising water are named', () => {
  expect(offBy(tell('cone-thirds', 18, { retentionGPerG: 2.1 }))).toEqual(['beverage 1 g']);
  expect(offBy(tell('siphon-early', 25, {}, false))).toEqual([
    'beverage 11 g',
    'grind 6 bands',
    'temperature 3 °C',
  ]);
  for (const school of SCHOOLS)
    for (const { plusMinus, why } of tell(school.id, school.refDoseG, {}, false)) {
      expect(plusMinus).toBeGreaterThan(0);
      expect(why).toMatch(/^[A-Z].*\.$/);
    }
});
