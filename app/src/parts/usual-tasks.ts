/**
 * The opening and the closing list of a bar that has written none of its own: what its bench needs.
 */
import type { DayList } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { brewerOf } from '@even-kettle/core/plan';
import { METHODS } from '@even-kettle/core/recipe';
import { WORDS } from './words';

export type Task = { id: string; name: string };
type TaskId = keyof typeof WORDS.taskNames;

export function usualTasks(bar: Bar, list: DayList): Task[] {
  const methods = bar.stations.flatMap(({ brewerId }) => {
    const brewer = brewerOf(bar, brewerId);
    return brewer ? [METHODS[brewer.method]] : [];
  });
  const hasCloth = bar.cloths.length > 0;
  const hasFlame = bar.burners > 0 && methods.some(({ heatedIn }) => heatedIn !== 'kettle');
  const hasPress = methods.some(({ pressedBy }) => pressedBy !== null);
  const ids: (TaskId | false)[] =
    list === 'opening'
      ? ['water', 'rinse', 'stock', hasCloth && 'cloths', hasFlame && 'glass', 'scales', 'cups', 'menu']
      : [
          'kettles',
          hasFlame && 'gas',
          'grinders',
          hasCloth && 'keepCloths',
          hasPress && 'presses',
          'milk',
          'drain',
          'descale',
        ];
  return ids.flatMap((id) => (id === false ? [] : [{ id, name: WORDS.taskNames[id] }]));
}

export const tasksOf = (bar: Bar, list: DayList): Task[] => bar[list] ?? usualTasks(bar, list);
