/**
 * What was found good for a coffee with a recipe, in a line: "ratio −0.5, water +2 °C, Grinder +1.5 steps".
 */
import type { Bar } from '@even-kettle/core/contract';
import type { RecipeChange } from '@even-kettle/core/plan';

const signed = (value: number): string => `${value > 0 ? '+' : '−'}${Math.abs(Math.round(value * 10) / 10)}`;

/** Empty where nothing is changed. */
export function changesInWords(
  { ratioBy = 0, waterByC = 0, grindBy = {} }: RecipeChange,
  { units, grinders }: Pick<Bar, 'units' | 'grinders'>,
): string {
  const water = units.temperature === 'F' ? `${signed(waterByC * 1.8)} °F` : `${signed(waterByC)} °C`;
  return [
    ratioBy === 0 ? null : `ratio ${signed(ratioBy)}`,
    waterByC === 0 ? null : `water ${water}`,
    ...grinders.map(({ id, name }) => (grindBy[id] ? `${name} ${signed(grindBy[id])} steps` : null)),
  ]
    .filter((part) => part !== null)
    .join(', ');
}
