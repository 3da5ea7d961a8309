/** What the lab's tests simulate: the demo's bar, and a menu of one line. */
import { lanternPier } from '@even-kettle/core/demo';
import type { LabLine } from '@even-kettle/core/practice';

export const LAB_BAR = lanternPier(Date.UTC(2026, 0, 5, 8));
export const LAB_MENU: LabLine[] = [
  { recipeId: 'cone-thirds', recipeVersion: 2, coffee: 'Saltmarsh', roast: 'light', cupMl: 250, share: 1 },
];
