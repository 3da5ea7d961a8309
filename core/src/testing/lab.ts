/** A bar and a variant for the lab's tests. */
import { lanternPier } from '../demo';
import { variantOf, type LabVariant } from '../practice/lab';
import { T0 } from './bench';

export const bar = lanternPier(T0);
const BOATS = [4, 2, 1, 1, 1, 0.5, 3, 2, 1, 1, 0.5, 0.5];
export const line = (recipeId: string, cupMl: number, share: number) => ({
  recipeId,
  recipeVersion: 1,
  coffee: 'Saltmarsh',
  roast: 'light' as const,
  cupMl,
  share,
});
const MENU = [
  line('cone-thirds', 250, 4),
  line('cone-steady', 250, 2),
  line('sock-fours', 250, 1),
  line('press-long', 250, 1),
];
export const base = (cupsAnHour = 10): LabVariant => ({
  ...variantOf(bar, MENU, { cupsAnHour, curve: BOATS }, 'As it is'),
  hands: 1,
});
